/** Where fills go and what bounds them: the layer under the lines, the drawings whose lines count, the slots that follow. */
import {
  dropEntities,
  entitiesOf,
  find,
  putEntities,
  type Drawing,
  type Element,
  type Id,
  type Layer,
  type NewId,
  type ShotDocument,
} from '../document/index.ts';
import { invert, multiply, type Matrix } from '../geometry/index.ts';
import {
  exposureAt,
  isVisible,
  roundOf,
  runStart,
  shiftAt,
  shownOn,
  timedLayers,
  type TimedLayer,
  placeOf,
  slotsInOrder,
} from '../timing/index.ts';
import { addLayer, listOf } from './layers.ts';

/** Which lines bound a fill. */
export const FILL_BOUNDS = ['this', 'above', 'visible'] as const;
export type FillBounds = (typeof FILL_BOUNDS)[number];

/** Roles of layers that fills lie on themselves. */
const FILLED_ROLES = new Set(['body', 'tone', 'texture', 'glow', 'matte']);

const isFillLayer = (layer: Layer): boolean => FILLED_ROLES.has(layer.role);

/** Layers whose lines bound what is filled from a layer, and the layer fills go onto; null where one must be made. */
export function fillPlace(
  doc: ShotDocument,
  activeId: Id,
  bounds: FillBounds,
): { boundIds: Id[]; fillLayerId: Id | null } {
  const { timed, element } = placeOf(doc, activeId);
  const layers = timedLayers(doc, element);
  const at = layers.findIndex(({ layer }) => layer.id === activeId);
  const own = isFillLayer(timed.layer);
  const under = own ? timed : fillUnder(doc, timed.layer, layers.slice(at + 1));
  const fillAt = under ? layers.indexOf(under) : at + 1;
  const seen = (all: readonly TimedLayer[]) =>
    all.filter((each) => isVisible(each) && each.layer.role !== 'guide').map(({ layer }) => layer.id);
  const isLine = ({ layer }: TimedLayer) => layer.role === 'line' || layer.role === 'rough';
  const above = layers.slice(0, at).reverse();
  const lines = own
    ? (above.find((each) => isLine(each) && tied(timed.layer, each.layer)) ?? above.find(isLine))
    : timed;
  const boundIds =
    bounds === 'visible'
      ? seen(layers)
      : bounds === 'above'
        ? seen(layers.slice(0, fillAt))
        : [(lines ?? timed).layer.id];
  return { boundIds, fillLayerId: under?.layer.id ?? null };
}

/**
 * The layer that the fills of a line layer go onto, of those below it: the one they went onto before, else a body, else
 * another that is filled by hand. What tone has laid is never filled.
 */
function fillUnder(doc: ShotDocument, lines: Layer, below: readonly TimedLayer[]): TimedLayer | undefined {
  const byTone = new Set(entitiesOf(doc, 'tone').flatMap(({ layers }) => Object.values(layers)));
  const filled = new Set(
    entitiesOf(doc, 'fill').flatMap(({ layerId, bounds }) => (bounds.includes(lines.id) ? [layerId] : [])),
  );
  const open = below.filter(({ layer }) => isFillLayer(layer) && tied(lines, layer) && !byTone.has(layer.id));
  return open.find(({ layer }) => filled.has(layer.id)) ?? open.find(({ layer }) => layer.role === 'body') ?? open[0];
}

const tied = (a: Layer, b: Layer): boolean => a.runListId === b.runListId && a.id !== b.id;

/** The layer fills go onto, made under the lines and tied to them in time where there is none. */
export function withFillLayer(doc: ShotDocument, activeId: Id, newId: NewId): { doc: ShotDocument; layerId: Id } {
  const { fillLayerId } = fillPlace(doc, activeId, 'this');
  if (fillLayerId) return { doc, layerId: fillLayerId };
  const { timed } = placeOf(doc, activeId);
  const { layer } = timed;
  const added = addLayer(
    doc,
    layer.elementId,
    `${layer.name.slice(0, 180).toWellFormed()} fill`,
    'body',
    activeId,
    newId,
  );
  const made = find(added.doc, 'layer', added.layerId)!;
  const into = listOf(added.doc, made.id)!;
  // Under the lines, not over them.
  const layers = into.layers.filter((id) => id !== made.id);
  layers.splice(layers.indexOf(activeId) + 1, 0, made.id);
  const own = made.runListId;
  const next = putEntities(added.doc, { ...into, layers }, { ...made, runListId: layer.runListId, shift: layer.shift });
  return { doc: dropEntities(next, [own]), layerId: made.id };
}

/** A drawing that bounds, and how it lies to the layer that is filled. */
interface BoundAt {
  readonly layerId: Id;
  readonly drawing: Drawing;
  readonly matrix: Matrix;
}

/** What bounds on a frame: drawings of some layers, in the space of another. Those not loaded are left out. */
export function boundsAt(
  doc: ShotDocument,
  element: Element,
  turn: number,
  boundIds: readonly Id[],
  layer: Layer,
  frame: number,
): BoundAt[] {
  const round = roundOf(element, turn);
  const layers = timedLayers(doc, element);
  const own = layers.find((timed) => timed.layer.id === layer.id) ?? { layer, folder: undefined };
  const back = invert(shiftAt(own, element.anchor, frame, round));
  return layers
    .filter((timed) => boundIds.includes(timed.layer.id))
    .flatMap((timed) => {
      const drawing = find(doc, 'drawing', shownOn(timed, frame, turn)?.drawingId);
      if (!drawing) return [];
      const matrix = multiply(back, shiftAt(timed, element.anchor, frame, round));
      return [{ layerId: timed.layer.id, drawing, matrix }];
    });
}

/** Slots of a layer from a frame on, each with the frame it first shows on, as far as `count` of them, round a cycle's seam. */
export function slotsFrom(doc: ShotDocument, layerId: Id, frame: number, count: number): { slot: Id; frame: number }[] {
  const { timed, turn, element } = placeOf(doc, layerId);
  const here = exposureAt(timed.list, frame, turn)?.index ?? 0;
  return slotsInOrder(timed.list, here)
    .filter(({ index }) => index >= here || element.time === 'cycle')
    .slice(0, count)
    .map(({ slot, index }) => ({ slot, frame: runStart(timed.list, index, turn) }));
}
