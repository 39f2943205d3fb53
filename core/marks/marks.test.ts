import fc from 'fast-check';
import type { BrushSettings, Drawing, Samples, Shape, Stroke } from '../document/index.ts';
import { isInside, invert, seededIds, discRing } from '../geometry/index.ts';
import {
  allOf,
  bent,
  closedUp,
  fallOff,
  flatGrid,
  controlPointsOf,
  isClosed,
  joined,
  largestOutline,
  markAt,
  marksInside,
  marksOfSwatch,
  matrixAbout,
  openedUp,
  parallelSamples,
  pulled,
  redrawn,
  fractionOf,
  fractions,
  smoothed,
  splitByPolygon,
  splitSamples,
  STILL,
  transformed,
  weightsOf,
  widened,
  type Transform,
} from './index.ts';

const newId = seededIds(31);
const brush: BrushSettings = { kind: 'ink', width: 8, opacity: 1, pressure: true };
const samplesOf = (points: readonly (readonly [number, number])[]): Samples => ({
  x: Float32Array.from(points, ([x]) => x),
  y: Float32Array.from(points, ([, y]) => y),
  pressure: new Float32Array(points.length).fill(0.5),
  altitude: new Float32Array(points.length).fill(1),
  azimuth: new Float32Array(points.length),
});
const stroke = (points: readonly (readonly [number, number])[]): Stroke => ({
  kind: 'stroke',
  id: newId(),
  swatch: newId(),
  brush,
  seed: 1,
  samples: samplesOf(points),
});
const disc = (x: number, y: number, r: number): Shape => ({
  kind: 'shape',
  id: newId(),
  swatch: newId(),
  rings: [discRing(x, y, r)],
  rule: 'nonzero',
  opacity: 1,
});
const drawingOf = (...marks: (Stroke | Shape)[]): Drawing => ({
  kind: 'drawing',
  id: newId(),
  marks: Object.fromEntries(marks.map((m) => [m.id, m])),
  order: marks.map((m) => m.id),
});
const wave = (count: number): [number, number][] =>
  Array.from({ length: count }, (_, i) => [i * 5, 30 * Math.sin(i / 6)]);

const coordinate = fc.double({ min: -2000, max: 2000, noNaN: true });
const points = fc.array(fc.tuple(coordinate, coordinate), { minLength: 2, maxLength: 40 });
const transform = fc.record<Transform>({
  x: fc.double({ min: -500, max: 500, noNaN: true }),
  y: fc.double({ min: -500, max: 500, noNaN: true }),
  scaleX: fc.constantFrom(-2, -1, 0.5, 1, 1.5, 2),
  scaleY: fc.constantFrom(-2, -1, 0.5, 1, 1.5, 2),
  angle: fc.double({ min: -Math.PI, max: Math.PI, noNaN: true }),
  skew: fc.double({ min: -0.6, max: 0.6, noNaN: true }),
});
const off = (a: Samples, b: Samples): number =>
  Math.max(...Array.from(a.x, (x, i) => Math.hypot(x - b.x[i]!, a.y[i]! - b.y[i]!)));

