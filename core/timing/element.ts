/** The time of an element: how long it is, what shows on a frame of it, and where it falls in the shot. */
import {
  find,
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

/** Elements deeper inside one another than this are not looked for. */
export const DEEPEST = 8;

/** The placements that lie in an element, topmost first. One of an element that it lies in itself is passed over. */
export const placedInside = (doc: ShotDocument, element: Element): { placement: Placement; element: Element }[] =>
  element.layers.flatMap((id) => {
    const placement = find(doc, 'placement', id);
    const inner = find(doc, 'element', placement?.elementId);
    return placement && inner ? [{ placement, element: inner }] : [];
  });

/**
 * Frames of the element: the longest of its layers that have no repeat of their own, and of the elements in it; at least 1.
 * An element in it that loops for as long as there is room counts with one turn.
 */
export function elementLength(doc: ShotDocument, element: Element, depth = 0): number {
  const lengths = timedLayers(doc, element).map(({ list }) => (list.period === null ? totalLength(list) : 0));
  const inside = depth < DEEPEST ? placedInside(doc, element) : [];
  const ends = inside.map(({ placement, element: inner }) => {
    const turns = inner.time === 'cycle' ? (placement.repeats ?? 1) : 1;
    const { over, of } = placement.speed;
    const whole = Math.ceil((turns * elementLength(doc, inner, depth + 1) * of) / over);
    return placement.start + Math.min(placement.lasts ?? Infinity, whole);
  });
  return Math.max(1, ...lengths, ...ends);
}

/** The frames that values over time loop in: those of a cycle, or null where time ends. */
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
