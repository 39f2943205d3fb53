import type { AssetId } from '@tallow/core/document';
import { Inject, Injectable } from '@nestjs/common';
import type { Knex } from 'knex';
import { createHash } from 'node:crypto';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { DATABASE } from '../db/database.ts';
import { Problem } from '../http/problem.ts';
import { takeFile } from '../http/take-file.ts';
import { NoSound, readRecording, SOUND_FILE_LIMITS } from './recording.ts';

export interface KeptSound {
  readonly sha256: AssetId;
  readonly seconds: number;
}

/** Sounds from outside and those made by code, each content kept once. */
@Injectable()
export class SoundsService {
  constructor(@Inject(DATABASE) private readonly database: Knex) {}

  /** Takes a file as it comes and keeps what it holds. @param signal ends it early: then nothing is kept. */
  async keep(content: Readable, signal: AbortSignal): Promise<KeptSound> {
    const folder = await mkdtemp(join(tmpdir(), 'tallow-sound-'));
    try {
      const [file, flac] = [join(folder, 'file'), join(folder, 'kept.flac')];
      await takeFile(content, file, SOUND_FILE_LIMITS.bytes, SOUND_FILE_LIMITS.said);
      const { seconds } = await readRecording(file, flac, signal);
      const kept = await readFile(flac);
      const sha256 = createHash('sha256').update(kept).digest('hex');
      await this.database('assets')
        .insert({ sha256, content: kept, type: 'audio/flac', seconds })
        .onConflict('sha256')
        // Whatever names it is saved later: until then it is as new (`server/tidy/tidy.ts`).
        .merge({ created_at: this.database.fn.now() });
      return { sha256, seconds };
    } catch (error) {
      if (error instanceof NoSound) throw Problem.ofBody(error.message);
      throw error;
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  }
}
