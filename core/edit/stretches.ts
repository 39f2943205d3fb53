/** Edits of a stretch of time, on one layer or on several together. */
import { modulo } from '../geometry/index.ts';
import {
  find,
  putEntities,
  type Drawing,
  type Id,
  type NewId,
  type Run,
  type RunList,
  type ShotDocument,
} from '../document/index.ts';
import {
  changeSpan,
  cutAt,
  exposureAt,
  exposures,
  listFrame,
  setHold,
  toldFrom,
  totalLength,
  withNumbersKept,
  elementOf,
  placeOf,
} from '../timing/index.ts';
import { atRun, keptFull, withList, type Timed } from './place.ts';
import { swept, tiedTo } from './sweep.ts';

/** Frames of an element on some of its layers. */
export interface Stretch {
  readonly layerIds: readonly Id[];
  /** Element frame. */
  readonly from: number;
  /** Frames, at least 1. */
  readonly length: number;
}

/** What becomes of the runs of a stretch. */
export type RunsChange = (runs: readonly Run[], newId: NewId) => readonly Run[];

/** Changes the runs of one list that show on a span of element frames; across the seam it counts from there. */
function changeOne(
  list: RunList,
  from: number,
  length: number,
  turn: number,
  change: RunsChange,
  newId: NewId,
): RunList {
  const round = list.period ?? turn;
  const span = Math.min(length, round);
  const local = listFrame(list, from, turn);
  const runs = (selected: readonly Run[]) => change(selected, newId);
  if (local >= totalLength(list)) return list;
  if (local + span <= totalLength(list)) return changeSpan(list, { from: local, length: span }, runs, newId);
  if (totalLength(list) !== round)
    return changeSpan(list, { from: local, length: totalLength(list) - local }, runs, newId);
  const cut = cutAt(list, local, newId);
  const at = exposures(cut).find((e) => e.start === local)?.index ?? 0;
  return changeSpan(toldFrom(cut, at, round), { from: 0, length: span }, runs, newId);
}

/**
 * Changes what some layers show on a stretch of frames, each run list once however many layers share
 * it. What follows moves on each of them; drawings that nothing shows any more go.
 */
export function changeStretch(doc: ShotDocument, stretch: Stretch, change: RunsChange, newId: NewId): Timed {
  const first = stretch.layerIds[0];
  const place = first ? placeOf(doc, first) : null;
  if (!place) return { doc, frame: stretch.from };
  const listIds = [...new Set(stretch.layerIds.flatMap((id) => find(doc, 'layer', id)?.runListId ?? []))];
  const lists = listIds.flatMap((id) => find(doc, 'runlist', id) ?? []).filter((list) => list.period !== 1);
  const changed = lists.map((list) =>
    changeOne(withNumbersKept(list), stretch.from, stretch.length, place.turn, change, newId),
  );
  const next = keptFull(doc, swept(putEntities(doc, ...changed), listIds), place.element);
  const { element, turn } = elementOf(next, place.element.id);
  const last = Math.max(0, turn - 1);
  return { doc: next, frame: element.time === 'cycle' ? stretch.from % turn : Math.min(stretch.from, last) };
}

/** Begins a run at a frame in the middle of a hold; both parts go on showing the same drawing. */
export function splitHere(doc: ShotDocument, layerId: Id, frame: number, newId: NewId): Timed {
  const place = placeOf(doc, layerId);
  const { list } = place.timed;
  const local = listFrame(list, frame, place.turn);
  const cut = local < totalLength(list) ? cutAt(list, local, newId) : list;
  return { doc: withList(doc, place, cut), frame };
}

/** Two runs of a layer change places, each with its hold. @param a, b indices. */
export function swapRuns(doc: ShotDocument, layerId: Id, a: number, b: number): Timed {
  const place = placeOf(doc, layerId);
  const list = withNumbersKept(place.timed.list);
  const [one, other] = [list.runs[a], list.runs[b]];
  if (!one || !other) return { doc, frame: 0 };
  const runs = list.runs.map((run, i) => (i === a ? other : i === b ? one : run));
  return atRun(withList(doc, place, { ...list, runs }), place, a);
}

/**
 * Holds a run longer (or shorter, below 0) at the cost of the one after it, which keeps at least one
 * frame: nothing that follows moves.
 */
export function rollEnd(doc: ShotDocument, layerId: Id, index: number, by: number): Timed {
  const place = placeOf(doc, layerId);
  const { list } = place.timed;
  const wraps = place.element.time === 'cycle' && list.runs.length > 1;
  const after = index + 1 < list.runs.length ? index + 1 : wraps ? 0 : -1;
  const [run, other] = [list.runs[index], list.runs[after]];
  if (!run || !other) return { doc, frame: 0 };
  const moved = Math.max(1 - run.length, Math.min(other.length - 1, by));
  let next = setHold(setHold(list, index, run.length + moved), after, other.length - moved);
  if (after === 0) {
    const round = list.period ?? place.turn;
    next = { ...next, offset: modulo(list.offset + moved, round) };
  }
  return atRun(withList(doc, place, next), place, index);
}

/** How many runs of its list show the drawing on a frame. */
export function shownTimes(doc: ShotDocument, layerId: Id, frame: number): number {
  const { timed, turn } = placeOf(doc, layerId);
  const slot = exposureAt(timed.list, frame, turn)?.run.slot;
  return slot ? timed.list.runs.filter((run) => run.slot === slot).length : 0;
}

/**
 * Gives the exposure on a frame a drawing of its own: a copy of what it shows, on every layer tied to
 * it. Needs those drawings loaded; does nothing where no other exposure shows it.
 */
export function makeOwn(doc: ShotDocument, layerId: Id, frame: number, newId: NewId): Timed {
  const place = placeOf(doc, layerId);
  const { list } = place.timed;
  const here = exposureAt(list, frame, place.turn);
  const old = here?.run.slot;
  if (!here || !old || shownTimes(doc, layerId, frame) < 2) return { doc, frame };
  const slot = newId();
  const copies: (Drawing | ReturnType<typeof tiedTo>[number])[] = [];
  for (const layer of tiedTo(doc, list.id)) {
    const drawing = find(doc, 'drawing', layer.slots[old]);
    if (!drawing) continue;
    const copy = { ...drawing, id: newId() };
    copies.push(copy, { ...layer, slots: { ...layer.slots, [slot]: copy.id } });
  }
  const runs = list.runs.map((run, i) => (i === here.index ? { ...run, slot } : run));
  return { doc: withList(doc, place, { ...withNumbersKept(list), runs }, ...copies), frame };
}
