/** A zip that was handed in, read entry by entry: nothing is unpacked to disk, and nothing it says is believed. */
import { stat } from 'node:fs/promises';
import { crc32 } from 'node:zlib';
import { open, type Entry, type Options, type ZipFile } from 'yauzl';

/** What is wrong with an archive, said to the user. */
export class BadArchive extends Error {}

/** How much is taken. An entry is in memory as a whole. */
const LIMITS = {
  entries: 400_000,
  entry: 256 * 1024 * 1024,
  /** Bytes that may come out of the zip for each byte of it, and those that always may. */
  ratio: 200,
  always: 64 * 1024 * 1024,
} as const;

const OPTIONS: Options = { lazyEntries: true, autoClose: false, validateEntrySizes: true, strictFileNames: true };

const opened = (path: string): Promise<ZipFile> =>
  new Promise((done, failed) => {
    open(path, OPTIONS, (error, zip) => {
      if (error) failed(new BadArchive('This is no archive, or it breaks off: the file is not whole.'));
      else done(zip);
    });
  });

/** Entries by name. @throws BadArchive for names that lead out of the zip, twice the same, or too much of anything. */
function entriesOf(zip: ZipFile, bytes: number): Promise<Map<string, Entry>> {
  const entries = new Map<string, Entry>();
  let all = 0;
  return new Promise((done, failed) => {
    zip.on('error', (error: Error) => {
      failed(new BadArchive(`This archive is damaged: ${error.message}.`));
    });
    zip.on('end', () => {
      done(entries);
    });
    zip.on('entry', (entry: Entry) => {
      const { fileName, uncompressedSize } = entry;
      all += uncompressedSize;
      const trouble = entries.has(fileName)
        ? `holds ${fileName} twice`
        : entries.size >= LIMITS.entries
          ? `holds more than ${LIMITS.entries} files`
          : uncompressedSize > LIMITS.entry
            ? `holds ${fileName} of ${Math.round(uncompressedSize / 1024 / 1024)} MB; ${LIMITS.entry / 1024 / 1024} MB is the most`
            : all > LIMITS.always + bytes * LIMITS.ratio
              ? 'would unpack to far more than it is'
              : null;
      if (trouble) {
        failed(new BadArchive(`This archive ${trouble}.`));
        return;
      }
      entries.set(fileName, entry);
      zip.readEntry();
    });
    zip.readEntry();
  });
}

export class ZipReader {
  private constructor(
    private readonly zip: ZipFile,
    private readonly entries: ReadonlyMap<string, Entry>,
  ) {}

  /** Opens a zip and reads what it says it holds. @throws BadArchive */
  static async open(path: string): Promise<ZipReader> {
    const { size } = await stat(path);
    const zip = await opened(path);
    try {
      return new ZipReader(zip, await entriesOf(zip, size));
    } catch (error) {
      zip.close();
      throw error;
    }
  }

  names(): string[] {
    return [...this.entries.keys()];
  }

  has(name: string): boolean {
    return this.entries.has(name);
  }

  /** All of an entry. @throws BadArchive where it is not there, or not what it was. */
  read(name: string): Promise<Buffer> {
    const entry = this.entries.get(name);
    if (!entry) return Promise.reject(new BadArchive(`This archive lacks ${name}.`));
    const damaged = (): BadArchive => new BadArchive(`This archive is damaged at ${name}.`);
    return new Promise((done, failed) => {
      this.zip.openReadStream(entry, (error, stream) => {
        if (error) {
          failed(damaged());
          return;
        }
        // Into one piece at once: parts that are joined later are there twice. The reader sees to it that no more comes.
        const content = Buffer.allocUnsafe(entry.uncompressedSize);
        let filled = 0;
        stream.on('data', (part: Buffer) => (filled += part.copy(content, filled)));
        stream.on('error', () => {
          failed(damaged());
        });
        stream.on('end', () => {
          // The reader looks at lengths alone.
          if (filled === content.length && crc32(content) === entry.crc32) done(content);
          else failed(damaged());
        });
      });
    });
  }

  close(): void {
    this.zip.close();
  }
}
