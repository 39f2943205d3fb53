/** A line of a given width round a shape. */
import type { BrushSettings, Id, NewId, Shape, Stroke } from '../document/index.ts';
import { ringPoints } from '../geometry/index.ts';

/** px from one sample of the line to the next, about. */
const STEP = 5;

/** Strokes along the outlines of a shape, holes too, each closed. @param width px. @param step px from one sample to the next, about. */
export function outlined(shape: Shape, width: number, swatch: Id, newId: NewId, step = STEP): Stroke[] {
  const brush: BrushSettings = { kind: 'ink', width, opacity: 1, pressure: false };
  return shape.rings.map((ring) => {
    const rough = ringPoints(ring, 4);
    const round = rough.reduce((sum, p, i) => {
      const q = rough[(i + 1) % rough.length]!;
      return sum + Math.hypot(q.x - p.x, q.y - p.y);
    }, 0);
    const steps = Math.max(2, Math.round(round / step / (ring.length / 6)));
    const points = ringPoints(ring, steps);
    const closed = [...points, points[0]!];
    const all = (value: number) => new Float32Array(closed.length).fill(value);
    return {
      kind: 'stroke',
      id: newId(),
      swatch,
      brush,
      seed: 0,
      samples: {
        x: Float32Array.from(closed, (p) => p.x),
        y: Float32Array.from(closed, (p) => p.y),
        pressure: all(1),
        altitude: all(Math.PI / 2),
        azimuth: all(0),
      },
      ...(shape.piece === undefined ? {} : { piece: shape.piece }),
    };
  });
}
