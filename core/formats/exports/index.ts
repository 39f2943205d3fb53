/** Every format a shot is taken away in, in the order in which they are offered. */
import { apng } from './apng.ts';
import { contact } from './contact.ts';
import type { ExportFamily, ExportFormat } from './export-format.ts';
import { exr } from './exr.ts';
import { ffv1 } from './ffv1.ts';
import { gif } from './gif.ts';
import { mp4 } from './mp4.ts';
import { ora } from './ora.ts';
import { png } from './png.ts';
import { png16 } from './png16.ts';
import { sheetCsv } from './sheet-csv.ts';
import { sheetPrint } from './sheet-print.ts';
import { sprites } from './sprites.ts';
import { svg } from './svg.ts';
import { svgMoving } from './svg-moving.ts';
import { tiff } from './tiff.ts';
import { webm } from './webm.ts';
import { webp } from './webp.ts';

const ALL = {
  png,
  png16,
  tiff,
  exr,
  svg,
  ora,
  webm,
  mp4,
  ffv1,
  gif,
  apng,
  webp,
  svgMoving,
  sprites,
  contact,
  sheetPrint,
  sheetCsv,
};

export type ExportFormatName = keyof typeof ALL;
export const EXPORT_FORMATS: Readonly<Record<ExportFormatName, ExportFormat>> = ALL;
export const exportFormats = (): ExportFormatName[] => Object.keys(EXPORT_FORMATS) as ExportFormatName[];

/** The formats of a family. */
export const formatsOf = (family: ExportFamily): ExportFormatName[] =>
  exportFormats().filter((name) => EXPORT_FORMATS[name].family === family);

export { ALPHA_KINDS, EXPORT_FAMILIES, type AlphaKind, type ExportFamily, type ExportFormat } from './export-format.ts';
