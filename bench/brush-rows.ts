/** Rows about whole strokes: what each brush costs against ink. */
import type { BrushSettings, Samples } from '@tallow/core/document';
import { drawStroke, Scratch } from '@tallow/core/render';
import { makeSurface } from '../server/render/canvas.ts';
import { sideBySide, timeRow, type Row } from './measure.ts';

const SIZE = [1920, 1080] as const;
const COUNT = 200;

/** A stroke of 200 samples across the picture, as a hand draws it. */
const samples: Samples = {
  x: Float32Array.from({ length: COUNT }, (_, i) => 300 + 5 * i),
  y: Float32Array.from({ length: COUNT }, (_, i) => 500 + 160 * Math.sin(i / 18)),
  pressure: Float32Array.from({ length: COUNT }, (_, i) => 0.55 + 0.4 * Math.sin(i / 30)),
  altitude: new Float32Array(COUNT).fill(1.2),
  azimuth: new Float32Array(COUNT),
};
const INK: BrushSettings = { kind: 'ink', width: 14, opacity: 1, pressure: true };
const OTHERS: readonly BrushSettings[] = [
  { kind: 'pencil', version: 2, width: 7, opacity: 1, pressure: true, tilt: 1 },
  { kind: 'grain', version: 2, width: 48, opacity: 1, pressure: true, tilt: 0.3 },
  { kind: 'pencil', width: 7, opacity: 1, pressure: true, tilt: 1 },
  { kind: 'grain', width: 48, opacity: 1, pressure: true, tilt: 0.3 },
];

async function brushRow(brush: BrushSettings): Promise<Row> {
  const surface = makeSurface(...SIZE);
  const scratch = new Scratch(makeSurface);
  const work = (each: BrushSettings) => () => {
    const laying = { opacity: 1, operation: 'source-over' } as const;
    for (let seed = 0; seed < 4; seed++)
      drawStroke(surface, scratch, { samples, brush: each, seed }, laying, '#ffa62b', [1, 0, 0, 1, 0, 0]);
    // What is asked for is drawn by then.
    surface.context.getImageData(0, 0, 1, 1);
  };
  const version = brush.version ? '' : ', first version';
  return timeRow(
    `a ${brush.kind} stroke of 200 samples${version}`,
    'an ink stroke of 200 samples',
    5,
    await sideBySide(31, work(brush), work(INK)),
  );
}

export async function brushRows(): Promise<Row[]> {
  const rows: Row[] = [];
  for (const brush of OTHERS) rows.push(await brushRow(brush));
  return rows;
}
