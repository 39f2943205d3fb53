/** What begins anew when a shot opens: the desk starts at its first frame, with nothing picked. */
const fresh = new Set<() => void>();

/** Says what of a room begins anew. */
export function atOpening(begin: () => void): void {
  fresh.add(begin);
}

/** Begins everything anew. */
export function beginAnew(): void {
  for (const begin of fresh) begin();
}
