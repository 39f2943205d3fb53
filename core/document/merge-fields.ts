/** Three-way merging of the parts of a body: orders of ids, records, lists of things, single values. */
import type { Id } from './id.ts';

/** A merged body, and the fields both sides changed differently; those hold the value of `theirs`. */
export interface Merged<E> {
  readonly merged: E;
  readonly clashes: readonly string[];
}

/** Whether two plain values are the same in content. Typed arrays compare by their numbers. */
export function same(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (a instanceof Float32Array || b instanceof Float32Array) {
    return (
      a instanceof Float32Array &&
      b instanceof Float32Array &&
      a.length === b.length &&
      a.every((v, i) => Object.is(v, b[i]))
    );
  }
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const keys = Object.keys(a);
  const left = a as Record<string, unknown>;
  const right = b as Record<string, unknown>;
  return (
    keys.length === Object.keys(b).length &&
    keys.every((key) => Object.hasOwn(right, key) && same(left[key], right[key]))
  );
}

/**
 * Merges two orders of ids made from one base. What either side took out is out, what either side
 * put in is in, after the neighbour it was put behind; where both moved things, the order of `theirs` holds.
 */
export function mergeOrder(base: readonly Id[], ours: readonly Id[], theirs: readonly Id[]): Id[] {
  const inBase = new Set(base);
  const inOurs = new Set(ours);
  const inTheirs = new Set(theirs);
  const kept = (id: Id) => (inBase.has(id) ? inOurs.has(id) && inTheirs.has(id) : true);
  const weMoved = !same(
    ours.filter((id) => inBase.has(id)),
    base.filter((id) => inOurs.has(id)),
  );
  const theyMoved = !same(
    theirs.filter((id) => inBase.has(id)),
    base.filter((id) => inTheirs.has(id)),
  );
  const [lead, other] = weMoved && !theyMoved ? [ours, theirs] : [theirs, ours];
  const result = lead.filter(kept);
  const present = new Set(result);
  other.forEach((id, index) => {
    if (present.has(id) || !kept(id)) return;
    let at = -1;
    for (let before = index - 1; before >= 0 && at < 0; before--) at = result.indexOf(other[before]!);
    // Two things put behind the same neighbour stand as: the leading side's first, then the other's.
    let spot = at + 1;
    while (spot < result.length && !inBase.has(result[spot]!) && !other.includes(result[spot]!)) spot++;
    result.splice(spot, 0, id);
    present.add(id);
  });
  return result;
}

export interface MergeChoice<T> {
  readonly value: T;
  readonly clash: boolean;
}

/** Chooses between two values of a field: whoever changed it; `theirs` when both did. */
export function choose<T>(base: T, ours: T, theirs: T): MergeChoice<T> {
  if (same(ours, theirs) || same(base, ours)) return { value: theirs, clash: false };
  if (same(base, theirs)) return { value: ours, clash: false };
  return { value: theirs, clash: true };
}

/** Merges records by key; a key one side took out and the other changed stays, changed. */
export function mergeRecord<T>(
  base: Readonly<Record<Id, T>>,
  ours: Readonly<Record<Id, T>>,
  theirs: Readonly<Record<Id, T>>,
): { record: Record<Id, T>; clashes: { id: Id; ours: T }[] } {
  const record: Record<Id, T> = {};
  const clashes: { id: Id; ours: T }[] = [];
  for (const id of new Set([...Object.keys(base), ...Object.keys(theirs), ...Object.keys(ours)])) {
    const choice = choose<T | undefined>(base[id], ours[id], theirs[id]);
    const value = choice.clash ? (theirs[id] ?? ours[id]) : choice.value;
    if (value !== undefined) record[id] = value;
    const mine = ours[id];
    if (choice.clash && mine !== undefined && theirs[id] !== undefined) clashes.push({ id, ours: mine });
  }
  return { record, clashes };
}
