import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { Knex } from 'knex';
import type PgBoss from 'pg-boss';
import { DATABASE } from '../db/database.ts';
import { ARCHIVE_QUEUE, EXPORT_QUEUE, FOOTAGE_QUEUE, openQueue, SILENCE_SECONDS } from './queue.ts';

/** How often waiting and silent exports are looked after, ms. */
const REVIVE_MS = 2000;

/** The server's side of the queue: hands jobs in, and hands them in again when their worker fell silent. */
@Injectable()
export class QueueService implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly log = new Logger('queue');
  private boss: PgBoss | undefined;
  private watch: NodeJS.Timeout | undefined;

  constructor(@Inject(DATABASE) private readonly database: Knex) {}

  async onApplicationBootstrap(): Promise<void> {
    this.boss = await openQueue(process.env['DATABASE_URL'] ?? '', (error) => {
      this.log.warn(error.message);
    });
    this.watch = setInterval(() => {
      this.revive().catch(() => undefined);
    }, REVIVE_MS);
    this.watch.unref();
  }

  /** Hands a job in. @param once a key of which only one job waits at a time. @param asked somebody waits for it: it goes first. */
  async send(queue: string, job: object, once?: string, asked = false): Promise<void> {
    await this.boss?.send(queue, job, {
      priority: asked ? 1 : 0,
      ...(once === undefined ? {} : { singletonKey: once }),
    });
  }

  /** Hands in again what a worker began and no longer tells of, and what was to be tried again by now. */
  private async revive(): Promise<void> {
    const silent = await this.database('exports')
      .where('state', 'running')
      .whereRaw(`heard_at < now() - interval '${SILENCE_SECONDS} seconds'`)
      .update({ state: 'waiting', heard_at: this.database.fn.now() })
      .returning<{ id: string }[]>('id');
    const due = await this.database('exports')
      .where('state', 'waiting')
      .where('try_at', '<', this.database.fn.now())
      .update({ try_at: this.database.raw(`now() + interval '${SILENCE_SECONDS} seconds'`) })
      .returning<{ id: string }[]>('id');
    for (const { id } of [...silent, ...due]) await this.send(EXPORT_QUEUE, { exportId: id });
    for (const id of await this.quiet('footage')) await this.send(FOOTAGE_QUEUE, { footageId: id });
    for (const id of await this.quiet('archives')) await this.send(ARCHIVE_QUEUE, { archiveId: id });
  }

  /** Work that nobody has told of for a while, set waiting again. */
  private async quiet(table: 'footage' | 'archives'): Promise<string[]> {
    const rows = await this.database(table)
      .whereIn('state', ['waiting', 'running'])
      .whereRaw(`heard_at < now() - interval '${SILENCE_SECONDS} seconds'`)
      .update({ state: 'waiting', heard_at: this.database.fn.now() })
      .returning<{ id: string }[]>('id');
    return rows.map(({ id }) => id);
  }

  async onApplicationShutdown(): Promise<void> {
    clearInterval(this.watch);
    await this.boss?.stop({ graceful: false });
  }
}
