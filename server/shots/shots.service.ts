import {
  documentOf,
  encodeEntity,
  newShotDocument,
  randomId,
  readEntity,
  type Entity,
  type Id,
  type Shot,
  type ShotDocument,
} from '@tallow/core/document';
import { copiesOfShot } from '@tallow/core/edit';
import { Inject, Injectable } from '@nestjs/common';
import type { Knex } from 'knex';
import { DATABASE } from '../db/database.ts';
import { SHELF_ID } from '../db/migrations.ts';
import { inTurns } from '../http/in-turns.ts';
import { Problem } from '../http/problem.ts';
import type { NewShotRequest } from './requests.ts';
import { ChangesService } from './changes.service.ts';
import { SavesService } from './saves.service.ts';

/** Bodies of drawings are large: so many go to the database in one statement. */
const ROWS_AT_ONCE = 50;

export interface ShotSummary {
  readonly id: Id;
  readonly productionId: Id;
  readonly name: string;
  readonly width: number;
  readonly height: number;
  readonly rate: number;
  readonly length: number;
  readonly background: string | null;
  readonly revision: number;
  readonly updatedAt: string;
  /** The latest loop for its card, or null while there is none. */
  readonly loop: { readonly revision: number; readonly flashes: boolean } | null;
}

export interface ShotStructure {
  readonly shot: ShotSummary;
  readonly production: string;
  readonly epoch: string;
  readonly revision: number;
  readonly entities: readonly unknown[];
  readonly drawings: readonly Id[];
}

/** Several questions answered from one moment, on one connection. */
const ONE_MOMENT = { isolationLevel: 'repeatable read', readOnly: true } as const;

/** A shot as it is at one moment. */
export interface ShotMoment {
  /** The document without its drawings. */
  readonly outline: ShotDocument;
  readonly revision: number;
  /** Whether anything is drawn at all. */
  readonly isDrawn: boolean;
  /** Bodies of some of its drawings. */
  readonly drawings: (ids: readonly Id[]) => Promise<unknown[]>;
}

interface ShotRow {
  id: Id;
  production_id: Id;
  revision: number;
  updated_at: Date;
  body: Shot;
  loop_revision: number | null;
  flashes: boolean | null;
  made: boolean | null;
}

const summary = ({ body, ...row }: ShotRow): ShotSummary => ({
  id: row.id,
  productionId: row.production_id,
  name: body.name,
  width: body.width,
  height: body.height,
  rate: body.rate,
  length: body.length,
  background: body.background,
  revision: row.revision,
  updatedAt: row.updated_at.toISOString(),
  loop: row.made && row.loop_revision !== null ? { revision: row.loop_revision, flashes: row.flashes === true } : null,
});

/** Shots as wholes: listed, made, opened, duplicated, deleted and brought back. */
@Injectable()
export class ShotsService {
  constructor(
    @Inject(DATABASE) private readonly database: Knex,
    private readonly saves: SavesService,
    private readonly changes: ChangesService,
  ) {}

  private rows(using: Knex = this.database): Knex.QueryBuilder<ShotRow, ShotRow[]> {
    return using('shots')
      .join('entities', 'entities.id', 'shots.id')
      .join('productions', 'productions.id', 'shots.production_id')
      .leftJoin('loops', 'loops.shot_id', 'shots.id')
      .whereNull('shots.deleted_at')
      .whereNull('productions.deleted_at')
      .select(
        'shots.id',
        'shots.production_id',
        'shots.revision',
        'shots.updated_at',
        'entities.body',
        'loops.revision as loop_revision',
        'loops.flashes',
        'loops.made',
      ) as Knex.QueryBuilder<ShotRow, ShotRow[]>;
  }

  async list(): Promise<ShotSummary[]> {
    return (await this.rows().whereNot('shots.production_id', SHELF_ID).orderBy('shots.created_at')).map(summary);
  }

  /** Those that stand on the shelf. */
  async onShelf(): Promise<ShotSummary[]> {
    return (await this.rows().where('shots.production_id', SHELF_ID).orderBy('shots.created_at')).map(summary);
  }

  /** One shot. @param using the transaction to ask in: a second connection beside it would starve the pool. */
  async one(id: Id, using: Knex = this.database): Promise<ShotSummary> {
    const row = (await this.rows(using).where('shots.id', id))[0];
    if (!row) throw Problem.missing('This shot');
    return summary(row);
  }

  /** Makes a shot; asking again with the same id gives the shot that was made. */
  async create({ id, productionId, ...format }: NewShotRequest): Promise<ShotSummary> {
    await this.insert(newShotDocument(id, format, randomId), productionId);
    return this.one(id);
  }

  /** Puts a whole document in as a new shot at revision 1, unless a shot of its id is there already. */
  async insert(doc: ShotDocument, productionId: Id): Promise<void> {
    await this.database.transaction(async (tx) => {
      const production = await tx<{ id: Id }>('productions')
        .where({ id: productionId })
        .whereNull('deleted_at')
        .first();
      if (!production) throw Problem.refused('productionId', 'names no production.');
      if (await tx('shots').where({ id: doc.shotId }).first()) return;
      const taken = await tx<{ id: Id }>('entities').where({ id: doc.shotId }).first();
      if (taken) throw Problem.refused('id', 'is taken.');
      await tx('shots').insert({ id: doc.shotId, production_id: productionId, revision: 1 });
      let rows: object[] = [];
      const write = async (): Promise<void> => {
        if (rows.length > 0) await tx('entities').insert(rows);
        rows = [];
      };
      for await (const entity of inTurns(Object.values(doc.entities))) {
        const body = JSON.stringify(encodeEntity(entity));
        rows.push({ id: entity.id, shot_id: doc.shotId, kind: entity.kind, revision: 1, body });
        if (rows.length >= ROWS_AT_ONCE) await write();
      }
      await write();
    });
  }

