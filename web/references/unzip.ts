/** Zips that come in: unpacked bit by bit in the page, with limits, so that a hostile one is refused and not waited for. */

import { buf } from 'crc-32';
import { sumsIn } from './zip-sums.ts';

interface Unpacked {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** How much is taken of a zip: entries, bytes of one, bytes of all. */
const LIMITS = { entries: 4000, entry: 64 * 1024 * 1024, all: 768 * 1024 * 1024 } as const;
/** Bytes unpacked between two looks at whether it is still wanted. The library goes one call deeper for each entry in a part. */
const PART = 64 * 1024;

const mb = (bytes: number): string => `${Math.round(bytes / 1024 / 1024)} MB`;

/**
 * What is wanted of a zip. Worked out in this thread, a part at a time: the library's own workers are made of text, which the
 * policy of the page forbids, and a zip they are asked for never comes.
 * @param wanted whether a name is wanted. @throws what is wrong with it, for the user; an AbortError where it was stopped.
 */
export async function unzipped(
  file: File,
  wanted: (name: string) => boolean,
  signal: AbortSignal,
): Promise<readonly Unpacked[]> {
  const { Unzip, UnzipInflate } = await import('fflate');
  // The library does not look whether an entry is what it was.
  const sums = await sumsIn(file);
  if (!sums) throw new Error(`${file.name} is broken: it has no list of its files. Pack it again.`);
  const came: Unpacked[] = [];
  let trouble: string | null = null;
  let [all, entries] = [0, 0];
  const unzip = new Unzip((entry) => {
    entries += 1;
    if (entries > LIMITS.entries) trouble ??= `holds more than ${LIMITS.entries} files`;
    if (trouble !== null || !wanted(entry.name)) return;
    const parts: Uint8Array[] = [];
    let size = 0;
    entry.ondata = (error, part, isLast) => {
      if (error) trouble ??= `is damaged at ${entry.name}`;
      if (trouble !== null) return;
      size += part.length;
      all += part.length;
      if (size > LIMITS.entry) trouble = `holds ${entry.name} of more than ${mb(LIMITS.entry)}`;
      else if (all > LIMITS.all) trouble = `would unpack to more than ${mb(LIMITS.all)}`;
      if (trouble !== null) entry.terminate();
      else parts.push(part);
      if (!isLast || trouble !== null) return;
      const bytes = joined(parts, size);
      if (!sums.get(entry.name)?.includes(buf(bytes))) trouble = `is damaged at ${entry.name}: pack it again`;
      else came.push({ name: entry.name, bytes });
    };
    entry.start();
  });
  unzip.register(UnzipInflate);
  try {
    for (let at = 0; at < file.size && trouble === null; at += PART) {
      signal.throwIfAborted();
      const part = new Uint8Array(await file.slice(at, at + PART).arrayBuffer());
      unzip.push(part, at + PART >= file.size);
    }
  } catch (error) {
    if (signal.aborted) throw error;
    trouble ??= 'is broken: it cannot be unpacked';
  }
  if (trouble !== null) throw new Error(`${file.name} ${trouble}.`);
  return came;
}

function joined(parts: readonly Uint8Array[], size: number): Uint8Array {
  const whole = new Uint8Array(size);
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
