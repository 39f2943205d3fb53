/** Scans made up with known drawings: uneven light, yellow paper, dust, sheets that slipped. */
import fc from 'fast-check';
import { apply, invert, multiply, seededRandom, type Matrix, type Point } from '../geometry/index.ts';
import {
  darknessOf,
  findMark,
  scanMarkAt,
  overlaid,
  pencilAt,
  scannedShapes,
  DEFAULT_LEVELS,
  type ScannedPixels,
} from './index.ts';

const [WIDTH, HEIGHT] = [320, 240];
const MARKS = [
  { x: 40, y: 216 },
  { x: 280, y: 216 },
] as const;

/** How dark a drawing is at a place: a ring of pencil, and a cross and a square corner as marks. */
function drawnAt(x: number, y: number): number {
  const ring = Math.abs(Math.hypot(x - 160, y - 110) - 60) < 2.5 ? 0.75 : 0;
  const cross =
    Math.abs(x - 40) < 1.5 && Math.abs(y - 216) < 6 ? 1 : Math.abs(y - 216) < 1.5 && Math.abs(x - 40) < 6 ? 1 : 0;
  const corner = x > 274 && x < 286 && y > 210 && y < 222 && (x < 277 || y < 213) ? 1 : 0;
  return Math.max(ring, cross, corner);
}

/** @param slipped from the first sheet to this picture. @param light how bright the paper is at a place, 0 to 1. */
function scan(
  slipped: Matrix = [1, 0, 0, 1, 0, 0],
  light: (x: number, y: number) => number = () => 0.92,
): ScannedPixels {
  const data = new Uint8ClampedArray(WIDTH * HEIGHT * 4);
  const back = invert(slipped);
  const random = seededRandom(5);
  for (let y = 0, p = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++, p += 4) {
      let dark = 0;
      for (const [dx, dy] of [
        [0.25, 0.25],
        [0.75, 0.25],
        [0.25, 0.75],
        [0.75, 0.75],
      ] as const) {
        const at = apply(back, { x: x + dx, y: y + dy });
        dark += drawnAt(at.x, at.y) / 4;
      }
      const value = 255 * light(x, y) * (1 - dark) + 3 * (random() - 0.5);
      data.set([value, value * 0.97, value * 0.88, 255], p);
    }
  return { data, width: WIDTH, height: HEIGHT };
}

const at = (values: Float32Array, { x, y }: Point): number => values[Math.floor(y) * WIDTH + Math.floor(x)]!;

test('paper comes to nothing and pencil to what it is, however uneven the light', () => {
  const lights = [
    () => 0.92,
    (x: number) => 0.55 + (0.4 * x) / WIDTH,
    (x: number, y: number) => 0.95 - 0.3 * Math.hypot(x / WIDTH - 0.5, y / HEIGHT - 0.5),
  ];
  for (const light of lights) {
    const { values } = darknessOf(scan(undefined, light));
    for (const place of [
      { x: 20, y: 20 },
      { x: 160, y: 110 },
      { x: 300, y: 120 },
    ])
      expect(at(values, place)).toBeLessThan(DEFAULT_LEVELS.paper);
    for (const angle of [0.3, 2, 4, 5.5])
      expect(at(values, { x: 160 + 60 * Math.cos(angle), y: 110 + 60 * Math.sin(angle) })).toBeCloseTo(0.75, 1);
  }
});

test('what is seen through is paper, and an empty sheet has no shapes', () => {
  const empty = { data: new Uint8ClampedArray(64 * 64 * 4), width: 64, height: 64 };
  const darkness = darknessOf(empty);
  expect(Math.max(...darkness.values)).toBe(0);
  expect(scannedShapes(darkness, DEFAULT_LEVELS, 1)).toEqual([]);
});

test('levels go from 0 at paper to 1 at dark', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: 0.02, max: 0.6, noNaN: true }),
      (darkness, paper) => {
        const levels = { paper, dark: paper + 0.3 };
        const pencil = pencilAt(darkness, levels);
        expect(pencil).toBeGreaterThanOrEqual(0);
        expect(pencil).toBeLessThanOrEqual(1);
        if (darkness <= paper) expect(pencil).toBe(0);
        if (darkness >= paper + 0.3) expect(pencil).toBeCloseTo(1, 9);
      },
    ),
  );
});

