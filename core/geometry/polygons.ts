/** Places and straight-sided outlines. */
import type { Point } from './matrix.ts';

/** Whether a place lies in a closed polyline, by the even-odd rule. */
export function isInside(polygon: readonly Point[], { x, y }: Point): boolean {
  let inside = false;
  for (let i = 0, j = polygon.length - 1; i < polygon.length; j = i++) {
    const [a, b] = [polygon[i]!, polygon[j]!];
    if (a.y > y !== b.y > y && x < ((b.x - a.x) * (y - a.y)) / (b.y - a.y) + a.x) inside = !inside;
  }
  return inside;
}

/**
 * How far along a segment the place nearest to a point lies, 0 at its start and 1 at its end.
 * @param px @param py the point, told from the segment's start. @param dx @param dy the segment's end, told so too.
 */
export function nearestFraction(px: number, py: number, dx: number, dy: number): number {
  const squared = dx * dx + dy * dy;
  return squared === 0 ? 0 : Math.min(1, Math.max(0, (px * dx + py * dy) / squared));
}

/** Distance of a point from a segment, px. */
export function distanceToSegment(p: Point, a: Point, b: Point): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const t = nearestFraction(p.x - a.x, p.y - a.y, dx, dy);
  return Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy);
}

/** Twice the signed area within points, px². */
export function doubleAreaOf(points: readonly Point[]): number {
  let sum = 0;
  for (let i = 0; i < points.length; i++) {
    const [p, q] = [points[i]!, points[(i + 1) % points.length]!];
    sum += p.x * q.y - q.x * p.y;
  }
  return sum;
}
