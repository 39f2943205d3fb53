/** The scales that drawings are drawn at while something is moved. */
import fc from 'fast-check';
import { multiply, scaleOf, type Matrix } from '../geometry/index.ts';
import { drawingWith, strokeThrough } from '../testing/lines.ts';
import { nearBy } from './near.ts';

const line = drawingWith(
  strokeThrough(
    [
      [100, 80],
      [300, 200],
    ],
    6,
  ),
);
const size = { width: 640, height: 360 };
const seenBy = (scale: number, angle: number, x: number, y: number): Matrix => [
  scale * Math.cos(angle),
  scale * Math.sin(angle),
  -scale * Math.sin(angle),
  scale * Math.cos(angle),
  x,
  y,
];
const anywhere = fc.tuple(
  fc.double({ min: 0.05, max: 1.4, noNaN: true }),
  fc.double({ min: -4, max: 4, noNaN: true }),
  fc.integer({ min: -500, max: 500 }),
  fc.integer({ min: -500, max: 500 }),
);

test('a drawing is drawn at most a fifth larger or smaller than it is seen, and laid where it is seen', () => {
  fc.assert(
    fc.property(anywhere, ([scale, angle, x, y]) => {
      const matrix = seenBy(scale, angle, x, y);
      const { at, rest } = nearBy(line, matrix, size)!;
      expect(scaleOf(at) / scale).toBeGreaterThan(1 / 1.2);
      expect(scaleOf(at) / scale).toBeLessThan(1.2);
      multiply(rest, at).forEach((value, i) => {
        expect(value).toBeCloseTo(matrix[i]!, 6);
      });
    }),
  );
});

test('what is drawn at a scale is drawn there again, wherever it lies and however it is turned', () => {
  const first = nearBy(line, seenBy(0.5, 0, 10, 20), size)!;
  for (const [scale, angle] of [
    [0.5, 1],
    [0.49, 0.2],
    [0.43, -2],
  ] as const)
    expect(nearBy(line, seenBy(scale, angle, 33, -7), size)!.at).toEqual(first.at);
  // Its own scale is no new one.
  expect(nearBy(line, first.at, size)!.at).toEqual(first.at);
});

test('what is far larger than the picture is drawn as it is seen, and what has no size not at all', () => {
  expect(nearBy(line, seenBy(60, 0, 0, 0), size)).toBeNull();
  expect(nearBy(line, seenBy(0, 0, 0, 0), size)).toBeNull();
});
