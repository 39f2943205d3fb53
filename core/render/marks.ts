/** Draws marks onto the surface of their drawing. */
import { chunkBox, chunkCount, HAZE_FADE, hazeChunk, inkChunk, strokeRoom, TIPS, toothChunk } from '../brush/index.ts';
import type { Drawing, Lays, Mark, RubOut, Shape, Stroke } from '../document/index.ts';
import {
  EMPTY_BOX,
  grown,
  intersection,
  isEmpty,
  mapBox,
  multiply,
  ringBox,
  union,
  wholePixels,
  type Box,
  type Matrix,
} from '../geometry/index.ts';
import { colourAt, fillOf, linePaint, type Paint, type PaintOf } from './paint.ts';
import { wipe, type Context2D, type Surface } from '../canvas/index.ts';

/** What of a stroke its raster is made from, besides its colour. */
export type Line = Pick<Stroke, 'samples' | 'brush' | 'seed'>;

/** Lays one chunk of a stroke in the given paint, without the brush's opacity. */
export function drawChunk(context: Context2D, line: Line, chunk: number, paint: Paint, matrix: Matrix): void {
  const { samples, brush, seed } = line;
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
  const { lays } = TIPS[brush.kind];
  if (lays === 'stamps') {
    drawHaze(context, line, chunk, linePaint(paint), matrix);
    return;
  }
  context.setTransform(...matrix);
  context.fillStyle = fillOf(context, linePaint(paint), null);
  context.beginPath();
  if (lays === 'outline') inkChunk(context, samples, brush, chunk);
  else toothChunk(context, samples, brush, seed, chunk);
  context.fill('nonzero');
}

/** Stamps are a disc of radius 1 scaled to each place, so that one gradient serves all that have one colour. */
function drawHaze(
  context: Context2D,
  { samples, brush, seed }: Line,
  chunk: number,
  paint: Paint,
  matrix: Matrix,
): void {
  let shown = '';
  const colourTo = (colour: string): void => {
    if (colour === shown) return;
    shown = colour;
    const fade = context.createRadialGradient(0, 0, 0, 0, 0, 1);
    for (const [place, left] of HAZE_FADE)
      fade.addColorStop(
        place,
        `${colour}${Math.round(left * 255)
          .toString(16)
          .padStart(2, '0')}`,
      );
    context.fillStyle = fade;
  };
  hazeChunk(samples, brush, seed, chunk, (x, y, radius, opacity) => {
    if (radius <= 0) return;
    colourTo(colourAt(paint, { x, y }));
    context.setTransform(...multiply(matrix, [radius, 0, 0, radius, x, y]));
    context.globalAlpha = opacity;
    context.fillRect(-1, -1, 2, 2);
  });
  context.globalAlpha = 1;
}

/** The whole device pixels that some chunks of a stroke can touch, edge smoothing included. */
export function chunksBox(
  { samples, brush }: Pick<Stroke, 'samples' | 'brush'>,
  from: number,
  to: number,
  matrix: Matrix,
): Box {
  let box = EMPTY_BOX;
  for (let chunk = from; chunk < to; chunk++) box = union(box, chunkBox(samples, brush, chunk));
  return wholePixels(grown(mapBox(matrix, box), 1));
}

/** How a finished or growing stroke goes onto its drawing. */
export interface Laying {
  readonly opacity: number;
  readonly operation: Operation;
}
export type Operation = 'source-over' | 'destination-out' | 'destination-over' | 'source-atop';

/** The canvas's word for how a mark goes on what is there. */
export const operationOfLays = (lays: Lays | undefined): Operation =>
  lays === 'behind' ? 'destination-over' : lays === 'inside' ? 'source-atop' : 'source-over';

export const layingOf = (mark: Stroke | RubOut): Laying => ({
  opacity: mark.brush.opacity,
  operation: mark.kind === 'rub' ? 'destination-out' : operationOfLays(mark.lays),
});

/** Lays what a scratch surface holds inside `box` onto a surface of the same size. */
export function lay(target: Context2D, scratch: Surface, box: Box, { opacity, operation }: Laying): void {
  const width = box.right - box.left;
  const height = box.bottom - box.top;
  target.setTransform(1, 0, 0, 1, 0, 0);
  target.globalAlpha = opacity;
  target.globalCompositeOperation = operation;
  target.drawImage(scratch.picture, box.left, box.top, width, height, box.left, box.top, width, height);
  target.globalAlpha = 1;
  target.globalCompositeOperation = 'source-over';
}

