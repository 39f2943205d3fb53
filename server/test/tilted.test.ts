/** Pictures of plates on a tilted plane: each pixel from where it comes, their corners exactly where they are put. */
import fc from 'fast-check';
import { setPlateCorners } from '@tallow/core/edit';
import {
  composed,
  IDENTITY,
  isConvex,
  project,
  projectionFrom,
  projectionTo,
  type Matrix,
  type Quad,
} from '@tallow/core/geometry';
import { tilted } from '@tallow/core/compose';
import { drawDrawing, drawLying, Scratch } from '@tallow/core/render';
import { everyKind } from '../../core/testing/every-kind.ts';
import { entitiesOf, find, type Drawing } from '@tallow/core/document';
import { seededIds } from '@tallow/core/geometry';
import { makeSurface } from '../render/canvas.ts';

const [WIDTH, HEIGHT] = [96, 80] as const;
const COLOURS = ['#ff0000', '#00ff00', '#0000ff', '#ffff00'] as const;
/** Four fields of one colour each, from the top left clockwise. */
const picture = (() => {
  const on = makeSurface(WIDTH, HEIGHT);
  COLOURS.forEach((colour, i) => {
    on.context.fillStyle = colour;
    on.context.fillRect(i === 1 || i === 2 ? WIDTH / 2 : 0, i > 1 ? HEIGHT / 2 : 0, WIDTH / 2, HEIGHT / 2);
  });
  return on.picture;
})();
const BOX = { left: 0, top: 0, right: WIDTH, bottom: HEIGHT };
/** The middles of the fields. */
const MIDDLES = [
  { x: WIDTH / 4, y: HEIGHT / 4 },
  { x: (3 * WIDTH) / 4, y: HEIGHT / 4 },
  { x: (3 * WIDTH) / 4, y: (3 * HEIGHT) / 4 },
  { x: WIDTH / 4, y: (3 * HEIGHT) / 4 },
];

function drawn(corners: Quad | null, matrix: Matrix = IDENTITY, opacity = 1, size = 400) {
  const target = makeSurface(size, size);
  const bend = corners && projectionTo(BOX, corners);
  drawLying(target, { picture, width: WIDTH, height: HEIGHT, bend }, matrix, opacity, makeSurface);
  const { data } = target.context.getImageData(0, 0, size, size);
  return (x: number, y: number): number[] => {
    const at = (Math.floor(y) * size + Math.floor(x)) * 4;
    return [...data.subarray(at, at + 4)];
  };
}
const rgb = (colour: string) => [1, 3, 5].map((i) => Number.parseInt(colour.slice(i, i + 2), 16));

const corner = (x: number, y: number) =>
  fc.record({ x: fc.integer({ min: x - 50, max: x + 50 }), y: fc.integer({ min: y - 50, max: y + 50 }) });
const quads = fc
  .tuple(corner(70, 70), corner(320, 80), corner(310, 320), corner(80, 300))
  .filter((quad) => isConvex(quad));

test('every field is where the map puts it, in its own colour; nothing is drawn beside the corners', () => {
  fc.assert(
    fc.property(quads, (quad) => {
      const at = drawn(quad);
      const map = projectionTo(BOX, quad)!;
      MIDDLES.forEach((middle, i) => {
        const p = project(map, middle);
        expect(at(p.x, p.y)).toEqual([...rgb(COLOURS[i]!), 255]);
      });
      const outside = project(map, { x: -6, y: HEIGHT / 2 });
      if (outside.x > 0 && outside.y > 0) expect(at(outside.x, outside.y)[3]).toBe(0);
    }),
    { numRuns: 40 },
  );
});

test('its own corners leave it as it lies flat, but for a level at edges', () => {
  const own: Quad = [
    { x: 0, y: 0 },
    { x: WIDTH, y: 0 },
    { x: WIDTH, y: HEIGHT },
    { x: 0, y: HEIGHT },
  ];
  const matrix: Matrix = [1, 0, 0, 1, 30, 40];
  const [flat, bent] = [drawn(null, matrix), drawn(own, matrix)];
  for (let y = 30; y < 130; y += 3)
    for (let x = 20; x < 140; x += 3)
      flat(x, y).forEach((level, i) => {
        expect(Math.abs(level - bent(x, y)[i]!)).toBeLessThanOrEqual(1);
      });
});

