/** The drop folder: a folder of the server's machine into which every finished export is put as well, if one is set. */
import { constants } from 'node:fs';
import { copyFile, mkdir } from 'node:fs/promises';
import { join } from 'node:path';

const dropFolder = (): string | null => process.env['TALLOW_DROP'] ?? null;

/** Copies tried under other names before it is given up. */
const TRIES = 1000;

/** The name of a copy, its ending kept. @param nth from 1; the first has the name as it is. */
const numbered = (name: string, nth: number): string => (nth === 1 ? name : name.replace(/(\.\w+)$/, `-${nth}$1`));

/**
 * Puts a copy of a file into the drop folder; what lies there already stays.
 * @returns where it is, or null where no folder is set. @throws what the disk says.
 */
export async function dropCopy(path: string, name: string): Promise<string | null> {
  const folder = dropFolder();
  if (folder === null) return null;
  await mkdir(folder, { recursive: true });
  for (let nth = 1; ; nth++) {
    const to = join(folder, numbered(name, nth));
    try {
      await copyFile(path, to, constants.COPYFILE_EXCL);
      return to;
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST' || nth === TRIES) throw error;
    }
  }
}
