/** Draws a row of the strip: an element's drawings over the shot, a notch for each turn. */
import { shotOf, type Element, type Placement } from '@tallow/core/document';
import { timedPhases } from '@tallow/core/plan';
import { cutOff, momentOn, seenFrames, shownOn, type Moment } from '@tallow/core/timing';
import type { Current } from '../selection/current.ts';
import { boxOfLayers, miniature, movingOf, sheetsAt } from '../picture/miniatures.ts';
import { phaseColour } from '../time/phases.ts';

export const ROW_HEIGHT = 28;

/** Frame numbers far enough apart to be read. */
export function drawRuler(
  context: CanvasRenderingContext2D,
  length: number,
  width: number,
  height: number,
  pixel: number,
): void {
  const perFrame = width / length;
  context.setTransform(pixel, 0, 0, pixel, 0, 0);
  context.clearRect(0, 0, width, height);
  context.font = '10px "JetBrains Mono Variable", monospace';
  context.fillStyle = '#a89987';
  const every = [1, 2, 4, 6, 12, 24, 48, 120, 240, 480, 1200, 2400].find((n) => n * perFrame >= 44) ?? 4800;
  for (let f = 0; f < length; f += every) context.fillText(String(f + 1), f * perFrame + 2, 11);
}

/** How a row of drawings is laid out, CSS px. */
interface RowPlace {
  /** Where the first frame of the row's holder lies, and how wide a frame is. */
  readonly left: number;
  readonly perFrame: number;
  readonly top: number;
  readonly height: number;
  /** Frames of the holder that are in view: from, and one past the last. */
  readonly from: number;
  readonly to: number;
  /** Device pixels per CSS pixel. */
  readonly pixel: number;
}

/** Draws what a use shows, drawing by drawing, with a notch where a turn begins. */
export function drawDrawings(
  context: CanvasRenderingContext2D,
  {
    doc,
    layers,
    element,
    placement,
    length,
  }: Pick<Current, 'doc' | 'layers' | 'element' | 'length'> & { placement: Placement },
  { left, perFrame, top, height, from, to, pixel }: RowPlace,
): void {
  const moving = movingOf(layers);
  const box = boxOfLayers(
    doc,
    moving.map(({ layer }) => layer),
  );
  const drawingsAt = (frame: number): string =>
    moving.map((timed) => shownOn(timed, frame, length)?.drawingId ?? '').join();
  const side = height - 4;
  const inTime = { ...placement, after: 'nothing' } as const;
  let free = -Infinity;
  let before: Moment | null = null;
  for (let f = Math.max(from, placement.start); f < to; f++) {
    const moment = momentOn(inTime, element, length, f);
    if (!moment) break;
    const x = left + f * perFrame;
    const begins: boolean = before === null || (moment.turn !== before.turn && length > 1);
    if (before && begins) {
      context.fillStyle = '#f4ecdf';
      context.fillRect(x - 1, top, 2, 6);
      context.fillRect(x - 1, top + height - 6, 2, 6);
    }
    const earlier: Moment | null = before;
    before = moment;
    // What stands in the row is looked up only where there is room for a picture: rows are drawn anew after each edit.
    if (x < free || !box) continue;
    if (!begins && earlier && drawingsAt(moment.frame) === drawingsAt(earlier.frame)) continue;
    const sheets = sheetsAt(moving, element, moment.frame, length);
    if (sheets.length === 0) continue;
    const size = Math.round(84 * pixel);
    const bitmap = miniature(doc, sheets, box, size, size);
    if (!bitmap) continue;
    context.globalAlpha = f - placement.start < length ? 1 : 0.42;
    context.drawImage(bitmap, x + 1, top + 2, side, side);
    context.globalAlpha = 1;
    free = x + side * 0.8;
  }
}

/** The frames of its holder that a use is seen on: from, and one past the last. */
export function spanOfUse(
  placement: Placement,
  element: Element,
  length: number,
  outerLength: number,
): [number, number] {
  const seen = seenFrames(placement, element, length);
  return [placement.start, Math.max(placement.start + 1, Math.min(outerLength, placement.start + seen))];
}

/** Draws the phases of an element's first turn: a coloured foot, and the name where it has room. @param at where its first frame lies. */
export function drawPhases(
  context: CanvasRenderingContext2D,
  { phases }: Pick<Element, 'phases'>,
  { left, perFrame, top, height }: Pick<RowPlace, 'left' | 'perFrame' | 'top' | 'height'>,
  /** px across up to which something else is written. */
  taken = -Infinity,
): void {
  const foot = top + height;
  context.font = '600 9px "Hanken Grotesk Variable", sans-serif';
  timedPhases(phases).forEach((phase, i) => {
    const [x, wide] = [left + phase.from * perFrame, phase.length * perFrame];
    context.fillStyle = phaseColour(i);
    context.fillRect(x + 1, foot - 3, Math.max(2, wide - 2), 2.5);
    const text = context.measureText(phase.name).width;
    if (text + 8 > wide || x < taken) return;
    context.fillStyle = 'rgb(20 17 15 / 0.78)';
    context.fillRect(x + 1, foot - 14, text + 6, 11);
    context.fillStyle = phaseColour(i);
    context.fillText(phase.name, x + 4, foot - 5.5);
  });
}

export function drawRow(
  context: CanvasRenderingContext2D,
  row: Current,
  width: number,
  pixel: number,
  active: boolean,
): void {
  const { length } = shotOf(row.doc);
  const perFrame = width / length;
  const { placement, element } = row;
  context.setTransform(pixel, 0, 0, pixel, 0, 0);
  context.clearRect(0, 0, width, ROW_HEIGHT);
  if (!placement) return;
  context.fillStyle = active ? '#231c17' : '#1a1613';
  const [begins, ends] = spanOfUse(placement, element, row.length, length);
  const from = Math.max(0, begins) * perFrame;
  context.beginPath();
  context.roundRect(from, 1, Math.max(2, ends * perFrame - from), ROW_HEIGHT - 2, 5);
  context.fill();
  if (placement.start > 0) {
    context.fillStyle = active ? '#ffc25c' : '#a89987';
    context.fillRect(from - 2, 4, 3, ROW_HEIGHT - 8);
  }
  const place = { left: 0, perFrame, top: 0, height: ROW_HEIGHT, from: 0, to: length, pixel };
  drawDrawings(context, { ...row, placement }, place);
  drawPhases(context, element, { left: from, perFrame, top: 0, height: ROW_HEIGHT });
  // A turn that the end of the shot cuts off is marked there.
  if (element.time === 'cycle' && cutOff(placement, element, row.length, length)) {
    context.fillStyle = '#e6b450';
    context.fillRect(width - 2, 3, 2, ROW_HEIGHT - 6);
  }
}
