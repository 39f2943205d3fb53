import fc from 'fast-check';
import {
  findAll,
  find,
  newShotDocument,
  randomId,
  shotOf,
  type Layer,
  type ShotDocument,
  type Stroke,
  entitiesOf,
} from '@tallow/core/document';
import { addLayer, addMark, setLayer } from '@tallow/core/edit';
import type { Matrix } from '@tallow/core/geometry';
import { drawFrame, Rasters, SurfacePool, type RenderContext } from '@tallow/core/render';
import { furnaceMouth } from '@tallow/demo';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { directRendering, makeSurface } from '../render/canvas.ts';
import { fileStem, frameName, DEFAULT_EXPORT } from '@tallow/core/formats';
import { pngFrames, wholeShot } from '../render/frames.ts';

const flat = (values: number[]) => Float32Array.from(values);
const stroke = (swatch: string, x: number[], y: number[], more: Partial<Stroke['brush']> = {}): Stroke => ({
  kind: 'stroke',
  id: randomId(),
  swatch,
  brush: { kind: 'ink', width: 20, opacity: 1, pressure: false, ...more },
  seed: 0,
  samples: {
    x: flat(x),
    y: flat(y),
    pressure: flat(x.map(() => 1)),
    altitude: flat(x.map(() => 1)),
    azimuth: flat(x.map(() => 0)),
  },
});
const base = (background: string | null): ShotDocument =>
  newShotDocument(randomId(), { name: 'T', width: 100, height: 100, rate: 24, length: 2, background }, randomId);
const layerOf = (doc: ShotDocument): Layer => entitiesOf(doc, 'layer')[0]!;

function render(doc: ShotDocument, background = true): (x: number, y: number) => number[] {
  const surface = makeSurface(100, 100);
  drawFrame(surface, doc, 0, [1, 0, 0, 1, 0, 0], directRendering(doc), {
    guides: false,
    background,
  });
  const context = (surface.picture as ReturnType<typeof createCanvas>).getContext('2d');
  return (x, y) => Array.from(context.getImageData(x, y, 1, 1).data);
}

