/** What writes each format of `core/formats/exports`; the compiler names one that has no writer. */
import type { ExportFormatName } from '@tallow/core/formats';
import { writeGif } from './gif.ts';
import { writePng } from './png.ts';
import type { Writer } from './writer.ts';

export const WRITERS: Readonly<Record<ExportFormatName, Writer>> = { png: writePng, gif: writeGif };
