/** Numbers of drawings on a sheet: each slot has one, however often it is shown. */
import type { Id, RunList } from '../document/index.ts';
import { slotsInOrder } from './in-order.ts';

const known = new WeakMap<RunList, ReadonlyMap<Id, number>>();

/**
 * The number of each slot, from 1: the one it keeps, else the next free one in the order in which
 * slots first show.
 */
export function slotNumbers(list: RunList): ReadonlyMap<Id, number> {
  const kept = known.get(list);
  if (kept) return kept;
  const slots = slotsInOrder(list).map(({ slot }) => slot);
  const taken = new Set(slots.flatMap((slot) => list.numbers[slot] ?? []));
  const numbers = new Map<Id, number>();
  let next = 1;
  for (const slot of slots) {
    const own = list.numbers[slot];
    while (own === undefined && taken.has(next)) next += 1;
    numbers.set(slot, own ?? next);
    if (own === undefined) next += 1;
  }
  known.set(list, numbers);
  return numbers;
}

/** The list with every slot keeping the number it has now, so that a change of order leaves numbers alone. */
export const withNumbersKept = (list: RunList): RunList => ({
  ...list,
  numbers: Object.fromEntries(slotNumbers(list)),
});

/** The slot of a number, or null when no drawing has it. */
export function slotOfNumber(list: RunList, number: number): Id | null {
  for (const [slot, each] of slotNumbers(list)) if (each === number) return slot;
  return null;
}

/** How many runs show each slot. */
export function timesShown(list: RunList, slot: Id): number {
  return list.runs.reduce((count, run) => count + (run.slot === slot ? 1 : 0), 0);
}
