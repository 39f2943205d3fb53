/** A contact sheet: every drawing small, in its place in the picture, with its frame and how long it is held. */
import { shotOf } from '@tallow/core/document';
import { createCanvas, GlobalFonts, type Canvas } from '@napi-rs/canvas';
import { writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { picturesOf } from './pictures.ts';
import type { Writer } from './writer.ts';

/** px: a cell's width at most, the space round it, and the line of words under it. */
const [CELL, SPACE, LINE] = [280, 20, 26];
/** Cells beside each other at most, and px of a whole sheet at most, each way. */
const [ACROSS, MAX] = [6, 16_000];
const INK = { paper: '#17130f', cell: '#232323', words: '#b8aa98' } as const;

const FONT = 'Tallow sheet';
const fontFile = createRequire(import.meta.url).resolve(
  '@fontsource-variable/jetbrains-mono/files/jetbrains-mono-latin-wght-normal.woff2',
);

function smaller(canvas: Canvas, by: number): Canvas {
  const small = createCanvas(Math.max(1, Math.round(canvas.width * by)), Math.max(1, Math.round(canvas.height * by)));
  const context = small.getContext('2d');
  context.imageSmoothingQuality = 'high';
  context.drawImage(canvas, 0, 0, small.width, small.height);
  return small;
}

export const writeContact: Writer = async (writing) => {
  const { outline, settings, path, tell, frames } = writing;
  if (!GlobalFonts.has(FONT)) GlobalFonts.registerFromPath(fontFile, FONT);
  const shot = shotOf(outline);
  const by = Math.min(1, CELL / (shot.width * settings.scale));
  const found = await picturesOf(writing, true, (canvas) => smaller(canvas, by));
  if (!found) return false;
  const [width, height] = [Math.round(found.width * by), Math.round(found.height * by)];
  const across = Math.min(ACROSS, found.shown.length);
  const down = Math.min(Math.ceil(found.shown.length / across), Math.floor((MAX - SPACE) / (height + LINE + SPACE)));
  const sheet = createCanvas(SPACE + across * (width + SPACE), SPACE + down * (height + LINE + SPACE));
  const context = sheet.getContext('2d');
  context.fillStyle = INK.paper;
  context.fillRect(0, 0, sheet.width, sheet.height);
  context.font = `15px "${FONT}"`;
  found.shown.slice(0, across * down).forEach(({ picture, from, frames: held }, i) => {
    const x = SPACE + (i % across) * (width + SPACE);
    const y = SPACE + Math.floor(i / across) * (height + LINE + SPACE);
    context.fillStyle = shot.background ?? INK.cell;
    context.fillRect(x, y, width, height);
    const { box, canvas } = found.pictures[picture]!;
    if (box && canvas) context.drawImage(canvas, x + box.left * by, y + box.top * by);
    context.fillStyle = INK.words;
    context.fillText(`${from + 1}`, x, y + height + 18);
    const hold = `${held} f`;
    context.fillText(hold, x + width - context.measureText(hold).width, y + height + 18);
  });
  await writeFile(path, await sheet.encode('png'));
  return tell(frames, true);
};
