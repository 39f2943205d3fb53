/** Edits of the time drawings are shown: holds, order, phase. */
import { modulo } from '../geometry/index.ts';
import { putEntities, type Id, type NewId, type RunList, type ShotDocument } from '../document/index.ts';
import {
  exposureAt,
  moveRuns,
  retime,
  runStart,
  setHold,
  stretchedTo,
  toldFrom,
  totalLength,
  placeOf,
  type Place,
} from '../timing/index.ts';
import { keptLayerTimes } from './keep-times.ts';
import { atRun, withList, type Timed } from './place.ts';

/** Runs of a list from one index on, as a user picks them; on a cycle they may go on across the seam. */
export interface RunSelection {
  readonly first: number;
  readonly count: number;
}

/** Indices of picked runs. @param runs how many the list has. */
export const indicesOf = ({ first, count }: RunSelection, runs: number): number[] =>
  Array.from({ length: count }, (_, i) => (first + i) % runs);

/** Frames picked runs take: the element frame on which the first begins, and how many they are. */
export function spanOf(list: RunList, selected: RunSelection, turn: number): { from: number; length: number } {
  const length = indicesOf(selected, list.runs.length).reduce((sum, index) => sum + (list.runs[index]?.length ?? 0), 0);
  return { from: runStart(list, Math.min(selected.first, list.runs.length - 1), turn), length };
}

/** Whether a run is among the picked ones. */
export const isSelected = ({ first, count }: RunSelection, index: number, runs: number): boolean =>
  (index - first + runs) % runs < count;

/** The place with its list told so that the picked runs lie side by side, and where they then begin. */
function sideBySide(place: Place, { first, count }: RunSelection): { list: RunList; first: number } {
  const { list } = place.timed;
  const length = list.period ?? place.turn;
  const goesRound = totalLength(list) === length;
  return first + count <= list.runs.length || !goesRound
    ? { list, first }
    : { list: toldFrom(list, first, length), first: 0 };
}

/** Holds what is shown on a frame for so many frames (at least 1); later ones move. */
export function holdFor(doc: ShotDocument, layerId: Id, frame: number, length: number): Timed {
  const place = placeOf(doc, layerId);
  const here = exposureAt(place.timed.list, frame, place.turn);
  if (!here || here.run.length === length) return { doc, frame };
  return atRun(withList(doc, place, setHold(place.timed.list, here.index, length)), place, here.index);
}

/** Puts a whole layer, or picked runs of it, on 1s, 2s, 3s or any other hold; the playhead stays on its drawing. */
export function layerOn(doc: ShotDocument, layerId: Id, frame: number, hold: number, selected?: RunSelection): Timed {
  const place = placeOf(doc, layerId);
  const here = exposureAt(place.timed.list, frame, place.turn);
  const { list } = place.timed;
  const next = retime(list, hold, selected && indicesOf(selected, list.runs.length));
  const edited = withList(doc, place, next);
  return here ? atRun(edited, place, here.index) : { doc: edited, frame };
}

/** Takes picked runs out and puts them back before the run that stood at `to`; the others close up. */
export function moveSelectedRuns(doc: ShotDocument, layerId: Id, selected: RunSelection, to: number): Timed {
  const place = placeOf(doc, layerId);
  const runs = place.timed.list.runs.length;
  const { list, first } = sideBySide(place, selected);
  const at = first === selected.first ? to : (to - selected.first + runs) % runs;
  const next = moveRuns(list, first, selected.count, at);
  return atRun(withList(doc, place, next), place, at > first ? at - selected.count : at);
}

/** Gives picked runs a length together, shared out as they share it now, each at least 1 frame; later ones move. */
export function stretchSelectedRuns(doc: ShotDocument, layerId: Id, selected: RunSelection, length: number): Timed {
  const place = placeOf(doc, layerId);
  const { list, first } = sideBySide(place, selected);
  return atRun(
    withList(doc, place, {
      ...list,
      runs: list.runs.toSpliced(
        first,
        selected.count,
        ...stretchedTo(list.runs.slice(first, first + selected.count), length),
      ),
    }),
    place,
    first,
  );
}

/**
 * Lets a run begin later (or earlier, below 0) by so many frames at the cost of the run before it;
 * each keeps at least one frame. On a cycle the first run's neighbour is the last, across the seam.
 */
export function rollStart(doc: ShotDocument, layerId: Id, index: number, by: number): Timed {
  const place = placeOf(doc, layerId);
  const { list } = place.timed;
  const wraps = place.element.time === 'cycle' && list.runs.length > 1;
  const before = index > 0 ? index - 1 : wraps ? list.runs.length - 1 : -1;
  const [run, other] = [list.runs[index], list.runs[before]];
  if (!run || !other) return { doc, frame: 0 };
  const moved = Math.max(1 - other.length, Math.min(run.length - 1, by));
  let next: RunList = setHold(setHold(list, index, run.length - moved), before, other.length + moved);
  if (index === 0) next = turned(next, moved, list.period ?? place.turn);
  return atRun(withList(doc, place, next), place, index);
}

const turned = (list: RunList, by: number, length: number): RunList => ({
  ...list,
  offset: modulo(list.offset + by, length),
});

/**
 * Lets a whole layer run later (or earlier, below 0) against the others by so many frames. On a cycle, and
 * in a repeat of its own, it wraps round; elsewhere frames without a drawing lead up to it, and none before
 * its first drawing are left when it comes as early as it can.
 */
export function shiftPhase(doc: ShotDocument, layerId: Id, by: number, newId: NewId): ShotDocument {
  const place = placeOf(doc, layerId);
  const { timed, turn, element } = place;
  const { list } = timed;
  if (element.time === 'cycle' || list.period !== null)
    return keptLayerTimes(doc, putEntities(doc, turned(list, by, list.period ?? turn)), element);
  const lead = list.runs[0]?.slot === null ? list.runs[0] : undefined;
  const length = Math.max(0, (lead?.length ?? 0) + by);
  const rest = list.runs.slice(lead ? 1 : 0);
  const runs = length > 0 ? [{ id: lead?.id ?? newId(), slot: null, length }, ...rest] : rest;
  return withList(doc, place, { ...list, runs });
}

/** Lets a layer show one drawing throughout, the one shown on a frame; or run with its element again. */
export function setStill(doc: ShotDocument, layerId: Id, still: boolean, frame: number): ShotDocument {
  const place = placeOf(doc, layerId);
  const { list } = place.timed;
  if (!still) return withList(doc, place, { ...list, period: null });
  const drawn = (index: number | undefined) => index !== undefined && (list.runs[index]?.slot ?? null) !== null;
  const here = exposureAt(list, frame, place.turn)?.index;
  const shown = drawn(here) ? here! : list.runs.findIndex((run) => run.slot !== null);
  return putEntities(doc, { ...(shown > 0 ? moveRuns(list, shown, 1, 0) : list), period: 1, offset: 0 });
}
