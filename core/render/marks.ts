/** Draws marks onto the surface of their drawing. */
import { chunkBox, chunkCount, strokeRoom } from '../brush/index.ts';
import { untiltedOf, type Untilted } from '../compose/index.ts';
import type { Drawing, Mark, Shape, Stroke } from '../document/index.ts';
import {
  composed,
  cornersOf,
  derivativeAt,
  EMPTY_BOX,
  grown,
  invert,
  projectionFrom,
  ringBox,
  union,
  type Box,
  type Matrix,
} from '../geometry/index.ts';
import { fillPath, type Context2D, type Scratch, type Surface } from '../canvas/index.ts';
import { fillOf, type Paint, type PaintOf } from './paint.ts';
import { drawStroke, layingOf, operationOfLays } from './strokes.ts';
import { drawLying } from './tilted-picture.ts';

/** Fills a shape on what a context holds. */
export function drawShape(
  context: Context2D,
  mark: Pick<Shape, 'rings' | 'rule' | 'opacity' | 'lays'>,
  paint: Paint,
  matrix: Matrix,
): void {
  context.setTransform(...matrix);
  context.globalAlpha = mark.opacity;
  context.globalCompositeOperation = operationOfLays(mark.lays, paint);
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
  }
  fillPath(context, mark.rule);
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
}

/** Draws a mark on top of what the target holds. @param scratch of the target's size. */
export function drawMark(target: Surface, scratch: Scratch, mark: Mark, paintOf: PaintOf, matrix: Matrix): void {
  if (mark.kind === 'shape') drawShape(target.context, mark, paintOf(mark.swatch), matrix);
  else if (mark.kind === 'stroke' && mark.unseen) return;
  else {
    const paint = mark.kind === 'rub' ? '#000000' : paintOf(mark.swatch);
    const before = untiltedOf(mark);
    if (before) drawTilted(target, scratch, before, paint, matrix);
    else drawStroke(target, scratch, mark, layingOf(mark, paint), paint, matrix);
  }
}

/** px that a flat stroke is drawn larger by at most, for where it comes near. */
const FINEST = 4;

/** Draws a stroke of soft stamps on a tilted plane: flat first, as fine as it is seen anywhere, then pixel by pixel through the map. */
function drawTilted(target: Surface, scratch: Scratch, { flat, map }: Untilted, paint: Paint, matrix: Matrix): void {
  const { left, top, right, bottom } = grown(strokeBox(flat), 1);
  if (!(right > left && bottom > top)) return;
  const seen = composed(projectionFrom(matrix), map);
  const finest = [...cornersOf({ left, top, right, bottom }), { x: (left + right) / 2, y: (top + bottom) / 2 }]
    .map((at) => derivativeAt(seen, at))
    .reduce((max, { xx, xy, yx, yy }) => Math.max(max, Math.sqrt(Math.abs(xx * yy - xy * yx))), 0);
  const scale = Math.min(FINEST, Math.max(1 / FINEST, finest));
  const [width, height] = [Math.ceil((right - left) * scale), Math.ceil((bottom - top) * scale)];
  const on = scratch.make(width, height);
  const into: Matrix = [scale, 0, 0, scale, -left * scale, -top * scale];
  drawStroke(on, scratch, flat, { opacity: 1, operation: 'source-over' }, paint, into);
  const { opacity, operation } = layingOf(flat, paint);
  const back = composed(map, projectionFrom(invert(into)));
  target.context.globalCompositeOperation = operation;
  drawLying(target, { picture: on.picture, width, height, bend: back }, matrix, opacity, scratch.make);
  target.context.globalCompositeOperation = 'source-over';
}

/**
 * Draws a whole drawing. @param target an empty surface. @param matrix from element space to device pixels.
 * @param between called before each mark with what has been drawn so far.
 */
export function drawDrawing(
  target: Surface,
  scratch: Scratch,
  drawing: Drawing,
  paintOf: PaintOf,
  matrix: Matrix,
  between?: (on: Surface) => void,
): void {
  for (const id of drawing.order) {
    const mark = drawing.marks[id];
    between?.(target);
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
  return mark.kind === 'stroke' && !mark.unseen ? strokeBox(mark) : EMPTY_BOX;
}

function strokeBox({ samples, brush }: Pick<Stroke, 'samples' | 'brush'>): Box {
  let box = EMPTY_BOX;
  for (let c = 0; c < chunkCount(samples.x.length, brush); c++) box = union(box, chunkBox(samples, brush, c));
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

const drawingRooms = new WeakMap<Drawing, Box>();

/** A box that holds a drawing, a little too large, for where many are looked at: found from samples and handles alone. */
export function drawingRoom(drawing: Drawing): Box {
  const known = drawingRooms.get(drawing);
  if (known) return known;
  const found = Object.values(drawing.marks)
    .map((mark) => {
      const room = rooms.get(mark) ?? roomOf(mark);
      rooms.set(mark, room);
      return room;
    })
    .reduce(union, EMPTY_BOX);
  drawingRooms.set(drawing, found);
  return found;
}

/** Takes the box of `drawingRoom` as another thread has found it. */
export const takeRoom = (drawing: Drawing, room: Box): void => {
  drawingRooms.set(drawing, room);
};