test('a ring of pencil becomes a ring of its width; dust and marks are left out', () => {
  const pixels = scan();
  // A speck of dust.
  pixels.data.set([0, 0, 0, 255], (20 * WIDTH + 250) * 4);
  const shapes = scannedShapes(darknessOf(pixels), DEFAULT_LEVELS, 6, { around: MARKS, reach: 10 });
  const [widest] = shapes;
  expect(widest!.rings).toHaveLength(2);
  const radii = widest!.rings.map((ring) => {
    const far = Array.from({ length: ring.length / 6 }, (_, i) =>
      Math.hypot(ring[i * 6]! - 160, ring[i * 6 + 1]! - 110),
    );
    return [Math.min(...far), Math.max(...far)] as const;
  });
  const [inner, outer] = radii.sort((a, b) => a[0] - b[0]);
  for (const far of inner!) expect(Math.abs(far - 57.5)).toBeLessThan(1.2);
  for (const far of outer!) expect(Math.abs(far - 62.5)).toBeLessThan(1.2);
  // Darker steps lie within lighter ones.
  expect(shapes.map(({ opacity }) => opacity)).toEqual([0.35, 0.5, 0.8].slice(0, shapes.length));
});

test('two marks are found again where the sheet slipped, to half a pixel, and lay it back', () => {
  const first = darknessOf(scan());
  const marks = MARKS.map((place) => scanMarkAt(first, place)!);
  fc.assert(
    fc.property(
      fc.double({ min: -9, max: 9, noNaN: true }),
      fc.double({ min: -9, max: 9, noNaN: true }),
      fc.double({ min: -0.03, max: 0.03, noNaN: true }),
      (dx, dy, angle) => {
        const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
        const turn: Matrix = [cos, sin, -sin, cos, 0, 0];
        const slipped = multiply(multiply([1, 0, 0, 1, 160 + dx, 120 + dy], turn), [1, 0, 0, 1, -160, -120]);
        const picture = darknessOf(scan(slipped));
        const found = marks.map((mark) => findMark(picture, mark)!);
        MARKS.forEach((place, i) => {
          const wanted = apply(slipped, { x: place.x, y: place.y });
          expect(Math.hypot(found[i]!.x - wanted.x, found[i]!.y - wanted.y)).toBeLessThan(0.75);
        });
        const back = overlaid(found as [Point, Point], [marks[0]!.at, marks[1]!.at]);
        const middle = apply(back, apply(slipped, { x: 160, y: 110 }));
        expect(Math.hypot(middle.x - 160, middle.y - 110)).toBeLessThan(1.2);
      },
    ),
    { numRuns: 4 },
  );
});

test('where nothing is like a mark it is not found, and a place of bare paper is none', () => {
  const first = darknessOf(scan());
  expect(scanMarkAt(first, { x: 20, y: 20 })).toBeNull();
  const mark = scanMarkAt(first, MARKS[0])!;
  expect(
    findMark(darknessOf({ data: new Uint8ClampedArray(WIDTH * HEIGHT * 4), width: WIDTH, height: HEIGHT }), mark),
  ).toBeNull();
});

test('two points are laid onto two others exactly, and only moved, turned and scaled evenly', () => {
  const point = fc.record({ x: fc.integer({ min: -500, max: 500 }), y: fc.integer({ min: -500, max: 500 }) });
  fc.assert(
    fc.property(point, point, point, point, (a, b, c, d) => {
      fc.pre(a.x !== b.x || a.y !== b.y);
      const matrix = overlaid([a, b], [c, d]);
      for (const [from, to] of [
        [a, c],
        [b, d],
      ] as const) {
        const came = apply(matrix, from);
        expect(came.x).toBeCloseTo(to.x, 6);
        expect(came.y).toBeCloseTo(to.y, 6);
      }
      expect([matrix[0], matrix[1]]).toEqual([matrix[3], -matrix[2] || 0]);
    }),
  );
  expect(() =>
    overlaid(
      [
        { x: 1, y: 1 },
        { x: 1, y: 1 },
      ],
      [
        { x: 0, y: 0 },
        { x: 1, y: 0 },
      ],
    ),
  ).toThrow('apart');
});
