/** Every format a shot is taken away in, in the order in which they are offered. */
import type { ExportFormat } from './export-format.ts';
import { gif } from './gif.ts';
import { png } from './png.ts';

const ALL = { png, gif };

export type ExportFormatName = keyof typeof ALL;
export const EXPORT_FORMATS: Readonly<Record<ExportFormatName, ExportFormat>> = ALL;
export const exportFormats = (): ExportFormatName[] => Object.keys(EXPORT_FORMATS) as ExportFormatName[];

export type { ExportFormat } from './export-format.ts';