test('a stroke is opaque in its swatch’s colour, the background behind it, nothing outside', () => {
  const doc = base('#102030');
  const swatch = shotOf(doc).swatches[2]!;
  const drawn = addMark(doc, layerOf(doc).id, 0, stroke(swatch, [-30, 30], [0, 0]), randomId);
  expect(render(drawn)(50, 50)).toEqual([255, 166, 43, 255]);
  expect(render(drawn)(50, 80)).toEqual([16, 32, 48, 255]);
  expect(render(drawn, false)(50, 80)).toEqual([0, 0, 0, 0]);
});
test('a half-opaque stroke that crosses itself does not darken', () => {
  const doc = base('#000000');
  const white = findAll(doc, 'swatch', shotOf(doc).swatches).find((s) => s.colour === '#fff0b8')!;
  const cross = addMark(
    doc,
    layerOf(doc).id,
    0,
    stroke(white.id, [-30, 30, 30, -30], [-30, 30, -30, 30], { opacity: 0.5 }),
    randomId,
  );
  const at = render(cross);
  expect(at(50, 50)[0]).toBeCloseTo(at(65, 65)[0]!, -0.5);
  expect(Math.abs(at(50, 50)[0]! - 128)).toBeLessThanOrEqual(1);
});
test('rubbing out takes away only from its own drawing', () => {
  const doc = base(null);
  const [a, b] = shotOf(doc).swatches;
  const below = layerOf(doc).id;
  const { doc: two, layerId } = addLayer(doc, layerOf(doc).elementId, 'Top', 'line', below, randomId);
  const first = addMark(two, below, 0, stroke(a!, [-30, 30], [0, 0]), randomId);
  const second = addMark(first, layerId, 0, stroke(b!, [-30, 30], [0, 0]), randomId);
  const { id, brush, seed, samples } = stroke(a!, [0, 1], [0, 0]);
  const rubbed = addMark(second, layerId, 0, { kind: 'rub', id, brush, seed, samples }, randomId);
  expect(render(rubbed)(50, 50)).toEqual([140, 42, 20, 255]);
  expect(render(rubbed)(75, 50)).toEqual([226, 88, 28, 255]);
});
test('guides and hidden layers are never in a frame; layer opacity is', () => {
  const doc = base(null);
  const layer = layerOf(doc);
  const drawn = addMark(doc, layer.id, 0, stroke(shotOf(doc).swatches[0]!, [-30, 30], [0, 0]), randomId);
  expect(render(setLayer(drawn, layer.id, { role: 'guide' }))(50, 50)[3]).toBe(0);
  expect(render(setLayer(drawn, layer.id, { visible: false }))(50, 50)[3]).toBe(0);
  expect(Math.abs(render(setLayer(drawn, layer.id, { opacity: 0.5 }))(50, 50)[3]! - 128)).toBeLessThanOrEqual(1);
});
test('frames come in order at the shot’s size; equal ones are encoded once', async () => {
  const doc = furnaceMouth();
  const small: ShotDocument = { ...doc, entities: { ...doc.entities, [doc.shotId]: { ...shotOf(doc), length: 26 } } };
  const frames: Buffer[] = [];
  for await (const png of pngFrames(small, wholeShot(small, true))) frames.push(png);
  expect(frames).toHaveLength(26);
  expect(frames[1]).toBe(frames[0]);
  expect(frames[24]).toBe(frames[0]);
  expect(new Set(frames).size).toBe(12);
  const image = await loadImage(frames[0]!);
  expect([image.width, image.height]).toEqual([1920, 1080]);
}, 60_000);
test('numbers and names of files', () => {
  const numbers = { ...DEFAULT_EXPORT, pattern: '{frame}', from: 0 };
  expect([0, 9_998, 9_999].map((nth) => frameName(numbers, '', '', nth))).toEqual(['0001', '9999', '10000']);
  expect(['Furnace mouth', '  Ü/..\\b ', '炎', '///'].map(fileStem)).toEqual(['furnace-mouth', 'u-b', '炎', 'shot']);
});
test('every drawing of the demo is reachable and the cycle is 24 frames on 2s', () => {
  const doc = furnaceMouth();
  const layers = entitiesOf(doc, 'layer');
  const shown = new Set(layers.flatMap((layer) => Object.values(layer.slots)));
  for (const drawing of entitiesOf(doc, 'drawing')) expect(shown.has(drawing.id)).toBe(true);
  for (const layer of layers.filter((l) => l.name !== 'Arch'))
    expect(find(doc, 'runlist', layer.runListId)!.runs.reduce((n, r) => n + r.length, 0)).toBe(24);
});

test('a frame drawn once and one put together from kept pictures, as painters do it, are equal to the byte wherever it is seen', () => {
  const doc = furnaceMouth();
  const pool = new SurfacePool(makeSurface, 64 * 1024 * 1024);
  const rasters = new Rasters(pool, 256 * 1024 * 1024, makeSurface);
  const kept: RenderContext = {
    make: pool.make,
    during: (work) => pool.during(work),
    pictureOf: (item, matrix, width, height) => rasters.drawing(doc, item, { width, height, matrix }),
  };
  const pixelsBy = (rendering: RenderContext, view: Matrix) => {
    const surface = makeSurface(480, 270);
    drawFrame(surface, doc, 3, view, rendering, { guides: false, background: true });
    return Buffer.from(surface.context.getImageData(0, 0, 480, 270).data);
  };
  const direct = directRendering(doc);
  const place = fc.double({ min: -160, max: 160, noNaN: true });
  fc.assert(
    fc.property(fc.double({ min: 0.15, max: 0.6, noNaN: true }), place, place, (scale, x, y) => {
      const view: Matrix = [scale, 0, 0, scale, x, y];
      expect(Buffer.compare(pixelsBy(direct, view), pixelsBy(kept, view))).toBe(0);
    }),
    { numRuns: 12 },
  );
});
