/** A shot of an archive under ids of its own, where some of its ids exist here already. */
import { documentOf, randomId, type Entity, type Id } from '@tallow/core/document';
import { copierOf } from '@tallow/core/edit';
import type { ReadRow, ReadShot } from './read-archive.ts';

/** All that is kept of a shot. */
interface KeptShot {
  readonly id: Id;
  readonly rows: readonly ReadRow[];
  readonly older: readonly ReadRow[];
}

/** The bodies that a shot had at a revision. */
const at = (rows: readonly ReadRow[], revision: number): Entity[] => {
  const latest = new Map<Id, ReadRow>();
  for (const row of rows) {
    const known = latest.get(row.entity.id);
    if (row.revision <= revision && (!known || known.revision < row.revision)) latest.set(row.entity.id, row);
  }
  return [...latest.values()].flatMap(({ entity, deleted }) => (deleted ? [] : [entity]));
};

/**
 * One id becomes the same other one in every body, now and at each named version, and what was as it was laid stays so.
 * Takes all of the shot into memory: what was laid can only be told beside its drawings.
 */
export async function renewed(shot: ReadShot): Promise<KeptShot> {
  const { told, entities } = shot;
  const rows = [...entities];
  for (const id of told.drawings) rows.push(await shot.drawing(id));
  const older: ReadRow[] = [];
  for (const each of told.older) older.push(await shot.older(each));
  const all = [...rows, ...older];
  const ids = new Map<Id, Id>();
  for (const { entity } of all) if (!ids.has(entity.id)) ids.set(entity.id, randomId());
  const become = new Map<ReadRow, ReadRow>();
  const revisions = new Set([told.revision, ...told.versions.map(({ revision }) => revision)]);
  const copierAt = (then: readonly Entity[]) =>
    copierOf(
      documentOf(told.id, then),
      all.map(({ entity }) => entity),
      ids,
      randomId,
      (id) => id,
    );
  for (const revision of revisions) {
    const then = new Set(at(all, revision));
    const copied = copierAt([...then]);
    for (const row of all)
      if (!become.has(row) && then.has(row.entity)) become.set(row, { ...row, entity: copied(row.entity) });
  }
  // What no version shows, as what is deleted, hangs on nothing.
  const rest = copierAt([]);
  const next = (list: readonly ReadRow[]): ReadRow[] =>
    list.map((row) => become.get(row) ?? { ...row, entity: rest(row.entity) });
  return { id: ids.get(told.id)!, rows: next(rows), older: next(older) };
}
