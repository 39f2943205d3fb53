/** Similarities of the plane: turned, scaled and moved. Kept as x' = a x - b y + e, y' = b x + a y + f. */
import type { Matrix, Point } from '../geometry/index.ts';

export interface Similarity {
  /** Radians, clockwise, -pi to pi. */
  readonly angle: number;
  /** Above 0. */
  readonly scale: number;
  /** Where the origin goes, px. */
  readonly e: number;
  readonly f: number;
}

/**
 * The similarity that takes points nearest to others, by least squares; a mere move when they coincide.
 * Method: Umeyama's, in the plane and without mirroring (S. Umeyama, 1991).
 */
export function similarityBetween(from: readonly Point[], to: readonly Point[]): Similarity {
  const count = Math.max(1, Math.min(from.length, to.length));
  let [fx, fy, tx, ty] = [0, 0, 0, 0];
  for (let i = 0; i < count; i++) {
    fx += from[i]?.x ?? 0;
    fy += from[i]?.y ?? 0;
    tx += to[i]?.x ?? 0;
    ty += to[i]?.y ?? 0;
  }
  [fx, fy, tx, ty] = [fx / count, fy / count, tx / count, ty / count];
  let [dot, cross, norm] = [0, 0, 0];
  for (let i = 0; i < Math.min(from.length, to.length); i++) {
    const [ax, ay] = [from[i]!.x - fx, from[i]!.y - fy];
    const [bx, by] = [to[i]!.x - tx, to[i]!.y - ty];
    dot += ax * bx + ay * by;
    cross += ax * by - ay * bx;
    norm += ax * ax + ay * ay;
  }
  const length = Math.hypot(dot, cross);
  const [angle, scale] = norm > 1e-9 && length > 1e-9 ? [Math.atan2(cross, dot), length / norm] : [0, 1];
  const [a, b] = [Math.cos(angle) * scale, Math.sin(angle) * scale];
  return { angle, scale, e: tx - a * fx + b * fy, f: ty - b * fx - a * fy };
}

export function matrixOfSimilarity({ angle, scale, e, f }: Similarity): Matrix {
  const [a, b] = [Math.cos(angle) * scale, Math.sin(angle) * scale];
  return [a, b, -b, a, e, f];
}

/** Scales and angles nearer than this to none make a mere move. */
const NONE = 1e-4;

/**
 * A similarity done to a share: 0 nothing, 1 all of it, beyond as far again. Points turn around the place that
 * stays where it is, on a spiral; one that only moves goes straight.
 */
export function powerOf({ angle, scale, e, f }: Similarity, share: number): Matrix {
  const [a, b] = [Math.cos(angle) * scale, Math.sin(angle) * scale];
  // The place that stays: (1 - M) p = t.
  const det = (1 - a) * (1 - a) + b * b;
  if (Math.abs(angle) < NONE && Math.abs(scale - 1) < NONE) return [1, 0, 0, 1, e * share, f * share];
  const [px, py] = [((1 - a) * e - b * f) / det, (b * e + (1 - a) * f) / det];
  const s = Math.pow(scale, share);
  const [c, d] = [Math.cos(angle * share) * s, Math.sin(angle * share) * s];
  return [c, d, -d, c, px - c * px + d * py, py - d * px - c * py];
}
