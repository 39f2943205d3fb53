/** Frames as files in one zip, a folder for each sequence, with the exposure sheet and notes beside them if wanted. */
import {
  exportNotes,
  EXPORT_FORMATS,
  fileStem,
  frameName,
  sequencesOf,
  takenFrames,
  type Lies,
  type Sequence,
} from '@tallow/core/formats';
import { shotOf } from '@tallow/core/document';
import { once } from 'node:events';
import { createWriteStream } from 'node:fs';
import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { ZipFile } from 'yazl';
import { frameDrawer, type FrameRange } from '../../render/frames.ts';
import { drawnPart, type Crop } from '../../render/raw-frames.ts';
import { exportRange } from './range.ts';
import { sheetCsvText } from './sheets.ts';
import type { Writer, Writing } from './writer.ts';

/** A sequence to be encoded. */
export interface ToEncode {
  readonly writing: Writing;
  readonly range: FrameRange;
  /** What of the frames is wanted; all of them if left out. */
  readonly crop: Crop | undefined;
  /** An empty folder of its own, for files on their way. */
  readonly folder: string;
}

/** What comes of a sequence bit by bit: how many frames were drawn, and files in order, as bytes or as paths. */
export interface Came {
  readonly drawn: number;
  readonly files: readonly (Buffer | string)[];
}

export type EncodeSequence = (sequence: ToEncode) => AsyncIterable<Came>;

/** What is left of a sequence in which nothing is drawn: a file has at least one pixel. */
const EMPTY_CUT = { width: 1, height: 1, left: 0, top: 0 } as const;

/** A writer of frames. @param encode what makes files of a sequence. */
export const framesZip =
  (encode: EncodeSequence): Writer =>
  async (writing) => {
    const { outline, documents, settings, frames: all, path, tell } = writing;
    const zip = new ZipFile();
    const file = createWriteStream(path);
    const written = once(file, 'close');
    // A full disk ends the waiting below; until then it is nobody's business but this job's.
    written.catch(() => undefined);
    zip.outputStream.pipe(file);
    const stem = fileStem(shotOf(outline).name);
    const { parts } = settings;
    const taken = takenFrames(settings);
    const ending = EXPORT_FORMATS[settings.format].frames!;
    if (settings.sheet) {
      zip.addBuffer(Buffer.from(sheetCsvText(outline, taken.from, taken.to)), `${stem}/${stem}-exposure-sheet.csv`);
    }
    const stopped = (): false => {
      zip.outputStream.unpipe(file);
      file.destroy();
      return false;
    };
    const noted: (Sequence & { cut: Lies })[] = [];
    const folder = `${path}.files`;
    // Left by a worker that was killed.
    await rm(folder, { recursive: true, force: true });
    let done = 0;
    try {
      for (const sequence of sequencesOf(outline, settings)) {
        const { name, options } = sequence;
        const into = parts === 'picture' ? stem : `${stem}/${name}`;
        const range = exportRange(writing, options);
        const part = settings.trim ? await drawnPart(outline, range, documents, () => tell(done)) : null;
        if (part === 'stopped') return stopped();
        const cut = settings.trim ? (part ?? EMPTY_CUT) : null;
        noted.push({ ...sequence, cut });
        const own = join(folder, String(noted.length));
        await mkdir(own, { recursive: true });
        let nth = 0;
        for await (const { drawn, files } of encode({ writing, range, crop: cut ?? undefined, folder: own })) {
          for (const each of files) {
            const named = `${into}/${frameName(settings, stem, name, nth)}.${ending}`;
            if (typeof each === 'string') zip.addFile(each, named, { compress: false });
            else zip.addBuffer(each, named, { compress: false });
            nth += 1;
          }
          done += drawn;
          if (await tell(done, done === all)) continue;
          return stopped();
        }
      }
      if (settings.notes) {
        const size = frameDrawer(outline, exportRange(writing));
        zip.addBuffer(Buffer.from(exportNotes(outline, settings, size, noted)), `${stem}/${stem}-notes.txt`);
      }
      zip.end();
      await written;
      return true;
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  };