describe('moving marks', () => {
  test('there and back is where it was; nothing moves by itself through a hundred such edits', () => {
    fc.assert(
      fc.property(points, transform, (list, how) => {
        const mark = stroke(list);
        const matrix = matrixAbout({ x: 100, y: 50 }, how);
        const back = transformed(transformed(mark, matrix), invert(matrix)) as Stroke;
        expect(off(back.samples, mark.samples)).toBeLessThan(0.01);
        expect(back.brush.width).toBeCloseTo(mark.brush.width, 6);
      }),
    );
    let mark = stroke(wave(60));
    const first = mark.samples;
    for (let i = 0; i < 100; i++) {
      const away = { ...STILL, x: 37.3 + i, y: -11.7, angle: 0.1 * i };
      const matrix = matrixAbout({ x: 400, y: 300 }, away);
      mark = transformed(transformed(mark, matrix), invert(matrix)) as Stroke;
    }
    expect(off(mark.samples, first)).toBeLessThan(0.01);
  });
  test('the pivot goes only where it is moved; widths grow with areas', () => {
    fc.assert(
      fc.property(transform, (how) => {
        const [a, b, c, d, e, f] = matrixAbout({ x: 7, y: 9 }, how);
        expect(a * 7 + c * 9 + e).toBeCloseTo(7 + how.x, 6);
        expect(b * 7 + d * 9 + f).toBeCloseTo(9 + how.y, 6);
      }),
    );
    const twice = transformed(stroke(wave(5)), matrixAbout({ x: 0, y: 0 }, { ...STILL, scaleX: 2, scaleY: 2 }));
    expect(twice.kind === 'stroke' && twice.brush.width).toBe(16);
  });
  test('a share of a change is none at 0 and all at 1; shares fade to both ends and are all 1 otherwise', () => {
    fc.assert(
      fc.property(transform, (how) => {
        expect(fractionOf(how, 1)).toEqual(how);
        expect(fractionOf(how, 0)).toEqual({
          ...STILL,
          x: how.x * 0,
          y: how.y * 0,
          angle: how.angle * 0,
          skew: how.skew * 0,
        });
      }),
    );
    expect(fractions(4, 'same')).toEqual([1, 1, 1, 1]);
    const faded = fractions(5, 'fades');
    expect(faded[2]).toBeCloseTo(1, 12);
    expect(faded[0]).toBeLessThan(0.3);
    expect(faded[0]).toBeCloseTo(faded[4]!, 12);
  });
});

describe('finding marks', () => {
  const line = stroke([
    [0, 0],
    [50, 0],
    [100, 0],
  ]);
  const blob = disc(50, 50, 20);
  const drawing = drawingOf(line, blob);
  test('by a place on or near them, the topmost first', () => {
    expect(markAt(drawing, { x: 70, y: 3 }, 5)).toBe(line.id);
    expect(markAt(drawing, { x: 50, y: 50 }, 1)).toBe(blob.id);
    expect(markAt(drawing, { x: 150, y: 90 }, 5)).toBeNull();
    const over = disc(50, 55, 10);
    expect(markAt(drawingOf(line, blob, over), { x: 50, y: 55 }, 1)).toBe(over.id);
  });
  test('by a line round at least half of them, and by swatch', () => {
    const round = (x0: number, y0: number, x1: number, y1: number) => [
      { x: x0, y: y0 },
      { x: x1, y: y0 },
      { x: x1, y: y1 },
      { x: x0, y: y1 },
    ];
    expect(marksInside(drawing, round(-10, -10, 60, 10))).toEqual([line.id]);
    expect(marksInside(drawing, round(-10, -10, 40, 10))).toEqual([]);
    expect(marksInside(drawing, round(20, 20, 80, 80))).toEqual([blob.id]);
    expect(marksOfSwatch(drawing, blob.swatch)).toEqual([blob.id]);
    expect(isInside(round(0, 0, 10, 10), { x: 5, y: 5 })).toBe(true);
  });
});

