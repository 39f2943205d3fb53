import { randomId, type Id } from '@tallow/core/document';
import { Inject, Injectable } from '@nestjs/common';
import type { Knex } from 'knex';
import { unlink } from 'node:fs/promises';
import { join } from 'node:path';
import { DATABASE } from '../db/database.ts';
import { Problem } from '../http/problem.ts';
import { ShotsService } from '../shots/shots.service.ts';
import { EXPORT_FORMATS, fileStem, type ExportSettings } from '@tallow/core/formats';
import { settingsFor, type ExportRequest } from './export-request.ts';
import { EXPORT_QUEUE, SILENCE_SECONDS } from '../queue/queue.ts';
import { QueueService } from '../queue/queue.service.ts';
import { VersionsService } from '../versions/versions.service.ts';
import { homeFolder } from '../home.ts';

type ExportState = 'waiting' | 'running' | 'done' | 'stopped' | 'failed';

export interface ExportRow {
  readonly id: Id;
  readonly shot_id: Id;
  readonly state: ExportState;
  readonly settings: ExportSettings;
  readonly frames: number;
  readonly done: number;
  readonly file_name: string;
  readonly bytes: string | null;
  readonly trouble: string | null;
  /** How often it was tried, and when next; null while nobody has to be asked again. */
  readonly tries: number;
  readonly try_at: Date | null;
  /** When its worker last told of it. */
  readonly heard_at: Date;
  readonly created_at: Date;
}

export const exportsFolder = (): string => homeFolder('exports');
export const exportPath = (id: Id): string => join(exportsFolder(), `${id}.file`);

const answer = (row: ExportRow) => ({
  id: row.id,
  shotId: row.shot_id,
  state: row.state,
  settings: row.settings,
  frames: row.frames,
  done: row.done,
  fileName: row.file_name,
  bytes: row.bytes === null ? null : Number(row.bytes),
  trouble: row.trouble,
  createdAt: row.created_at.toISOString(),
});
type ExportAnswer = ReturnType<typeof answer>;

/** Exports: asked for, watched, stopped and fetched. The work itself is done by workers. */
@Injectable()
export class ExportsService {
  constructor(
    @Inject(DATABASE) private readonly database: Knex,
    private readonly shots: ShotsService,
    private readonly queue: QueueService,
    private readonly versions: VersionsService,
  ) {}

  async list(shotId: Id): Promise<ExportAnswer[]> {
    await this.shots.one(shotId);
    return (
      await this.database<ExportRow>('exports').where({ shot_id: shotId }).orderBy('created_at', 'desc').limit(50)
    ).map(answer);
  }

  async one(id: Id): Promise<ExportAnswer> {
    const row = await this.database<ExportRow>('exports').where({ id }).first();
    if (!row) throw Problem.missing('This export');
    return answer(row);
  }

  async create(shotId: Id, request: ExportRequest): Promise<ExportAnswer> {
    const shot = await this.shots.one(shotId);
    const settings = settingsFor(shot, request);
    const id = randomId();
    const { family, ending } = EXPORT_FORMATS[settings.format];
    const several = settings.also.length > 0;
    const parts = settings.parts === 'picture' ? '' : `-${settings.parts}`;
    const alpha = settings.background && parts === '' ? '' : '-alpha';
    const page = family === 'page' ? `-${settings.format}` : '';
    const layers = settings.layers === 'all' ? '' : `-${settings.layers.replace(' ', '-')}`;
    const fileName = several
      ? `${fileStem(shot.name)}-${settings.also.length + 1}-deliveries.zip`
      : `${fileStem(shot.name)}${parts}${layers}${page}${alpha}.${ending}`;
    await this.versions.before(shotId, 'export', `Taken away as ${fileName}`.slice(0, 200));
    await this.database('exports').insert({
      id,
      shot_id: shotId,
      state: 'waiting',
      settings: JSON.stringify(settings),
      frames: settings.to - settings.from,
      file_name: fileName,
      // Handed in again should the queue not hear of it now.
      try_at: this.database.raw(`now() + interval '${SILENCE_SECONDS} seconds'`),
    });
    await this.queue.send(EXPORT_QUEUE, { exportId: id });
    return this.one(id);
  }

  async stop(id: Id): Promise<ExportAnswer> {
    await this.database('exports').where({ id }).whereIn('state', ['waiting', 'running']).update({ state: 'stopped' });
    return this.one(id);
  }

  /** Takes every export of a shot that is not under way off the list, with its file. */
  async clear(shotId: Id): Promise<void> {
    const gone = await this.database('exports')
      .where({ shot_id: shotId })
      .whereNotIn('state', ['waiting', 'running'])
      .delete()
      .returning<{ id: Id }[]>('id');
    await Promise.all(gone.map(({ id }) => unlink(exportPath(id)).catch(() => undefined)));
  }

  async remove(id: Id): Promise<void> {
    await this.stop(id);
    await this.database('exports').where({ id }).delete();
    await unlink(exportPath(id)).catch(() => undefined);
  }
}
