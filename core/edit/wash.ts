/** A wash at contact: a thing takes on a tint where an effect lies over it, and loses it again. */
import {
  constant,
  find,
  putEntities,
  type AppliedLook,
  type Id,
  type Key,
  type NewId,
  type ShotDocument,
  type Value,
} from '../document/index.ts';
import { newLook } from './looks.ts';

/** Less of the thing than this counts as not touched. */
const TOUCHED = 0.002;

/** From this much of the most that is touched on it holds: a thing that is covered for a while does not fade meanwhile. */
const FULL = 0.95;

/** A run of frames on which it is touched: the first and the last. */
export interface Contact {
  readonly from: number;
  readonly to: number;
}

/** The runs of frames on which a thing is touched. @param overlap how much of it lies under the effect on each frame, 0 to 1. */
export function contactsOf(overlap: readonly number[]): Contact[] {
  const found: Contact[] = [];
  overlap.forEach((share, frame) => {
    if (share < TOUCHED) return;
    const last = found.at(-1);
    if (last?.to === frame - 1) found[found.length - 1] = { from: last.from, to: frame };
    else found.push({ from: frame, to: frame });
  });
  return found;
}

/**
 * A strength over frames that comes in where contact begins, is most for as long as most is touched, and is gone when it ends. Where it is
 * touched on the first or the last frame it ends as it began, so that a loop closes.
 * @param max at the most that is touched. @returns a constant 0 where nothing is.
 */
export function washOver(overlap: readonly number[], max: number): Value {
  const contacts = contactsOf(overlap);
  if (contacts.length === 0) return constant(0);
  const end = overlap.length - 1;
  const largest = Math.max(...overlap);
  const at = (frame: number): number => (max * overlap[frame]!) / largest;
  const keys = new Map<number, number>();
  for (const { from, to } of contacts) {
    const run = overlap.slice(from, to + 1);
    const most = Math.max(...run);
    if (from > 0) keys.set(from - 1, 0);
    for (const nth of [run.indexOf(most), run.lastIndexOf(most)]) keys.set(from + nth, at(from + nth));
    const isFull = (share: number): boolean => share >= FULL * most;
    for (const nth of [run.findIndex(isFull), run.findLastIndex(isFull)]) keys.set(from + nth, at(from + nth));
    if (to < end) keys.set(to + 1, 0);
  }
  if (overlap[0]! >= TOUCHED || overlap[end]! >= TOUCHED) {
    const ends = Math.max(at(0), at(end));
    keys.set(0, ends);
    keys.set(end, ends);
  }
  const sorted = [...keys].sort(([a], [b]) => a - b);
  return { keys: sorted.map(([frame, value]): Key => ({ frame, value, ease: 'soft' })) };
}

/**
 * Lays a wash on a use: a tint that changes over its frames; laid again in the same colour, it takes the place of the one before.
 * @param overlap for each frame since the use began. @param max percent.
 */
export function layWash(
  doc: ShotDocument,
  placementId: Id,
  overlap: readonly number[],
  swatch: Id,
  max: number,
  newId: NewId,
): ShotDocument {
  const placement = find(doc, 'placement', placementId);
  if (!placement || contactsOf(overlap).length === 0) return doc;
  const fresh = newLook(doc, 'tint', newId);
  const before = placement.finishes.find((look) => look.kind === fresh.kind && look.swatch === swatch);
  const wash: AppliedLook = {
    ...(before ?? fresh),
    swatch,
    numbers: { strength: washOver(overlap, max) },
  };
  const others = placement.finishes.filter(({ id }) => id !== wash.id);
  return putEntities(doc, { ...placement, finishes: [...others, wash] });
}
