/** An archive written: everything as it is at one moment, an entry at a time, so that it takes no memory to speak of. */
import { type AssetId, type Id } from '@tallow/core/document';
import { archivePath, MANIFEST, manifestText, type ArchivedRow, type ArchivedShot } from '@tallow/core/formats';
import type { Knex } from 'knex';
import { once } from 'node:events';
import { createWriteStream, type WriteStream } from 'node:fs';
import { Readable, type PassThrough } from 'node:stream';
import { ZipFile, type Options } from 'yazl';
import { VERSION } from '../health/health.controller.ts';
import { Stopped, type Tell } from '../queue/telling.ts';
import { withoutColumns } from './columns.ts';
import {
  keptSettings,
  assetBytes,
  assetsFor,
  contentsOf,
  type DrawingRows,
  entityRows,
  olderRow,
  productionsOf,
  shotsIn,
  type Scope,
} from './contents.ts';

/** What is packed by its own means, does not pack, or is so small that packing it takes longer than all else. */
const AS_IT_IS: Partial<Options> = { compress: false };

/** Bytes that may wait to be written: entries are small, and one write each took most of the time. */
const WRITTEN_AT_ONCE = 1024 * 1024;

/** Entries made when their turn comes, with the count of those that are done. */
class Packing {
  private readonly zip = new ZipFile();
  private readonly file: WriteStream;
  /** Comes when the file is whole; fails with what went wrong before. */
  private readonly written: Promise<unknown>;
  private readonly entries: (() => Promise<unknown>)[] = [];

  constructor(
    path: string,
    private readonly tell: Tell,
  ) {
    this.file = createWriteStream(path, { mode: 0o600, highWaterMark: WRITTEN_AT_ONCE });
    this.written = once(this.file, 'close');
    this.written.catch(() => undefined);
    const end = (error: Error): void => {
      this.file.destroy(error);
    };
    this.zip.on('error', end);
    this.output.on('error', end);
    this.output.pipe(this.file);
  }

  /** How many entries there will be. */
  get total(): number {
    return this.entries.length;
  }

  /** What the packer writes to: a stream that can be full, which its types leave out. */
  private get output(): PassThrough {
    return this.zip.outputStream as unknown as PassThrough;
  }

  /** An entry that is had whole; a stream for each took more time than its bytes. */
  add(name: string, content: () => Promise<Buffer | string>, options: Partial<Options> = {}): void {
    this.entries.push(async () => {
      const made = await content();
      this.zip.addBuffer(typeof made === 'string' ? Buffer.from(made) : made, name, options);
    });
  }

  /** An entry that comes part by part. */
  addParts(name: string, parts: () => AsyncIterable<Buffer>, options: Partial<Options> = {}): void {
    this.entries.push(() => {
      const stream = Readable.from(parts(), { objectMode: false });
      this.zip.addReadStreamLazy(name, options, (begin) => {
        begin(null, stream);
      });
      return once(stream, 'end');
    });
  }

  /** @returns whether it was wanted to its end. */
  async end(): Promise<boolean> {
    // Of a file that cannot be written there is no end to wait for.
    const failed = this.written.then(() => Promise.reject(new Error('The file was closed')));
    failed.catch(() => undefined);
    let isStopped = false;
    try {
      for (const [done, entry] of this.entries.entries()) {
        isStopped = !(await this.tell(done));
        if (isStopped) throw new Stopped();
        await Promise.race([entry(), failed]);
        if (this.output.writableNeedDrain) await Promise.race([once(this.output, 'drain'), failed]);
      }
      this.zip.end();
      await this.written;
    } catch (error) {
      this.file.destroy();
      await this.written.catch(() => undefined);
      if (isStopped) return false;
      throw error;
    }
    return this.tell(this.total, true);
  }
}

/** A row in two entries: what stands in JSON, and its numbers, which are worked out once for both. */
function addRow(packing: Packing, path: string, row: () => Promise<ArchivedRow>): void {
  let columns: Buffer | null = null;
  packing.add(
    path,
    async () => {
      const { body, ...rest } = await row();
      const parted = withoutColumns(body);
      columns = parted.columns;
      return JSON.stringify({ ...rest, body: parted.json });
    },
    AS_IT_IS,
  );
  packing.add(
    archivePath.columns(path),
    () => {
      const own = columns ?? Buffer.alloc(0);
      columns = null;
      return Promise.resolve(own);
    },
    AS_IT_IS,
  );
}

/** @param preview a small picture of a shot. @param begun is called with how many entries there will be. @returns whether it was wanted to its end. */
export async function writeArchive(
  database: Knex,
  { scope, of }: { readonly scope: Scope; readonly of: Id | null },
  path: string,
  {
    tell,
    begun,
    preview,
  }: { tell: Tell; begun: (total: number) => Promise<unknown>; preview: (id: Id) => Promise<Buffer> },
): Promise<boolean> {
  return database.transaction(
    async (tx) => {
      await tx.raw('set local idle_in_transaction_session_timeout = 0');
      const chosen = await shotsIn(tx, scope, of);
      const productions = await productionsOf(
        tx,
        chosen.map(({ productionId }) => productionId),
      );
      const wanted = new Set<AssetId>();
      const shots: { shot: ArchivedShot; rows: DrawingRows }[] = [];
      for (const { id, productionId } of chosen) {
        const { shot, assets, rows } = await contentsOf(tx, id, productionId);
        shots.push({ shot, rows });
        for (const asset of assets) wanted.add(asset);
      }
      const assets = await assetsFor(tx, wanted);
      const kept = scope === 'all' ? await keptSettings(tx) : [];
      const packing = new Packing(path, tell);
      packing.add(MANIFEST, () =>
        Promise.resolve(
          manifestText(
            { productions, shots: shots.map(({ shot }) => shot), assets, kept },
            VERSION,
            new Date().toISOString(),
          ),
        ),
      );
      for (const { shot, rows } of shots) {
        packing.add(archivePath.entities(shot.id), async () => JSON.stringify(await entityRows(tx, shot.id)));
        packing.add(archivePath.preview(shot.id), () => preview(shot.id), AS_IT_IS);
        for (const id of shot.drawings) addRow(packing, archivePath.drawing(shot.id, id), () => rows.of(id));
        for (const { id, revision } of shot.older)
          addRow(packing, archivePath.older(shot.id, id, revision), () => olderRow(tx, id, revision));
      }
      for (const asset of assets)
        packing.addParts(archivePath.asset(asset.sha256), () => assetBytes(tx, asset), AS_IT_IS);
      await begun(packing.total);
      return packing.end();
    },
    { isolationLevel: 'repeatable read', readOnly: true },
  );
}
