import { PenPath } from './pen-path.ts';

const path = (form: 'polyline' | 'curve') =>
  new PenPath({ form, finish: 'drawn', tolerance: 1, exact: false, points: [] }, 0);
const REACH = 10;

/** The pen comes down at a place, goes to another and lifts. */
function dragged(pen: PenPath, from: readonly [number, number], to: readonly [number, number] = from): boolean {
  pen.land(from[0], from[1], REACH);
  pen.add(from[0], from[1], 0.5, 1, 0);
  pen.add(to[0], to[1], 0.5, 1, 0);
  return pen.lift(REACH);
}
const ends = (pen: PenPath) => {
  const { x, y } = pen.samples();
  return [
    [x[0], y[0]],
    [x.at(-1), y.at(-1)],
  ];
};

test('a curve takes a point with each tap, and ends on the last one tapped again', () => {
  const pen = path('curve');
  expect(dragged(pen, [0, 0])).toBe(false);
  expect(dragged(pen, [100, 50])).toBe(false);
  expect(dragged(pen, [200, 0])).toBe(false);
  expect(pen.points).toEqual([
    { x: 0, y: 0 },
    { x: 100, y: 50 },
    { x: 200, y: 0 },
  ]);
  expect(dragged(pen, [203, 2])).toBe(true);
  expect(ends(pen)).toEqual([
    [0, 0],
    [200, 0],
  ]);
});

test('a point of a curve is dragged, and the curve goes on from its last one', () => {
  const pen = path('curve');
  for (const at of [
    [0, 0],
    [100, 50],
    [200, 0],
  ] as const)
    dragged(pen, at);
  expect(dragged(pen, [101, 49], [120, -40.3])).toBe(false);
  expect(pen.points[1]).toEqual({ x: 120, y: Math.fround(-40.3) });
  expect(pen.points).toHaveLength(3);
  // The last one too, and then it ends there.
  expect(dragged(pen, [200, 0], [240, 10.7])).toBe(false);
  expect(dragged(pen, [240, 11])).toBe(true);
  expect(ends(pen)[1]).toEqual([240, Math.fround(10.7)]);
});

test('a curve closes on its first point', () => {
  const pen = path('curve');
  for (const at of [
    [0, 0],
    [100, 0],
    [100, 100],
  ] as const)
    dragged(pen, at);
  expect(dragged(pen, [2, 1])).toBe(true);
  expect(ends(pen)).toEqual([
    [0, 0],
    [0, 0],
  ]);
});

test('ended by a key it has the points that were set, wherever the pen is', () => {
  for (const form of ['curve', 'polyline'] as const) {
    const pen = path(form);
    dragged(pen, [0, 0], [50, 0]);
    dragged(pen, [100, 50]);
    pen.add(400, 400, 0, 1, 0);
    pen.end();
    expect(ends(pen)).toEqual([
      [0, 0],
      [100, 50],
    ]);
  }
});

test('a line from point to point is seen from where the pen landed', () => {
  const pen = path('polyline');
  pen.add(0, 0, 0.5, 1, 0);
  pen.add(60, 0, 0.5, 1, 0);
  expect(ends(pen)).toEqual([
    [0, 0],
    [60, 0],
  ]);
});
