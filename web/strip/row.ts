/** Draws a row of the strip: an element's drawings over the shot, a notch for each turn. */
import { shotOf } from '@tallow/core/document';
import { timedPhases } from '@tallow/core/plan';
import { isVisible, placementFrame } from '@tallow/core/timing';
import type { Current } from '../selection/current.ts';
import { boxAround, miniature, sheetsAt } from '../picture/miniatures.ts';
import { phaseColour } from '../time/phases.ts';

export const ROW_HEIGHT = 28;
const PICTURE = ROW_HEIGHT - 4;

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
  context.fillStyle = active ? '#231c17' : '#1a1613';
  const from = (placement?.start ?? 0) * perFrame;
  const to = element.time === 'cycle' ? width : Math.min(width, from + row.length * perFrame);
  context.beginPath();
  context.roundRect(from, 1, Math.max(2, to - from), ROW_HEIGHT - 2, 5);
  context.fill();
  if (!placement) return;
  if (placement.start > 0) {
    context.fillStyle = active ? '#ffc25c' : '#a89987';
    context.fillRect(from - 2, 4, 3, ROW_HEIGHT - 8);
  }
  const moving = row.layers.filter(
    (timed) => isVisible(timed) && timed.layer.role !== 'guide' && timed.list.period !== 1,
  );
  const box = boxAround(
    row.doc,
    moving.flatMap(({ layer }) => Object.values(layer.slots)),
  );
  let shownKey = '';
  let free = -1;
  for (let f = placement.start; f < length; f++) {
    const own = placementFrame(placement, element, row.length, f);
    if (own === null) break;
    const x = f * perFrame;
    if (own === 0 && f > placement.start && row.length > 1) {
      context.fillStyle = '#f4ecdf';
      context.fillRect(x - 1, 0, 2, 6);
      context.fillRect(x - 1, ROW_HEIGHT - 6, 2, 6);
      shownKey = '';
    }
    const sheets = sheetsAt(moving, element, own, row.length);
    const key = sheets.map((s) => s.drawingId).join();
    if (key === shownKey || !box) continue;
    shownKey = key;
    if (x < free || sheets.length === 0) continue;
    const side = Math.round(84 * pixel);
    const bitmap = miniature(row.doc, sheets, box, side, side);
    if (!bitmap) continue;
    context.globalAlpha = f - placement.start < row.length ? 1 : 0.42;
    context.drawImage(bitmap, x + 1, 2, PICTURE, PICTURE);
    context.globalAlpha = 1;
    free = x + PICTURE * 0.8;
  }
  // Phases of the first turn: a coloured foot, and the name where it has room.
  context.font = '600 9px "Hanken Grotesk Variable", sans-serif';
  timedPhases(element.phases).forEach((phase, i) => {
    const [x, wide] = [from + phase.from * perFrame, phase.length * perFrame];
    context.fillStyle = phaseColour(i);
    context.fillRect(x + 1, ROW_HEIGHT - 3, Math.max(2, wide - 2), 2.5);
    const text = context.measureText(phase.name).width;
    if (text + 8 > wide) return;
    context.fillStyle = 'rgb(20 17 15 / 0.78)';
    context.fillRect(x + 1, ROW_HEIGHT - 14, text + 6, 11);
    context.fillStyle = phaseColour(i);
    context.fillText(phase.name, x + 4, ROW_HEIGHT - 5.5);
  });
  // A turn that the end of the shot cuts off is marked there.
  const left = (length - placement.start) % row.length;
  if (element.time === 'cycle' && left !== 0 && placement.repeats === null) {
    context.fillStyle = '#e6b450';
    context.fillRect(width - 2, 3, 2, ROW_HEIGHT - 6);
  }
}
