import type { Id } from '@tallow/core/document';
import { Inject, Injectable, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { Knex } from 'knex';
import { createHash } from 'node:crypto';
import { DATABASE } from '../db/database.ts';
import { Problem } from '../http/problem.ts';
import { SaveRequest, type PartRequest, type PutRequest } from './requests.ts';

/** Hours after which parts nobody committed are let go. */
const KEPT_HOURS = 24;
const SWEEP_MS = 60 * 60 * 1000;

interface PartRow {
  readonly save_id: Id;
  readonly shot_id: Id;
  readonly n: number;
  readonly sha256: string;
  readonly content: Buffer;
}

const sha256 = (content: string | Buffer): string => createHash('sha256').update(content).digest('hex');

/** What a save's parts are together: the SHA-256 of their SHA-256s in hex, one after the other. */
export const digestOf = (hashes: readonly string[]): string => sha256(hashes.join(''));

/** Parts of large saves, kept aside until the save that they belong to is made. Nobody sees them before. */
@Injectable()
export class PartsService implements OnApplicationBootstrap, OnApplicationShutdown {
  private sweeping: NodeJS.Timeout | undefined;

  constructor(@Inject(DATABASE) private readonly database: Knex) {}

  onApplicationBootstrap(): void {
    const sweep = (): void => {
      this.sweep().catch(() => undefined);
    };
    sweep();
    this.sweeping = setInterval(sweep, SWEEP_MS);
    this.sweeping.unref();
  }

  onApplicationShutdown(): void {
    clearInterval(this.sweeping);
  }

  /** Lets go of parts that were never committed. */
  async sweep(): Promise<number> {
    return this.database('save_parts').whereRaw(`created_at < now() - interval '${KEPT_HOURS} hours'`).delete();
  }

  /** Keeps one part of a save. The same content again changes nothing. @param hash the SHA-256 of what was sent. */
  async stage(shotId: Id, saveId: Id, n: number, part: PartRequest, hash: string): Promise<void> {
    const shot = await this.database<{ id: Id }>('shots').where({ id: shotId }).first('id');
    if (!shot) throw Problem.missing('This shot');
    await this.database('save_parts')
      .insert({ save_id: saveId, n, shot_id: shotId, sha256: hash, content: Buffer.from(JSON.stringify(part)) })
      .onConflict(['save_id', 'n'])
      .ignore();
    const kept = await this.database<PartRow>('save_parts').where({ save_id: saveId, n }).first('sha256');
    if (kept?.sha256 !== hash) throw Problem.refused('n', `was sent before with other content.`);
  }

  /** A save with what its parts hold put into it. @throws if a part is missing or another than the save says. */
  async whole(tx: Knex, shotId: Id, request: SaveRequest): Promise<SaveRequest> {
    const { parts = 0, digest } = request;
    if (parts === 0) return request;
    const rows = await tx<PartRow>('save_parts')
      .where({ save_id: request.saveId, shot_id: shotId })
      .where('n', '<', parts)
      .orderBy('n')
      .select('n', 'sha256', 'content');
    if (rows.length < parts)
      throw Problem.refused('parts', `were not all sent: ${rows.length} of ${parts} are here. Send them again.`);
    if (digestOf(rows.map((row) => row.sha256)) !== digest)
      throw Problem.refused('digest', 'is not that of the parts that were sent.');
    const puts: PutRequest[] = [...request.puts];
    const deletes: Id[] = [...request.deletes];
    for (const { content } of rows) {
      const part = JSON.parse(content.toString('utf8')) as PartRequest;
      puts.push(...part.puts);
      deletes.push(...part.deletes);
    }
    return Object.assign(new SaveRequest(), request, { puts, deletes });
  }

  /** Lets go of the parts of a save that has been made. */
  async drop(tx: Knex, saveId: Id): Promise<void> {
    await tx('save_parts').where({ save_id: saveId }).delete();
  }
}
