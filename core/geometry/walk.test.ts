import fc from 'fast-check';
import {
  discRing,
  doubleAreaOf,
  evenPoints,
  keptPoints,
  ontoRuler,
  ringPoints,
  seek,
  walkOf,
  distanceToSegment,
  type Point,
} from './index.ts';

const place = fc.double({ min: -500, max: 500, noNaN: true });
const point = fc.record<Point>({ x: place, y: place });
const line = fc.array(point, { minLength: 2, maxLength: 30 });
const way = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y);

test('a walk is as long as its pieces, and a length leads into the piece it falls into', () => {
  fc.assert(
    fc.property(line, fc.boolean(), fc.double({ min: 0, max: 1, noNaN: true }), (points, closed, share) => {
      const walk = walkOf(points, closed);
      const all = closed ? [...points, points[0]!] : points;
      const sum = all.slice(1).reduce((total, p, i) => total + way(p, all[i]!), 0);
      expect(walk.length).toBeCloseTo(sum, 6);
      const { at, share: into } = seek(walk, share * walk.length);
      expect(walk.passed[at]! + into * ((walk.passed[at + 1] ?? walk.length) - walk.passed[at]!)).toBeCloseTo(
        share * walk.length,
        6,
      );
    }),
  );
});

test('even points of a straight line are evenly spaced; round a square they lie on its sides', () => {
  const straight = evenPoints(
    walkOf(
      [
        { x: 0, y: 0 },
        { x: 1, y: 0 },
        { x: 9, y: 0 },
      ],
      false,
    ),
    4,
    false,
  );
  expect(straight.map(({ x }) => x)).toEqual([0, 3, 6, 9]);
  const square = [
    { x: 0, y: 0 },
    { x: 4, y: 0 },
    { x: 4, y: 4 },
    { x: 0, y: 4 },
  ];
  expect(evenPoints(walkOf(square, true), 4, true)).toEqual(square);
  expect(evenPoints(walkOf(square, true), 4, true, 0.25)[0]).toEqual({ x: 4, y: 0 });
});

test('a disc is round, and its area that of a circle', () => {
  const points = ringPoints(discRing(3, -4, 20), 32);
  for (const p of points) expect(way(p, { x: 3, y: -4 })).toBeCloseTo(20, 1);
  expect(Math.abs(doubleAreaOf(points)) / 2 / (Math.PI * 400)).toBeCloseTo(1, 2);
});

test('the place on a ruler is the nearest one, and what lies on it stays', () => {
  fc.assert(
    fc.property(point, point, fc.double({ min: -4, max: 4, noNaN: true }), (edge, at, angle) => {
      const ruler = { ...edge, angle };
      const on = ontoRuler(ruler, at);
      const across = (p: Point) => (p.x - edge.x) * Math.sin(angle) - (p.y - edge.y) * Math.cos(angle);
      expect(Math.abs(across(on))).toBeLessThan(1e-6);
      expect(way(on, at)).toBeCloseTo(Math.abs(across(at)), 6);
      expect(way(ontoRuler(ruler, on), on)).toBeLessThan(1e-6);
    }),
  );
});

describe('thinning', () => {
  const columns = (points: readonly Point[]) => [points.map((p) => p.x), points.map((p) => p.y)] as const;

  test('no dropped point lies farther off than the tolerance', () => {
    fc.assert(
      fc.property(line, fc.double({ min: 0.1, max: 60, noNaN: true }), (points, tolerance) => {
        const kept = keptPoints(...columns(points), tolerance);
        expect([kept[0], kept.at(-1)]).toEqual([0, points.length - 1]);
        points.forEach((p, i) => {
          const after = kept.findIndex((k) => k >= i);
          const [a, b] = [points[kept[Math.max(0, after - 1)]!]!, points[kept[after]!]!];
          if (!kept.includes(i)) expect(distanceToSegment(p, a, b)).toBeLessThanOrEqual(tolerance + 1e-9);
        });
      }),
    );
  });

  test('with a limit the points farthest off go in first, and those that always stay are there', () => {
    const points = Array.from({ length: 41 }, (_, i) => ({ x: i, y: i === 11 ? 90 : i === 30 ? 40 : i % 2 }));
    expect(keptPoints(...columns(points), 0.1, { limit: 4 })).toEqual(expect.arrayContaining([0, 11, 40]));
    const always = [0, 20, 40];
    const kept = keptPoints(...columns(points), 0.1, { always, limit: 5 });
    expect(kept).toHaveLength(5);
    expect(kept).toEqual(expect.arrayContaining([...always, 11, 30]));
  });
});
