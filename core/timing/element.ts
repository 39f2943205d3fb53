/** The time of an element: how long it is, what shows on a frame of it, and where it falls in the shot. */
import {
  find,
  findAll,
  type Element,
  type Id,
  type Layer,
  type Placement,
  type RunList,
  type ShotDocument,
} from '../document/index.ts';
import { exposureAt, totalLength, type Exposure } from './runs.ts';

/** A layer with the run list it points at. */
export interface TimedLayer {
  readonly layer: Layer;
  readonly list: RunList;
}

/** The element's layers with their run lists, topmost first. */
export function timedLayers(doc: ShotDocument, element: Element): TimedLayer[] {
  return findAll(doc, 'layer', element.layers).flatMap((layer) => {
    const list = find(doc, 'runlist', layer.runListId);
    return list ? [{ layer, list }] : [];
  });
}

/** Frames of the element: the longest of its layers that have no repeat of their own; at least 1. */
export function elementLength(doc: ShotDocument, element: Element): number {
  const lengths = timedLayers(doc, element).map(({ list }) => (list.period === null ? totalLength(list) : 0));
  return Math.max(1, ...lengths);
}

/** What a layer shows on a frame of its element. */
export interface Shown {
  readonly exposure: Exposure;
  readonly slot: Id;
  readonly drawingId: Id;
}

/** The drawing a layer shows on a frame of its element, or null where nothing shows. */
export function shownOn(timed: TimedLayer, frame: number, turn: number): Shown | null {
  const exposure = exposureAt(timed.list, frame, turn);
  const slot = exposure?.run.slot;
  const drawingId = slot ? timed.layer.slots[slot] : undefined;
  return exposure && slot && drawingId ? { exposure, slot, drawingId } : null;
}

/**
 * The frame of an element that a placement shows on a frame of the shot, or null before its start
 * and after its end. Only cycles repeat.
 */
export function placementFrame(
  placement: Placement,
  element: Element,
  length: number,
  shotFrame: number,
): number | null {
  const since = shotFrame - placement.start;
  if (since < 0) return null;
  if (element.time !== 'cycle') return since < length ? since : null;
  if (placement.repeats !== null && since >= placement.repeats * length) return null;
  return since % length;
}