describe('cutting and joining', () => {
  test('parts of a split stroke hold every sample and meet where it was cut', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(coordinate, coordinate), { minLength: 4, maxLength: 30 }),
        fc.array(fc.double({ min: 0.1, max: 2.9, noNaN: true }), { minLength: 1, maxLength: 3 }),
        (list, at) => {
          const samples = samplesOf(list);
          const cuts = [...new Set(at)].sort((a, b) => a - b);
          const parts = splitSamples(samples, cuts);
          expect(parts).toHaveLength(cuts.length + 1);
          parts.slice(1).forEach((part, i) => {
            expect([part.x[0], part.y[0]]).toEqual([parts[i]!.x.at(-1), parts[i]!.y.at(-1)]);
          });
          const all = new Set(parts.flatMap(({ x, y }) => Array.from(x, (px, i) => `${px},${y[i]!}`)));
          for (let i = 0; i < list.length; i++) expect(all.has(`${samples.x[i]!},${samples.y[i]!}`)).toBe(true);
        },
      ),
    );
  });
  test('a lasso parts a stroke into what lies within and without, and joining its parts brings it back', () => {
    const whole = stroke(Array.from({ length: 21 }, (_, i): [number, number] => [i * 10, 0]));
    const lasso = [
      { x: 55, y: -20 },
      { x: 125, y: -20 },
      { x: 125, y: 20 },
      { x: 55, y: 20 },
    ];
    const { within, without } = splitByPolygon(whole.samples, lasso);
    expect([within.length, without.length]).toEqual([1, 2]);
    expect([within[0]!.x[0], within[0]!.x.at(-1)]).toEqual([55, 125]);
    const [a, b] = without.map((samples) => ({ ...whole, id: newId(), samples }));
    const back = joined(joined(a!, { ...whole, samples: within[0]! }, 'straight'), b!, 'straight');
    expect([back.samples.x[0], back.samples.x.at(-1)].sort((p, q) => p! - q!)).toEqual([0, 200]);
    expect(new Set(back.samples.y)).toEqual(new Set([0]));
  });
  test('strokes are joined at their nearest ends, whichever way they run', () => {
    const [a, b] = [
      stroke([
        [0, 0],
        [40, 0],
      ]),
      stroke([
        [100, 10],
        [60, 0],
      ]),
    ];
    const { x } = joined(a, b, 'arc').samples;
    expect([x[0], x.at(-1)]).toEqual([0, 100]);
    expect(x.length).toBeGreaterThan(6);
  });
  test('a closed stroke ends where it began and opens again', () => {
    const open = stroke(wave(20));
    for (const how of ['straight', 'arc'] as const) {
      const closed = closedUp(open, how);
      expect(isClosed(closed.samples)).toBe(true);
      expect(isClosed(openedUp(closed).samples)).toBe(false);
      expect(closedUp(closed, how)).toBe(closed);
    }
  });
});

describe('lines beside and lines drawn anew', () => {
  test('a parallel line is as far from its line everywhere, and leaves out what has no room', () => {
    const { x, y } = parallelSamples(samplesOf(wave(60)), 6);
    const line = wave(600).map(([, ,], i): [number, number] => [i / 2, 30 * Math.sin(i / 60)]);
    for (let i = 1; i + 1 < x.length; i++) {
      const near = Math.min(...line.map(([px, py]) => Math.hypot(px - x[i]!, py - y[i]!)));
      expect(near).toBeGreaterThan(5.2);
      expect(near).toBeLessThan(6.8);
    }
    const corner = samplesOf([
      [0, 0],
      [30, 0],
      [30, 30],
    ]);
    expect(parallelSamples(corner, 50).x.length).toBeLessThanOrEqual(3);
  });
  test('a part drawn over takes the place of what it follows, drawn either way', () => {
    const line = samplesOf(Array.from({ length: 11 }, (_, i): [number, number] => [i * 10, 0]));
    const bump: [number, number][] = [
      [30, 1],
      [50, 20],
      [70, 1],
    ];
    for (const drawn of [bump, [...bump].reverse()]) {
      const { x, y } = redrawn(line, samplesOf(drawn), 5)!;
      expect([...x]).toEqual([0, 10, 20, 30, 50, 70, 80, 90, 100]);
      expect(Math.max(...y)).toBe(20);
    }
    expect(
      redrawn(
        line,
        samplesOf([
          [30, 40],
          [50, 40],
        ]),
        5,
      ),
    ).toBeNull();
  });
});

describe('bending', () => {
  const box = { left: 0, top: -40, right: 300, bottom: 40 };
  test('a flat grid changes nothing; corners go where the grid’s do', () => {
    const mark = stroke(wave(60));
    for (const cells of [1, 3])
      expect(off((bent(mark, box, flatGrid(box, cells)) as Stroke).samples, mark.samples)).toBeLessThan(1e-3);
    const corners = stroke([
      [0, -40],
      [300, 40],
    ]);
    for (const cells of [1, 3]) {
      const grid = flatGrid(box, cells).map((row) => row.map((p) => ({ ...p })));
      grid[0]![0] = { x: -50, y: -90 };
      const { x, y } = (bent(corners, box, grid) as Stroke).samples;
      expect([x[0], y[0], x[1], y[1]]).toEqual([-50, -90, 300, 40]);
    }
  });
});

