/** Turns a ring into the samples of a line drawn along it, fullest at the foot and finest at the tips. */
import type { Ring, Samples } from '../document/index.ts';
import { doubleAreaOf, keptPoints, ringPoints } from '../geometry/index.ts';
import type { StarterLine } from './starter.ts';

/** Samples a line may have at most. */
export const LINE_SAMPLES = 150;

/** px an outline's line may leave it by. */
const TOLERANCE = 0.12;

interface Dot {
  readonly x: number;
  readonly y: number;
}

/** The outline of an area as a line that stays with it. @param width px. */
export const outlinedLine = (ring: Ring, paint: string, width: number): StarterLine => ({
  paint,
  samples: lineAlong(ring),
  width,
  along: ring,
});

/** Areas at least this many line widths across have their line whole; smaller ones have less of it. */
const WHOLE = 9;
/** Below this many widths across an area has no line: it would be a crumb of line alone. */
const BARE = 2.6;

/**
 * Outlines of areas that may be small: a line goes with its body, thinner the smaller that is, and is gone before it.
 * @param width px, of a large area.
 */
export const outlinedAll = (rings: readonly Ring[], paint: string, width: number): StarterLine[] =>
  rings.flatMap((ring) => {
    const across = Math.sqrt(Math.abs(doubleAreaOf(ringPoints(ring, 4))) / 2);
    const share = (across / width - BARE) / (WHOLE - BARE);
    return share <= 0 ? [] : [outlinedLine(ring, paint, width * Math.min(1, 0.35 + 0.65 * share))];
  });

/** A closed line along a ring: at most 150 samples, pressure by how level the line runs. */
export function lineAlong(ring: Float32Array): Samples {
  const walked = ringPoints(ring, 12);
  const foot = walked.reduce((lowest, p, i) => (p.y > walked[lowest]!.y ? i : lowest), 0);
  const points = [...walked.slice(foot), ...walked.slice(0, foot + 1)];
  const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)];
  const always = [0, Math.floor(points.length / 2), points.length - 1];
  const chosen = keptPoints(xs, ys, TOLERANCE, { always, limit: LINE_SAMPLES });
  const top = Math.min(...points.map((p) => p.y));
  const height = Math.max(1, points[0]!.y - top);
  const column = (value: (p: Dot, i: number) => number) => Float32Array.from(chosen, (i) => value(points[i]!, i));
  return {
    x: column((p) => p.x),
    y: column((p) => p.y),
    pressure: column((p, i) => {
      const before = points[Math.max(0, i - 6)]!;
      const after = points[Math.min(points.length - 1, i + 6)]!;
      const run = Math.hypot(after.x - before.x, after.y - before.y) || 1;
      const level = Math.abs(after.x - before.x) / run;
      return Math.min(1, 0.3 + 0.35 * level + 0.35 * ((p.y - top) / height));
    }),
    altitude: column(() => Math.PI / 2),
    azimuth: column(() => 0),
  };
}
