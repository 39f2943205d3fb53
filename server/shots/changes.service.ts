import type { Id } from '@tallow/core/document';
import { Inject, Injectable } from '@nestjs/common';
import type { Knex } from 'knex';
import { DATABASE } from '../db/database.ts';
import { Problem } from '../http/problem.ts';

/** An entity as the server has it; a null body says that it was deleted. */
export interface Change {
  readonly id: Id;
  readonly kind: string;
  readonly revision: number;
  readonly body: unknown;
}

/** Changes in the order of their revisions, as many as one answer holds. */
export interface ChangesPage {
  readonly epoch: string;
  /** The revision up to which changes are listed, by this page and those after it. */
  readonly revision: number;
  readonly changes: readonly Change[];
  /** Where the next page goes on, or null when this is the last. */
  readonly next: string | null;
}

/** What one page holds at most: bytes of bodies, and entities. */
const PAGE = { bytes: 4 * 1024 * 1024, count: 500 } as const;

interface Row {
  readonly id: Id;
  readonly kind: string;
  readonly revision: number;
  readonly deleted: boolean;
  readonly body: unknown;
}

const CURSOR = /^(\d{1,10})\.([0-9a-f-]{36})$/;

/** What has changed in a shot, told in pages, and which history of the database it belongs to. */
@Injectable()
export class ChangesService {
  constructor(@Inject(DATABASE) private readonly database: Knex) {}

  /** Another one after the database was restored: what was told before may not be so any more. */
  async epoch(using: Knex = this.database): Promise<string> {
    const row = await using<{ name: string; value: string }>('facts').where({ name: 'epoch' }).first('value');
    return row?.value ?? '';
  }

  /**
   * Entities of a shot changed after a revision.
   * @param upTo the revision the first page told, for those after it. @param after where the page before ended.
   */
  async page(shotId: Id, since: number, upTo: number | null = null, after: string | null = null): Promise<ChangesPage> {
    return this.database.transaction(
      async (tx) => {
        const shot = await tx<{ id: Id; revision: number; deleted_at: Date | null }>('shots')
          .where({ id: shotId })
          .whereNull('deleted_at')
          .first();
        if (!shot) throw Problem.missing('This shot');
        const revision = upTo ?? shot.revision;
        const { rows, more } = await this.rows(tx, shotId, since, revision, after);
        const last = rows.at(-1);
        return {
          epoch: await this.epoch(tx),
          revision,
          changes: rows.map(({ id, kind, revision: at, deleted, body }) => ({
            id,
            kind,
            revision: at,
            body: deleted ? null : body,
          })),
          next: more && last ? `${last.revision}.${last.id}` : null,
        };
      },
      { isolationLevel: 'repeatable read', readOnly: true },
    );
  }

  private async rows(
    tx: Knex,
    shotId: Id,
    since: number,
    upTo: number,
    after: string | null,
  ): Promise<{ rows: readonly Row[]; more: boolean }> {
    const cursor = after === null ? null : CURSOR.exec(after);
    if (after !== null && !cursor) throw Problem.refused('after', 'must be where a page before ended.');
    const query = tx('entities')
      .where('shot_id', shotId)
      .where('revision', '>', since)
      .where('revision', '<=', upTo)
      .orderBy(['revision', 'id'])
      .limit(PAGE.count);
    if (cursor) void query.whereRaw('(revision, id) > (?::int, ?::uuid)', [cursor[1]!, cursor[2]!]);
    // Bodies are fetched only as far as the page holds them.
    const sizes = await query
      .clone()
      .select<{ id: Id; bytes: number }[]>('id', tx.raw('pg_column_size(body) as bytes'));
    let bytes = 0;
    const ids: Id[] = [];
    for (const row of sizes) {
      if (ids.length > 0 && bytes >= PAGE.bytes) break;
      bytes += row.bytes;
      ids.push(row.id);
    }
    const rows = await tx('entities')
      .whereRaw('id = any(?::uuid[])', [ids])
      .orderBy(['revision', 'id'])
      .select<Row[]>('id', 'kind', 'revision', 'deleted', 'body');
    return { rows, more: ids.length < sizes.length || sizes.length === PAGE.count };
  }
}
