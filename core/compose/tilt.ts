/** Drawings on a tilted plane: every point of every mark where perspective puts it, so that edges stay crisp. */
import { breadthAt, tipOf } from '../brush/index.ts';
import { drawingLater, type Drawing, type Mark, type Stroke } from '../document/index.ts';
import { derivativeAt, project, type Projection } from '../geometry/index.ts';
import { warpedRing, withColumns } from '../marks/index.ts';

const known = new WeakMap<Drawing, Map<string, Drawing>>();
/** Tilts of one drawing kept; a placement's corners stay while it plays. */
const KEPT = 16;

/**
 * By how much a line grows across its way at each of its samples: |det J| / |J t| of the map's derivative J and the line's
 * direction t, a unit vector.
 */
function growths({ samples: { x, y } }: Pick<Stroke, 'samples'>, map: Projection): Float64Array {
  const count = x.length;
  return Float64Array.from({ length: count }, (_, i) => {
    const { xx, xy, yx, yy } = derivativeAt(map, { x: x[i]!, y: y[i]! });
    const det = Math.abs(xx * yy - xy * yx);
    const [a, b] = [Math.max(0, i - 1), Math.min(count - 1, i + 1)];
    const [dx, dy] = [x[b]! - x[a]!, y[b]! - y[a]!];
    const size = Math.sqrt(dx * dx + dy * dy);
    // A tap has no direction: it grows as its area does.
    if (size === 0) return Math.sqrt(det);
    const [tx, ty] = [(xx * dx + xy * dy) / size, (yx * dx + yy * dy) / size];
    return det / Math.max(1e-9, Math.sqrt(tx * tx + ty * ty));
  });
}

/** A stroke as it was before its plane was tilted, and the map that tilts it. */
export interface Untilted {
  readonly flat: Exclude<Mark, { kind: 'shape' }>;
  readonly map: Projection;
}
const untilted = new WeakMap<Mark, Untilted>();

/**
 * What a tilted stroke of soft stamps was made from: a stamp is no disc in perspective, so such strokes are drawn flat and taken back
 * through the map pixel by pixel. Undefined for all other marks.
 */
export const untiltedOf = (mark: Mark): Untilted | undefined => untilted.get(mark);

/**
 * A stroke, tilted: its points moved, its width by how it grows across. Lines that are outlines go exactly by the sample, rough ones by
 * their mean; soft stamps are drawn by what they were (`untiltedOf`), and are as wide here as they get anywhere.
 */
function tiltedStroke<M extends Exclude<Mark, { kind: 'shape' }>>(mark: M, map: Projection): M {
  const { samples, brush } = mark;
  const count = samples.x.length;
  const [x, y] = [new Float32Array(count), new Float32Array(count)];
  for (let i = 0; i < count; i++) {
    const at = project(map, { x: samples.x[i]!, y: samples.y[i]! });
    x[i] = at.x;
    y[i] = at.y;
  }
  const grown = growths(mark, map);
  const mean = grown.reduce((sum, each) => sum + each, 0) / Math.max(1, count);
  const tip = tipOf(brush);
  const taper = brush.taper && ([brush.taper[0] * mean, brush.taper[1] * mean] as const);
  const tapers = taper ? { taper } : {};
  if (tip.lays === 'stamps') {
    const max = grown.reduce((a, b) => Math.max(a, b), 0);
    const soft = { ...mark, brush: { ...brush, width: brush.width * max }, samples: withColumns(samples, { x, y }) };
    untilted.set(soft, { flat: mark, map });
    return soft;
  }
  if (tip.lays !== 'outline' || tip.lightest >= 1)
    return {
      ...mark,
      brush: { ...brush, ...tapers, width: brush.width * mean },
      samples: withColumns(samples, { x, y }),
    };
  // The width a pressure gives is linear in it: pressures are set so that each sample is as wide as it is to be.
  const half = grown.map((grows, i) => grows * breadthAt(brush, samples.pressure[i]!, samples.altitude[i]));
  const widest = half.reduce((max, each) => Math.max(max, each), 1e-6);
  const pressure = Float32Array.from(half, (each) => (each / widest - tip.lightest) / (1 - tip.lightest));
  const plain = { ...brush, ...tapers, width: 2 * widest, pressure: true };
  if (plain.tilt !== undefined) plain.tilt = 0;
  return { ...mark, brush: plain, samples: withColumns(samples, { x, y, pressure }) };
}

/**
 * A drawing with every mark where a projection puts it: straight pieces stay straight exactly, curved ones are cut until they
 * follow within a fraction of a px. Its id tells the tilt, after a `~`.
 */
export function tilted(drawing: Drawing, map: Projection): Drawing {
  const key = map.map((part) => part.toPrecision(9)).join();
  let kept = known.get(drawing);
  if (!kept || kept.size >= KEPT) known.set(drawing, (kept = new Map<string, Drawing>()));
  const bending = { map: (p: { x: number; y: number }) => project(map, p) };
  const made =
    kept.get(key) ??
    drawingLater(`${drawing.id}~${key}`, drawing.order, () =>
      Object.fromEntries(
        Object.entries(drawing.marks).map(([id, mark]): [string, Mark] => [
          id,
          mark.kind === 'shape'
            ? { ...mark, rings: mark.rings.map((ring) => warpedRing(ring, bending)) }
            : tiltedStroke(mark, map),
        ]),
      ),
    );
  kept.set(key, made);
  return made;
}
