/** Frames of a shot: which drawings lie on one another, and their drawing onto a surface. */
import {
  find,
  shotOf,
  valueAt,
  type Blend,
  type Drawing,
  type Element,
  type Id,
  type Layer,
  type Placement,
  type ShotDocument,
} from '../document/index.ts';
import { showVariant } from '../edit/index.ts';
import { IDENTITY, multiply, translation, type Matrix } from '../geometry/index.ts';
import {
  elementLength,
  isVisible,
  placedElements,
  placementFrame,
  roundOf,
  shiftAt,
  shownOn,
  timedLayers,
  type TimedLayer,
} from '../timing/index.ts';
import { axisOf, paintsOn, type PaintOf } from './paint.ts';
import { drawPlates, type AssetPicture } from './plates.ts';
import { wipe, type MakeSurface, type Picture, type Surface } from './surface.ts';

/** One drawing as it lies in a frame. */
export interface Sheet {
  readonly layerId: Id;
  readonly drawing: Drawing;
  readonly opacity: number;
  readonly blend: Blend;
  /** The folder that is faded as one picture, if it lies in such a one. */
  readonly group: { readonly id: Id; readonly opacity: number } | null;
  /** The drawing this one shows within only, of the layer it clips to. */
  readonly within: { readonly drawing: Drawing; readonly matrix: Matrix } | null;
  /** The swatch in which all of it is seen, or null for each mark's own. */
  readonly tint: Id | null;
  /** Element space to shot px. */
  readonly matrix: Matrix;
}

export interface SheetOptions {
  /** Guides are for working: the picture on the desk has them, what is taken away never has. */
  readonly guides: boolean;
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
  return placedLayer(found.placement, layer, found.element, frame, turn);
}

