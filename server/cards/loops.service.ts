import type { Id } from '@tallow/core/document';
import { Inject, Injectable, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { Knex } from 'knex';
import { DATABASE } from '../db/database.ts';
import { LOOP_QUEUE } from '../queue/queue.ts';
import { QueueService } from '../queue/queue.service.ts';
import { OpenShots } from '../shots/open-shots.ts';

/** How often shots that changed are looked for, ms. */
const LOOK_MS = 2000;
/**
 * How long a shot must have rested, s: one that is open somewhere is about to change again, and making a loop takes most of a
 * core that the next stroke would have.
 */
const REST_SECONDS = { shut: 4, open: 30 } as const;

/** Has a loop made for every shot that has changed since its last one, once it has rested. */
@Injectable()
export class LoopsService implements OnApplicationBootstrap, OnApplicationShutdown {
  private watch: NodeJS.Timeout | undefined;

  constructor(
    @Inject(DATABASE) private readonly database: Knex,
    private readonly queue: QueueService,
    private readonly open: OpenShots,
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
    for (const id of await this.due()) await this.queue.send(LOOP_QUEUE, { shotId: id }, id);
  }

  /** The shots whose loop is to be made now, those changed last first. */
  async due(): Promise<Id[]> {
    const rested = (seconds: number): string => `shots.updated_at < now() - interval '${seconds} seconds'`;
    return this.database('shots')
      .leftJoin('loops', 'loops.shot_id', 'shots.id')
      .whereNull('shots.deleted_at')
      .whereRaw('(loops.revision is null or loops.revision <> shots.revision)')
      .whereRaw(rested(REST_SECONDS.shut))
      .where((either) => {
        void either.whereNotIn('shots.id', this.open.now()).orWhereRaw(rested(REST_SECONDS.open));
      })
      .orderBy('shots.updated_at', 'desc')
      .limit(8)
      .pluck<Id[]>('shots.id');
  }
}
