import fc from 'fast-check';
import { ringPoints, discRing } from '../geometry/index.ts';
import type { BrushSettings } from '../document/index.ts';
import {
  TIPS,
  breadthAt,
  chunkBox,
  chunkCount,
  firstOpenChunk,
  inkChunk,
  middleLine,
  outlineRing,
  SteadyStroke,
  strokeRoom,
  steadyReach,
} from './index.ts';
import type { PathSink } from '../canvas/index.ts';

const brush: BrushSettings = { kind: 'ink', width: 10, opacity: 1, pressure: true };
const points = fc.array(
  fc.tuple(
    fc.double({ min: -500, max: 500, noNaN: true }),
    fc.double({ min: -500, max: 500, noNaN: true }),
    fc.double({ min: 0, max: 1, noNaN: true }),
  ),
  { minLength: 1, maxLength: 120 },
);

/** A path as text, for comparing. */
function record(samples: Parameters<typeof inkChunk>[1], chunk: number): string {
  const lines: string[] = [];
  const note =
    (name: string) =>
    (...args: number[]) => {
      lines.push(`${name} ${args.join(' ')}`);
    };
  const sink: PathSink = { moveTo: note('M'), lineTo: note('L'), arc: note('A') };
  inkChunk(sink, samples, brush, chunk);
  return lines.join('\n');
}
const fed = (list: [number, number, number][], reach: number): SteadyStroke => {
  const stroke = new SteadyStroke(reach);
  for (const [x, y, p] of list) stroke.add(x, y, p, 1, 0);
  return stroke;
};

describe('steadying', () => {
  test('the line begins and ends exactly at the pen', () => {
    fc.assert(
      fc.property(points, fc.integer({ min: 0, max: 14 }), (list, reach) => {
        const { x, y } = fed(list, reach).finish();
        expect([x[0]! + 0, y[0]! + 0]).toEqual([Math.fround(list[0]![0]) + 0, Math.fround(list[0]![1]) + 0]);
        expect([x.at(-1)! + 0, y.at(-1)! + 0]).toEqual([
          Math.fround(list.at(-1)![0]) + 0,
          Math.fround(list.at(-1)![1]) + 0,
        ]);
      }),
    );
  });
  test('settled samples never move again', () => {
    fc.assert(
      fc.property(points, points, fc.integer({ min: 0, max: 14 }), (first, more, reach) => {
        const early = fed(first, reach);
        const late = fed([...first, ...more], reach);
        const settled = early.settledCount;
        expect(late.finish().x.slice(0, settled)).toEqual(early.finish().x.slice(0, settled));
      }),
    );
  });
  test('none leaves the samples as they came; a straight line stays straight', () => {
    const list = Array.from({ length: 40 }, (_, i): [number, number, number] => [i, 2 * i, 0.5]);
    expect(fed(list, 0).finish().y).toEqual(Float32Array.from(list, ([, y]) => y));
    expect(fed(list, 9).finish().y).toEqual(Float32Array.from(list, ([, y]) => y));
  });
  test('jitter becomes less', () => {
    const list = Array.from({ length: 60 }, (_, i): [number, number, number] => [i, i % 2 === 0 ? 3 : -3, 0.5]);
    expect(Math.max(...fed(list, steadyReach(1)).finish().y.slice(20, 40))).toBeLessThan(0.5);
  });
  test('a pen that stands still adds nothing', () => {
    expect(
      fed(
        [
          [1, 1, 0.2],
          [1, 1, 0.9],
        ],
        3,
      ).count,
    ).toBe(1);
  });
});

