/** Draws marks onto the surface of their drawing. */
import { chunkCount, inkChunk, inkChunkBox } from '../brush/index.ts';
import type { Drawing, Id, Mark, RubOut, Shape, Stroke } from '../document/index.ts';
import {
  EMPTY_BOX,
  grown,
  intersection,
  isEmpty,
  mapBox,
  multiply,
  ringBox,
  translation,
  union,
  wholePixels,
  type Box,
  type Matrix,
} from '../geometry/index.ts';
import { wipe, type Context2D, type MakeSurface, type Surface } from './surface.ts';

/** Resolves a swatch to the colour it stands for now. */
export type ColourOf = (swatch: Id) => string;

/** Fills one chunk of a stroke, opaque, in the given colour. */
export function drawChunk(
  context: Context2D,
  { samples, brush }: Pick<Stroke, 'samples' | 'brush'>,
  chunk: number,
  colour: string,
  matrix: Matrix,
): void {
  context.setTransform(...matrix);
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
  context.fillStyle = colour;
  context.beginPath();
  inkChunk(context, samples, brush, chunk);
  context.fill('nonzero');
}

/** The whole device pixels that some chunks of a stroke can touch, edge smoothing included. */
export function chunksBox(
  { samples, brush }: Pick<Stroke, 'samples' | 'brush'>,
  from: number,
  to: number,
  matrix: Matrix,
): Box {
  let box = EMPTY_BOX;
  for (let chunk = from; chunk < to; chunk++) box = union(box, inkChunkBox(samples, brush, chunk));
  return wholePixels(grown(mapBox(matrix, box), 1));
}

/** How a finished or growing stroke goes onto its drawing. */
export interface Laying {
  readonly opacity: number;
  readonly operation: 'source-over' | 'destination-out';
}

export const layingOf = (mark: Stroke | RubOut): Laying => ({
  opacity: mark.brush.opacity,
  operation: mark.kind === 'rub' ? 'destination-out' : 'source-over',
});

/** Gives a surface to draw a stroke on before it is laid: one that covers at least `box`, and where its corner lies. What it holds is lost. */
export type Scratch = (box: Box) => { readonly surface: Surface; readonly left: number; readonly top: number };

/** One surface of the target's size, used again and again: the browser's way, where stroke and picture must agree to the pixel. */
export const wholeScratch =
  (surface: Surface): Scratch =>
  () => ({ surface, left: 0, top: 0 });

/** A surface as large as the stroke: the server's way, where a canvas is copied whole each time it is drawn from. */
export const croppedScratch =
  (make: MakeSurface): Scratch =>
  (box) => ({ surface: make(box.right - box.left, box.bottom - box.top), left: box.left, top: box.top });

/** Lays what a scratch surface holds inside `box` onto a surface of the same size, or whose corner lies at `left top` of it. */
export function lay(
  target: Context2D,
  scratch: Surface,
  box: Box,
  { opacity, operation }: Laying,
  left = 0,
  top = 0,
): void {
  const width = box.right - box.left;
  const height = box.bottom - box.top;
  target.setTransform(1, 0, 0, 1, 0, 0);
  target.globalAlpha = opacity;
  target.globalCompositeOperation = operation;
  target.drawImage(scratch.picture, box.left - left, box.top - top, width, height, box.left, box.top, width, height);
  target.globalAlpha = 1;
  target.globalCompositeOperation = 'source-over';
}

const boundsOf = ({ width, height }: Surface): Box => ({ left: 0, top: 0, right: width, bottom: height });

/** A stroke is drawn opaque on a scratch surface and laid once, so that crossing itself does not darken it. */
function drawStroke(target: Surface, scratch: Scratch, mark: Stroke | RubOut, colour: string, matrix: Matrix): void {
  const chunks = chunkCount(mark.samples.x.length);
  const box = intersection(chunksBox(mark, 0, chunks, matrix), boundsOf(target));
  if (isEmpty(box)) return;
  const { surface, left, top } = scratch(box);
  surface.context.setTransform(1, 0, 0, 1, 0, 0);
  surface.context.clearRect(box.left - left, box.top - top, box.right - box.left, box.bottom - box.top);
  const placed = multiply(translation(-left, -top), matrix);
  for (let chunk = 0; chunk < chunks; chunk++) drawChunk(surface.context, mark, chunk, colour, placed);
  lay(target.context, surface, box, layingOf(mark), left, top);
}

function drawShape(target: Surface, mark: Shape, colour: string, matrix: Matrix): void {
  const { context } = target;
  context.setTransform(...matrix);
  context.fillStyle = colour;
  context.beginPath();
  for (const ring of mark.rings) {
    const nodes = ring.length / 6;
    context.moveTo(ring[0]!, ring[1]!);
    for (let i = 0; i < nodes; i++) {
      const a = i * 6;
      const b = ((i + 1) % nodes) * 6;
      context.bezierCurveTo(ring[a + 4]!, ring[a + 5]!, ring[b + 2]!, ring[b + 3]!, ring[b]!, ring[b + 1]!);
    }
    context.closePath();
  }
  context.fill('evenodd');
}

/** Draws a mark on top of what the target holds. */
export function drawMark(target: Surface, scratch: Scratch, mark: Mark, colourOf: ColourOf, matrix: Matrix): void {
  if (mark.kind === 'shape') drawShape(target, mark, colourOf(mark.swatch), matrix);
  else drawStroke(target, scratch, mark, mark.kind === 'rub' ? '#000000' : colourOf(mark.swatch), matrix);
}

/** Draws a whole drawing onto an emptied surface. @param matrix from element space to device pixels. */
export function drawDrawing(
  target: Surface,
  scratch: Scratch,
  drawing: Drawing,
  colourOf: ColourOf,
  matrix: Matrix,
): void {
  wipe(target);
  for (const id of drawing.order) {
    const mark = drawing.marks[id];
    if (mark) drawMark(target, scratch, mark, colourOf, matrix);
  }
}

/** The box around all marks of a drawing, element space; rub-outs add nothing. */
export function drawingBox(drawing: Drawing): Box {
  let box = EMPTY_BOX;
  for (const mark of Object.values(drawing.marks)) {
    if (mark.kind === 'shape') for (const ring of mark.rings) box = union(box, ringBox(ring));
    if (mark.kind !== 'stroke') continue;
    for (let c = 0; c < chunkCount(mark.samples.x.length); c++)
      box = union(box, inkChunkBox(mark.samples, mark.brush, c));
  }
  return box;
}
