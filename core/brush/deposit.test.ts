import fc from 'fast-check';
import type { BrushSettings, Samples } from '../document/index.ts';
import { translation, type Matrix } from '../geometry/index.ts';
import {
  chunkBox,
  chunkCount,
  depositChunk,
  emptyArea,
  paperAt,
  SHADES,
  touchedBoxes,
  type AlphaArea,
} from './index.ts';

const line = (count: number, step = 4, pressure = 0.6): Samples => ({
  x: Float32Array.from({ length: count }, (_, i) => 30 + i * step),
  y: Float32Array.from({ length: count }, (_, i) => 50 + 16 * Math.sin((i * step) / 27)),
  pressure: new Float32Array(count).fill(pressure),
  altitude: new Float32Array(count).fill(Math.PI / 2),
  azimuth: new Float32Array(count),
});
const PENCIL: BrushSettings = { kind: 'pencil', version: 2, width: 12, opacity: 1, pressure: true, tilt: 1 };
const GRAIN: BrushSettings = { kind: 'grain', version: 2, width: 40, opacity: 1, pressure: true };
const BOTH = [PENCIL, GRAIN];

const area = (width = 260, height = 110, left = 0, top = 0): AlphaArea =>
  emptyArea({ left, top, right: left + width, bottom: top + height });
function drawn(
  samples: Samples,
  brush: BrushSettings,
  matrix: Matrix = translation(0, 0),
  on = area(),
  seed = 5,
): AlphaArea {
  const shade = SHADES[brush.kind]!;
  for (let c = 0; c < chunkCount(samples.x.length, brush); c++)
    depositChunk(samples, brush, seed, c, shade, matrix, on);
  return on;
}
const alphas = ({ alpha }: AlphaArea) => alpha.slice();
const sum = (list: Uint8Array) => list.reduce((total, v) => total + v, 0);

test('the paper is spread evenly: a push to a share of its height covers that share of it', () => {
  const heights = Float64Array.from({ length: 40_000 }, (_, i) =>
    paperAt((i % 200) + 0.37, Math.floor(i / 200) + 0.61),
  );
  for (const share of [0.25, 0.5, 0.75]) {
    const below = heights.filter((h) => h < share).length / heights.length;
    expect(Math.abs(below - share)).toBeLessThan(0.06);
  }
});

test.each(BOTH)('a stroke drawn again over itself changes nothing ($kind)', (brush) => {
  const once = drawn(line(40), brush);
  const before = alphas(once);
  expect(sum(before)).toBeGreaterThan(10_000);
  expect(alphas(drawn(line(40), brush, translation(0, 0), once))).toEqual(before);
});

test.each(BOTH)('lays more the harder it is pressed, and all of its middle at the hardest ($kind)', (brush) => {
  const laid = [0.1, 0.4, 0.7, 1].map((p) => sum(alphas(drawn(line(40, 4, p), brush))));
  expect([...laid].sort((a, b) => a - b)).toEqual(laid);
  expect(laid[0]!).toBeLessThan(laid[3]! / 3);
  const hardest = alphas(drawn({ ...line(40, 4, 1), y: new Float32Array(40).fill(50) }, brush));
  const middle = Array.from({ length: 80 }, (_, i) => hardest[50 * 260 + 60 + i]!);
  expect(middle.reduce((total, v) => total + v, 0) / middle.length).toBeGreaterThan(225);
});

test.each(BOTH)('finished chunks stay as they are while the stroke goes on ($kind)', (brush) => {
  fc.assert(
    fc.property(fc.integer({ min: 30, max: 60 }), fc.integer({ min: 2, max: 9 }), (count, step) => {
      const [short, long] = [line(count, step), line(count + 25, step)];
      const shade = SHADES[brush.kind]!;
      const [a, b] = [area(), area()];
      depositChunk(short, brush, 3, 1, shade, translation(0, 0), a);
      depositChunk(long, brush, 3, 1, shade, translation(0, 0), b);
      expect(alphas(b)).toEqual(alphas(a));
    }),
    { numRuns: 5 },
  );
});

