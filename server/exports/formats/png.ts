/** Frames as PNG in one zip, with the exposure sheet beside them if wanted. */
import { exposureSheet, fileStem, frameName, sequencesOf } from '@tallow/core/formats';
import { shotOf } from '@tallow/core/document';
import { stringify } from 'csv-stringify/sync';
import { once } from 'node:events';
import { createWriteStream } from 'node:fs';
import { ZipFile } from 'yazl';
import { pngFrames } from '../../render/frames.ts';
import type { Writing } from './writer.ts';

export async function writePng({
  outline,
  documents,
  settings,
  frames: all,
  path,
  tell,
  assets,
}: Writing): Promise<boolean> {
  const zip = new ZipFile();
  const file = createWriteStream(path);
  const written = once(file, 'close');
  // A full disk ends the waiting below; until then it is nobody's business but this job's.
  written.catch(() => undefined);
  zip.outputStream.pipe(file);
  const stem = fileStem(shotOf(outline).name);
  const { from, to, scale, background, pattern } = settings;
  const sequences = sequencesOf(outline, settings);
  if (settings.sheet) {
    const { head, rows } = exposureSheet(outline, from, to);
    const csv = stringify([[...head], ...rows.map((each) => [...each])], { escape_formulas: true });
    zip.addBuffer(Buffer.from(csv), `${stem}/${stem}-exposure-sheet.csv`);
  }
  let done = 0;
  for (const { name, options } of sequences) {
    let frame = from;
    const folder = settings.parts === 'picture' ? stem : `${stem}/${name}`;
    const onBackground = background && settings.parts === 'picture';
    const range = { from, to, scale, background: onBackground, options, assets };
    for await (const png of pngFrames(outline, range, documents)) {
      zip.addBuffer(png, `${folder}/${frameName(pattern, stem, name, frame)}.png`, { compress: false });
      frame += 1;
      done += 1;
      if (await tell(done, done === all)) continue;
      zip.outputStream.unpipe(file);
      file.destroy();
      return false;
    }
  }
  zip.end();
  await written;
  return true;
}
