import { encodeEntity, readEntity, referencesOf, type Entity, type Id } from '@tallow/core/document';
import { Inject, Injectable } from '@nestjs/common';
import type { Knex } from 'knex';
import { DATABASE } from '../db/database.ts';
import { Problem, type FieldProblem } from '../http/problem.ts';
import { ChangesService } from './changes.service.ts';
import { PartsService } from './parts.service.ts';
import type { PutRequest, SaveRequest } from './requests.ts';

export interface SaveAnswer {
  readonly epoch: string;
  readonly revision: number;
  /** The shot's revision before this save: above the base, others have changed other things. */
  readonly before: number;
}

interface Row {
  id: Id;
  shot_id: Id;
  kind: string;
  revision: number;
  deleted: boolean;
  body: Record<string, unknown>;
}

/** Saves: whole or not at all, each once, and never over a body newer than the one it was made from. */
@Injectable()
export class SavesService {
  constructor(
    @Inject(DATABASE) private readonly database: Knex,
    private readonly parts: PartsService,
    private readonly changes: ChangesService,
  ) {}

  /** The highest of a tab's edits that has been saved here, or 0. */
  async seqOf(shotId: Id, tab: Id): Promise<number> {
    const row = await this.database('saves')
      .where({ shot_id: shotId, tab })
      .max<{ seq: string | null }>('seq as seq')
      .first();
    return Number(row?.seq ?? 0);
  }

  async save(shotId: Id, request: SaveRequest): Promise<SaveAnswer> {
    return this.database.transaction(async (tx) => {
      const shot = await tx<{ id: Id; revision: number; deleted_at: Date | null }>('shots')
        .where({ id: shotId })
        .forUpdate()
        .first();
      if (!shot) throw Problem.missing('This shot');
      const epoch = await this.changes.epoch(tx);
      const earlier = await tx<{ save_id: Id; shot_id: Id; base_revision: number; revision: number }>('saves')
        .where({ save_id: request.saveId })
        .first();
      if (earlier && earlier.shot_id !== shotId) throw Problem.refused('saveId', 'was used for another shot.');
      if (earlier) return { epoch, revision: earlier.revision, before: earlier.revision - 1 };
      if (request.epoch !== undefined && request.epoch !== epoch)
        throw new Problem(409, 'The database is another than before. Load the shot anew and save again.', [], {
          epoch,
        });
      if (request.baseRevision > shot.revision)
        throw Problem.refused('baseRevision', `must be at most ${shot.revision}, the shot's own revision.`);
      return this.apply(tx, shotId, shot.revision, epoch, await this.parts.whole(tx, shotId, request));
    });
  }

  private async apply(tx: Knex, shotId: Id, at: number, epoch: string, request: SaveRequest): Promise<SaveAnswer> {
    const named = [...request.puts.map((put) => put.id), ...request.deletes];
    if (new Set(named).size !== named.length) throw Problem.refused('puts', 'and deletes must name each id once.');
    const sources = request.puts.flatMap((put) => put.copyOf ?? []);
    const rows = new Map(
      (await tx<Row>('entities').whereRaw('id = any(?::uuid[])', [[...named, ...sources]])).map((row) => [row.id, row]),
    );
    this.checkOwners(shotId, request, rows);
    // A source that has changed since is no longer what was copied.
    const newer = [...new Set([...named, ...sources])].filter(
      (id) => (rows.get(id)?.revision ?? 0) > request.baseRevision,
    );
    if (newer.length > 0)
      throw new Problem(409, 'Somebody else changed the same things. Merge and save again.', [], {
        epoch,
        conflicts: newer,
        revision: at,
      });
    const bodies = request.puts.map((put, i) => this.bodyOf(put, `puts.${i}`, shotId, rows));
    await this.checkReferences(tx, shotId, bodies, new Set(request.held));
    const revision = at + 1;
    await this.write(tx, shotId, revision, bodies, request.deletes, rows);
    await tx('shots').where({ id: shotId }).update({ revision, updated_at: tx.fn.now() });
    await tx('saves').insert({
      save_id: request.saveId,
      shot_id: shotId,
      base_revision: request.baseRevision,
      revision,
      tab: request.tab ?? null,
      seq: request.seq ?? null,
    });
    if (request.parts) await this.parts.drop(tx, request.saveId);
    return { epoch, revision, before: at };
  }

