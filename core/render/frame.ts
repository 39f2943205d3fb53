/** Frames of a shot: which drawings lie on one another, and their drawing onto a surface. */
import { find, findAll, shotOf, valueAt, type Drawing, type Id, type ShotDocument } from '../document/index.ts';
import { multiply, translation, type Matrix } from '../geometry/index.ts';
import { elementLength, placementFrame, shownOn, timedLayers } from '../timing/index.ts';
import type { ColourOf } from './marks.ts';
import { wipe, type Picture, type Surface } from './surface.ts';

/** One drawing as it lies in a frame. */
export interface Sheet {
  readonly layerId: Id;
  readonly drawing: Drawing;
  readonly opacity: number;
  /** Element space to shot px. */
  readonly matrix: Matrix;
}

export interface SheetOptions {
  /** Guides are for working: the picture on the desk has them, what is taken away never has. */
  readonly guides: boolean;
}

/** The drawings of a frame, lowest first. Hidden layers and drawings not yet loaded are left out. */
export function sheetsOf(doc: ShotDocument, shotFrame: number, { guides }: SheetOptions): Sheet[] {
  const sheets: Sheet[] = [];
  for (const plane of findAll(doc, 'plane', shotOf(doc).planes).reverse()) {
    for (const placement of findAll(doc, 'placement', plane.placements).reverse()) {
      const element = find(doc, 'element', placement.elementId);
      if (!element) continue;
      const turn = elementLength(doc, element);
      const frame = placementFrame(placement, element, turn, shotFrame);
      if (frame === null) continue;
      for (const timed of timedLayers(doc, element).reverse()) {
        const { layer } = timed;
        if (!layer.visible || (layer.role === 'guide' && !guides)) continue;
        const drawing = find(doc, 'drawing', shownOn(timed, frame, turn)?.drawingId);
        if (drawing)
          sheets.push({
            layerId: layer.id,
            drawing,
            opacity: valueAt(layer.opacity, frame),
            matrix: translation(placement.x, placement.y),
          });
      }
    }
  }
  return sheets;
}

/** The palette's colours as a document has them now; a swatch that is gone shows as mid grey. */
export const paletteOf =
  (doc: ShotDocument): ColourOf =>
  (swatch) =>
    find(doc, 'swatch', swatch)?.colour ?? '#808080';

/** Gives the picture of a sheet at a view, of the surface's size. A cache may stand behind it. */
export type PictureOf = (sheet: Sheet, matrix: Matrix) => Picture;

/** Fills the shot's frame with its background, if it has one. @param view from shot px to device pixels. */
export function drawBackground(target: Surface, doc: ShotDocument, view: Matrix): void {
  const { background, width, height } = shotOf(doc);
  if (!background) return;
  target.context.setTransform(...view);
  target.context.fillStyle = background;
  target.context.fillRect(0, 0, width, height);
}

/** Lays sheets on a surface in order. */
export function laySheets(target: Surface, sheets: readonly Sheet[], view: Matrix, pictureOf: PictureOf): void {
  const { context } = target;
  for (const sheet of sheets) {
    const picture = pictureOf(sheet, multiply(view, sheet.matrix));
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalAlpha = sheet.opacity;
    context.drawImage(picture, 0, 0);
    context.globalAlpha = 1;
  }
}

/** Draws a frame of the shot: background if asked for, then every drawing. */
export function drawFrame(
  target: Surface,
  doc: ShotDocument,
  shotFrame: number,
  view: Matrix,
  pictureOf: PictureOf,
  options: SheetOptions & { background: boolean },
): void {
  wipe(target);
  if (options.background) drawBackground(target, doc, view);
  laySheets(target, sheetsOf(doc, shotFrame, options), view, pictureOf);
}

/** The same text for frames that show the same drawings in the same way, within one document. */
export function frameKey(sheets: readonly Sheet[]): string {
  return sheets.map((s) => `${s.drawing.id}@${s.opacity}@${s.matrix.join(',')}`).join('|');
}
