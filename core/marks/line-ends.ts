/** Ends of lines, and how far they are from other lines. */
import { breadths } from '../brush/index.ts';
import { marksInOrder, type Drawing, type Stroke } from '../document/index.ts';
import { distanceToSegment, nearestFraction, type Point } from '../geometry/index.ts';

/** A line as far as meeting it goes: its samples with half their width, and the box that all of it lies in. */
export interface EndedLine {
  readonly stroke: Stroke;
  readonly half: Float64Array;
  readonly box: { readonly left: number; readonly top: number; readonly right: number; readonly bottom: number };
}

/** The lines of a drawing, those that are never seen among them. */
export const linesIn = (drawing: Drawing): EndedLine[] =>
  marksInOrder(drawing).flatMap((mark): EndedLine[] => (mark.kind === 'stroke' ? [endedLine(mark)] : []));

export function endedLine(stroke: Stroke): EndedLine {
  const { samples, brush } = stroke;
  const half = breadths(samples, brush, 0, samples.x.length - 1);
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < half.length; i++) {
    const [x, y, r] = [samples.x[i]!, samples.y[i]!, half[i]!];
    [left, top] = [Math.min(left, x - r), Math.min(top, y - r)];
    [right, bottom] = [Math.max(right, x + r), Math.max(bottom, y + r)];
  }
  return { stroke, half, box: { left, top, right, bottom } };
}

export const placeOn = ({ stroke: { samples } }: EndedLine, i: number): Point => ({
  x: samples.x[i]!,
  y: samples.y[i]!,
});

/** The place of a line whose edge is nearest to a point. */
export interface LineMeeting extends Point {
  /** px from the point to the edge there; below 0 inside the line. */
  readonly far: number;
}

/**
 * Where a line's edge is nearest to a point, if that is within reach.
 * @param but samples that do not count, from and to. @param reach px beyond which nothing is looked for.
 */
export function nearestOn(
  line: EndedLine,
  point: Point,
  but: readonly [number, number] | null,
  reach: number,
): LineMeeting | null {
  const { half, box } = line;
  if (
    point.x < box.left - reach ||
    point.x > box.right + reach ||
    point.y < box.top - reach ||
    point.y > box.bottom + reach
  )
    return null;
  const last = half.length - 1;
  let found: LineMeeting | null = null;
  for (let i = 0; i < Math.max(1, last); i++) {
    if (but && i >= but[0] && i <= but[1]) continue;
    const [a, b] = [placeOn(line, i), placeOn(line, Math.min(last, i + 1))];
    const far = distanceToSegment(point, a, b) - half[i]!;
    if (far > reach || (found && far >= found.far)) continue;
    const share = nearestFraction(point.x - a.x, point.y - a.y, b.x - a.x, b.y - a.y);
    found = { x: a.x + share * (b.x - a.x), y: a.y + share * (b.y - a.y), far };
  }
  return found;
}

/** The samples near an end, along the line as far as `reach`: there it can't close with itself. */
export function ownSamples(line: EndedLine, end: number, reach: number): [number, number] {
  const last = line.half.length - 1;
  const step = end === 0 ? 1 : -1;
  let [i, far] = [end, 0];
  while (i + step >= 0 && i + step <= last && far < reach) {
    const [a, b] = [placeOn(line, i), placeOn(line, i + step)];
    far += Math.hypot(b.x - a.x, b.y - a.y);
    i += step;
  }
  return end === 0 ? [0, i] : [i, last];
}
