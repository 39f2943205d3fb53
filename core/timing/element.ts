/** The time of an element: how long it is, what shows on a frame of it, and where it falls in the shot. */
import {
  find,
  findAll,
  shotOf,
  type Element,
  type Folder,
  type Id,
  type Layer,
  type Placement,
  type RunList,
  type ShotDocument,
} from '../document/index.ts';
import { exposureAt, totalLength, type Exposure } from './runs.ts';

/** A layer with the run list it points at and the folder it lies in. */
export interface TimedLayer {
  readonly layer: Layer;
  readonly list: RunList;
  readonly folder: Folder | undefined;
}

/** The element's layers with their run lists, topmost first, those of folders in the folder's place. */
export function timedLayers(doc: ShotDocument, element: Element): TimedLayer[] {
  const found: TimedLayer[] = [];
  const seen = new Set<Id>();
  const take = (id: Id, folder: Folder | undefined) => {
    const layer = find(doc, 'layer', id);
    const list = find(doc, 'runlist', layer?.runListId);
    // Two people can have put one layer in two places; the first place holds.
    if (!layer || !list || seen.has(id)) return;
    seen.add(id);
    found.push({ layer, list, folder });
  };
  for (const id of element.layers) {
    const folder = find(doc, 'folder', id);
    if (folder) for (const inside of folder.layers) take(inside, folder);
    else take(id, undefined);
  }
  return found;
}

/** Whether a layer shows: it and the folder it lies in. */
export const isVisible = ({ layer, folder }: TimedLayer): boolean => layer.visible && (folder?.visible ?? true);

/** Whether a layer, or the folder it lies in, is locked. */
export const isLocked = ({ layer, folder }: TimedLayer): boolean => layer.locked || (folder?.locked ?? false);

/** Frames of the element: the longest of its layers that have no repeat of their own; at least 1. */
export function elementLength(doc: ShotDocument, element: Element): number {
  const lengths = timedLayers(doc, element).map(({ list }) => (list.period === null ? totalLength(list) : 0));
  return Math.max(1, ...lengths);
}

/** The frames values over time go round in: those of a cycle, or null where time ends. */
export const roundOf = (element: Element, length: number): number | null => (element.time === 'cycle' ? length : null);

/** What a layer shows on a frame of its element. */
export interface Shown {
  readonly exposure: Exposure;
  readonly slot: Id;
  readonly drawingId: Id;
}

/** The drawing a layer shows on a frame of its element, or null where nothing shows. */
export function shownOn(timed: Pick<TimedLayer, 'layer' | 'list'>, frame: number, turn: number): Shown | null {
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

/** Turns of an element that begin before the shot ends, at least 1; the last may be cut off. */
export function turnsIn(placement: Placement, element: Element, length: number, shotLength: number): number {
  if (element.time !== 'cycle') return 1;
  const fitting = Math.max(1, Math.ceil((shotLength - placement.start) / length));
  return placement.repeats === null ? fitting : Math.min(placement.repeats, fitting);
}

/** The placements of the shot with their elements, frontmost first. */
export function placedElements(doc: ShotDocument): { element: Element; placement: Placement }[] {
  return findAll(doc, 'plane', shotOf(doc).planes).flatMap((plane) =>
    findAll(doc, 'placement', plane.placements).flatMap((placement) => {
      const element = find(doc, 'element', placement.elementId);
      return element ? [{ element, placement }] : [];
    }),
  );
}
