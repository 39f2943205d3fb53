/** Every brush against its stored picture. Run with TALLOW_UPDATE=1 to store anew what the brushes draw now. */
import { newestVersion } from '@tallow/core/brush';
import { BRUSH_KINDS, type BrushKind, type RubOut, type Stroke } from '@tallow/core/document';
import { drawDrawing, Scratch } from '@tallow/core/render';
import { loadImage, type Canvas } from '@napi-rs/canvas';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { makeSurface } from '../render/canvas.ts';

const SIZE = { width: 240, height: 150 };
/** Levels of 255 by which a pixel may differ, and the share of pixels that may differ by more. */
const TOLERANCE = { levels: 8, share: 0.01 };
const FOLDER = join(import.meta.dirname, 'brushes');

const WIDTHS: Readonly<Record<BrushKind, number>> = { ink: 16, pencil: 10, grain: 40, haze: 46 };

/** A wave across the picture, pressed harder along its way. @param lean altitude of the pen, radians. */
function wave(kind: BrushKind, y: number, lean: number, more: Partial<Stroke['brush']> = {}): Stroke {
  const column = (value: (t: number) => number) => Float32Array.from({ length: 90 }, (_, i) => value(i / 89));
  return {
    kind: 'stroke',
    id: `${kind}-${y}`,
    swatch: 'flame',
    brush: { kind, width: WIDTHS[kind], opacity: 1, pressure: true, tilt: kind === 'pencil' ? 1 : 0, ...more },
    seed: 1234,
    samples: {
      x: column((t) => 18 + 204 * t),
      y: column((t) => y + 9 * Math.sin(t * 8)),
      pressure: column((t) => 0.1 + 0.9 * t),
      altitude: column(() => lean),
      azimuth: column(() => 0),
    },
  };
}

/** A stroke of the brush, a leaning and tapered one in half its opacity, and one that rubs out across them. */
function pictureOf(kind: BrushKind, version: number): Canvas {
  const strokes = [
    wave(kind, 45, Math.PI / 2, { version }),
    wave(kind, 105, 0.4, { version, opacity: 0.5, taper: [60, 60], ...(kind === 'haze' ? { flow: 0.5 } : {}) }),
  ];
  const across = wave(kind, 75, Math.PI / 2, { version, width: WIDTHS[kind] / 2 });
  const rub: RubOut = { kind: 'rub', id: 'rub', brush: across.brush, seed: 9, samples: across.samples };
  const target = makeSurface(SIZE.width, SIZE.height);
  const scratch = new Scratch(makeSurface);
  const marks = [...strokes, rub];
  drawDrawing(
    target,
    scratch,
    {
      kind: 'drawing',
      id: 'd',
      marks: Object.fromEntries(marks.map((mark) => [mark.id, mark])),
      order: marks.map(({ id }) => id),
    },
    () => '#ffa62b',
    [1, 0, 0, 1, 0, 0],
  );
  return target.picture as Canvas;
}

const pixelsOf = (canvas: Canvas): Uint8ClampedArray =>
  canvas.getContext('2d').getImageData(0, 0, SIZE.width, SIZE.height).data;

const VERSIONS = BRUSH_KINDS.flatMap((kind) =>
  Array.from({ length: newestVersion(kind) }, (_, i) => [kind, i + 1] as const),
);

test.each(VERSIONS)('%s, version %i, draws as its stored picture shows', async (kind, version) => {
  const file = join(FOLDER, version > 1 ? `${kind}-${version}.png` : `${kind}.png`);
  const drawn = pictureOf(kind, version);
  if (process.env['TALLOW_UPDATE']) writeFileSync(file, drawn.toBuffer('image/png'));
  expect(existsSync(file)).toBe(true);
  const stored = makeSurface(SIZE.width, SIZE.height).picture as Canvas;
  stored.getContext('2d').drawImage(await loadImage(readFileSync(file)), 0, 0);
  const [a, b] = [pixelsOf(drawn), pixelsOf(stored)];
  let [off, covered] = [0, 0];
  for (let i = 0; i < a.length; i += 4) {
    if (a[i + 3]! > 20) covered += 1;
    // Colour counts as far as it is seen.
    const differs = [0, 1, 2, 3].some((k) => {
      const seen = k === 3 ? 1 : Math.max(a[i + 3]!, b[i + 3]!) / 255;
      return Math.abs(a[i + k]! - b[i + k]!) * seen > TOLERANCE.levels;
    });
    if (differs) off += 1;
  }
  expect(covered).toBeGreaterThan(1500);
  expect(off).toBeLessThan(TOLERANCE.share * SIZE.width * SIZE.height);
});
