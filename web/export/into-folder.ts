/** A finished export put into a folder that the user picks, unpacked, where the browser can. */
import type { ExportInfo } from '../api/types.ts';
import { unzipped } from '../references/unzip.ts';
import { say } from '../shot/document.ts';

/** What of the browser's folders is used. */
interface Folder {
  readonly name: string;
  getDirectoryHandle(name: string, options: { create: true }): Promise<Folder>;
  getFileHandle(
    name: string,
    options: { create: true },
  ): Promise<{
    createWritable(): Promise<{ write(content: Blob | Uint8Array): Promise<void>; close(): Promise<void> }>;
  }>;
}
type Picks = typeof globalThis & {
  showDirectoryPicker?: (options: { mode: 'readwrite'; id: string }) => Promise<Folder>;
};

/** Why no folder can be picked here, or null. */
export const whyNotFolder = (): string | null =>
  (globalThis as Picks).showDirectoryPicker
    ? null
    : 'This browser hands out no folders: fetch the file, or set a drop folder for the server.';

async function write(folder: Folder, path: string, content: Blob | Uint8Array): Promise<void> {
  const names = path.split('/').filter((each) => each !== '' && each !== '.' && each !== '..');
  let into = folder;
  for (const name of names.slice(0, -1)) into = await into.getDirectoryHandle(name, { create: true });
  const file = await into.getFileHandle(names.at(-1)!, { create: true });
  const writing = await file.createWritable();
  await writing.write(content);
  await writing.close();
}

/** Asks for a folder and puts the files of an export there; zips are unpacked. @throws what is said to the user. */
export async function intoFolder({ id, fileName }: Pick<ExportInfo, 'id' | 'fileName'>): Promise<void> {
  let folder: Folder;
  try {
    folder = await (globalThis as Picks).showDirectoryPicker!({ mode: 'readwrite', id: 'exports' });
  } catch {
    // Nothing was picked.
    return;
  }
  try {
    const answer = await fetch(`/api/exports/${id}/file`);
    if (!answer.ok) throw new Error('The file of this export is not there any more.');
    const blob = await answer.blob();
    const isZip = fileName.endsWith('.zip');
    const files = isZip
      ? await unzipped(new File([blob], fileName), () => true, new AbortController().signal)
      : [{ name: fileName, bytes: blob }];
    for (const { name, bytes } of files) await write(folder, name, bytes);
    say(`${files.length === 1 ? fileName : `${files.length} files`} put into “${folder.name}”.`);
  } catch (error) {
    say(error instanceof Error ? error.message : String(error));
  }
}
