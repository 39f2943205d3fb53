/** Frames of a shot: which drawings lie on one another, and how each of them is seen. */
import {
  find,
  shotOf,
  valueAt,
  type Blend,
  type Drawing,
  type Element,
  type Id,
  type Placement,
  type ShotDocument,
} from '../document/index.ts';
import { movesOutlines, resolved, wavered, type Resolved } from '../compose/index.ts';
import { showVariant } from '../edit/index.ts';
import { IDENTITY, multiply, translation, type Matrix, type Point, modulo } from '../geometry/index.ts';
import {
  elementLength,
  isVisible,
  placedElements,
  placementFrame,
  roundOf,
  runStart,
  shiftAt,
  shownOn,
  timedLayers,
  type TimedLayer,
} from '../timing/index.ts';
import { axisOf, isHole, paintsOn, plainOf, type PaintOf } from './paint.ts';
import { drawingBox } from './marks.ts';

/** A drawing and where it lies. */
export interface Lying {
  readonly drawing: Drawing;
  /** Element space to shot px. */
  readonly matrix: Matrix;
}

/** How a layer or an element is seen beyond its opacity and blend. */
export interface Look {
  readonly finishes: readonly Resolved[];
  /** From anchor to tip, element space. */
  readonly axis: { readonly from: Point; readonly to: Point };
  /** How far what is drawn goes in one frame, px of element space. */
  readonly motion: Point;
  readonly colourOf: (swatch: Id) => string;
  /** Element space to shot px. */
  readonly matrix: Matrix;
}

/** A matte that hides part of a sheet, or all but a part. */
export interface Cut extends Lying {
  readonly layerId: Id;
  readonly inverted: boolean;
}

/** One drawing as it lies in a frame. */
export interface Sheet extends Lying {
  readonly layerId: Id;
  readonly elementId: Id;
  /** The looks of its layer, if it has any. */
  readonly look: Look | null;
  /** The looks of its element as a whole, if it has any. */
  readonly whole: Look | null;
  /** What hides it, lowest first. */
  readonly cuts: readonly Cut[];
  readonly opacity: number;
  readonly blend: Blend;
  /** The folder that is put together first, as it is faded or has looks, if it lies in such a one. */
  readonly group: { readonly id: Id; readonly opacity: number; readonly look: Look | null } | null;
  /** The drawing this one shows within only, of the layer it clips to. */
  readonly within: Lying | null;
  /** The swatch in which all of it is seen, or null for each mark's own. */
  readonly tint: Id | null;
}

export interface SheetOptions {
  /** Guides are for working: the picture on the desk has them, what is taken away never has. */
  readonly guides: boolean;
  /** Whether layers that are for work are shown though guides are not. */
  readonly forWork?: boolean;
  /** Shows nothing but this layer, be it hidden or not. */
  readonly alone?: Id | null;
  /** Shows nothing but this element. */
  readonly element?: Id | null;
  /** Layers left out. */
  readonly without?: readonly Id[];
  /** Dims every layer but this one. */
  readonly dimBut?: Id | null;
  /** A kept variant shown in place of what its layers show now. */
  readonly variant?: Id | null;
  /** Looks: all of them unless said otherwise; for drawing under the pen those that move no outline; or none. */
  readonly looks?: 'all' | 'for drawing' | 'none';
  /** A matte that is seen itself, as it is drawn on. */
  readonly matte?: Id | null;
}

/** What dimming leaves of the other layers' opacity. */
export const DIMMED = 0.22;

/** Placements with their elements, lowest first. */
const placed = (doc: ShotDocument) => placedElements(doc).reverse();

/** Element space to shot px for what lies on a layer, or null when its element is not placed. */
export function matrixOf(doc: ShotDocument, layerId: Id | null | undefined, shotFrame: number): Matrix | null {
  const layer = find(doc, 'layer', layerId);
  const found = placed(doc).find(({ element }) => element.id === layer?.elementId);
  if (!layer || !found) return null;
  const turn = elementLength(doc, found.element);
  const frame = placementFrame(found.placement, found.element, turn, shotFrame) ?? 0;
  const timed = timedLayers(doc, found.element).find((each) => each.layer.id === layerId);
  return timed ? placedLayer(found.placement, timed, found.element, frame, turn) : null;
}

function placedLayer({ x, y }: Placement, timed: TimedLayer, element: Element, frame: number, turn: number): Matrix {
  const home = translation(x, y);
  const shift = shiftAt(timed, element.anchor, frame, roundOf(element, turn));
  return shift === IDENTITY ? home : multiply(home, shift);
}

