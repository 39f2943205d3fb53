/** Closed outlines from what the pen drew: the same curve as the line, led back to where it began. */
import type { Ring, Samples } from '../document/index.ts';

/** A closed curve through all samples of a stroke, element space. @throws with fewer than two samples. */
export function outlineRing({ x, y }: Pick<Samples, 'x' | 'y'>): Ring {
  const count = x.length;
  if (count < 2) throw new Error('An outline needs two samples at least');
  const ring = new Float32Array(count * 6);
  const at = (i: number) => (i + count) % count;
  for (let i = 0; i < count; i++) {
    const [before, after] = [at(i - 1), at(i + 1)];
    const [dx, dy] = [x[after]! - x[before]!, y[after]! - y[before]!];
    // Catmull-Rom handles, never longer than a third of the piece they lead along, so that uneven samples make no loops.
    const size = Math.sqrt(dx * dx + dy * dy) / 6;
    const reach = (other: number) => {
      const length = Math.hypot(x[other]! - x[i]!, y[other]! - y[i]!) / 3;
      return size > length && size > 0 ? length / size / 6 : 1 / 6;
    };
    const [into, out] = [reach(before), reach(after)];
    ring.set([x[i]!, y[i]!, x[i]! - dx * into, y[i]! - dy * into, x[i]! + dx * out, y[i]! + dy * out], i * 6);
  }
  return ring;
}

/** A stroke's samples led back to its first one, for the line round an outline. */
export function closedSamples(samples: Samples): Samples {
  const closed = (column: Float32Array) => {
    const longer = new Float32Array(column.length + 1);
    longer.set(column);
    longer[column.length] = column[0]!;
    return longer;
  };
  const { x, y, pressure, altitude, azimuth } = samples;
  return {
    x: closed(x),
    y: closed(y),
    pressure: closed(pressure),
    altitude: closed(altitude),
    azimuth: closed(azimuth),
  };
}
