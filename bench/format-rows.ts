/** Rows of export formats: each against its encoder alone, given the same frames drawn already; and an archive against copying its bytes. */
import { encodeEntity, shotOf } from '@tallow/core/document';
import { forFormat, DEFAULT_EXPORT, type ExportFormatName } from '@tallow/core/formats';
import type { Canvas } from '@napi-rs/canvas';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeArchive } from '../server/archive/write-archive.ts';
import { migrate, openDatabase } from '../server/db/database.ts';
import { EXR } from '../server/exports/formats/exr.ts';
import type { FfmpegFrames } from '../server/exports/formats/ffmpeg-frames.ts';
import { FILMS } from '../server/exports/formats/films.ts';
import { WRITERS } from '../server/exports/formats/index.ts';
import { PNG16, TIFF } from '../server/exports/formats/png.ts';
import { encodeFrames } from '../server/render/ffmpeg.ts';
import { FrameDocuments } from '../server/render/frame-documents.ts';
import { frameDrawer, wholeShot } from '../server/render/frames.ts';
import { tellAlpha, type Pixels } from '../server/render/raw-frames.ts';
import { shotServices } from '../server/shots/services.ts';
import { newId, shotWith } from './documents.ts';
import { pictureFormatRows } from './picture-format-rows.ts';
import { sheetFormatRows } from './sheet-format-rows.ts';
import { sideBySide, timeRow, type Row } from './measure.ts';

/**
 * Drawings on 2s in each of three layers, and so twice as many frames: as many as the row of PNG has. Encoders of films look tens of
 * frames ahead before they begin.
 */
const DRAWINGS = 24;
const GOAL = 1.3;
const STILLS = { png16: PNG16, tiff: TIFF, exr: EXR } as const satisfies Partial<
  Record<ExportFormatName, FfmpegFrames>
>;

const folder = mkdtempSync(join(tmpdir(), 'tallow-bench-formats-'));
const doc = shotWith(DRAWINGS, 3, 6, 2 * DRAWINGS);
const { width, height, rate, length } = shotOf(doc);

/** What is drawn on a frame, straight, or on black where nothing can be seen through. */
function pixelsOn(frame: number, background: boolean): Pixels {
  const picture = frameDrawer(doc, wholeShot(doc, background)).draw(frame).picture as Canvas;
  const { data } = picture.getContext('2d').getImageData(0, 0, width, height);
  return background ? tellAlpha(data, 'on black') : data;
}

async function* given<T>(list: readonly T[]): AsyncGenerator<T> {
  for (const each of list) yield await Promise.resolve(each);
}

const pathOf = (format: ExportFormatName): string => join(folder, `export.${format}`);

/** An export as the worker does it, without the database. */
const exported = (format: ExportFormatName) => async () => {
  const settings = forFormat({ ...DEFAULT_EXPORT, format, from: 0, to: length, notes: false, sheet: false });
  await WRITERS[format]({
    outline: doc,
    documents: new FrameDocuments(doc, (ids) => Promise.resolve(ids.map((id) => encodeEntity(doc.entities[id]!)))),
    settings,
    frames: length,
    path: pathOf(format),
    tell: () => Promise.resolve(true),
    assets: () => null,
    recording: () => Promise.resolve(null),
  });
};

async function filmRows(): Promise<Row[]> {
  const rows: Row[] = [];
  for (const [name, { picture, container }] of Object.entries(FILMS)) {
    const format = name as keyof typeof FILMS;
    const drawn = Array.from({ length: DRAWINGS }, (_, i) => pixelsOn(2 * i, format === 'mp4'));
    const frames = Array.from({ length }, (_, frame) => drawn[frame >> 1]!);
    const alone = () =>
      encodeFrames(given(frames), { width, height, rate, pixels: 'rgba' }, [
        ...picture,
        ...container,
        join(folder, `alone.${format}`),
      ]);
    rows.push(timeRow(`export as ${format}`, 'its encoder alone', GOAL, await sideBySide(3, exported(format), alone)));
  }
  return rows;
}

async function stillRows(): Promise<Row[]> {
  const rows: Row[] = [];
  for (const [name, { encoder, ending, pixels = 'rgba', bytesOf }] of Object.entries<FfmpegFrames>(STILLS)) {
    const format = name as keyof typeof STILLS;
    // Frames that look alike are encoded once.
    const frames = Array.from({ length: DRAWINGS }, (_, i) => pixelsOn(2 * i, false)).map((each) =>
      bytesOf ? bytesOf(each) : each,
    );
    const into = join(folder, format);
    mkdirSync(into, { recursive: true });
    const alone = () =>
      encodeFrames(given(frames), { width, height, rate, pixels }, [...encoder, join(into, `%04d.${ending}`)]);
    rows.push(timeRow(`export as ${format}`, 'its encoder alone', GOAL, await sideBySide(3, exported(format), alone)));
  }
  return rows;
}

/** A shot of 500 drawings. */
async function archiveRow(): Promise<Row> {
  const url = process.env['DATABASE_URL'];
  if (!url) throw new Error('DATABASE_URL is not set; use npm run bench');
  const database = openDatabase(url);
  await migrate(database);
  const production = newId();
  await database('productions').insert({ id: production, name: 'Archive' });
  const shot = shotWith(500);
  await shotServices(database).shots.insert(shot, production);
  const path = join(folder, 'archive.zip');
  const written = () =>
    writeArchive(database, { scope: 'shot', of: shot.shotId }, path, {
      tell: () => Promise.resolve(true),
      begun: () => Promise.resolve(),
      preview: () => Promise.resolve(Buffer.alloc(1000)),
    });
  const copied = async () => {
    const rows = await database('entities')
      .where({ shot_id: shot.shotId })
      .select<{ body: string }[]>(database.raw('body::text as body'));
    writeFileSync(path, rows.map(({ body }) => body).join('\n'));
  };
  const row = timeRow(
    'archive of a shot of 500 drawings',
    'copying its bytes',
    3,
    await sideBySide(5, written, copied),
  );
  await database.destroy();
  return row;
}

export async function formatRows(): Promise<Row[]> {
  try {
    return [
      ...(await filmRows()),
      ...(await stillRows()),
      ...(await pictureFormatRows(doc, exported)),
      ...(await sheetFormatRows(doc, exported, pathOf)),
      await archiveRow(),
    ];
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
