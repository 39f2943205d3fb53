/** What grows for ever goes when nobody can need it any more: one rule for all of it (docs/operations.md), done twice a day. */
import type { Id } from '@tallow/core/document';
import type { Knex } from 'knex';
import { unlink } from 'node:fs/promises';
import { loopPath, versionLoopPath } from '../cards/loop-job.ts';
import { SHELF_ID } from '../db/migrations.ts';
import { exportPath } from '../exports/exports.service.ts';
import { KEPT_DAYS, thinAll } from '../versions/thinning.ts';

const LONG_AGO = `now() - interval '${KEPT_DAYS} days'`;
const forget = (path: string): Promise<void> => unlink(path).catch(() => undefined);

/** How much went. */
export interface Tidied {
  readonly bodies: number;
  readonly shots: number;
  readonly exports: number;
  readonly assets: number;
}

/**
 * Shots that were deleted so long ago, alone or with their production. Those with a version that somebody named stay, and
 * so does the shelf. A shot goes in one piece, with whatever hangs on it.
 */
async function dropShots(database: Knex): Promise<number> {
  const deletedLongAgo = (using: Knex) =>
    using('shots')
      .join('productions', 'productions.id', 'shots.production_id')
      .whereRaw(`least(shots.deleted_at, productions.deleted_at) < ${LONG_AGO}`);
  const gone = await deletedLongAgo(database)
    .whereNot('productions.id', SHELF_ID)
    .whereNotExists(database('versions').whereRaw('versions.shot_id = shots.id').where({ made: 'hand' }))
    .pluck<Id[]>('shots.id');
  for (const id of gone) {
    const { versions, exports } = await database.transaction(async (tx) => {
      // Whoever brings it back in this moment wins: it is looked at once more under its lock.
      const row = await deletedLongAgo(tx).where('shots.id', id).forUpdate().first<{ id: Id } | undefined>('shots.id');
      if (!row) return { versions: [], exports: [] };
      const of = (table: string) => tx(table).where({ shot_id: id }).delete();
      const ended = (await of('exports').returning<{ id: Id }[]>('id')).map((each) => each.id);
      const named = (await of('versions').returning<{ id: Id }[]>('id')).map((each) => each.id);
      for (const table of ['older_bodies', 'entities', 'save_parts', 'saves', 'loops', 'shelf']) await of(table);
      await tx('shots').where({ id }).delete();
      return { versions: named, exports: ended };
    });
    await Promise.all([
      forget(loopPath(id)),
      ...versions.map((each) => forget(versionLoopPath(each))),
      ...exports.map((each) => forget(exportPath(each))),
    ]);
  }
  await database('productions')
    .whereRaw(`deleted_at < ${LONG_AGO}`)
    .whereNot({ id: SHELF_ID })
    .whereNotExists(database('shots').whereRaw('shots.production_id = productions.id'))
    .delete();
  return gone.length;
}

/** Exports that were finished, stopped or failed so long ago, with their files: they can be made again. */
async function dropExports(database: Knex): Promise<number> {
  const gone = await database('exports')
    .whereNotIn('state', ['waiting', 'running'])
    .whereRaw(`created_at < ${LONG_AGO}`)
    .delete()
    .returning<{ id: Id }[]>('id');
  await Promise.all(gone.map(({ id }) => forget(exportPath(id))));
  return gone.length;
}

/**
 * Pictures and sounds that were brought in so long ago and that nothing names: no shot, no body that is kept of before, no
 * setting of the shelf. Whatever looks like a hash in any of them counts as its name.
 */
async function dropAssets(database: Knex): Promise<number> {
  const { rowCount } = await database.raw<{ rowCount: number }>(
    `delete from assets where created_at < ${LONG_AGO} and sha256 not in (
       select (regexp_matches(body::text, '[0-9a-f]{64}', 'g'))[1] from (
         select body from entities where kind <> 'drawing'
         union all select body from older_bodies where body->>'kind' <> 'drawing'
         union all select what from kept
         union all select assets from footage
       ) as named
     )`,
  );
  return rowCount;
}

/** Parts of saves that were never ended, and what is known of saves that no browser can still ask about. */
async function dropSaves(database: Knex): Promise<void> {
  await database('save_parts').whereRaw(`created_at < ${LONG_AGO}`).delete();
  await database('footage').whereNotIn('state', ['waiting', 'running']).whereRaw(`created_at < ${LONG_AGO}`).delete();
}

export async function tidy(database: Knex): Promise<Tidied> {
  const shots = await dropShots(database);
  const exports = await dropExports(database);
  const bodies = await thinAll(database);
  await dropSaves(database);
  return { shots, exports, bodies, assets: await dropAssets(database) };
}
