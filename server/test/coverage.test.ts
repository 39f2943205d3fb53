import { DRAWN } from '@tallow/core/checks';
import type { Drawing, Mark, Stroke } from '@tallow/core/document';
import { fitInto, polygonRing } from '@tallow/core/geometry';
import { drawDrawing, drawCoverage, Scratch } from '@tallow/core/render';
import { makeSurface } from '../render/canvas.ts';

const CELLS = 72;
const BOX = { left: 0, top: 0, right: 1440, bottom: 1440 };

const drawingOf = (...marks: Mark[]): Drawing => ({
  kind: 'drawing',
  id: 'd',
  order: marks.map(({ id }) => id),
  marks: Object.fromEntries(marks.map((mark) => [mark.id, mark])),
});

function stroke(id: string, width: number, at: (t: number) => [x: number, y: number, pressure: number]): Stroke {
  const places = Array.from({ length: 60 }, (_, i) => at(i / 59));
  const column = (of: (place: [number, number, number]) => number) => Float32Array.from(places, of);
  return {
    kind: 'stroke',
    id,
    swatch: 's',
    brush: { kind: 'ink', width, opacity: 1, pressure: true },
    seed: 1,
    samples: {
      x: column(([x]) => x),
      y: column(([, y]) => y),
      pressure: column(([, , pressure]) => pressure),
      altitude: column(() => Math.PI / 2),
      azimuth: column(() => 0),
    },
  };
}

/** Which cells are drawn, by a way of drawing. */
function cells(draw: (surface: ReturnType<typeof makeSurface>) => void): boolean[] {
  const surface = makeSurface(CELLS, CELLS);
  draw(surface);
  const { data } = surface.context.getImageData(0, 0, CELLS, CELLS);
  return Array.from({ length: CELLS * CELLS }, (_, i) => data[i * 4 + 3]! >= DRAWN);
}

const matrix = fitInto(BOX, CELLS, CELLS);
const full = (drawing: Drawing) =>
  cells((surface) => {
    drawDrawing(surface, new Scratch(makeSurface), drawing, () => '#000000', matrix);
  });
const coarse = (drawing: Drawing) =>
  cells((surface) => {
    drawCoverage(surface, drawing, matrix);
  });

const swirl = stroke('swirl', 60, (t) => [
  720 + 500 * t * Math.cos(9 * t),
  720 + 500 * t * Math.sin(9 * t),
  0.3 + 0.7 * t,
]);
const bar = stroke('bar', 90, (t) => [200 + 1000 * t, 300 + 60 * Math.sin(5 * t), 1]);
const tap = stroke('tap', 320, () => [1000, 1100, 1]);
const shape: Mark = {
  kind: 'shape',
  id: 'shape',
  swatch: 's',
  rule: 'nonzero',
  opacity: 1,
  rings: [
    polygonRing([
      [300, 700],
      [900, 800],
      [500, 1300],
    ]),
  ],
};
const rub: Mark = { ...bar, kind: 'rub', id: 'rub' } as unknown as Mark;

test.each([
  ['a swirl', drawingOf(swirl)],
  ['a bar', drawingOf(bar)],
  ['a tap', drawingOf(tap)],
  ['a shape', drawingOf(shape)],
  ['a shape with a bar rubbed out of all', drawingOf(shape, swirl, rub)],
  ['all of it', drawingOf(swirl, bar, tap, shape)],
])('%s covers the same cells, but for a few at its edge', (_, drawing) => {
  const [exact, found] = [full(drawing), coarse(drawing)];
  const drawn = exact.filter(Boolean).length;
  const differing = exact.filter((is, i) => is !== found[i]).length;
  expect(drawn).toBeGreaterThan(20);
  expect(differing / drawn).toBeLessThan(0.06);
});

test('what is never seen covers nothing', () => {
  expect(coarse(drawingOf({ ...swirl, unseen: true })).some(Boolean)).toBe(false);
});