describe('reach', () => {
  const distance = fc.double({ min: 0, max: 400, noNaN: true });
  test('falls from all to nothing and never rises', () => {
    fc.assert(
      fc.property(
        distance,
        distance,
        fc.double({ min: 1, max: 300, noNaN: true }),
        fc.constantFrom('soft', 'spike'),
        (a, b, radius, fall) => {
          const kind = fall as 'soft' | 'spike';
          expect(fallOff(0, radius, kind)).toBe(1);
          expect(fallOff(radius + a, radius, kind)).toBe(0);
          const [near, far] = [Math.min(a, b), Math.max(a, b)];
          expect(fallOff(near, radius, kind)).toBeGreaterThanOrEqual(fallOff(far, radius, kind));
        },
      ),
    );
  });
  test('along the line alone, a line passing near stays; across lines it comes along', () => {
    const [a, b] = [
      stroke(Array.from({ length: 21 }, (_, i): [number, number] => [i * 10, 0])),
      stroke(Array.from({ length: 21 }, (_, i): [number, number] => [i * 10, 8])),
    ];
    const controlPoint = controlPointsOf(a, 1).at(-1)!;
    const pull = (mark: Stroke, alongOnly: boolean) =>
      pulled(mark, weightsOf(mark, [controlPoint], { radius: 60, fall: 'soft', alongOnly }), { x: 0, y: -50 });
    expect(pull(b, true)).toBe(b);
    expect((pull(b, false) as Stroke).samples.y.at(-1)).toBeLessThan(-30);
    const pulledA = (pull(a, true) as Stroke).samples.y;
    expect(pulledA.at(-1)).toBe(-50);
    expect(pulledA[0]).toBe(0);
  });
  test('a closed line stays closed, and a shape’s handles go with their node', () => {
    const closed = closedUp(stroke(wave(12)), 'straight');
    const controlPoint = { markId: closed.id, ring: 0, index: 0, x: closed.samples.x[0]!, y: closed.samples.y[0]! };
    const moved = pulled(closed, weightsOf(closed, [controlPoint], { radius: 20, fall: 'soft', alongOnly: true }), {
      x: 9,
      y: 4,
    });
    expect(isClosed((moved as Stroke).samples)).toBe(true);
    const blob = disc(0, 0, 10);
    const [node] = controlPointsOf(blob, 1);
    const ring = (
      pulled(blob, weightsOf(blob, [node!], { radius: 0, fall: 'soft', alongOnly: true }), { x: 5, y: 0 }) as Shape
    ).rings[0]!;
    expect([...ring.slice(0, 6)].map((v, i) => v - blob.rings[0]![i]!)).toEqual([5, 0, 5, 0, 5, 0]);
    expect([...ring.slice(6)]).toEqual([...blob.rings[0]!.slice(6)]);
  });
  test('smoothing evens out, widening presses harder within 0 to 1', () => {
    const shaky = stroke(Array.from({ length: 30 }, (_, i): [number, number] => [i * 5, i % 2 === 0 ? 3 : -3]));
    const even = smoothed(shaky, allOf(shaky)) as Stroke;
    expect(Math.max(...even.samples.y.slice(2, -2))).toBeLessThan(1.6);
    const wide = widened(shaky, allOf(shaky), 3) as Stroke;
    expect(new Set(wide.samples.pressure)).toEqual(new Set([1]));
  });
});

describe('the largest outline', () => {
  const square = stroke([0, 4, 8, 12, 16, 20, 24, 28].map((i) => [i, i % 8 === 0 ? 0 : 40] as const));

  test('is that of the largest box, of shapes and of strokes long enough to go round something', () => {
    const small = disc(0, 0, 5);
    const large = disc(0, 0, 50);
    expect(largestOutline([small, large, square])).toBe(large.rings[0]);
    expect(largestOutline([small, square])).not.toBe(small.rings[0]);
    expect(
      largestOutline([
        stroke([
          [0, 0],
          [900, 900],
        ]),
        small,
      ]),
    ).toBe(small.rings[0]);
  });

  test('is none where nothing goes round anything', () => {
    expect(largestOutline([])).toBeNull();
    expect(
      largestOutline([
        stroke([
          [0, 0],
          [9, 9],
        ]),
      ]),
    ).toBeNull();
  });
});
