import { randomId, type AssetId, type Id } from '@tallow/core/document';
import { Inject, Injectable } from '@nestjs/common';
import type { Knex } from 'knex';
import { unlink } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { DATABASE } from '../db/database.ts';
import { Problem } from '../http/problem.ts';
import { takeFile } from '../http/take-file.ts';
import { FOOTAGE_QUEUE } from '../queue/queue.ts';
import { QueueService } from '../queue/queue.service.ts';
import { FOOTAGE_LIMITS } from './probe.ts';
import { homeFolder } from '../home.ts';

export interface FootageRow {
  readonly id: Id;
  readonly name: string;
  readonly state: 'waiting' | 'running' | 'done' | 'stopped' | 'failed';
  /** Frames a second it is shown at; null for its own, until it is known. */
  readonly rate: number | null;
  readonly frames: number;
  readonly done: number;
  readonly width: number;
  readonly height: number;
  /** Which frame comes from where, said to the user. */
  readonly told: string;
  readonly assets: readonly AssetId[];
  readonly trouble: string | null;
  readonly heard_at: Date;
}

const footageFolder = (): string => homeFolder('footage');
export const footagePath = (id: Id): string => join(footageFolder(), id);

/** Footage: taken in as it comes, taken apart by workers, watched and stopped. */
@Injectable()
export class FootageService {
  constructor(
    @Inject(DATABASE) private readonly database: Knex,
    private readonly queue: QueueService,
  ) {}

  /** Takes a file as it comes and has it taken apart. @param rate frames a second it is to be shown at, or null for its own. */
  async take(content: Readable, name: string, rate: number | null): Promise<FootageRow> {
    const id = randomId();
    await takeFile(content, footagePath(id), FOOTAGE_LIMITS.bytes, '2 GB');
    await this.database('footage').insert({ id, name, rate, state: 'waiting' });
    await this.queue.send(FOOTAGE_QUEUE, { footageId: id });
    return this.one(id);
  }

  async one(id: Id): Promise<FootageRow> {
    const row = await this.database<FootageRow>('footage').where({ id }).first();
    if (!row) throw Problem.missing('This footage');
    return row;
  }

  async stop(id: Id): Promise<FootageRow> {
    await this.database('footage').where({ id }).whereIn('state', ['waiting', 'running']).update({ state: 'stopped' });
    await unlink(footagePath(id)).catch(() => undefined);
    return this.one(id);
  }
}
