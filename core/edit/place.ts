/** What every edit of time ends with. */
import {
  find,
  putEntities,
  type Element,
  type Entity,
  type Id,
  type RunList,
  type ShotDocument,
} from '../document/index.ts';
import { elementLength, runStart, setHold, timedLayers, totalLength, type Place } from '../timing/index.ts';
import { keptTimes } from './keep-times.ts';

/** A document after an edit, and the element frame the playhead belongs on. */
export interface Timed {
  readonly doc: ShotDocument;
  readonly frame: number;
}

/**
 * What every edit of an element's time ends with: cycles stay free of flashes, keys and phases keep to their drawings.
 */
export const keptFull = (before: ShotDocument, after: ShotDocument, element: Element): ShotDocument =>
  keptTimes(before, withoutFlashes(before, after, element), element);

/**
 * Keeps a cycle free of flashes after one layer's time changed: layers that ran the whole turn
 * before hold their last drawing to the end of the new turn.
 */
function withoutFlashes(before: ShotDocument, after: ShotDocument, element: Element): ShotDocument {
  if (element.time !== 'cycle') return after;
  const oldTurn = elementLength(before, element);
  const wasFull = (list: RunList) => list.period === null && totalLength(list) === oldTurn;
  const full = timedLayers(before, element).filter(({ list }) => wasFull(list));
  const turn = elementLength(after, element);
  const changed = new Map<Id, RunList>();
  for (const { list } of full) {
    const now = find(after, 'runlist', list.id);
    const missing = now ? turn - totalLength(now) : 0;
    if (now && missing > 0 && now.runs.length > 0)
      changed.set(now.id, setHold(now, now.runs.length - 1, now.runs.at(-1)!.length + missing));
  }
  return putEntities(after, ...changed.values());
}

/** Puts a changed run list in, with whatever else the edit made, and keeps cycles free of flashes. */
export function withList(
  doc: ShotDocument,
  { element }: Place,
  list: RunList,
  ...more: readonly Entity[]
): ShotDocument {
  return keptFull(doc, putEntities(doc, list, ...more), element);
}

/** The same for a document that has been changed already. */
export const settled = (before: ShotDocument, after: ShotDocument, { element }: Place): ShotDocument =>
  keptFull(before, after, element);

/** The document with the playhead on the start of a run. */
export function atRun(doc: ShotDocument, { element, timed }: Place, index: number): Timed {
  const list = find(doc, 'runlist', timed.list.id) ?? timed.list;
  const turn = elementLength(doc, element);
  const last = Math.max(0, Math.min(index, list.runs.length - 1));
  return { doc, frame: Math.max(0, Math.min(runStart(list, last, turn), turn - 1)) };
}