const boundsOf = ({ width, height }: Surface): Box => ({ left: 0, top: 0, right: width, bottom: height });

/** A stroke is drawn opaque on a scratch surface and laid once, so that crossing itself does not darken it. */
function drawStroke(target: Surface, scratch: Surface, mark: Stroke | RubOut, paint: Paint, matrix: Matrix): void {
  const chunks = chunkCount(mark.samples.x.length, mark.brush);
  const box = intersection(chunksBox(mark, 0, chunks, matrix), boundsOf(target));
  if (isEmpty(box)) return;
  scratch.context.setTransform(1, 0, 0, 1, 0, 0);
  scratch.context.clearRect(box.left, box.top, box.right - box.left, box.bottom - box.top);
  for (let chunk = 0; chunk < chunks; chunk++) drawChunk(scratch.context, mark, chunk, paint, matrix);
  lay(target.context, scratch, box, layingOf(mark));
}

/** Fills a shape on what a context holds. */
export function drawShape(
  context: Context2D,
  mark: Pick<Shape, 'rings' | 'rule' | 'opacity' | 'lays'>,
  paint: Paint,
  matrix: Matrix,
): void {
  context.setTransform(...matrix);
  context.globalAlpha = mark.opacity;
  context.globalCompositeOperation = operationOfLays(mark.lays);
  context.fillStyle = fillOf(context, paint, mark.rings.map(ringBox).reduce(union, EMPTY_BOX));
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
  context.fill(mark.rule);
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
}

/** Draws a mark on top of what the target holds. @param scratch of the target's size; what it holds is lost. */
export function drawMark(target: Surface, scratch: Surface, mark: Mark, paintOf: PaintOf, matrix: Matrix): void {
  if (mark.kind === 'shape') drawShape(target.context, mark, paintOf(mark.swatch), matrix);
  else if (mark.kind === 'rub') drawStroke(target, scratch, mark, '#000000', matrix);
  else if (!mark.unseen) drawStroke(target, scratch, mark, paintOf(mark.swatch), matrix);
}

/** Draws a whole drawing onto an emptied surface. @param matrix from element space to device pixels. */
export function drawDrawing(
  target: Surface,
  scratch: Surface,
  drawing: Drawing,
  paintOf: PaintOf,
  matrix: Matrix,
): void {
  wipe(target);
  for (const id of drawing.order) {
    const mark = drawing.marks[id];
    if (mark) drawMark(target, scratch, mark, paintOf, matrix);
  }
}

/** Marks never change, so their boxes are worked out once: a drawing that got one more asks for one. */
const markBoxes = new WeakMap<Mark, Box>();

/** The box around a mark, element space; a rub-out covers nothing. */
export function markBox(mark: Mark): Box {
  const box = markBoxes.get(mark) ?? boxOf(mark);
  markBoxes.set(mark, box);
  return box;
}

function boxOf(mark: Mark): Box {
  if (mark.kind === 'shape') return mark.rings.map(ringBox).reduce(union, EMPTY_BOX);
  let box = EMPTY_BOX;
  if (mark.kind === 'stroke' && !mark.unseen)
    for (let c = 0; c < chunkCount(mark.samples.x.length, mark.brush); c++)
      box = union(box, chunkBox(mark.samples, mark.brush, c));
  return box;
}

/** Drawings never change, so their boxes are worked out once. */
const boxes = new WeakMap<Drawing, Box>();

/** The box around all marks of a drawing, element space. */
export function drawingBox(drawing: Drawing): Box {
  const box = boxes.get(drawing) ?? Object.values(drawing.marks).map(markBox).reduce(union, EMPTY_BOX);
  boxes.set(drawing, box);
  return box;
}

const rooms = new WeakMap<Mark, Box>();

function roomOf(mark: Mark): Box {
  if (mark.kind === 'shape') return mark.rings.map(ringBox).reduce(union, EMPTY_BOX);
  return mark.kind === 'stroke' && !mark.unseen ? strokeRoom(mark.samples, mark.brush) : EMPTY_BOX;
}

/** A box that holds a drawing, a little too large, for where many are looked at: found from samples and handles alone. */
export function drawingRoom(drawing: Drawing): Box {
  return Object.values(drawing.marks)
    .map((mark) => {
      const room = rooms.get(mark) ?? roomOf(mark);
      rooms.set(mark, room);
      return room;
    })
    .reduce(union, EMPTY_BOX);
}
