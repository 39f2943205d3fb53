import type { Drawing, Stroke } from '../document/index.ts';
import { openEnds } from './index.ts';

let made = 0;
/** A stroke of ink through points, as wide as said all along. */
function stroke(points: readonly (readonly [number, number])[], width = 6): Stroke {
  made += 1;
  const flat = (v: number) => new Float32Array(points.length).fill(v);
  return {
    kind: 'stroke',
    id: `s${made}`,
    swatch: 'ink',
    brush: { kind: 'ink', width, opacity: 1, pressure: false },
    seed: 1,
    samples: {
      x: Float32Array.from(points, ([x]) => x),
      y: Float32Array.from(points, ([, y]) => y),
      pressure: flat(1),
      altitude: flat(1.5),
      azimuth: flat(0),
    },
  };
}
const drawingOf = (...strokes: Stroke[]): Drawing => ({
  kind: 'drawing',
  id: 'd',
  marks: Object.fromEntries(strokes.map((each) => [each.id, each])),
  order: strokes.map(({ id }) => id),
});
const arc = (from: number, to: number): [number, number][] =>
  Array.from({ length: 60 }, (_, i) => {
    const angle = from + ((to - from) * i) / 59;
    return [100 * Math.cos(angle), 100 * Math.sin(angle)];
  });

test('a lone line is open at both ends, a ring at none', () => {
  expect(
    openEnds(
      drawingOf(
        stroke([
          [0, 0],
          [50, 0],
          [100, 0],
        ]),
      ),
      4,
    ),
  ).toEqual([
    { x: 0, y: 0 },
    { x: 100, y: 0 },
  ]);
  expect(openEnds(drawingOf(stroke(arc(0, 2 * Math.PI))), 4)).toEqual([]);
});

test('an end is open where the next edge is farther than the gap, and closed where it is nearer', () => {
  // Edge to edge the ends of the arc stand 12 px apart: 18 px from middle to middle, of lines 6 px wide.
  const open = stroke(arc(0.09, 2 * Math.PI - 0.09));
  expect(openEnds(drawingOf(open), 8)).toHaveLength(2);
  expect(openEnds(drawingOf(open), 16)).toHaveLength(0);
});

test('ends that meet other lines anywhere along them are closed; unseen strokes close and are never open', () => {
  const beam = stroke([
    [0, 0],
    [200, 0],
  ]);
  const post = stroke([
    [80, 4],
    [80, 60],
  ]);
  expect(openEnds(drawingOf(beam, post), 3)).toEqual([
    { x: 0, y: 0 },
    { x: 200, y: 0 },
    { x: 80, y: 60 },
  ]);
  const closing: Stroke = {
    ...stroke([
      [80, 60],
      [200, 0],
    ]),
    unseen: true,
  };
  expect(openEnds(drawingOf(beam, post, closing), 3)).toEqual([{ x: 0, y: 0 }]);
});
