import fc from 'fast-check';
import {
  apply,
  EMPTY_BOX,
  fitRing,
  grown,
  intersection,
  invert,
  isEmpty,
  mapBox,
  multiply,
  polygonRing,
  ringPoints,
  scaleOf,
  seededIds,
  seededRandom,
  translation,
  union,
  wholePixels,
  type Matrix,
} from './index.ts';

const number = fc.double({ min: -100, max: 100, noNaN: true });
const matrix = fc
  .tuple(number, number, number, number, number, number)
  .filter(([a, b, c, d]) => Math.abs(a * d - b * c) > 0.1) as fc.Arbitrary<Matrix>;

test('a map and its inverse lead back', () => {
  fc.assert(
    fc.property(matrix, number, number, (m, x, y) => {
      const back = apply(invert(m), apply(m, { x, y }));
      expect(Math.hypot(back.x - x, back.y - y)).toBeLessThan(1e-3);
    }),
  );
  expect(() => invert([1, 2, 2, 4, 0, 0])).toThrow();
});
test('multiplied maps apply the inner one first', () => {
  expect(apply(multiply([2, 0, 0, 2, 0, 0], translation(3, 4)), { x: 1, y: 1 })).toEqual({ x: 8, y: 10 });
  expect(scaleOf([0, 3, -3, 0, 9, 9])).toBe(3);
});
test('boxes: union holds both, intersection lies in both, an empty box stays empty', () => {
  const a = { left: 0, top: 0, right: 4, bottom: 4 };
  const b = { left: 2, top: -2, right: 6, bottom: 2 };
  expect(union(a, b)).toEqual({ left: 0, top: -2, right: 6, bottom: 4 });
  expect(intersection(a, b)).toEqual({ left: 2, top: 0, right: 4, bottom: 2 });
  expect(isEmpty(intersection(a, { ...b, left: 5 }))).toBe(true);
  expect(mapBox([1, 0, 0, 1, 5, 5], EMPTY_BOX)).toBe(EMPTY_BOX);
  expect(wholePixels(grown({ left: 0.2, top: 0.2, right: 0.4, bottom: 0.4 }, 1))).toEqual({
    left: -1,
    top: -1,
    right: 2,
    bottom: 2,
  });
});
test('seeds: the same numbers again, evenly spread, ids in the form of UUIDs', () => {
  const random = seededRandom(5);
  const numbers = Array.from({ length: 2000 }, random);
  expect(numbers).toEqual(Array.from({ length: 2000 }, seededRandom(5)));
  expect(Math.abs(numbers.reduce((a, b) => a + b) / 2000 - 0.5)).toBeLessThan(0.03);
  expect(seededIds(1)()).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
});
test('a ring fitted to a circle is smooth and true to it; a square keeps its corners', () => {
  const circle = Array.from({ length: 240 }, (_, i): [number, number] => [
    100 * Math.cos((i / 120) * Math.PI),
    100 * Math.sin((i / 120) * Math.PI),
  ]);
  const ring = fitRing(circle, 0.5);
  expect(ring.length / 6).toBeLessThan(24);
  for (const p of ringPoints(ring, 10)) expect(Math.abs(Math.hypot(p.x, p.y) - 100)).toBeLessThan(0.5);
  const side = Array.from({ length: 40 }, (_, i) => i * 2.5);
  const square = [
    ...side.map((t) => [t, 0]),
    ...side.map((t) => [100, t]),
    ...side.map((t) => [100 - t, 100]),
    ...side.map((t) => [0, 100 - t]),
  ] as [number, number][];
  const nodes = fitRing(square, 0.5);
  const has = (x: number, y: number) =>
    Array.from({ length: nodes.length / 6 }, (_, i) => Math.hypot(nodes[i * 6]! - x, nodes[i * 6 + 1]! - y)).some(
      (d) => d < 0.01,
    );
  expect([has(0, 0), has(100, 0), has(100, 100), has(0, 100)]).toEqual([true, true, true, true]);
});
test('a polygon’s ring goes straight through its points', () => {
  expect(
    ringPoints(
      polygonRing([
        [0, 0],
        [3, 0],
        [0, 3],
      ]),
      1,
    ),
  ).toEqual([
    { x: 0, y: 0 },
    { x: 3, y: 0 },
    { x: 0, y: 3 },
  ]);
});
