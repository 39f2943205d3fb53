/** Circles as drawn lines: the balls an effect is built on. */
import type { Samples } from '../document/index.ts';
import { cosineTurn, sineTurn, type Point } from '../geometry/index.ts';
import type { StarterLine, StarterPaint } from './starter.ts';

/** What guides of every starter are drawn with. */
export const GUIDE_PAINT: StarterPaint = { key: 'guide', name: 'guide', role: 'outline', colour: '#d98fb0' };

/** Samples of a line through points, with pressures or all at 0.8. */
export function samplesOf(points: readonly Point[], pressure: (i: number) => number = () => 0.8): Samples {
  const column = (value: (i: number) => number) => Float32Array.from(points, (_, i) => value(i));
  return {
    x: column((i) => points[i]!.x),
    y: column((i) => points[i]!.y),
    pressure: column(pressure),
    altitude: column(() => 1.5707963267948966),
    azimuth: column(() => 0),
  };
}

/** A circle as a line. @param width px. */
export function circleLine(
  paint: string,
  { x, y, r }: { x: number; y: number; r: number },
  width: number,
): StarterLine {
  const count = Math.max(16, Math.min(48, Math.round(r / 2)));
  const points = Array.from({ length: count + 1 }, (_, i) => ({
    x: x + r * cosineTurn(i / count - 0.25),
    y: y + r * sineTurn(i / count - 0.25),
  }));
  return { paint, samples: samplesOf(points), width, opacity: 0.8 };
}
