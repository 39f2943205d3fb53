/** Several deliveries of one job in one zip, a folder for each. */
import { EXPORT_FORMATS, type ExportSettings } from '@tallow/core/formats';
import { once } from 'node:events';
import { createWriteStream } from 'node:fs';
import { Readable } from 'node:stream';
import { ZipFile } from 'yazl';
import { ZipReader } from '../archive/zip-reader.ts';

/** A delivery that is written. */
export interface Delivered {
  readonly path: string;
  readonly settings: ExportSettings;
  /** Its folder. */
  readonly name: string;
}

/** @param stem of files that have no names of their own. */
export async function packTogether(parts: readonly Delivered[], stem: string, path: string): Promise<void> {
  const zip = new ZipFile();
  const file = createWriteStream(path);
  const written = once(file, 'close');
  zip.outputStream.pipe(file);
  const open: ZipReader[] = [];
  try {
    for (const { path: from, settings, name } of parts) {
      const { ending } = EXPORT_FORMATS[settings.format];
      if (ending !== 'zip') {
        zip.addFile(from, `${name}/${stem}.${ending}`, { compress: false });
        continue;
      }
      const inner = await ZipReader.open(from);
      open.push(inner);
      // Its own folder of the shot's name would be one too many.
      for (const entry of inner.names())
        zip.addReadStreamLazy(`${name}/${entry.replace(`${stem}/`, '')}`, { compress: false }, (begin) => {
          inner.read(entry).then(
            (content) => {
              begin(null, Readable.from([content], { objectMode: false }));
            },
            (error: unknown) => {
              begin(error, null as never);
            },
          );
        });
    }
    zip.end();
    await written;
  } finally {
    for (const each of open) each.close();
  }
}
