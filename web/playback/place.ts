/**
 * The user's place: element, layer, frame, and what is picked. It is kept by ids of what is drawn there, not by numbers:
 * what others put in or take out before it moves nothing under the pen, and a step is undone where it was made.
 */
import { find, type Id, type RunList, type ShotDocument } from '@tallow/core/document';
import { indicesOf } from '@tallow/core/edit';
import { follower } from '@tallow/core/timing';
import { currentOf, type Current } from '../selection/current.ts';
import { type SelectedRuns, selection, setSelection } from '../selection/selection.ts';
import { playback, type Playback, setPlayback } from './playback.ts';
import { keepPlace, useDocument } from '../shot/document.ts';

/** A place with the run list it was counted on. */
interface Where {
  readonly elementId: Id;
  readonly place: string | null;
  readonly layerId: Id | null;
  readonly list: RunList | null;
  /** Frames of a turn there. */
  readonly length: number;
  readonly frame: number;
  readonly turn: number;
}

function take(): Where | undefined {
  const { frame, turn } = selection();
  const now = currentOf(useDocument.getState().doc, selection());
  if (!now) return undefined;
  const { active, length } = now;
  return {
    elementId: now.element.id,
    place: now.place,
    layerId: active?.layer.id ?? null,
    list: active?.list ?? null,
    length,
    frame,
    turn,
  };
}

/** The frame a place has in a document now, within its element. */
function frameNow(now: Current, { list, length, frame }: Pick<Where, 'list' | 'length' | 'frame'>): number {
  const after = now.active?.list;
  const moved = list && after && list.id === after.id ? follower(list, after, length, now.length).at(frame) : frame;
  return Math.max(0, Math.min(now.length - 1, moved));
}

/** A frame of what was current, in the document as it is now: where that layer shows the same drawing. */
export function frameFrom(was: Current, frame: number): number {
  const now = currentOf(useDocument.getState().doc, {
    elementId: was.element.id,
    layerId: was.active?.layer.id ?? null,
    place: was.place,
  });
  return now ? frameNow(now, { list: was.active?.list ?? null, length: was.length, frame }) : frame;
}

function bring(where: unknown): void {
  const place = where as Where;
  const { doc } = useDocument.getState();
  const now = currentOf(doc, place);
  if (!doc || now?.element.id !== place.elementId) return;
  const layerId = place.layerId && find(doc, 'layer', place.layerId) ? place.layerId : (now.active?.layer.id ?? null);
  const frame = frameNow(now, place);
  const turn = Math.min(place.turn, now.turns - 1);
  const here = selection();
  const next = { elementId: place.elementId, place: now.place, layerId, frame, turn };
  const isThere = (Object.keys(next) as (keyof typeof next)[]).every((key) => here[key] === next[key]);
  if (!isThere) setSelection(next);
}

/** What is picked, by the runs that are picked; null when none of them is there any more. */
function runsNow(selected: SelectedRuns, before: ShotDocument, after: ShotDocument): SelectedRuns | null {
  const listOf = (doc: ShotDocument) => find(doc, 'runlist', find(doc, 'layer', selected.layerId)?.runListId);
  const [old, list] = [listOf(before), listOf(after)];
  if (!old || !list) return null;
  const ids = indicesOf(selected, old.runs.length).flatMap((index) => old.runs[index]?.id ?? []);
  const places = ids.map((id) => list.runs.findIndex((run) => run.id === id)).filter((index) => index >= 0);
  const [first, last] = [places[0], places.at(-1)];
  if (first === undefined || last === undefined) return null;
  const count = ((last - first + list.runs.length) % list.runs.length) + 1;
  return { ...selected, first, count };
}

function rangeNow({ from, length }: NonNullable<Playback['range']>, moved: (frame: number) => number) {
  const [first, last] = [moved(from), moved(from + length - 1)];
  return { from: first, length: Math.max(1, last - first + 1) };
}

function follow(before: ShotDocument, after: ShotDocument): void {
  const { elementId, place: key, layerId, frame, turn, selectedRuns } = selection();
  const { range } = playback();
  const was = currentOf(before, selection());
  if (!was) return;
  // What was chosen by default is chosen from now on: a layer that comes in does not take its place.
  const wanted = { elementId: was.element.id, layerId: was.active?.layer.id ?? null, place: was.place };
  const now = currentOf(after, wanted);
  if (!now) return;
  const place = { list: was.active?.list ?? null, length: was.length };
  const next = {
    elementId: now.element.id,
    // What was chosen by default goes on being so.
    place: key === null ? null : now.place,
    layerId: now.active?.layer.id ?? null,
    frame: frameNow(now, { ...place, frame }),
    turn: Math.min(turn, now.turns - 1),
    selectedRuns: selectedRuns && runsNow(selectedRuns, before, after),
  };
  const here = { elementId, place: key, layerId, frame, turn, selectedRuns };
  if (JSON.stringify(here) !== JSON.stringify(next)) setSelection(next);
  const played = range && rangeNow(range, (each) => frameNow(now, { ...place, frame: each }));
  if (JSON.stringify(range) !== JSON.stringify(played)) setPlayback({ range: played });
}

keepPlace({ take, bring, follow });
