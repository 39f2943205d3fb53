import { randomId, type Id } from '@tallow/core/document';
import { ARCHIVE_ENDING, fileStem } from '@tallow/core/formats';
import { Inject, Injectable } from '@nestjs/common';
import type { Knex } from 'knex';
import { unlink } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { DATABASE } from '../db/database.ts';
import { Problem } from '../http/problem.ts';
import { takeFile } from '../http/take-file.ts';
import { ARCHIVE_QUEUE } from '../queue/queue.ts';
import { QueueService } from '../queue/queue.service.ts';
import { productionsOf, shotsIn, type Scope } from './contents.ts';
import type { CameShot } from './keep-archive.ts';
import { homeFolder } from '../home.ts';

export interface ArchiveRow {
  readonly id: Id;
  readonly direction: 'out' | 'in';
  readonly scope: Scope;
  readonly of: Id | null;
  readonly state: 'waiting' | 'running' | 'done' | 'stopped' | 'failed';
  readonly file_name: string;
  /** Entries, and how many of them are done. */
  readonly total: number;
  readonly done: number;
  readonly bytes: string | null;
  /** What came in. */
  readonly told: { readonly shots?: readonly CameShot[] };
  readonly trouble: string | null;
  readonly heard_at: Date;
}

const LARGEST = { bytes: 16 * 1024 ** 3, said: '16 GB' } as const;
/** Hours for which a written archive can be fetched. */
const KEPT_HOURS = 24;

export const archivesFolder = (): string => homeFolder('archives');
export const archiveFile = (id: Id): string => join(archivesFolder(), `${id}.zip`);

const answer = ({ id, direction, state, total, done, file_name: fileName, bytes, told, trouble }: ArchiveRow) => ({
  id,
  direction,
  state,
  total,
  done,
  fileName,
  bytes: bytes === null ? null : Number(bytes),
  shots: told.shots ?? [],
  trouble,
});
export type ArchiveAnswer = ReturnType<typeof answer>;

/** Archives: asked for or handed in, watched, stopped and fetched. The work itself is done by workers. */
@Injectable()
export class ArchivesService {
  constructor(
    @Inject(DATABASE) private readonly database: Knex,
    private readonly queue: QueueService,
  ) {}

  /** Has one written. @param of the shot or production; null for everything. */
  async write(scope: Scope, of: Id | null): Promise<ArchiveAnswer> {
    await this.dropOld();
    const id = randomId();
    const fileName = `${fileStem(await this.nameOf(scope, of))}.${ARCHIVE_ENDING}`;
    await this.database('archives').insert({ id, direction: 'out', scope, of, state: 'waiting', file_name: fileName });
    await this.queue.send(ARCHIVE_QUEUE, { archiveId: id });
    return this.one(id);
  }

  /** Takes one as it comes and has it read. */
  async read(content: Readable, name: string): Promise<ArchiveAnswer> {
    const id = randomId();
    await takeFile(content, archiveFile(id), LARGEST.bytes, LARGEST.said);
    await this.database('archives').insert({ id, direction: 'in', scope: 'all', state: 'waiting', file_name: name });
    await this.queue.send(ARCHIVE_QUEUE, { archiveId: id });
    return this.one(id);
  }

  private async nameOf(scope: Scope, of: Id | null): Promise<string> {
    const shots = await shotsIn(this.database, scope, of);
    if (scope === 'all') return 'Tallow';
    if (scope === 'production') return (await productionsOf(this.database, [of!]))[0]?.name ?? 'Production';
    const row = await this.database<{ id: Id; body: { name?: string } }>('entities')
      .where({ id: shots[0]!.id })
      .first();
    return row?.body.name ?? 'Shot';
  }

  async one(id: Id): Promise<ArchiveAnswer> {
    const row = await this.database<ArchiveRow>('archives').where({ id }).first();
    if (!row) throw Problem.missing('This archive');
    return answer(row);
  }

  async stop(id: Id): Promise<ArchiveAnswer> {
    await this.database('archives').where({ id }).whereIn('state', ['waiting', 'running']).update({ state: 'stopped' });
    return this.one(id);
  }

  async remove(id: Id): Promise<void> {
    await this.stop(id);
    await this.database('archives').where({ id }).delete();
    await unlink(archiveFile(id)).catch(() => undefined);
  }

  private async dropOld(): Promise<void> {
    const gone = await this.database('archives')
      .whereNotIn('state', ['waiting', 'running'])
      .whereRaw(`heard_at < now() - interval '${KEPT_HOURS} hours'`)
      .delete()
      .returning<{ id: Id }[]>('id');
    await Promise.all(gone.map(({ id }) => unlink(archiveFile(id)).catch(() => undefined)));
  }
}
