/** An exposure sheet from outside, written onto a layer. */
import { putEntities, type Id, type NewId, type Run, type RunList, type ShotDocument } from '../document/index.ts';
import { joinedEqual, placeOf, refilled, slotOfNumber, withNumbersKept } from '../timing/index.ts';
import { keptFull } from './place.ts';
import { swept } from './sweep.ts';

/**
 * Has a layer show drawings by their numbers, frame by frame from its first; a number that no drawing has makes a slot that is
 * still to be drawn. Drawings that are not named any more go, as when they are deleted.
 * @param numbers of each frame; null for nothing.
 */
export function writeSheet(
  doc: ShotDocument,
  layerId: Id,
  numbers: readonly (number | null)[],
  newId: NewId,
): ShotDocument {
  const { timed, element } = placeOf(doc, layerId);
  const list = withNumbersKept(timed.list);
  const made = new Map<number, Id>();
  const slotFor = (number: number): Id => {
    const slot = slotOfNumber(list, number) ?? made.get(number) ?? newId();
    if (slotOfNumber(list, number) === null) made.set(number, slot);
    return slot;
  };
  const frames = numbers.map((number): Run => ({
    id: newId(),
    slot: number === null ? null : slotFor(number),
    length: 1,
  }));
  const next: RunList = {
    ...refilled(list, { ...list, runs: joinedEqual(frames) }),
    numbers: { ...list.numbers, ...Object.fromEntries([...made].map(([number, slot]) => [slot, number])) },
  };
  return keptFull(doc, swept(putEntities(doc, next), [list.id]), element);
}
