import type { AssetId } from '@tallow/core/document';
import { Inject, Injectable } from '@nestjs/common';
import type { Knex } from 'knex';
import { createHash } from 'node:crypto';
import { DATABASE } from '../db/database.ts';
import { Problem } from '../http/problem.ts';
import { readPicture } from './picture.ts';

export interface Asset {
  readonly sha256: AssetId;
  readonly width: number;
  readonly height: number;
}

/** Pictures and sounds from outside, each content kept once. */
@Injectable()
export class AssetsService {
  constructor(@Inject(DATABASE) private readonly database: Knex) {}

  /** Keeps a picture. The same content again is kept once. */
  async keep(content: Buffer, named: string): Promise<Asset> {
    const picture = await readPicture(content, named);
    const sha256 = createHash('sha256').update(picture.content).digest('hex');
    await this.database('assets')
      .insert({ sha256, ...picture })
      .onConflict('sha256')
      // Whatever names it is saved later: until then it is as new (`server/tidy/tidy.ts`).
      .merge({ created_at: this.database.fn.now() });
    return { sha256, width: picture.width, height: picture.height };
  }

  async one(sha256: AssetId): Promise<{ content: Buffer; type: string }> {
    const row = await this.database<{ sha256: string; content: Buffer; type: string }>('assets')
      .where({ sha256 })
      .first('content', 'type');
    if (!row) throw Problem.missing('This picture or sound');
    return row;
  }
}

/** The bytes of a recording as it is kept; null where it is not there. */
export async function recordingOf(database: Knex, sha256: AssetId): Promise<Buffer | null> {
  const row = await database<{ sha256: string; content: Buffer; type: string }>('assets')
    .where({ sha256 })
    .whereLike('type', 'audio/%')
    .first('content');
  return row?.content ?? null;
}