  private checkOwners(shotId: Id, request: SaveRequest, rows: Map<Id, Row>): void {
    const errors: FieldProblem[] = [];
    const check = (field: string, id: Id, mustExist: boolean) => {
      const row = rows.get(id);
      if (row && row.shot_id !== shotId) errors.push({ field, message: 'belongs to another shot.' });
      if (!row && mustExist) errors.push({ field, message: 'is not known in this shot.' });
    };
    request.puts.forEach((put, i) => {
      // After a restore of the database, what was deleted may never have been.
      check(`puts.${i}.id`, put.id, put.restore === true && put.body === undefined && put.copyOf === undefined);
      if (put.copyOf) check(`puts.${i}.copyOf`, put.copyOf, true);
      const row = rows.get(put.id);
      if (row && row.kind !== put.kind) errors.push({ field: `puts.${i}.kind`, message: `must stay ${row.kind}.` });
      if (row?.deleted && !put.restore && row.revision <= request.baseRevision)
        errors.push({ field: `puts.${i}`, message: 'was deleted; say restore to bring it back.' });
    });
    request.deletes.forEach((id, i) => {
      check(`deletes.${i}`, id, true);
      if (id === shotId) errors.push({ field: `deletes.${i}`, message: 'is the shot itself.' });
    });
    if (errors.length > 0) throw new Problem(422, `${errors[0]!.field} ${errors[0]!.message}`, errors);
  }

  private bodyOf(put: PutRequest, path: string, shotId: Id, rows: Map<Id, Row>): { entity: Entity; path: string } {
    const source = put.copyOf
      ? rows.get(put.copyOf)?.body
      : (put.body ?? (put.restore ? rows.get(put.id)?.body : undefined));
    if (!source) throw Problem.refused(`${path}.body`, 'is missing.');
    const read = readEntity(put.copyOf ? { ...source, id: put.id } : source);
    if ('problems' in read) {
      const errors = read.problems.map((problem) => ({
        field: `${path}.body.${problem.field}`,
        message: problem.message,
      }));
      throw new Problem(422, `${errors[0]!.field} ${errors[0]!.message}`, errors);
    }
    const entity = read.ok;
    if (entity.id !== put.id || entity.kind !== put.kind)
      throw Problem.refused(`${path}.body`, 'must be of the id and kind of its put.');
    if ((entity.kind === 'shot') !== (entity.id === shotId))
      throw Problem.refused(`${path}.id`, 'must be the shot itself if it is of kind shot.');
    return { entity, path };
  }

  /** Everything pointed at must be in this shot, come with the same save or be held back; deleted ones may be pointed at. */
  private async checkReferences(
    tx: Knex,
    shotId: Id,
    bodies: readonly { entity: Entity; path: string }[],
    held: ReadonlySet<Id>,
  ): Promise<void> {
    const coming = new Set([...held, ...bodies.map(({ entity }) => entity.id)]);
    const asked = bodies.flatMap(({ entity, path }) =>
      referencesOf(entity).map((r) => ({ id: r.id, field: `${path}.body.${r.field}` })),
    );
    const unknown = asked.filter((r) => !coming.has(r.id));
    const ids = [...new Set(unknown.map((r) => r.id))];
    const owners = new Map(
      (await tx<Row>('entities').select('id', 'shot_id').whereRaw('id = any(?::uuid[])', [ids])).map((row) => [
        row.id,
        row.shot_id,
      ]),
    );
    const errors = unknown.flatMap(({ id, field }) => {
      const owner = owners.get(id);
      if (owner === shotId) return [];
      return [
        { field, message: owner ? `names ${id}, which belongs to another shot.` : `names ${id}, which is not known.` },
      ];
    });
    if (errors.length > 0) throw new Problem(422, `${errors[0]!.field} ${errors[0]!.message}`, errors);
  }

  private async write(
    tx: Knex,
    shotId: Id,
    revision: number,
    bodies: readonly { entity: Entity }[],
    deletes: readonly Id[],
    rows: Map<Id, Row>,
  ): Promise<void> {
    const named = [...bodies.map(({ entity }) => entity.id), ...deletes];
    const old = named.filter((id) => rows.has(id));
    if (old.length > 0) {
      await tx('older_bodies').insert(
        tx('entities').select('id', 'revision', 'shot_id', 'deleted', 'body').whereRaw('id = any(?::uuid[])', [old]),
      );
    }
    for (const { entity } of bodies) {
      await tx('entities')
        .insert({
          id: entity.id,
          shot_id: shotId,
          kind: entity.kind,
          revision,
          deleted: false,
          body: JSON.stringify(encodeEntity(entity)),
        })
        .onConflict('id')
        .merge(['revision', 'deleted', 'body']);
    }
    if (deletes.length > 0)
      await tx('entities')
        .whereRaw('id = any(?::uuid[])', [[...deletes]])
        .update({ deleted: true, revision });
  }
}
