import type { Id } from '@tallow/core/document';
import { readKept, type KeptThing } from '@tallow/core/shelf';
import { Inject, Injectable } from '@nestjs/common';
import type { Knex } from 'knex';
import { DATABASE } from '../db/database.ts';
import { Problem } from '../http/problem.ts';
import type { KeptRequest } from './requests.ts';

/** Settings that stand on the shelf. */
const MAX = 5000;

/** Settings on the shelf: variants of brushes, presets, palettes, patterns of holds. */
@Injectable()
export class KeptService {
  constructor(@Inject(DATABASE) private readonly database: Knex) {}

  async list(): Promise<KeptThing[]> {
    return this.database('kept').orderBy('created_at').orderBy('id').select<KeptThing[]>('id', 'kind', 'name', 'what');
  }

  /** Keeps settings, in place of those of the same name. */
  async keep(id: Id, { kind, name, what }: KeptRequest): Promise<KeptThing> {
    const read = readKept(kind, what);
    if ('wrong' in read) {
      const [field, ...words] = read.wrong.split(' ');
      throw Problem.refused(field!, words.join(' '));
    }
    const kept = { id, kind, name, what: read.ok.what };
    await this.database.transaction(async (change) => {
      await change('kept').where({ kind, of: read.ok.of, name }).orWhere({ id }).delete();
      const [{ count } = { count: 0 }] = await change('kept').count<{ count: string }[]>();
      if (Number(count) >= MAX)
        throw Problem.refused('id', `would be one more than the ${MAX} the shelf has room for.`);
      await change('kept').insert({ ...kept, of: read.ok.of, what: JSON.stringify(kept.what) });
    });
    return kept;
  }

  async forget(id: Id): Promise<void> {
    await this.database('kept').where({ id }).delete();
  }
}