test.each(BOTH)('nothing lies outside its chunk’s box ($kind)', (brush) => {
  const samples = line(40);
  for (let c = 0; c < chunkCount(40, brush); c++) {
    const box = chunkBox(samples, brush, c);
    const on = area();
    depositChunk(samples, brush, 5, c, SHADES[brush.kind]!, translation(0, 0), on);
    alphas(on).forEach((alpha, i) => {
      const [x, y] = [(i % 260) + 0.5, Math.floor(i / 260) + 0.5];
      if (alpha > 0) {
        expect(x).toBeGreaterThan(box.left - 1);
        expect(x).toBeLessThan(box.right + 1);
        expect(y).toBeGreaterThan(box.top - 1);
        expect(y).toBeLessThan(box.bottom + 1);
      }
    });
  }
});

test('pencil strokes share the paper’s grain where they cross; a stroke moved finds other grain', () => {
  const flat = (y: number): Samples => ({ ...line(40, 4, 0.4), y: new Float32Array(40).fill(y) });
  const [one, other] = [
    alphas(drawn(flat(50), PENCIL)),
    alphas(drawn(flat(50), PENCIL, translation(0, 0), area(), 99)),
  ];
  expect(other).toEqual(one);
  const moved = alphas(drawn({ ...flat(50), x: flat(50).x.map((v) => v + 7) }, PENCIL));
  const differing = [...moved].filter((v, i) => i % 260 > 60 && i % 260 < 140 && Math.abs(v - one[i]!) > 2).length;
  expect(differing).toBeLessThan(20);
});

test('grain hangs on its stroke: moved and scaled it is the same picture, and another seed is another', () => {
  const samples = line(40);
  const here = alphas(drawn(samples, GRAIN));
  const moved: Samples = { ...samples, x: samples.x.map((v) => v + 32), y: samples.y.map((v) => v + 16) };
  const there = alphas(drawn(moved, GRAIN, translation(-32, -16)));
  expect([...there].filter((v, i) => Math.abs(v - here[i]!) > 3).length).toBeLessThan(40);
  expect(
    sum(alphas(drawn(samples, GRAIN, translation(0, 0), area(), 1234)).map((v, i) => Math.abs(v - here[i]!))),
  ).toBeGreaterThan(50_000);
});

test('fast strokes of grain break up more than slow ones', () => {
  const covered = (step: number) => {
    const { x, ...rest } = line(Math.round(180 / step), step);
    const straight = { ...rest, x, y: new Float32Array(x.length).fill(50) };
    return sum(alphas(drawn(straight, GRAIN)));
  };
  expect(covered(24)).toBeLessThan(covered(3) * 0.93);
});

test('a part of the picture shows what the whole shows there', () => {
  const whole = alphas(drawn(line(40), GRAIN, translation(0, 0)));
  const part = alphas(drawn(line(40), GRAIN, translation(0, 0), area(90, 60, 70, 20)));
  part.forEach((v, i) => {
    expect(v).toBe(whole[(20 + Math.floor(i / 90)) * 260 + 70 + (i % 90)]);
  });
});

test('the boxes that were touched hold all that is laid, do not overlap, and leave out most of what is bare', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 50 }),
      fc.constantFrom(...BOTH),
      fc.integer({ min: -9, max: 40 }),
      (count, brush, left) => {
        const on = drawn(line(count), brush, translation(0, 0), area(253, 107, left, 3));
        const times = new Uint8Array(on.alpha.length);
        for (const box of touchedBoxes(on))
          for (let y = box.top; y < box.bottom; y++)
            for (let x = box.left; x < box.right; x++) times[(y - on.top) * on.width + x - on.left]! += 1;
        expect(on.alpha.every((alpha, i) => alpha === 0 || times[i] === 1)).toBe(true);
        expect(Math.max(...times)).toBeLessThanOrEqual(1);
      },
    ),
    { numRuns: 30 },
  );
  expect(touchedBoxes(area())).toEqual([]);
});
