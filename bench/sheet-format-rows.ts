/** Rows of export formats that are text, or one picture of many: each against making that text or picture alone. */
import { shotOf, type ShotDocument } from '@tallow/core/document';
import { Defs, frameSvg, itemsText, movingSvg, type ExportFormatName } from '@tallow/core/formats';
import { drawListOf } from '@tallow/core/render';
import { createCanvas, loadImage, type Canvas } from '@napi-rs/canvas';
import { unzipSync } from 'fflate';
import { readFileSync } from 'node:fs';
import { sideBySide, timeRow, type Row } from './measure.ts';

const GOAL = 1.3;
const HOW = { scale: 1, background: true, crop: null, pictured: () => null } as const;

type Export = (format: ExportFormatName) => () => Promise<void>;

const itemsOn = (doc: ShotDocument, frame: number) => drawListOf(doc, frame, { guides: false });

/** The frames on which something else is seen than on those before: every second one. */
const differentOf = (doc: ShotDocument): number[] =>
  Array.from({ length: shotOf(doc).length / 2 }, (_, drawing) => 2 * drawing);

function movingText(doc: ShotDocument): string {
  const defs = new Defs();
  const spans = differentOf(doc).map((frame) => ({
    content: itemsText(doc, itemsOn(doc, frame), () => null, defs),
    frames: 2,
  }));
  return movingSvg(doc, spans, defs, HOW);
}

async function pictureOf(png: Uint8Array): Promise<Canvas> {
  const image = await loadImage(Buffer.from(png));
  const canvas = createCanvas(image.width, image.height);
  canvas.getContext('2d').drawImage(image, 0, 0);
  return canvas;
}

/**
 * @param doc a shot whose frames differ by twos, of lines alone.
 * @param exported makes an export of it.
 * @param pathOf where that lies then.
 */
export async function sheetFormatRows(
  doc: ShotDocument,
  exported: Export,
  pathOf: (format: ExportFormatName) => string,
): Promise<Row[]> {
  const row = async (format: ExportFormatName, alone: () => unknown): Promise<Row> =>
    timeRow(`export as ${format}`, 'its encoder alone', GOAL, await sideBySide(5, exported(format), alone));
  const frames = () => differentOf(doc).map((frame) => Buffer.from(frameSvg(doc, itemsOn(doc, frame), HOW)));
  await exported('sprites')();
  const files = unzipSync(readFileSync(pathOf('sprites')));
  const sheet = await pictureOf(Object.entries(files).find(([name]) => name.endsWith('.png'))![1]);
  return [
    await row('svg', frames),
    await row('svgMoving', () => Buffer.from(movingText(doc))),
    await row('sprites', () => sheet.encode('png')),
  ];
}