/** Ids of all layers of the shot as they lie on one another, lowest first. */
export const layerOrder = (doc: ShotDocument): Id[] =>
  placed(doc).flatMap(({ element }) =>
    timedLayers(doc, element)
      .map(({ layer }) => layer.id)
      .reverse(),
  );

/** Documents with a variant shown, worked out once each. */
const shownWith = new WeakMap<ShotDocument, Map<Id, ShotDocument>>();

/** The document as it is with a kept variant shown. */
export function withVariant(doc: ShotDocument, variantId: Id): ShotDocument {
  const known = shownWith.get(doc) ?? new Map<Id, ShotDocument>();
  shownWith.set(doc, known);
  const shown = known.get(variantId) ?? showVariant(doc, variantId);
  known.set(variantId, shown);
  return shown;
}

function isIn(timed: TimedLayer, { guides, forWork, alone, without }: SheetOptions): boolean {
  if (without?.includes(timed.layer.id)) return false;
  if (alone) return timed.layer.id === alone;
  return isVisible(timed) && (guides || (timed.layer.role !== 'guide' && (forWork === true || !timed.layer.forWork)));
}

const NO_MOTION: Point = { x: 0, y: 0 };

/** How far a layer's drawing goes in a frame: from the middle of the one before to that of the one after. */
function motionOf(doc: ShotDocument, timed: TimedLayer, frame: number, turn: number, round: number | null): Point {
  const here = shownOn(timed, frame, turn);
  if (!here) return NO_MOTION;
  const { run } = here.exposure;
  const own = runStart(timed.list, here.exposure.index, turn);
  const wrapped = (f: number) => (round === null ? f : modulo(f, turn));
  const at = (f: number) => {
    const shown = round === null && f < 0 ? null : shownOn(timed, wrapped(f), turn);
    const drawing = find(doc, 'drawing', shown?.drawingId);
    if (!shown || !drawing || drawing.order.length === 0) return null;
    const { left, top, right, bottom } = drawingBox(drawing);
    return { x: (left + right) / 2, y: (top + bottom) / 2, length: shown.exposure.run.length };
  };
  const [before, now, after] = [at(own - 1), at(own), at(own + run.length)];
  const [from, to] = [before ?? now, after ?? now];
  if (!from || !to || from === to) return NO_MOTION;
  const frames =
    (before ? before.length / 2 : 0) + (before && after ? run.length : run.length / 2) + (after ? after.length / 2 : 0);
  return { x: (to.x - from.x) / frames, y: (to.y - from.y) / frames };
}

/** The drawing as wavers of its layer and its element move it. */
const moved = (drawing: Drawing, wavers: readonly Resolved[]): Drawing =>
  wavers.reduce((each, waver) => wavered(each, waver), drawing);

