/** A file that is handed in: written to disk as it comes, or not at all. */
import { createWriteStream } from 'node:fs';
import { mkdir, unlink } from 'node:fs/promises';
import { dirname } from 'node:path';
import { Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Problem } from './problem.ts';

/**
 * Writes a request's body to a path. What is larger than may be, empty or cut off leaves nothing behind.
 * @param max bytes. @param said what that is in words, such as "2 GB". @throws a problem said to the user.
 */
export async function takeFile(content: Readable, path: string, max: number, said: string): Promise<void> {
  await mkdir(dirname(path), { recursive: true });
  let bytes = 0;
  const counted = new Transform({
    transform(chunk: Buffer, _, done) {
      bytes += chunk.length;
      if (bytes > max) done(new Problem(413, `This file has more than ${said}; that is the most.`));
      else done(null, chunk);
    },
  });
  try {
    await pipeline(content, counted, createWriteStream(path, { mode: 0o600 }));
    if (bytes === 0) throw Problem.ofBody('This file is empty.');
  } catch (error) {
    await unlink(path).catch(() => undefined);
    throw error;
  }
}
