import fc from 'fast-check';
import type { Samples } from '../document/index.ts';
import { keptPoints } from '../geometry/index.ts';
import { arcPoints, curveThrough, levelled, madeSamples, type Making } from './index.ts';

const samplesOf = (points: readonly (readonly [number, number])[]): Samples => ({
  x: Float32Array.from(points, ([x]) => x),
  y: Float32Array.from(points, ([, y]) => y),
  pressure: new Float32Array(points.length).fill(0.5),
  altitude: new Float32Array(points.length).fill(1),
  azimuth: new Float32Array(points.length),
});
const making: Making = { form: 'free', finish: 'drawn', tolerance: 3, exact: false, points: [] };
const point = fc.tuple(fc.integer({ min: -400, max: 400 }), fc.integer({ min: -400, max: 400 }));
const pointsOf = ({ x, y }: Samples) => Array.from(x, (px, i) => [px, y[i]!] as const);

/** How far a place is from a polyline, px. */
function away([px, py]: readonly [number, number], line: readonly (readonly [number, number])[]): number {
  return Math.min(
    ...line.slice(1).map(([bx, by], i) => {
      const [ax, ay] = line[i]!;
      const squared = (bx - ax) ** 2 + (by - ay) ** 2;
      const t = squared === 0 ? 0 : Math.min(1, Math.max(0, ((px - ax) * (bx - ax) + (py - ay) * (by - ay)) / squared));
      return Math.hypot(px - ax - t * (bx - ax), py - ay - t * (by - ay));
    }),
  );
}

test('thinning keeps the ends, and every dropped point within its tolerance', () => {
  fc.assert(
    fc.property(
      fc.array(point, { minLength: 2, maxLength: 60 }),
      fc.integer({ min: 1, max: 50 }),
      (points, tolerance) => {
        const { x, y } = samplesOf(points);
        const kept = keptPoints(x, y, tolerance);
        expect([kept[0], kept.at(-1)]).toEqual([0, points.length - 1]);
        const line = kept.map((i) => points[i]!);
        for (const p of points) expect(away(p, line)).toBeLessThanOrEqual(tolerance + 1e-6);
      },
    ),
  );
});

describe('finished freehand', () => {
  test('angular goes straight from corner to corner, within its tolerance', () => {
    const wave = Array.from({ length: 80 }, (_, i): [number, number] => [i * 4, i % 20 < 10 ? i * 6 : -i * 3]);
    const made = pointsOf(madeSamples(samplesOf(wave), { ...making, finish: 'angular', tolerance: 5 }));
    for (const p of wave) expect(away(p, made)).toBeLessThanOrEqual(5.001);
    // Corners are there twice, which is what makes them crisp.
    expect(made[1]).toEqual(made[2]);
  });
  test('smooth stays near the drawn line with fewer turns than a shaky hand', () => {
    const shaky = Array.from({ length: 120 }, (_, i): [number, number] => [
      i * 3,
      60 * Math.sin(i / 20) + (i % 2 === 0 ? 1.2 : -1.2),
    ]);
    const made = pointsOf(madeSamples(samplesOf(shaky), { ...making, finish: 'smooth', tolerance: 3 }));
    for (const p of made) expect(away(p, shaky)).toBeLessThan(3.5);
    const turns = (list: readonly (readonly [number, number])[]) =>
      list.slice(2).filter(([, y], i) => (list[i + 1]![1] - list[i]![1]) * (y - list[i + 1]![1]) < 0).length;
    expect(turns(made)).toBeLessThan(turns(shaky) / 5);
  });
});

