/** Where something stands in time: a layer with its run list and element, an element with its length, a slot on its frame. */
import { find, type Element, type Id, type ShotDocument } from '../document/index.ts';
import { elementLength, timedLayers, type TimedLayer } from './element.ts';
import { runStart } from './runs.ts';

export interface Place {
  readonly element: Element;
  readonly timed: TimedLayer;
  /** The element's length, frames. */
  readonly turn: number;
}

/** An element and its length. @throws if the shot has no such element. */
export function elementOf(doc: ShotDocument, elementId: Id): { element: Element; turn: number } {
  const element = find(doc, 'element', elementId);
  if (!element) throw new Error(`Element ${elementId} is not in this shot`);
  return { element, turn: elementLength(doc, element) };
}

/** The layer with its run list and element. @throws if the shot has no such layer. */
export function placeOf(doc: ShotDocument, layerId: Id): Place {
  const layer = find(doc, 'layer', layerId);
  const element = find(doc, 'element', layer?.elementId);
  const timed = element && timedLayers(doc, element).find((each) => each.layer.id === layerId);
  if (!element || !timed) throw new Error(`Layer ${layerId} is not in this shot`);
  return { element, timed, turn: elementLength(doc, element) };
}

/** The element frame a slot of a layer first shows on, or null when it shows nowhere. @throws if the shot has no such layer. */
export function frameOfSlot(doc: ShotDocument, layerId: Id, slot: Id): number | null {
  const { timed, turn } = placeOf(doc, layerId);
  const index = timed.list.runs.findIndex((run) => run.slot === slot);
  return index < 0 ? null : runStart(timed.list, index, turn);
}
