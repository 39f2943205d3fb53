/**
 * Strokes as pixels. A growing stroke, a settled one and one on the server are drawn by these same functions, in the same
 * order, which is what makes them equal to the pixel.
 */
import { chunkBox, chunkCount, fleckChunk, HAZE_FADE, hazeChunk, inkChunk, strokeRoom, tipOf } from '../brush/index.ts';
import type { BrushSettings, Lays, RubOut, Stroke } from '../document/index.ts';
import {
  EMPTY_BOX,
  grown,
  intersection,
  isEmpty,
  mapBox,
  multiply,
  union,
  wholePixels,
  type Box,
  type Matrix,
} from '../geometry/index.ts';
import { fillPath, type Context2D, type Scratch, type Surface } from '../canvas/index.ts';
import { GroundStroke, type RasterLine } from './ground-stroke.ts';
import { colourAt, fillOf, linePaint, type Paint, isHole } from './paint.ts';

const boundsOf = ({ width, height }: Surface): Box => ({ left: 0, top: 0, right: width, bottom: height });

/** Lays one chunk of a stroke that is no ground's in the given paint, without the brush's opacity. */
export function drawChunk({ context }: Surface, line: RasterLine, chunk: number, paint: Paint, matrix: Matrix): void {
  const { samples, brush, seed } = line;
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
  const { lays } = tipOf(brush);
  if (lays === 'stamps') drawHaze(context, line, chunk, linePaint(paint), matrix);
  else {
    context.setTransform(...matrix);
    context.fillStyle = fillOf(context, linePaint(paint), null);
    context.beginPath();
    if (lays === 'outline') inkChunk(context, samples, brush, chunk);
    else fleckChunk(context, samples, brush, seed, chunk);
    fillPath(context);
  }
}

/** Stamps are a disc of radius 1 scaled to each place, so that one gradient serves all that have one colour. */
function drawHaze(
  context: Context2D,
  { samples, brush, seed }: RasterLine,
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
export const operationOfLays = (lays: Lays | undefined, paint: Paint): Operation =>
  isHole(paint)
    ? 'destination-out'
    : lays === 'behind'
      ? 'destination-over'
      : lays === 'inside'
        ? 'source-atop'
        : 'source-over';

export const layingOf = (mark: Stroke | RubOut, paint: Paint): Laying => ({
  opacity: mark.brush.opacity,
  operation: mark.kind === 'rub' ? 'destination-out' : operationOfLays(mark.lays, paint),
});

/**
 * Whether chunks go straight onto what is there. A stroke is worked out apart and laid once, so that crossing itself does
 * not darken it; an opaque one that covers what it crosses needs none of that.
 */
export const goesStraight = (brush: BrushSettings, { opacity, operation }: Laying): boolean => {
  const { lays } = tipOf(brush);
  return opacity === 1 && operation === 'source-over' && (lays === 'outline' || lays === 'flecks');
};

/** Whether a stroke is worked out in half floats: haze builds up of layers fainter than a byte can tell. */
export const isDeep = (brush: BrushSettings): boolean => tipOf(brush).lays === 'stamps';

/** Whether a stroke is worked out pixel by pixel. */
export const isGround = (brush: BrushSettings): boolean => tipOf(brush).lays === 'ground';

/** Lays what a scratch surface holds inside `box` onto a surface. @param left, @param top the scratch's first pixel on the target. */
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

/** Draws a whole stroke on what the target holds. */
export function drawStroke(
  target: Surface,
  scratch: Scratch,
  line: RasterLine,
  laying: Laying,
  paint: Paint,
  matrix: Matrix,
): void {
  const chunks = chunkCount(line.samples.x.length, line.brush);
  if (goesStraight(line.brush, laying)) {
    // Only looked at for strokes that lie beyond the surface: a box found without walking the curve will do.
    const room = grown(mapBox(matrix, strokeRoom(line.samples, line.brush)), 1);
    if (isEmpty(intersection(room, boundsOf(target)))) return;
    for (let chunk = 0; chunk < chunks; chunk++) drawChunk(target, line, chunk, paint, matrix);
    return;
  }
  const box = intersection(chunksBox(line, 0, chunks, matrix), boundsOf(target));
  if (isEmpty(box)) return;
  const [width, height] = [box.right - box.left, box.bottom - box.top];
  if (isGround(line.brush)) {
    const on = scratch.of(width, height);
    const ground = new GroundStroke(box);
    for (let chunk = 0; chunk < chunks; chunk++) ground.bake(line, chunk, matrix);
    for (const part of ground.putTouched(on, paint, matrix, box.left, box.top))
      lay(target.context, on, part, laying, box.left, box.top);
    return;
  }
  // Of the target's size: moved by even a whole pixel, outlines would round here and there by a level.
  const on = scratch.of(target.width, target.height, isDeep(line.brush));
  on.context.setTransform(1, 0, 0, 1, 0, 0);
  on.context.clearRect(box.left, box.top, width, height);
  for (let chunk = 0; chunk < chunks; chunk++) drawChunk(on, line, chunk, paint, matrix);
  lay(target.context, on, box, laying);
}
