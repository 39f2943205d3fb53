/** What writes each format of `core/formats/exports`; the compiler names one that has no writer. */
import type { ExportFormatName } from '@tallow/core/formats';
import { writeContact } from './contact.ts';
import { EXR } from './exr.ts';
import { ffmpegFrames } from './ffmpeg-frames.ts';
import { film } from './film.ts';
import { FILMS } from './films.ts';
import { framesZip } from './frames-zip.ts';
import { writeGif } from './gif.ts';
import { writeOra } from './ora.ts';
import { PNG16, TIFF, writePng } from './png.ts';
import { writeSheetCsv, writeSheetPrint } from './sheets.ts';
import { writeSprites } from './sprites.ts';
import { writeSvg, writeSvgMoving } from './svg.ts';
import type { Writer } from './writer.ts';

export const WRITERS: Readonly<Record<ExportFormatName, Writer>> = {
  png: writePng,
  png16: framesZip(ffmpegFrames(PNG16)),
  tiff: framesZip(ffmpegFrames(TIFF)),
  exr: framesZip(ffmpegFrames(EXR)),
  svg: writeSvg,
  ora: writeOra,
  webm: film(FILMS.webm),
  mp4: film(FILMS.mp4),
  ffv1: film(FILMS.ffv1),
  gif: writeGif,
  apng: film(FILMS.apng),
  webp: film(FILMS.webp),
  svgMoving: writeSvgMoving,
  sprites: writeSprites,
  contact: writeContact,
  sheetPrint: writeSheetPrint,
  sheetCsv: writeSheetCsv,
};