  /** The shot without its drawings' bodies, and the ids of its drawings, read at one moment. */
  async structure(id: Id): Promise<ShotStructure> {
    return this.database.transaction(async (tx) => {
      const shot = await this.one(id, tx);
      const production = await tx<{ name: string }>('productions').where('id', shot.productionId).first();
      const rows = await tx('entities')
        .where({ shot_id: id, deleted: false })
        .whereNot('kind', 'drawing')
        .select<{ body: unknown }[]>('body');
      const drawings = await tx('entities')
        .where({ shot_id: id, deleted: false, kind: 'drawing' })
        .select<{ id: Id }[]>('id');
      return {
        shot,
        production: production?.name ?? '',
        epoch: await this.changes.epoch(tx),
        revision: shot.revision,
        entities: rows.map((r) => r.body),
        drawings: drawings.map((r) => r.id),
      };
    }, ONE_MOMENT);
  }

  /** Bodies of drawings of a shot. Deleted and unknown ones are left out. */
  async drawings(shotId: Id, ids: readonly Id[], database: Knex = this.database): Promise<unknown[]> {
    const rows = await database('entities')
      .where({ shot_id: shotId, kind: 'drawing', deleted: false })
      .whereIn('id', ids)
      .select<{ body: unknown }[]>('body');
    return rows.map((row) => row.body);
  }

  /** The whole document with its revision, read at one moment. */
  async document(id: Id): Promise<{ doc: ShotDocument; revision: number }> {
    const { revision, rows } = await this.database.transaction(
      async (tx) => ({
        revision: (await this.one(id, tx)).revision,
        rows: await tx('entities').where({ shot_id: id, deleted: false }).select<{ body: unknown }[]>('body'),
      }),
      ONE_MOMENT,
    );
    return { doc: await readDocument(id, rows), revision };
  }

  /** Does something with a shot as it is at one moment, however long that takes and whatever is drawn meanwhile. */
  atOneMoment<T>(id: Id, work: (moment: ShotMoment) => Promise<T>): Promise<T> {
    return this.database.transaction(async (tx) => {
      // It holds nobody up: it may rest for as long as frames are drawn and written.
      await tx.raw('set local idle_in_transaction_session_timeout = 0');
      const own = tx('entities').where({ shot_id: id, deleted: false });
      const { revision } = await this.one(id, tx);
      const rows = await own.clone().whereNot('kind', 'drawing').select<{ body: unknown }[]>('body');
      const marked = await own
        .clone()
        .where('kind', 'drawing')
        .whereRaw("body->'order' <> '[]'::jsonb")
        .first<{ id: Id } | undefined>('id');
      return work({
        outline: await readDocument(id, rows),
        revision,
        isDrawn: marked !== undefined,
        drawings: (ids) => this.drawings(id, ids, tx),
      });
    }, ONE_MOMENT);
  }

  async rename(id: Id, name: string): Promise<ShotSummary> {
    for (;;) {
      const { revision } = await this.one(id);
      const row = await this.database<{ id: Id; body: Shot }>('entities').where({ id }).first();
      if (!row) throw Problem.missing('This shot');
      try {
        await this.saves.save(id, {
          saveId: randomId(),
          baseRevision: revision,
          puts: [{ id, kind: 'shot', body: { ...row.body, name } }],
          deletes: [],
        });
        return await this.one(id);
      } catch (error) {
        if (!(error instanceof Problem) || error.getStatus() !== 409) throw error;
      }
    }
  }

  async duplicate(id: Id, newShotId: Id): Promise<ShotSummary> {
    const { doc } = await this.document(id);
    return this.insertBeside(id, await this.copyOf(doc, newShotId));
  }

  /** A copy of a document under ids of its own; others are answered while it is made. */
  async copyOf(doc: ShotDocument, newShotId: Id): Promise<ShotDocument> {
    const copies: Entity[] = [];
    for await (const copy of inTurns(copiesOfShot(doc, newShotId, randomId))) copies.push(copy);
    return documentOf(newShotId, copies);
  }

  /** Puts a shot beside another one; one of an effect on the shelf lies in the first production, where it is seen. */
  async insertBeside(id: Id, doc: ShotDocument): Promise<ShotSummary> {
    const { productionId } = await this.one(id);
    const first = await this.database<{ id: Id; created_at: Date; deleted_at: Date | null }>('productions')
      .whereNull('deleted_at')
      .whereNot({ id: SHELF_ID })
      .orderBy('created_at')
      .first('id');
    const into = productionId === SHELF_ID ? first?.id : productionId;
    if (!into) throw new Problem(409, 'There is no production for a new shot. Make one on the page of shots first.');
    await this.insert(doc, into);
    return this.one(doc.shotId);
  }

  async setDeleted(id: Id, deleted: boolean): Promise<void> {
    const changed = await this.database('shots')
      .where({ id })
      .update({ deleted_at: deleted ? this.database.fn.now() : null });
    if (changed === 0) throw Problem.missing('This shot');
  }
}

/** @throws naming the body that cannot be read. */
async function readDocument(id: Id, rows: readonly { readonly body: unknown }[]): Promise<ShotDocument> {
  const entities: Record<Id, Entity> = {};
  for await (const { body } of inTurns(rows)) {
    const read = readEntity(body);
    if ('problems' in read)
      throw new Error(`A body of shot ${id} cannot be read: ${read.problems[0]?.field} ${read.problems[0]?.message}`);
    entities[read.ok.id] = read.ok;
  }
  return { shotId: id, entities };
}
