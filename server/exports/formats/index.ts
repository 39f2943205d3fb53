/** What writes each format of `core/formats/exports`; the compiler names one that has no writer. */
import type { ExportFormatName } from '@tallow/core/formats';
import { writeContact } from './contact.ts';
import { writeExr } from './exr.ts';
import { writeApng, writeFfv1, writeMp4, writeWebm, writeWebp } from './films.ts';
import { writeGif } from './gif.ts';
import { writeOra } from './ora.ts';
import { writePng, writePng16, writeTiff } from './png.ts';
import { writeSheetCsv, writeSheetPrint } from './sheets.ts';
import { writeSprites } from './sprites.ts';
import { writeSvg, writeSvgMoving } from './svg.ts';
import type { Writer } from './writer.ts';

export const WRITERS: Readonly<Record<ExportFormatName, Writer>> = {
  png: writePng,
  png16: writePng16,
  tiff: writeTiff,
  exr: writeExr,
  svg: writeSvg,
  ora: writeOra,
  webm: writeWebm,
  mp4: writeMp4,
  ffv1: writeFfv1,
  gif: writeGif,
  apng: writeApng,
  webp: writeWebp,
  svgMoving: writeSvgMoving,
  sprites: writeSprites,
  contact: writeContact,
  sheetPrint: writeSheetPrint,
  sheetCsv: writeSheetCsv,
};
