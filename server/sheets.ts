/** Draws sheets of what each starter lays and each brush draws and each smear makes, by the engine itself, into docs/starters, docs/brushes and docs/smears. */
import { writeFileSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { createCanvas, type SKRSContext2D } from '@napi-rs/canvas';
import { fitInto, seededIds } from '@tallow/core/geometry';
import { wipe } from '@tallow/core/canvas';
import { drawDrawing, Scratch } from '@tallow/core/render';
import { drawingOf, laidBox, layAll, marksFrom, sceneFor, STARTERS, type StarterKind } from '@tallow/core/starters';
import { BRUSH_KINDS } from '@tallow/core/document';
import { SMEARS } from '@tallow/core/smears';
import { brushSheet } from './brush-sheets.ts';
import { smearSheet } from './smear-sheets.ts';
import { makeSurface } from './render/canvas.ts';

const CELL = { width: 112, height: 112 };
const COLUMNS = 12;

/** Every drawing of each preset, one after the other; each preset begins a row. */
function sheetOf(kind: StarterKind, rows: readonly { preset: number; seed: number }[]): Buffer {
  const laid = rows.map(({ preset, seed }) => {
    const scene = sceneFor(kind, kind.presets[preset]!, seed);
    const frames = layAll(kind, scene)!;
    return { frames };
  });
  const height = laid.reduce((sum, { frames }) => sum + Math.ceil(frames.length / COLUMNS) * CELL.height, 0);
  const canvas = createCanvas(COLUMNS * CELL.width, height);
  const context: SKRSContext2D = canvas.getContext('2d');
  context.fillStyle = kind.ground ?? '#17130f';
  context.fillRect(0, 0, canvas.width, canvas.height);
  let top = 0;
  const colourOf = (paint: string) => kind.paints.find((p) => p.key === paint)!.colour;
  for (const { frames } of laid) {
    const box = laidBox(frames.flatMap((frame) => Object.values(frame).flat()));
    const surface = makeSurface(CELL.width, CELL.height);
    const scratch = new Scratch(makeSurface);
    const matrix = fitInto(box, CELL.width - 12, CELL.height - 12);
    frames.forEach((frame, i) => {
      const shown = kind.outputs.filter((o) => !o.hidden).reverse();
      const marks = marksFrom(
        shown.flatMap((o) => frame[o.key] ?? []),
        (paint) => paint,
        { x: 0, y: 0 },
        seededIds(i),
      );
      wipe(surface);
      drawDrawing(surface, scratch, drawingOf('d', marks), colourOf, matrix);
      const [x, y] = [(i % COLUMNS) * CELL.width + 6, top + Math.floor(i / COLUMNS) * CELL.height + 6];
      context.drawImage(surface.picture as never, x, y);
    });
    top += Math.ceil(frames.length / COLUMNS) * CELL.height;
  }
  return canvas.toBuffer('image/png');
}

const [, , only, into = join(process.cwd(), 'docs')] = process.argv;
const wanted = (name: string) => !only || only === name;
for (const folder of ['starters', 'brushes', 'smears']) mkdirSync(join(into, folder), { recursive: true });
for (const kind of BRUSH_KINDS.filter(wanted)) writeFileSync(join(into, 'brushes', `${kind}.png`), brushSheet(kind));
for (const kind of SMEARS.filter((each) => wanted(each.form)))
  writeFileSync(join(into, 'smears', `${kind.form}.png`), smearSheet(kind));
for (const kind of STARTERS.filter((each) => each.outputs.some((o) => !o.blend) && wanted(each.effect))) {
  const began = performance.now();
  const png = sheetOf(
    kind,
    kind.presets.map((_, preset) => ({ preset, seed: 7 + preset })),
  );
  writeFileSync(join(into, 'starters', `${kind.effect}.png`), png);
  console.log(`${kind.effect}: ${Math.round(performance.now() - began)} ms, ${Math.round(png.length / 1024)} KB`);
}
