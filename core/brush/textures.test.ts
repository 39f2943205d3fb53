import fc from 'fast-check';
import { BRUSH_KINDS, type BrushSettings, type Samples } from '../document/index.ts';
import {
  answered,
  breadthAt,
  breadths,
  TIPS,
  chunkBox,
  chunkCount,
  firstOpenChunk,
  hazeChunk,
  leanOf,
  STRAIGHT,
  SteadyStroke,
  fleckChunk,
  type Response,
} from './index.ts';
import type { PathSink } from '../canvas/index.ts';

const line = (count: number, step = 3, pressure = 0.6): Samples => ({
  x: Float32Array.from({ length: count }, (_, i) => i * step),
  y: Float32Array.from({ length: count }, (_, i) => 20 * Math.sin((i * step) / 27)),
  pressure: new Float32Array(count).fill(pressure),
  altitude: new Float32Array(count).fill(Math.PI / 2),
  azimuth: new Float32Array(count),
});
const grain: BrushSettings & { kind: 'grain' } = { kind: 'grain', width: 40, opacity: 1, pressure: true };

/** Corners of the flecks of a chunk. */
function flecks(samples: Samples, brush: typeof grain, seed: number, chunk: number): { x: number; y: number }[] {
  const points: { x: number; y: number }[] = [];
  const note = (x: number, y: number) => points.push({ x, y });
  const sink: PathSink = { moveTo: note, lineTo: note, arc: () => undefined };
  fleckChunk(sink, samples, brush, seed, chunk);
  return points;
}
function stamps(samples: Samples, brush: BrushSettings, chunk: number): [number, number, number, number][] {
  const list: [number, number, number, number][] = [];
  hazeChunk(samples, brush, 7, chunk, (...stamp) => list.push(stamp));
  return list;
}

describe('the texture of a stroke', () => {
  test('is its seed’s own and stays as the stroke goes on', () => {
    const [short, long] = [line(70), line(140)];
    expect(flecks(long, grain, 1, 0)).toEqual(flecks(short, grain, 1, 0));
    expect(flecks(short, grain, 2, 0)).not.toEqual(flecks(short, grain, 1, 0));
    const haze: BrushSettings = { ...grain, kind: 'haze' };
    expect(stamps(long, haze, 1)).toEqual(stamps(line(100), haze, 1));
  });
  test('moves and grows with the stroke, fleck by fleck', () => {
    const samples = line(60);
    const moved: Samples = { ...samples, x: samples.x.map((v) => 2 * v + 64), y: samples.y.map((v) => 2 * v - 32) };
    const [before, after] = [flecks(samples, grain, 3, 0), flecks(moved, { ...grain, width: 80 }, 3, 0)];
    expect(after).toHaveLength(before.length);
    before.forEach(({ x, y }, i) => {
      expect(after[i]!.x).toBeCloseTo(2 * x + 64, 3);
      expect(after[i]!.y).toBeCloseTo(2 * y - 32, 3);
    });
  });
  test('shows with pressure: more flecks the harder, few at the lightest', () => {
    const counts = [0, 0.3, 0.6, 1].map((p) => flecks(line(33, 4, p), grain, 5, 0).length);
    expect([...counts].sort((a, b) => a - b)).toEqual(counts);
    expect(counts[0]!).toBeLessThan(counts[3]! / 8);
    expect(flecks(line(33, 4, 0.1), { ...grain, pressure: false }, 5, 0)).toHaveLength(counts[3]!);
  });
  test('is as dense however finely the pen was sampled', () => {
    const coarse = flecks(line(33, 8), grain, 9, 0).length;
    const fine = [0, 1, 2, 3].reduce((sum, c) => sum + flecks(line(129, 2), grain, 9, c).length, 0);
    expect(Math.abs(fine - coarse) / coarse).toBeLessThan(0.1);
  });
  test('of every brush lies within its chunk’s box', () => {
    const samples = line(100);
    for (const kind of BRUSH_KINDS) {
      const brush = { ...grain, kind };
      for (let c = 0; c < chunkCount(100, brush); c++) {
        const box = chunkBox(samples, brush, c);
        const inside = (x: number, y: number, r: number) => {
          expect(x - r).toBeGreaterThanOrEqual(box.left);
          expect(x + r).toBeLessThanOrEqual(box.right);
          expect(y - r).toBeGreaterThanOrEqual(box.top);
          expect(y + r).toBeLessThanOrEqual(box.bottom);
        };
        if (kind === 'grain' || kind === 'pencil')
          flecks(samples, { ...brush, kind: kind as 'grain' }, 4, c).forEach(({ x, y }) => {
            inside(x, y, 0);
          });
        if (kind === 'haze')
          stamps(samples, brush, c).forEach(([x, y, r]) => {
            inside(x, y, r);
          });
      }
    }
  });
});