/** The drawings of a frame, lowest first. Hidden layers and drawings not yet loaded are left out. */
export function sheetsOf(now: ShotDocument, shotFrame: number, options: SheetOptions): Sheet[] {
  const doc = options.variant ? withVariant(now, options.variant) : now;
  const { height } = shotOf(doc);
  const looks = options.looks ?? 'all';
  let sheets: Sheet[] = [];
  for (const { placement, element } of placed(doc)) {
    if (options.element && element.id !== options.element) continue;
    const turn = elementLength(doc, element);
    const frame = placementFrame(placement, element, turn, shotFrame);
    if (frame === null) continue;
    const round = roundOf(element, turn);
    const axis = axisOf(element, height);
    const lookOf = (all: readonly Resolved[], matrix: Matrix, motion: Point, paintOf: PaintOf): Look | null => {
      const finishes = all.filter((each) => !movesOutlines(each));
      return finishes.length > 0 ? { finishes, axis, motion, matrix, colourOf: (id) => plainOf(paintOf(id)) } : null;
    };
    const own = looks === 'none' || options.alone ? [] : resolved(element.finishes, frame, round);
    const home = translation(placement.x, placement.y);
    const colours = paintsOn(doc, element, { axis, matrix: home, picture: shotOf(doc) });
    const whole = lookOf(own, home, NO_MOTION, colours);
    // What a layer that clips shows within: the drawing of the nearest layer below, in its folder, that doesn't.
    let [base, baseFolder]: [Sheet['within'], Id | undefined] = [null, undefined];
    for (const timed of timedLayers(doc, element).reverse()) {
      const { layer, folder } = timed;
      const isBase = !layer.clip || baseFolder !== folder?.id;
      const found = isIn(timed, options) ? find(doc, 'drawing', shownOn(timed, frame, turn)?.drawingId) : undefined;
      const matrix = placedLayer(placement, timed, element, frame, turn);
      const finishes = looks === 'none' ? [] : resolved(layer.finishes, frame, round);
      const around = looks === 'none' || options.alone ? [] : resolved(folder?.finishes ?? [], frame, round);
      const wavers = looks === 'all' ? [...finishes, ...around, ...own].filter(movesOutlines) : [];
      const drawing = found && wavers.length > 0 ? moved(found, wavers) : found;
      if (drawing && layer.role === 'matte' && options.matte !== layer.id && !options.alone) {
        const cut: Cut = { layerId: layer.id, drawing, matrix, inverted: layer.matte.inverted };
        sheets = sheets.map((sheet) =>
          sheet.elementId === element.id || layer.matte.shot ? { ...sheet, cuts: [...sheet.cuts, cut] } : sheet,
        );
        continue;
      }
      if (isBase) [base, baseFolder] = [drawing ? { drawing, matrix } : null, folder?.id];
      const clips = layer.clip && !options.alone;
      if (!drawing || (clips && (isBase || !base))) continue;
      const dim = options.dimBut && options.dimBut !== layer.id ? DIMMED : 1;
      const groupOpacity = folder ? valueAt(folder.opacity, frame, round) : 1;
      const groupLook = lookOf(around, home, NO_MOTION, colours);
      const follows = finishes.some(({ choices }) => choices['along'] === 'motion');
      sheets.push({
        layerId: layer.id,
        elementId: element.id,
        drawing,
        opacity: valueAt(layer.opacity, frame, round) * dim,
        blend: layer.blend,
        group:
          folder && (groupOpacity < 1 || groupLook) ? { id: folder.id, opacity: groupOpacity, look: groupLook } : null,
        within: clips ? base : null,
        tint: layer.tint,
        matrix,
        look: lookOf(finishes, matrix, follows ? motionOf(doc, timed, frame, turn, round) : NO_MOTION, colours),
        whole,
        cuts: [],
      });
    }
  }
  return sheets;
}

/** What is painted on: the layer's element and place tell what a swatch looks like there. */
export type Painted = Pick<Sheet, 'layerId' | 'matrix' | 'tint'>;

/** The paints a sheet's marks are seen in: its tint for all of them, else their own. */
export function paintsOf(doc: ShotDocument, { layerId, matrix, tint }: Painted): PaintOf {
  const element = find(doc, 'element', find(doc, 'layer', layerId)?.elementId);
  const picture = find(doc, 'shot', doc.shotId) ?? { width: 0, height: 0 };
  const own = paintsOn(doc, element, { axis: element ? axisOf(element, picture.height) : null, matrix, picture });
  // What is cut out is cut out in a tint, too.
  return tint ? (id) => (isHole(own(id)) ? own(id) : own(tint)) : own;
}

/** The same for a drawing whose layer alone is known, wherever it is seen. */
export const paintsOnLayer = (doc: ShotDocument, layerId: Id | undefined): PaintOf =>
  paintsOf(doc, { layerId: layerId ?? '', matrix: IDENTITY, tint: find(doc, 'layer', layerId)?.tint ?? null });

type ContentOf = (drawing: Drawing) => string;
const lyingKey = (lying: Lying | null, of: ContentOf): string =>
  lying ? `${of(lying.drawing)}@${lying.matrix.join(',')}` : '';
const lookKey = (look: Look | null): string =>
  look
    ? JSON.stringify([
        look.finishes,
        look.axis,
        look.motion,
        look.finishes.map(({ swatch }) => swatch && look.colourOf(swatch)),
      ])
    : '';

/**
 * The same text for frames that show the same drawings in the same way, within one document.
 * @param of what tells drawings apart; by their ids alone, unless the text is kept when they change.
 */
export function frameKey(sheets: readonly Sheet[], of: ContentOf = ({ id }) => id): string {
  return sheets
    .map(
      (s) =>
        `${lyingKey(s, of)}@${lyingKey(s.within, of)}@${s.tint}@${s.opacity}@${s.blend}@${s.group?.id}@${s.group?.opacity}@${lookKey(s.group?.look ?? null)}@${lookKey(s.look)}@${lookKey(s.whole)}@${s.cuts.map((cut) => `${lyingKey(cut, of)}${cut.inverted}`).join(';')}`,
    )
    .join('|');
}
