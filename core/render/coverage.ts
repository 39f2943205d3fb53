/** What a drawing covers, coarsely: for measures on a grid whose cells are far larger than an outline is exact. */
import { breadthAt } from '../brush/index.ts';
import { fillPath, wipe, type PathSink, type Surface } from '../canvas/index.ts';
import { marksInOrder, type Drawing, type RubOut, type Stroke } from '../document/index.ts';
import type { Matrix } from '../geometry/index.ts';
import { drawShape } from './marks.ts';
import { layingOf } from './strokes.ts';

const INK = '#000000';
/** Samples nearer to each other than this are one, device px. */
const APART = 0.5;

/** A band around the samples of a stroke, as broad as it is pressed; straight at its ends, its own breadth beyond them; a disc for a tap. */
function bandAround(sink: PathSink, { samples, brush }: Stroke | RubOut, matrix: Matrix): void {
  const { x, y, pressure, altitude } = samples;
  const [a, b, c, d, e, f] = matrix;
  const scale = Math.sqrt(Math.abs(a * d - b * c));
  const points: { x: number; y: number; half: number }[] = [];
  for (let i = 0; i < x.length; i++) {
    const at = { x: a * x[i]! + c * y[i]! + e, y: b * x[i]! + d * y[i]! + f };
    const last = points.at(-1);
    const isLast = i === x.length - 1 && points.length > 1;
    if (last && !isLast && Math.hypot(at.x - last.x, at.y - last.y) < APART) continue;
    points.push({ ...at, half: breadthAt(brush, pressure[i]!, altitude[i]) * scale });
  }
  if (points.length === 1) {
    sink.arc(points[0]!.x, points[0]!.y, points[0]!.half, 0, 2 * Math.PI);
    return;
  }
  const back: [number, number][] = [];
  points.forEach(({ x: px, y: py, half }, i) => {
    const [from, to] = [points[Math.max(0, i - 1)]!, points[Math.min(points.length - 1, i + 1)]!];
    const far = Math.hypot(to.x - from.x, to.y - from.y) || 1;
    const [dx, dy] = [((to.x - from.x) / far) * half, ((to.y - from.y) / far) * half];
    const beyond = i === 0 ? -1 : i === points.length - 1 ? 1 : 0;
    const [cx, cy] = [px + beyond * dx, py + beyond * dy];
    if (i === 0) sink.moveTo(cx - dy, cy + dx);
    else sink.lineTo(cx - dy, cy + dx);
    back.push([cx + dy, cy - dx]);
  });
  for (const [px, py] of back.reverse()) sink.lineTo(px, py);
}

/**
 * Draws what a drawing covers onto an emptied surface, in black: shapes as they are, strokes as plain bands.
 * @param matrix from element space to device pixels.
 */
export function drawCoverage(target: Surface, drawing: Drawing, matrix: Matrix): void {
  wipe(target);
  const { context } = target;
  for (const mark of marksInOrder(drawing)) {
    if (mark.kind === 'shape') {
      drawShape(context, mark, INK, matrix);
      continue;
    }
    if (mark.kind === 'stroke' && mark.unseen) continue;
    const { opacity, operation } = layingOf(mark, INK);
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalAlpha = opacity;
    context.globalCompositeOperation = operation;
    context.fillStyle = INK;
    context.beginPath();
    bandAround(context, mark, matrix);
    fillPath(context);
  }
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
}