test('it goes through what the plate is moved, turned and scaled by, and is faded as a whole', () => {
  const quad: Quad = [
    { x: 10, y: 0 },
    { x: 90, y: 12 },
    { x: 96, y: 70 },
    { x: 0, y: 80 },
  ];
  const matrix: Matrix = [2, 0.5, -0.5, 2, 120, 40];
  const at = drawn(quad, matrix, 0.5);
  const map = composed(projectionFrom(matrix), projectionTo(BOX, quad)!);
  MIDDLES.forEach((middle, i) => {
    const p = project(map, middle);
    const [r, g, b, a] = at(p.x, p.y);
    expect([r, g, b]).toEqual(rgb(COLOURS[i]!));
    expect(Math.abs(a! - 128)).toBeLessThanOrEqual(1);
  });
});

test('seen small, fields do not run into each other', () => {
  const quad: Quad = [
    { x: 100, y: 100 },
    { x: 112, y: 101 },
    { x: 111, y: 110 },
    { x: 100, y: 111 },
  ];
  const at = drawn(quad);
  const map = projectionTo(BOX, quad)!;
  MIDDLES.forEach((middle, i) => {
    const p = project(map, middle);
    rgb(COLOURS[i]!).forEach((level, k) => {
      expect(Math.abs(at(p.x, p.y)[k]! - level)).toBeLessThan(60);
    });
  });
});

test('a soft stamp on a tilted plane is a disc in perspective: each pixel is what it is flat, there', () => {
  const haze = {
    kind: 'stroke',
    id: 'a',
    swatch: 's',
    seed: 1,
    brush: { kind: 'haze', width: 60, opacity: 1, pressure: false, flow: 0.5 },
    samples: {
      x: Float32Array.from({ length: 9 }, (_, i) => 20 + 7 * i),
      y: Float32Array.from({ length: 9 }, () => 40),
      pressure: new Float32Array(9).fill(1),
      altitude: new Float32Array(9).fill(1.57),
      azimuth: new Float32Array(9),
    },
  } as const;
  const drawing: Drawing = { kind: 'drawing', id: 'd', marks: { a: haze }, order: ['a'] };
  // Its left end comes near, its right end goes far away.
  const map = projectionTo(BOX, [
    { x: 40, y: 20 },
    { x: 330, y: 150 },
    { x: 330, y: 230 },
    { x: 40, y: 380 },
  ])!;
  const alphas = (each: Drawing, size: number) => {
    const on = makeSurface(size, size);
    drawDrawing(on, new Scratch(makeSurface), each, () => '#ff8000', IDENTITY);
    const { data } = on.context.getImageData(0, 0, size, size);
    return (x: number, y: number) => data[(Math.round(y) * size + Math.round(x)) * 4 + 3]!;
  };
  const [flat, bent] = [alphas(drawing, 128), alphas(tilted(drawing, map), 420)];
  let seen = 0;
  for (let y = 14; y < 66; y += 4)
    for (let x = 6; x < 90; x += 4) {
      const p = project(map, { x: x + 0.5, y: y + 0.5 });
      if (p.x < 2 || p.y < 2 || p.x > 415 || p.y > 415) continue;
      expect(Math.abs(bent(p.x - 0.5, p.y - 0.5) - flat(x, y))).toBeLessThanOrEqual(14);
      if (flat(x, y) > 40) seen += 1;
    }
  expect(seen).toBeGreaterThan(50);
});

test('corners that are no rectangle seen in perspective change nothing', () => {
  const doc = everyKind(seededIds(3));
  const plate = entitiesOf(doc, 'plate')[0]!;
  const dented: Quad = [
    { x: 0, y: 0 },
    { x: 90, y: 0 },
    { x: 20, y: 20 },
    { x: 0, y: 90 },
  ];
  expect(setPlateCorners(doc, plate.id, dented)).toBe(doc);
  expect(find(setPlateCorners(doc, plate.id, null), 'plate', plate.id)!.corners).toBeNull();
});
