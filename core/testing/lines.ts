/** Drawings of plain lines, for tests of what lines bound. */
import type { Drawing, Stroke } from '../document/index.ts';
import { seededIds } from '../geometry/index.ts';

const newId = seededIds(4711);

/** An even ink stroke through points. @param width px. */
export function strokeThrough(points: readonly (readonly [number, number])[], width: number): Stroke {
  const column = (of: (i: number) => number) => Float32Array.from(points, (_, i) => of(i));
  return {
    kind: 'stroke',
    id: newId(),
    swatch: newId(),
    brush: { kind: 'ink', width, opacity: 1, pressure: false },
    seed: 1,
    samples: {
      x: column((i) => points[i]![0]),
      y: column((i) => points[i]![1]),
      pressure: column(() => 1),
      altitude: column(() => Math.PI / 2),
      azimuth: column(() => 0),
    },
  };
}

export const drawingWith = (...strokes: Stroke[]): Drawing => ({
  kind: 'drawing',
  id: newId(),
  order: strokes.map(({ id }) => id),
  marks: Object.fromEntries(strokes.map((stroke) => [stroke.id, stroke])),
});
