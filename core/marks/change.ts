/** Marks with their points elsewhere: the one way all moving, bending and pulling goes. */
import type { Mark, Samples } from '../document/index.ts';
import type { Point } from '../geometry/index.ts';

/** Samples with other columns in place of some. */
export const withColumns = (samples: Samples, columns: Partial<Samples>): Samples => ({ ...samples, ...columns });

/**
 * A mark whose every point, handles of shapes too, is mapped. Points are rounded once, to 32-bit floats.
 * @param map element space to element space, px.
 */
export function mapped(mark: Mark, map: (point: Point) => Point): Mark {
  if (mark.kind === 'shape') {
    const rings = mark.rings.map((ring) => {
      const next = new Float32Array(ring.length);
      for (let i = 0; i < ring.length; i += 2) {
        const { x, y } = map({ x: ring[i]!, y: ring[i + 1]! });
        next[i] = x;
        next[i + 1] = y;
      }
      return next;
    });
    return { ...mark, rings };
  }
  const count = mark.samples.x.length;
  const [x, y] = [new Float32Array(count), new Float32Array(count)];
  for (let i = 0; i < count; i++) {
    const point = map({ x: mark.samples.x[i]!, y: mark.samples.y[i]! });
    x[i] = point.x;
    y[i] = point.y;
  }
  return { ...mark, samples: withColumns(mark.samples, { x, y }) };
}

/** Some samples of a stroke as columns of their own. */
export function samplesAt({ x, y, pressure, altitude, azimuth }: Samples, indices: readonly number[]): Samples {
  const take = (column: Float32Array) => Float32Array.from(indices, (i) => column[i]!);
  return { x: take(x), y: take(y), pressure: take(pressure), altitude: take(altitude), azimuth: take(azimuth) };
}

/** Samples one after another in one stroke. */
export function strung(parts: readonly Samples[]): Samples {
  const join = (name: keyof Samples) => {
    const column = new Float32Array(parts.reduce((sum, part) => sum + part.x.length, 0));
    let at = 0;
    for (const part of parts) {
      column.set(part[name], at);
      at += part.x.length;
    }
    return column;
  };
  return {
    x: join('x'),
    y: join('y'),
    pressure: join('pressure'),
    altitude: join('altitude'),
    azimuth: join('azimuth'),
  };
}

/** The samples from the last to the first. */
export const reversedSamples = (samples: Samples): Samples =>
  samplesAt(
    samples,
    Array.from(samples.x, (_, i) => samples.x.length - 1 - i),
  );
