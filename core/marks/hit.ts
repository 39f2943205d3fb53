/** Which marks lie where. */
import { breadthAt } from '../brush/index.ts';
import type { Drawing, Id, Mark } from '../document/index.ts';
import { ringPoints, type Point, isInside, distanceToSegment } from '../geometry/index.ts';

/** Points per piece by which the outline of a shape is walked. */
const STEPS = 6;

/** Places along a mark: a stroke's samples, or points round a shape's outlines. */
export const placesOf = (mark: Mark): Point[] =>
  mark.kind === 'shape'
    ? mark.rings.flatMap((ring) => ringPoints(ring, STEPS))
    : Array.from(mark.samples.x, (x, i) => ({ x, y: mark.samples.y[i]! }));

/** Marks of which at least half lies in a closed polyline, lowest first. */
export function marksInside(drawing: Drawing, polygon: readonly Point[]): Id[] {
  if (polygon.length < 3) return [];
  return drawing.order.filter((id) => {
    const places = placesOf(drawing.marks[id]!);
    return 2 * places.filter((p) => isInside(polygon, p)).length >= places.length;
  });
}

function isOn(mark: Mark, at: Point, reach: number): boolean {
  const places = placesOf(mark);
  if (mark.kind === 'shape') {
    const filled = mark.rings.map((ring) => isInside(ringPoints(ring, STEPS), at)).filter(Boolean).length;
    if (mark.rule === 'nonzero' ? filled > 0 : filled % 2 === 1) return true;
    return mark.rings.some((ring) => {
      const line = ringPoints(ring, STEPS);
      return line.some((p, i) => distanceToSegment(at, p, line[(i + 1) % line.length]!) <= reach);
    });
  }
  return places.some((p, i) => {
    const half = breadthAt(mark.brush, mark.samples.pressure[i]!, mark.samples.altitude[i]);
    return distanceToSegment(at, p, places[i + 1] ?? p) <= Math.max(half, reach);
  });
}

/** The topmost mark that can be seen at a place; a rub-out only if nothing else is there. @param reach px beyond it. */
export function markAt(drawing: Drawing, at: Point, reach: number): Id | null {
  const here = drawing.order.filter((id) => isOn(drawing.marks[id]!, at, reach));
  return here.findLast((id) => drawing.marks[id]!.kind !== 'rub') ?? here.at(-1) ?? null;
}

/** Marks in a swatch, lowest first. */
export const marksOfSwatch = (drawing: Drawing, swatch: Id): Id[] =>
  drawing.order.filter((id) => {
    const mark = drawing.marks[id]!;
    return mark.kind !== 'rub' && mark.swatch === swatch;
  });