describe('chunks', () => {
  test('finished ones are the same however the stroke goes on', () => {
    fc.assert(
      fc.property(points, points, fc.integer({ min: 0, max: 6 }), (first, more, reach) => {
        const early = fed(first, reach);
        const late = fed([...first, ...more], reach).finish();
        for (let c = 0; c < firstOpenChunk(early.view(), brush, early.settledCount); c++)
          expect(record(late, c)).toBe(record(early.finish(), c));
      }),
    );
  });
  test('cover the stroke: each begins where the one before ended', () => {
    expect([1, 2, 33, 34, 96].map((n) => chunkCount(n, brush))).toEqual([1, 1, 1, 2, 3]);
    const line = middleLine(
      fed(
        Array.from({ length: 200 }, (_, i): [number, number, number] => [i * 3, 0, 1]),
        0,
      ).finish(),
      brush,
    );
    line.slice(1).forEach((p, i) => {
      expect(Math.abs(p.x - line[i]!.x)).toBeLessThanOrEqual(4);
    });
  });
  test('lie within their boxes, which hold every sample with its width', () => {
    fc.assert(
      fc.property(points, (list) => {
        const samples = fed(list, 0).finish();
        for (let c = 0; c < chunkCount(samples.x.length, brush); c++) {
          const box = chunkBox(samples, brush, c);
          for (let i = c * TIPS.ink[0].chunk; i < Math.min(samples.x.length, (c + 1) * TIPS.ink[0].chunk + 1); i++) {
            const r = breadthAt(brush, samples.pressure[i]!);
            expect(samples.x[i]! - r).toBeGreaterThanOrEqual(box.left - 1e-3);
            expect(samples.y[i]! + r).toBeLessThanOrEqual(box.bottom + 1e-3);
          }
        }
      }),
    );
  });
  test('a tap is one disc of the brush', () => {
    expect(record(fed([[5, 6, 1]], 0).finish(), 0)).toBe(`M 10 6\nA 5 6 5 0 ${2 * Math.PI}`);
  });
  test('without pressure the line is constant', () => {
    expect([0, 0.5, 1].map((p) => breadthAt({ ...brush, pressure: false }, p))).toEqual([5, 5, 5]);
  });
});

describe('closed outlines', () => {
  const samplesOf = (points: [number, number][]) => ({
    x: Float32Array.from(points.map(([x]) => x)),
    y: Float32Array.from(points.map(([, y]) => y)),
  });
  const point = fc.tuple(fc.integer({ min: -500, max: 500 }), fc.integer({ min: -500, max: 500 }));
  test('go through every sample and stray from the polygon by less than its longest side', () => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 3, maxLength: 20 }), (points) => {
        const ring = outlineRing(samplesOf(points));
        expect(ring).toHaveLength(points.length * 6);
        points.forEach(([x, y], i) => {
          expect([ring[i * 6], ring[i * 6 + 1]]).toEqual([x, y]);
        });
        const longest = Math.max(
          ...points.map(([x, y], i) => {
            const [u, v] = points[(i + 1) % points.length]!;
            return Math.hypot(u - x, v - y);
          }),
        );
        for (let i = 0; i < points.length; i++)
          for (const k of [2, 4])
            expect(
              Math.hypot(ring[i * 6 + k]! - ring[i * 6]!, ring[i * 6 + k + 1]! - ring[i * 6 + 1]!),
            ).toBeLessThanOrEqual(longest / 3 + 0.01);
      }),
    );
  });
  test('a disc is round to a thousandth', () => {
    for (const { x, y } of ringPoints(discRing(3, 4, 10), 16)) expect(Math.hypot(x - 3, y - 4)).toBeCloseTo(10, 2);
  });
});

test('the room of a stroke holds all of its chunks, whatever its samples, width and lean', () => {
  const place = fc.float({ min: -900, max: 900, noNaN: true });
  fc.assert(
    fc.property(
      fc.array(fc.tuple(place, place, fc.float({ min: 0, max: 1, noNaN: true })), { minLength: 1, maxLength: 40 }),
      fc.constantFrom('ink', 'pencil', 'grain', 'haze'),
      fc.double({ min: 1, max: 90, noNaN: true }),
      fc.constantFrom(0, 1),
      (points, kind, width, tilt) => {
        const samples = {
          x: Float32Array.from(points, ([x]) => x),
          y: Float32Array.from(points, ([, y]) => y),
          pressure: Float32Array.from(points, ([, , p]) => p),
          altitude: Float32Array.from(points, ([, , p]) => p),
          azimuth: new Float32Array(points.length),
        };
        const brush: BrushSettings = { kind, width, opacity: 1, pressure: true, tilt };
        const room = strokeRoom(samples, brush);
        for (let c = 0; c < chunkCount(points.length, brush); c++) {
          const box = chunkBox(samples, brush, c);
          expect(box.left).toBeGreaterThanOrEqual(room.left - 0.01);
          expect(box.top).toBeGreaterThanOrEqual(room.top - 0.01);
          expect(box.right).toBeLessThanOrEqual(room.right + 0.01);
          expect(box.bottom).toBeLessThanOrEqual(room.bottom + 0.01);
        }
      },
    ),
  );
});
