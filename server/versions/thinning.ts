/** What is kept of bodies that were replaced, and how much room a shot takes (docs/operations.md). */
import type { Id } from '@tallow/core/document';
import type { Knex } from 'knex';

/** Days for which everything that was saved is kept, however often it was replaced. */
export const KEPT_DAYS = 90;

/**
 * Lets bodies of a shot go that were replaced longer ago than they are kept, and that no named version shows: a version of
 * revision n shows a body that was written up to n and replaced after it.
 * @returns how many went.
 */
export async function thinShot(database: Knex, shotId: Id): Promise<number> {
  const { rowCount } = await database.raw<{ rowCount: number }>(
    `delete from older_bodies as old using (
       select id, revision, lead(revision) over (partition by id order by revision) as replaced from (
         select id, revision from older_bodies where shot_id = :shotId
         union all
         select id, revision from entities where shot_id = :shotId
       ) as bodies
     ) as chain
     where old.shot_id = :shotId and chain.id = old.id and chain.revision = old.revision
       and chain.replaced is not null
       and not exists (
         select 1 from versions where versions.shot_id = :shotId
           and versions.revision >= old.revision and versions.revision < chain.replaced
       )
       and not exists (
         select 1 from saves where saves.shot_id = :shotId and saves.revision = chain.replaced
           and saves.created_at > now() - interval '${KEPT_DAYS} days'
       )`,
    { shotId },
  );
  return rowCount;
}

/** The same of every shot, one after the other, so that no lock lasts. @returns how many bodies went. */
export async function thinAll(database: Knex): Promise<number> {
  const shots = await database('older_bodies').distinct<{ shot_id: Id }[]>('shot_id');
  let gone = 0;
  for (const { shot_id: id } of shots) gone += await thinShot(database, id);
  return gone;
}

export interface Room {
  /** Bytes of the shot as it is, and of bodies that were replaced and are kept. */
  readonly now: number;
  readonly before: number;
}

/** How much room the bodies of a shot take in the database, as they are packed there. */
export async function roomOf(database: Knex, shotId: Id): Promise<Room> {
  const sizeOf = async (table: string): Promise<number> => {
    const row = await database(table)
      .where({ shot_id: shotId })
      .first<{ bytes: string | null }>(database.raw('sum(pg_column_size(body)) as bytes'));
    return Number(row?.bytes ?? 0);
  };
  return { now: await sizeOf('entities'), before: await sizeOf('older_bodies') };
}
