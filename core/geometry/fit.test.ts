import fc from 'fast-check';
import { fitSection } from './fit.ts';
import { cosineTurn, fitLine, fitRing, ringPoints, sineTurn, smoothStep, unitedRings } from './index.ts';

type Pair = [number, number];

/** The farthest any point of a curve lies from a polyline, px. */
function stray(curve: readonly { x: number; y: number }[], line: readonly Pair[]): number {
  return Math.max(
    ...curve.map((p) =>
      Math.min(
        ...line.slice(1).map(([bx, by], i) => {
          const [ax, ay] = line[i]!;
          const [dx, dy] = [bx - ax, by - ay];
          const squared = dx * dx + dy * dy;
          const t = squared === 0 ? 0 : Math.min(1, Math.max(0, ((p.x - ax) * dx + (p.y - ay) * dy) / squared));
          return Math.hypot(p.x - ax - t * dx, p.y - ay - t * dy);
        }),
      ),
    ),
  );
}

/** A smooth wandering line of close points. */
const wandering = fc
  .record({
    long: fc.integer({ min: 8, max: 200 }),
    sway: fc.double({ min: 0, max: 60, noNaN: true }),
    waves: fc.double({ min: 0.2, max: 3, noNaN: true }),
  })
  .map(({ long, sway, waves }): Pair[] =>
    Array.from({ length: long }, (_, i) => [i * 3, sway * sineTurn((waves * i) / long)]),
  );

describe('fitting a curve', () => {
  test('begins and ends where the line does, in pieces that join, within the tolerance', () => {
    fc.assert(
      fc.property(wandering, fc.constantFrom(0.3, 1, 4), (line, tolerance) => {
        const pieces = fitSection(line, tolerance);
        expect(pieces[0]![0]).toEqual(line[0]);
        expect(pieces.at(-1)![3]).toEqual(line.at(-1));
        pieces.slice(1).forEach((piece, i) => {
          expect(piece[0]).toEqual(pieces[i]![3]);
        });
        const curve = ringPoints(fitLine(line, tolerance), 12).slice(0, pieces.length * 12);
        expect(stray(curve, line)).toBeLessThan(tolerance + 0.15);
      }),
      { numRuns: 100 },
    );
  });
  test('a straight line is one piece, and a coarser fit has no more pieces than a finer one', () => {
    const straight = Array.from({ length: 30 }, (_, i): Pair => [i, 2 * i]);
    expect(fitSection(straight, 0.2)).toHaveLength(1);
    const wave = Array.from({ length: 120 }, (_, i): Pair => [i * 3, 40 * sineTurn(i / 30)]);
    expect(fitSection(wave, 3).length).toBeLessThanOrEqual(fitSection(wave, 0.3).length);
  });
  test('points that repeat are passed over; a line of one place stays there', () => {
    const twice: Pair[] = [
      [0, 0],
      [0, 0],
      [10, 0],
      [10, 0],
      [20, 0],
    ];
    expect(fitSection(twice, 0.5)).toHaveLength(1);
    expect(
      fitSection(
        [
          [3, 4],
          [3, 4],
        ],
        0.5,
      ),
    ).toEqual([
      [
        [3, 4],
        [3, 4],
        [3, 4],
        [3, 4],
      ],
    ]);
  });
  test('a closed one without corners is smooth where it begins', () => {
    const round = Array.from({ length: 90 }, (_, i): Pair => [100 * cosineTurn(i / 90), 100 * sineTurn(i / 90)]);
    const ring = fitRing(round, 0.3);
    const [x, y, inX, inY, outX, outY] = ring;
    const turn = (x! - inX!) * (outY! - y!) - (y! - inY!) * (outX! - x!);
    expect(Math.abs(turn)).toBeLessThan(0.02 * Math.hypot(x! - inX!, y! - inY!) * Math.hypot(outX! - x!, outY! - y!));
  });
  test('a line of one point is refused', () => {
    expect(() => fitLine([[1, 1]], 1)).toThrow('two points');
  });
});

describe('uniting areas', () => {
  const square = (x: number, y: number, side: number): Pair[] => [
    [x, y],
    [x + side, y],
    [x + side, y + side],
    [x, y + side],
  ];
  const areaOf = (ring: Float32Array): number => {
    const points = ringPoints(ring, 1);
    return Math.abs(
      points.reduce((sum, p, i) => {
        const q = points[(i + 1) % points.length]!;
        return sum + p.x * q.y - q.x * p.y;
      }, 0) / 2,
    );
  };
  test('two that overlap become one of the area they cover, however they wind', () => {
    const [ring, ...more] = unitedRings([square(0, 0, 20), [...square(10, 10, 20)].reverse()], 1);
    expect(more).toEqual([]);
    expect(areaOf(ring!)).toBeCloseTo(700, 0);
  });
  test('two apart stay two, and what is too small is left out', () => {
    expect(unitedRings([square(0, 0, 20), square(50, 0, 20), square(100, 0, 1)], 8)).toHaveLength(2);
  });
});

test('a smooth step is 0 before, 1 after, and never turns back', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -2, max: 3, noNaN: true }),
      fc.double({ min: 0, max: 0.5, noNaN: true }),
      (at, more) => {
        const [a, b] = [smoothStep(0, 1, at), smoothStep(0, 1, at + more)];
        expect(b).toBeGreaterThanOrEqual(a);
        expect(a).toBeGreaterThanOrEqual(0);
        expect(b).toBeLessThanOrEqual(1);
      },
    ),
  );
});
