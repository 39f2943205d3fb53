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
import { firstKeyOf, keyOf, pathOf, shotFrameIn, standing } from '@tallow/core/assembly';
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
import { IDENTITY, multiply, type Matrix } from '@tallow/core/geometry';
import { selection, useSelection, type Selection } from './selection.ts';
import { useDocument } from '../shot/document.ts';

export interface Current {
  readonly doc: ShotDocument;
  readonly element: Element;
  /** Which use of the element one stands in, from the shot inwards, and its key; none where it is not used. */
  readonly path: readonly Placement[];
  readonly place: string | null;
  readonly placement: Placement | undefined;
  readonly layers: readonly TimedLayer[];
  readonly active: TimedLayer | undefined;
  /** Frames of one turn. */
  readonly length: number;
  /** Turns that begin before the shot ends. */
  readonly turns: number;
}

/** What is worked on, of a document. */
export type Where = Pick<Selection, 'elementId' | 'layerId'> & Partial<Pick<Selection, 'place'>>;

/** Frames of what a use lies in: of the shot, or of the element around it. */
function outerLength(doc: ShotDocument, path: readonly Placement[]): number {
  const around = find(doc, 'element', path.at(-2)?.elementId);
  return around ? elementLength(doc, around) : shotOf(doc).length;
}

/** What was worked out of a document before. Documents never change: what hangs on it is drawn anew only where another one, or another place in it, is worked on. */
const known = new WeakMap<ShotDocument, Map<string, Current | null>>();

export function currentOf(doc: ShotDocument | null, where: Where): Current | null {
  if (!doc) return null;
  const all = known.get(doc) ?? new Map<string, Current | null>();
  known.set(doc, all);
  const name = `${where.elementId} ${where.layerId} ${where.place ?? null}`;
  const before = all.get(name);
  if (before !== undefined) return before;
  const made = workedOut(doc, where);
  all.set(name, made);
  return made;
}

function workedOut(doc: ShotDocument, { elementId, layerId, place }: Where): Current | null {
  const shot = shotOf(doc);
  const element = find(doc, 'element', elementId) ?? findAll(doc, 'element', shot.elements)[0];
  if (!element) return null;
  const layers = timedLayers(doc, element);
  const asked = place ? pathOf(doc, place) : null;
  const path = asked?.at(-1)?.elementId === element.id ? asked : pathOf(doc, firstKeyOf(doc, element.id) ?? '');
  const placement = path?.at(-1);
  const length = elementLength(doc, element);
  return {
    doc,
    element,
    path: path ?? [],
    place: path && keyOf(path),
    placement,
    layers,
    active: layers.find(({ layer }) => layer.id === layerId) ?? firstDrawable(layers),
    length,
    turns: path && placement ? turnsIn(placement, element, length, outerLength(doc, path)) : 1,
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
  return currentOf(useDocument.getState().doc, selection());
}

let where: Where = { elementId: null, layerId: null, place: null };
/** What is worked on of all that is selected: the same thing as long as it stays, since a hundred parts of the desk ask. */
function whereOf({ elementId, layerId, place }: Selection): Where {
  if (where.elementId !== elementId || where.layerId !== layerId || where.place !== place)
    where = { elementId, layerId, place };
  return where;
}

export function useCurrent(): Current | null {
  const doc = useDocument((s) => s.doc);
  return currentOf(doc, useSelection(whereOf));
}

/**
 * Something of what is worked on. What shows it is drawn anew only where that has changed, not after every stroke.
 * @param of may return a list where it goes through `useShallow`.
 */
export function useOfCurrent<T>(of: (now: Current) => T): T | undefined {
  const where = useSelection(whereOf);
  return useDocument((s) => {
    const now = currentOf(s.doc, where);
    return now ? of(now) : undefined;
  });
}

/** The frame of the shot on which a frame of a turn of the active element falls. */
export const shotFrameOf = ({ doc, path, length }: Current, frame: number, turn: number): number =>
  path.length > 0 ? shotFrameIn(doc, path, frame, turn) : turn * length + frame;

/** From the active element's space to px of the shot on a frame, where one stands in it; what lies on a tilted plane is drawn on flat, and the camera rests. */
export function homeMatrix(now: Current, frame: number, turn: number = selection().turn): Matrix {
  const { doc, path, place } = now;
  return standing(doc, path, shotFrameOf(now, frame, turn), { flat: place, still: true })?.matrix ?? IDENTITY;
}

/** From the space of the active layer to px of the shot, on a frame: where its element stands, and where the layer is put. */
export function layerMatrix(now: Current, frame: number, turn: number = selection().turn): Matrix {
  const { element, active, length } = now;
  const home = homeMatrix(now, frame, turn);
  return active ? multiply(home, shiftAt(active, element.anchor, frame, roundOf(element, length))) : home;
}

/** What the active layer shows on the playhead's frame. */
export function shownNow(now: Current, frame: number): Shown | null {
  return now.active ? shownOn(now.active, frame, now.length) : null;
}

/** The swatch for lines round shapes: the palette's first outline, else the active one. */
export function lineSwatchOf(doc: ShotDocument, swatchId: Id | null): Swatch | undefined {
  const swatches = findAll(doc, 'swatch', shotOf(doc).swatches);
  return swatches.find(({ role }) => role === 'outline') ?? swatchOf(doc, swatchId);
}

/** The active swatch: the one picked, else one meant for lines. */
export function swatchOf(doc: ShotDocument, swatchId: Id | null): Swatch | undefined {
  const swatches = findAll(doc, 'swatch', shotOf(doc).swatches);
  return swatches.find((s) => s.id === swatchId) ?? swatches.find((s) => s.role === 'outline') ?? swatches[0];
}
