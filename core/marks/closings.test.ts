import { drawingWith, strokeThrough } from '../testing/lines.ts';
import { IDENTITY, translation, type Point } from '../geometry/index.ts';
import { closingsOf } from './index.ts';

const WIDTH = 6;
const line = (...points: (readonly [number, number])[]) => strokeThrough(points, WIDTH);
const closings = (gap: number, ...lines: ReturnType<typeof line>[]): Point[][] =>
  closingsOf([{ drawing: drawingWith(...lines), matrix: IDENTITY }], gap);

/** An arc of a circle, px, degrees. */
function arc(r: number, from: number, to: number): ReturnType<typeof line> {
  const count = 80;
  return line(
    ...Array.from({ length: count + 1 }, (_, i): [number, number] => {
      const angle = ((from + ((to - from) * i) / count) * Math.PI) / 180;
      return [r * Math.cos(angle), r * Math.sin(angle)];
    }),
  );
}

test('two ends that do not lead to each other are joined straight', () => {
  // A steep roof without its ridge: neither side leads to the other's end.
  const [way] = closings(60, line([-60, 100], [0, 0]), line([100, 130], [40, 10]));
  expect(way).toEqual([
    { x: 0, y: 0 },
    { x: 40, y: 10 },
  ]);
});

test.each([4, 11, 30, 64, 120])('a circle with %i px missing is closed along that circle', (opening) => {
  const r = 150;
  const half = ((opening + WIDTH) / 2 / r) * (180 / Math.PI);
  for (const turn of [0, 17, 63, 128, 211]) {
    const ways = closings(opening + 4, arc(r, turn + half, turn + 360 - half));
    expect(ways).toHaveLength(1);
    for (const { x, y } of ways[0]!) expect(Math.abs(Math.hypot(x, y) - r)).toBeLessThan(0.5);
    const [first, last] = [ways[0]![0]!, ways[0]!.at(-1)!];
    expect(Math.hypot(first.x - last.x, first.y - last.y)).toBeGreaterThan(opening);
  }
});

test('a line that goes on straight is closed straight', () => {
  const [way] = closings(40, line([0, 0], [100, 50]), line([130, 65], [230, 115]));
  for (const { x, y } of way!) expect(Math.abs(y - x / 2)).toBeLessThan(0.01);
});

test('an end beside a line is led to the nearest place of it', () => {
  const ways = closings(30, line([0, 0], [200, 0]), line([90, 20], [90, 120]));
  expect(ways).toHaveLength(1);
  expect(ways[0]![0]).toEqual({ x: 90, y: 20 });
  expect(ways[0]![1]!.x).toBeCloseTo(90, 3);
  expect(ways[0]![1]!.y).toBeCloseTo(0, 3);
});

test('wider gaps stay open, and ends that meet a line close nothing', () => {
  expect(closings(20, line([0, 0], [100, 0]), line([130, 0], [230, 0]))).toEqual([]);
  expect(closings(20, line([0, 0], [100, 0]), line([100, 0], [100, 90]))).toEqual([]);
  expect(closings(0, line([0, 0], [100, 0]), line([104, 0], [200, 0]))).toEqual([]);
});

test('of several gaps the narrowest is closed first, and no end closes two', () => {
  const ways = closings(50, line([0, 0], [100, 0]), line([120, 0], [220, 0]), line([100, 40], [60, 90]));
  // The third line's end finds both others taken, and is led to the nearer of their lines.
  expect(ways[0]![0]!.y).toBeCloseTo(0, 6);
  const ends = ways.flatMap((way) => [way[0]!]);
  expect(new Set(ends.map(({ x, y }) => `${x} ${y}`)).size).toBe(ends.length);
});

test('lines of several drawings close with each other where they are seen', () => {
  const a = drawingWith(line([0, 0], [100, 0]));
  const b = drawingWith(line([0, 0], [100, 0]));
  const ways = closingsOf(
    [
      { drawing: a, matrix: IDENTITY },
      { drawing: b, matrix: translation(120, 0) },
    ],
    30,
  );
  expect(ways).toHaveLength(1);
  expect(ways[0]!.at(0)!.x + ways[0]!.at(-1)!.x).toBeCloseTo(220, 3);
});
