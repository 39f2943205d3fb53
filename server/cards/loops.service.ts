import type { Id } from '@tallow/core/document';
import { Inject, Injectable, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { Knex } from 'knex';
import { DATABASE } from '../db/database.ts';
import { LOOP_QUEUE } from '../queue/queue.ts';
import { QueueService } from '../queue/queue.service.ts';

/** How often shots that changed are looked for, and how long one must have rested. */
const LOOK_MS = 2000;
const REST_SECONDS = 4;

/** Has a loop made for every shot that has changed since its last one, once it has rested. */
@Injectable()
export class LoopsService implements OnApplicationBootstrap, OnApplicationShutdown {
  private watch: NodeJS.Timeout | undefined;

  constructor(
    @Inject(DATABASE) private readonly database: Knex,
    private readonly queue: QueueService,
  ) {}

  onApplicationBootstrap(): void {
    this.watch = setInterval(() => {
      this.ask().catch(() => undefined);
    }, LOOK_MS);
    this.watch.unref();
  }

  onApplicationShutdown(): void {
    clearInterval(this.watch);
  }

  private async ask(): Promise<void> {
    const stale = await this.database('shots')
      .leftJoin('loops', 'loops.shot_id', 'shots.id')
      .whereNull('shots.deleted_at')
      .whereRaw('(loops.revision is null or loops.revision <> shots.revision)')
      .whereRaw(`shots.updated_at < now() - interval '${REST_SECONDS} seconds'`)
      .orderBy('shots.updated_at', 'desc')
      .limit(8)
      .select<{ id: Id }[]>('shots.id');
    for (const { id } of stale) await this.queue.send(LOOP_QUEUE, { shotId: id }, id);
  }
}
