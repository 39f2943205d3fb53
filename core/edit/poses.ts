/** Keys, breakdowns and in-betweens told apart; boil as a loop of its own. */
import {
  find,
  putEntities,
  type Drawing,
  type Id,
  type Layer,
  type NewId,
  type Pose,
  type Run,
  type ShotDocument,
} from '../document/index.ts';
import { exposureAt, totalLength, placeOf } from '../timing/index.ts';
import { keptFull, type Timed } from './place.ts';
import { swept } from './sweep.ts';

/** Says what some runs of a layer are for; null makes them in-betweens. @param indices of its run list. */
export function setPose(doc: ShotDocument, layerId: Id, indices: readonly number[], pose: Pose | null): ShotDocument {
  const { list } = placeOf(doc, layerId).timed;
  const poses: Record<Id, Pose> = { ...list.poses };
  for (const index of indices) {
    const slot = list.runs[index]?.slot;
    if (slot && pose) poses[slot] = pose;
    else if (slot) Reflect.deleteProperty(poses, slot);
  }
  return putEntities(doc, { ...list, poses });
}

/** The frame halfway between what shows on a frame and the next drawing, where a middle pose belongs; null without room. */
export function middleFrame(doc: ShotDocument, layerId: Id, frame: number): number | null {
  const { timed, turn } = placeOf(doc, layerId);
  const here = exposureAt(timed.list, frame, turn);
  return here && here.run.length >= 2 ? here.start + Math.floor(here.run.length / 2) : null;
}

/** How many variants of the drawing on a frame there is time for while it is held; any number on a still layer. */
export function boilRoom(doc: ShotDocument, layerId: Id, frame: number, hold: number): number {
  const { timed, turn } = placeOf(doc, layerId);
  const here = exposureAt(timed.list, frame, turn);
  if (!here) return 0;
  return timed.list.period === 1 ? Infinity : Math.ceil(here.run.length / hold) - 1;
}

/**
 * Lets the drawing on a frame boil: for as long as it is held, variants of it run round, each for `hold`
 * frames. A still layer becomes a loop of its own that long. Needs the drawing loaded.
 * @param breaths marks of the variants, the drawing itself not among them; those there is no time for are left out.
 */
export function layBoil(
  doc: ShotDocument,
  layerId: Id,
  frame: number,
  breaths: readonly Pick<Drawing, 'marks' | 'order'>[],
  hold: number,
  newId: NewId,
): Timed {
  const place = placeOf(doc, layerId);
  const { list, layer } = place.timed;
  const here = exposureAt(list, frame, place.turn);
  const drawing = find(doc, 'drawing', layer.slots[here?.run.slot ?? '']);
  if (!here?.run.slot || !drawing || boilRoom(doc, layerId, frame, hold) < 1) return { doc, frame };
  const made = breaths
    .slice(0, boilRoom(doc, layerId, frame, hold))
    .map((marks): Drawing => ({ kind: 'drawing', id: newId(), ...marks }));
  const slots = [here.run.slot, ...made.map(() => newId())];
  const own: Layer = {
    ...layer,
    slots: { ...layer.slots, ...Object.fromEntries(made.map(({ id }, i) => [slots[i + 1]!, id])) },
  };
  const loop = (length: number): Run[] => {
    const runs: Run[] = [];
    for (let left = length, i = 0; left > 0; left -= hold, i++)
      runs.push({ id: i === 0 ? here.run.id : newId(), slot: slots[i % slots.length]!, length: Math.min(hold, left) });
    return runs;
  };
  if (list.period === 1) {
    const length = slots.length * hold;
    const next = putEntities(doc, own, ...made, { ...list, runs: loop(length), period: length, offset: 0 });
    return { doc: swept(next, [list.id]), frame };
  }
  const runs = list.runs.toSpliced(here.index, 1, ...loop(here.run.length));
  return { doc: keptFull(doc, putEntities(doc, own, ...made, { ...list, runs }), place.element), frame };
}

/**
 * Lets a layer repeat by itself inside its element, after so many frames; null lets it run with the
 * element again. Its runs must fill the repeat: a shorter list is held on, a longer one goes on as it is.
 */
export function setRepeat(doc: ShotDocument, layerId: Id, period: number | null): ShotDocument {
  const place = placeOf(doc, layerId);
  const { list } = place.timed;
  if (period === null) return keptFull(doc, putEntities(doc, { ...list, period: null }), place.element);
  return putEntities(doc, {
    ...list,
    period: Math.max(2, Math.round(period)),
    offset: list.offset % Math.max(2, period),
  });
}

/** The length a layer's own repeat has if all it shows is to be seen once. */
export const defaultRepeat = (doc: ShotDocument, layerId: Id): number =>
  Math.max(2, totalLength(placeOf(doc, layerId).timed.list));
