/** What is current: the active element, layer, drawing and placement, worked out from document and desk. */
import {
  find,
  findAll,
  shotOf,
  type Element,
  type Id,
  type Placement,
  type ShotDocument,
  type Swatch,
} from '@tallow/core/document';
import {
  elementLength,
  isLocked,
  isVisible,
  roundOf,
  shiftAt,
  shownOn,
  timedLayers,
  turnsIn,
  type Shown,
  type TimedLayer,
} from '@tallow/core/timing';
import { multiply, translation, type Matrix } from '@tallow/core/geometry';
import { useShallow } from 'zustand/react/shallow';
import { selection, useSelection } from './selection.ts';
import { useDocument } from '../shot/document.ts';

export interface Current {
  readonly doc: ShotDocument;
  readonly element: Element;
  readonly placement: Placement | undefined;
  readonly layers: readonly TimedLayer[];
  readonly active: TimedLayer | undefined;
  /** Frames of one turn. */
  readonly length: number;
  /** Turns that begin before the shot ends. */
  readonly turns: number;
}

export function currentOf(doc: ShotDocument | null, elementId: Id | null, layerId: Id | null): Current | null {
  if (!doc) return null;
  const shot = shotOf(doc);
  const element = find(doc, 'element', elementId) ?? findAll(doc, 'element', shot.elements)[0];
  if (!element) return null;
  const layers = timedLayers(doc, element);
  const placement = findAll(doc, 'plane', shot.planes)
    .flatMap((plane) => findAll(doc, 'placement', plane.placements))
    .find((each) => each.elementId === element.id);
  const length = elementLength(doc, element);
  return {
    doc,
    element,
    placement,
    layers,
    active: layers.find(({ layer }) => layer.id === layerId) ?? firstDrawable(layers),
    length,
    turns: placement ? turnsIn(placement, element, length, shot.length) : 1,
  };
}

/** The layer a newly opened element is drawn on: its body if it has one, else the first that can be drawn on. */
function firstDrawable(layers: readonly TimedLayer[]): TimedLayer | undefined {
  const drawable = layers.filter(
    (timed) =>
      isVisible(timed) &&
      !isLocked(timed) &&
      timed.layer.role !== 'guide' &&
      timed.list.runs.every((r) => r.slot !== null),
  );
  return drawable.find(({ layer }) => layer.role === 'body') ?? drawable[0] ?? layers[0];
}

export function current(): Current | null {
  const { elementId, layerId } = selection();
  return currentOf(useDocument.getState().doc, elementId, layerId);
}

export function useCurrent(): Current | null {
  const doc = useDocument((s) => s.doc);
  const { elementId, layerId } = useSelection(useShallow((s) => ({ elementId: s.elementId, layerId: s.layerId })));
  return currentOf(doc, elementId, layerId);
}

/** The frame of the shot on which a frame of a turn of the active element falls. */
export const shotFrameOf = ({ placement, length }: Current, frame: number, turn: number): number =>
  (placement?.start ?? 0) + turn * length + frame;

/** From the space of the active layer to px of the shot, on a frame: where its element stands, and where the layer is put. */
export function layerMatrix({ placement, element, active, length }: Current, frame: number): Matrix {
  const home = translation(placement?.x ?? 0, placement?.y ?? 0);
  return active ? multiply(home, shiftAt(active, element.anchor, frame, roundOf(element, length))) : home;
}

/** What the active layer shows on the playhead's frame. */
export function shownNow(now: Current, frame: number): Shown | null {
  return now.active ? shownOn(now.active, frame, now.length) : null;
}

/** The swatch for lines round shapes: the palette's first outline, else the one in hand. */
export function lineSwatchOf(doc: ShotDocument, swatchId: Id | null): Swatch | undefined {
  const swatches = findAll(doc, 'swatch', shotOf(doc).swatches);
  return swatches.find(({ role }) => role === 'outline') ?? swatchOf(doc, swatchId);
}

/** The swatch in hand: the one picked, else one meant for lines. */
export function swatchOf(doc: ShotDocument, swatchId: Id | null): Swatch | undefined {
  const swatches = findAll(doc, 'swatch', shotOf(doc).swatches);
  return swatches.find((s) => s.id === swatchId) ?? swatches.find((s) => s.role === 'outline') ?? swatches[0];
}