function placedLayer({ x, y }: Placement, layer: Layer, element: Element, frame: number, turn: number): Matrix {
  const home = translation(x, y);
  const shift = shiftAt(layer, element.anchor, frame, roundOf(element, turn));
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

function isIn(timed: TimedLayer, { guides, alone, without }: SheetOptions): boolean {
  if (without?.includes(timed.layer.id)) return false;
  if (alone) return timed.layer.id === alone;
  return isVisible(timed) && (guides || timed.layer.role !== 'guide');
}

/** The drawings of a frame, lowest first. Hidden layers and drawings not yet loaded are left out. */
export function sheetsOf(now: ShotDocument, shotFrame: number, options: SheetOptions): Sheet[] {
  const doc = options.variant ? withVariant(now, options.variant) : now;
  const sheets: Sheet[] = [];
  for (const { placement, element } of placed(doc)) {
    if (options.element && element.id !== options.element) continue;
    const turn = elementLength(doc, element);
    const frame = placementFrame(placement, element, turn, shotFrame);
    if (frame === null) continue;
    // What a layer that clips shows within: the drawing of the nearest layer below, in its folder, that doesn't.
    const round = roundOf(element, turn);
    let [base, baseFolder]: [Sheet['within'], Id | undefined] = [null, undefined];
    for (const timed of timedLayers(doc, element).reverse()) {
      const { layer, folder } = timed;
      const isBase = !layer.clip || baseFolder !== folder?.id;
      const drawing = isIn(timed, options) ? find(doc, 'drawing', shownOn(timed, frame, turn)?.drawingId) : undefined;
      const matrix = placedLayer(placement, layer, element, frame, turn);
      if (isBase) [base, baseFolder] = [drawing ? { drawing, matrix } : null, folder?.id];
      const clips = layer.clip && !options.alone;
      if (!drawing || (clips && (isBase || !base))) continue;
      const dim = options.dimBut && options.dimBut !== layer.id ? DIMMED : 1;
      const groupOpacity = folder ? valueAt(folder.opacity, frame, round) : 1;
      sheets.push({
        layerId: layer.id,
        drawing,
        opacity: valueAt(layer.opacity, frame, round) * dim,
        blend: layer.blend,
        group: folder && groupOpacity < 1 ? { id: folder.id, opacity: groupOpacity } : null,
        within: clips ? base : null,
        tint: layer.tint,
        matrix,
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
  return tint ? () => own(tint) : own;
}

/** The same for a drawing whose layer alone is known, wherever it is seen. */
export const paintsOnLayer = (doc: ShotDocument, layerId: Id | undefined): PaintOf =>
  paintsOf(doc, { layerId: layerId ?? '', matrix: IDENTITY, tint: find(doc, 'layer', layerId)?.tint ?? null });

/** Gives the picture of a sheet at a view, of the surface's size. A cache may stand behind it. */
export type PictureOf = (sheet: Sheet, matrix: Matrix) => Picture;

/**
 * Fills the shot's frame with its background, if it has one.
 * @param view from shot px to device pixels. @param instead a colour in its place, for judging.
 */
export function drawBackground(target: Surface, doc: ShotDocument, view: Matrix, instead: string | null = null): void {
  const { background, width, height } = shotOf(doc);
  const colour = instead ?? background;
  if (!colour) return;
  target.context.setTransform(...view);
  target.context.fillStyle = colour;
  target.context.fillRect(0, 0, width, height);
}

/** The canvas's own word for a blend. */
export const operationOf = (blend: Blend): string => (blend === 'normal' ? 'source-over' : blend);

/** Lays a picture of the target's size over what is there. */
export function layPicture({ context }: Surface, picture: Picture, opacity: number, blend: Blend): void {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalAlpha = opacity;
  context.globalCompositeOperation = operationOf(blend);
  context.drawImage(picture, 0, 0);
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
}

/** Sheets in runs that belong to one faded folder, or to none. */
export function inGroups<T extends Pick<Sheet, 'group'>>(sheets: readonly T[]): T[][] {
  const runs: T[][] = [];
  for (const sheet of sheets) {
    const last = runs.at(-1);
    if (last?.[0]?.group?.id === sheet.group?.id && last) last.push(sheet);
    else runs.push([sheet]);
  }
  return runs;
}

/** The picture of a sheet, only where the drawing it clips to is. */
export function shownPicture(sheet: Sheet, view: Matrix, pictureOf: PictureOf, makeSurface: MakeSurface): Picture {
  const matrix = multiply(view, sheet.matrix);
  if (!sheet.within) return pictureOf(sheet, matrix);
  const { drawing, matrix: home } = sheet.within;
  const base = pictureOf({ ...sheet, drawing, within: null, tint: null }, multiply(view, home)) as Picture & Sized;
  const cut = makeSurface(base.width, base.height);
  // The base first and the sheet in it: pictures handed out one after another may be of one surface.
  cut.context.drawImage(base, 0, 0);
  cut.context.globalCompositeOperation = 'source-in';
  cut.context.drawImage(pictureOf(sheet, matrix), 0, 0);
  cut.context.globalCompositeOperation = 'source-over';
  return cut.picture;
}
interface Sized {
  readonly width: number;
  readonly height: number;
}

/** Lays sheets on a surface in order; those of a faded folder are put together first. */
export function laySheets(
  target: Surface,
  sheets: readonly Sheet[],
  view: Matrix,
  pictureOf: PictureOf,
  makeSurface: MakeSurface,
): void {
  for (const run of inGroups(sheets)) {
    const group = run[0]?.group;
    const on = group ? makeSurface(target.width, target.height) : target;
    for (const sheet of run)
      layPicture(on, shownPicture(sheet, view, pictureOf, makeSurface), sheet.opacity, sheet.blend);
    if (group) layPicture(target, on.picture, group.opacity, 'normal');
  }
}

/** Draws a frame of the shot: background if asked for, then every drawing. */
export function drawFrame(
  target: Surface,
  doc: ShotDocument,
  shotFrame: number,
  view: Matrix,
  pictureOf: PictureOf,
  makeSurface: MakeSurface,
  options: SheetOptions & { background: boolean; backdrop?: string | null; assets?: AssetPicture },
): void {
  wipe(target);
  if (options.background) drawBackground(target, doc, view, options.backdrop);
  // A layer or an element taken by itself has no plates.
  if (options.assets && !options.alone && !options.element)
    drawPlates(target, doc, shotFrame, view, options.guides, options.assets, options.dimBut ? DIMMED : 1);
  laySheets(target, sheetsOf(doc, shotFrame, options), view, pictureOf, makeSurface);
}

/** The same text for frames that show the same drawings in the same way, within one document. */
export function frameKey(sheets: readonly Sheet[]): string {
  return sheets
    .map(
      (s) =>
        `${s.drawing.id}@${s.within?.drawing.id}@${s.within?.matrix.join(',')}@${s.tint}@${s.opacity}@${s.blend}@${s.group?.id}@${s.group?.opacity}@${s.matrix.join(',')}`,
    )
    .join('|');
}