describe('haze', () => {
  const haze: BrushSettings = { kind: 'haze', width: 28, opacity: 1, pressure: false, flow: 0.5 };
  test('lays as much along every length of a stroke, across the seams of chunks', () => {
    const samples = line(TIPS.haze[0].chunk * 3 + 1, 10);
    const laid = [0, 1, 2].map((c) => stamps(samples, haze, c).reduce((sum, [, , , opacity]) => sum + opacity, 0));
    const [a, b, c] = laid as [number, number, number];
    expect(Math.abs(a - b) / b).toBeLessThan(0.06);
    expect(Math.abs(c - b) / b).toBeLessThan(0.06);
  });
  test('lays more with more flow', () => {
    const strength = (flow: number) => stamps(line(20), { ...haze, flow }, 0)[3]![3];
    expect(strength(1)).toBeCloseTo(4 * strength(0.25), 6);
  });
});

describe('width', () => {
  const ink: BrushSettings = { kind: 'ink', width: 20, opacity: 1, pressure: true };
  test('tapers from nothing and back to nothing, and is whole between', () => {
    const brush: BrushSettings = { ...ink, pressure: false, taper: [60, 30] };
    const samples = { ...line(101), y: new Float32Array(101) };
    const half = breadths(samples, brush, 0, 100);
    expect([half[0], half[100]]).toEqual([0, 0]);
    expect([half[20], half[50], half[90]]).toEqual([10, 10, 10]);
    for (let i = 1; i <= 20; i++) expect(half[i]!).toBeGreaterThan(half[i - 1]!);
    expect(breadths(line(1), brush, 0, 0)[0]).toBe(10);
  });
  test('chunks called finished keep their widths however a tapering stroke goes on', () => {
    const point = fc.tuple(fc.double({ min: 0, max: 300, noNaN: true }), fc.double({ min: 0, max: 300, noNaN: true }));
    fc.assert(
      fc.property(
        fc.array(point, { minLength: 40, maxLength: 120 }),
        fc.array(point, { minLength: 1, maxLength: 60 }),
        fc.integer({ min: 0, max: 400 }),
        fc.integer({ min: 0, max: 8 }),
        (first, more, out, reach) => {
          const brush: BrushSettings = { ...ink, taper: [0, out] };
          const fed = (list: [number, number][]) => {
            const stroke = new SteadyStroke(reach);
            for (const [x, y] of list) stroke.add(x, y, 0.7, 1, 0);
            return stroke;
          };
          const [early, late] = [fed(first), fed([...first, ...more])];
          const open = firstOpenChunk(early.view(), brush, early.settledCount);
          for (let c = 0; c < open; c++)
            expect(breadths(late.view(), brush, c * TIPS.ink[0].chunk, (c + 1) * TIPS.ink[0].chunk)).toEqual(
              breadths(early.view(), brush, c * TIPS.ink[0].chunk, (c + 1) * TIPS.ink[0].chunk),
            );
        },
      ),
    );
  });
  test('grows with the lean, only of a brush that answers to tilt', () => {
    const tilted: BrushSettings = { ...ink, kind: 'pencil', tilt: 1 };
    expect(breadthAt(tilted, 1, Math.PI / 2)).toBe(10);
    expect(breadthAt(tilted, 1, 0)).toBe(40);
    expect(breadthAt({ ...tilted, tilt: 0 }, 1, 0)).toBe(10);
    expect([leanOf(Math.PI / 2), leanOf(0)]).toEqual([0, 1]);
  });
});

describe('the answer to pressure', () => {
  const share = fc.double({ min: 0, max: 1, noNaN: true });
  const rising = fc
    .tuple(share, share, share, share, share)
    .map((list) => list.sort((a, b) => a - b) as unknown as Response);
  test('straight, it leaves pressure as it is; every curve goes through its heights', () => {
    fc.assert(
      fc.property(share, (p) => {
        expect(answered(STRAIGHT, p)).toBeCloseTo(p, 12);
      }),
    );
    fc.assert(
      fc.property(rising, (response) => {
        response.forEach((height, i) => {
          expect(answered(response, i / 4)).toBeCloseTo(height, 12);
        });
      }),
    );
  });
  test('a rising one never falls, and stays between its heights', () => {
    fc.assert(
      fc.property(rising, share, share, (response, a, b) => {
        const [low, high] = [answered(response, Math.min(a, b)), answered(response, Math.max(a, b))];
        expect(high).toBeGreaterThanOrEqual(low - 1e-12);
        expect(low).toBeGreaterThanOrEqual(response[0] - 1e-12);
        expect(high).toBeLessThanOrEqual(response[4] + 1e-12);
      }),
    );
  });
});