describe('made forms', () => {
  const drag = samplesOf([
    [10, 20],
    [40, 50],
    [110, 80],
  ]);
  test('a line is straight, and level or at 15 degrees when asked', () => {
    expect(pointsOf(madeSamples(drag, { ...making, form: 'line' }))).toEqual([
      [10, 20],
      [110, 80],
    ]);
    fc.assert(
      fc.property(point, point, ([ax, ay], [bx, by]) => {
        fc.pre(ax !== bx || ay !== by);
        const end = levelled({ x: ax, y: ay }, { x: bx, y: by }, 24);
        const angle = (Math.atan2(end.y - ay, end.x - ax) * 180) / Math.PI / 15;
        expect(Math.abs(angle - Math.round(angle))).toBeLessThan(1e-6);
        expect(Math.hypot(end.x - ax, end.y - ay)).toBeCloseTo(Math.hypot(bx - ax, by - ay), 6);
      }),
    );
  });
  test('a rectangle has four corners and closes; a square’s sides are equal', () => {
    const corners = new Set(pointsOf(madeSamples(drag, { ...making, form: 'rectangle' })).map(String));
    expect(corners).toEqual(new Set(['10,20', '110,20', '110,80', '10,80']));
    const square = madeSamples(drag, { ...making, form: 'rectangle', exact: true });
    expect([Math.max(...square.x), Math.max(...square.y)]).toEqual([110, 120]);
  });
  test('an ellipse fills its box; a circle is as far from its middle everywhere', () => {
    const { x, y } = madeSamples(drag, { ...making, form: 'ellipse' });
    expect([Math.min(...x), Math.max(...x), Math.min(...y), Math.max(...y)]).toEqual([10, 110, 20, 80]);
    for (const [cx, cy] of pointsOf(madeSamples(drag, { ...making, form: 'circle' })))
      expect(Math.hypot(cx - 10, cy - 20)).toBeCloseTo(Math.hypot(100, 60), 3);
  });
  test('an arc goes through its three points, all as far from one middle', () => {
    fc.assert(
      fc.property(point, point, point, (a, b, c) => {
        const [p, q, r] = [a, b, c].map(([x, y]) => ({ x, y })) as [
          { x: number; y: number },
          { x: number; y: number },
          { x: number; y: number },
        ];
        fc.pre(Math.abs((q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x)) > 2000);
        const arc = arcPoints(p, q, r);
        expect([arc[0], arc.at(-1)]).toEqual([p, r]);
        // The place it passes lies on the arc: nearer than the arc's own steps are deep.
        const size = Math.max(...arc.map((s) => Math.hypot(s.x - p.x, s.y - p.y)));
        expect(
          away(
            [q.x, q.y],
            arc.map((s) => [s.x, s.y] as const),
          ),
        ).toBeLessThan(size * 0.01 + 0.5);
      }),
    );
  });
  test('a polyline goes on from the points set before', () => {
    const points = [
      { x: 0, y: 0 },
      { x: 50, y: 0 },
    ];
    const made = pointsOf(madeSamples(drag, { ...making, form: 'polyline', points }));
    expect([made[0], made.at(-1)]).toEqual([
      [0, 0],
      [110, 80],
    ]);
  });
  test('a curve passes its points, runs on at each without a corner, and closes where it began', () => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 4, maxLength: 8 }), fc.boolean(), (list, closed) => {
        const points = list.map(([x, y]) => ({ x, y }));
        fc.pre(points.every((p, i) => i === 0 || Math.hypot(p.x - points[i - 1]!.x, p.y - points[i - 1]!.y) > 20));
        fc.pre(Math.hypot(points[0]!.x - points.at(-1)!.x, points[0]!.y - points.at(-1)!.y) > 20);
        const curve = curveThrough(points, closed);
        for (const p of points) expect(curve).toContainEqual(p);
        expect(curve[0]).toEqual(points[0]);
        expect(curve.at(-1)).toEqual(closed ? points[0] : points.at(-1));
        // No loop: it never goes farther from its points than they are apart.
        const reach = Math.max(
          ...points.map((p, i) => Math.hypot(p.x - points.at(i - 1)!.x, p.y - points.at(i - 1)!.y)),
        );
        for (const p of curve)
          expect(Math.min(...points.map((q) => Math.hypot(p.x - q.x, p.y - q.y)))).toBeLessThan(reach);
      }),
    );
  });
  test('a curve through points on a circle stays by that circle', () => {
    const on = Array.from({ length: 8 }, (_, i) => ({
      x: 100 * Math.cos((i * Math.PI) / 4),
      y: 100 * Math.sin((i * Math.PI) / 4),
    }));
    for (const { x, y } of curveThrough(on, true)) expect(Math.abs(Math.hypot(x, y) - 100)).toBeLessThan(1.5);
  });
});
