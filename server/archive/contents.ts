/** What goes into an archive: which shots, and all rows that are kept of each, as they are at one moment. */
import { assetsOf, readEntity, type AssetId, type Id } from '@tallow/core/document';
import type { ArchiveManifest, ArchivedAsset, ArchivedRow, ArchivedShot } from '@tallow/core/formats';
import type { Knex } from 'knex';
import { SHELF_ID } from '../db/migrations.ts';
import { Problem } from '../http/problem.ts';

export const SCOPES = ['shot', 'production', 'all'] as const;
export type Scope = (typeof SCOPES)[number];

interface Row {
  id: Id;
  kind: string;
  revision: number;
  deleted: boolean;
  body: Record<string, unknown>;
}

/** Shots of a scope that are not deleted; with everything, what was kept on the shelf by hand too. */
export async function shotsIn(database: Knex, scope: Scope, of: Id | null): Promise<{ id: Id; productionId: Id }[]> {
  const query = database('shots')
    .join('productions', 'productions.id', 'shots.production_id')
    .leftJoin('shelf', 'shelf.shot_id', 'shots.id')
    .whereNull('shots.deleted_at')
    .whereNull('productions.deleted_at')
    .whereRaw('shelf.shipped is not true')
    .orderBy('shots.created_at')
    .select<{ id: Id; productionId: Id }[]>('shots.id', 'shots.production_id as productionId');
  if (scope === 'shot') void query.where('shots.id', of);
  if (scope === 'production') void query.where('shots.production_id', of);
  const found = await query;
  if (found.length === 0) throw Problem.missing(scope === 'all' ? 'A shot' : `This ${scope}, or a shot in it,`);
  return found;
}

/** Names of productions that hold some of them, but for the shelf's. */
export const productionsOf = (database: Knex, ids: readonly Id[]): Promise<{ id: Id; name: string }[]> =>
  database('productions')
    .whereRaw('id = any(?::uuid[])', [[...new Set(ids)]])
    .whereNot({ id: SHELF_ID })
    .select<{ id: Id; name: string }[]>('id', 'name');

/** Bodies that were replaced since, and that named versions still show. */
async function olderOf(database: Knex, shotId: Id): Promise<ArchivedShot['older'][number][]> {
  const { rows } = await database.raw<{ rows: ArchivedShot['older'] }>(
    `select distinct picked.id, picked.revision, entities.kind
       from (select distinct revision from versions where shot_id = :shotId) as named
       cross join lateral (
         select distinct on (id) id, revision, older from (
           select id, revision, false as older from entities where shot_id = :shotId and revision <= named.revision
           union all
           select id, revision, true from older_bodies where shot_id = :shotId and revision <= named.revision
         ) as bodies order by id, revision desc
       ) as picked
       join entities on entities.id = picked.id
       where picked.older order by picked.id, picked.revision`,
    { shotId },
  );
  return rows.map(({ id, kind, revision }) => ({ id, kind, revision }));
}

/** Its bodies but for drawings, deleted ones too: others may name them. */
export const entityRows = (database: Knex, shotId: Id): Promise<ArchivedRow[]> =>
  database<Row & { shot_id: Id }>('entities')
    .where({ shot_id: shotId })
    .whereNot('kind', 'drawing')
    .orderBy('id')
    .select<ArchivedRow[]>('revision', 'deleted', 'body');

/** What the manifest says of a shot, and the assets that any body of it names. */
export async function contentsOf(
  database: Knex,
  shotId: Id,
  productionId: Id,
): Promise<{ shot: ArchivedShot; assets: Set<AssetId>; rows: DrawingRows }> {
  const { revision } = (await database<{ id: Id; revision: number }>('shots').where({ id: shotId }).first())!;
  const entities = await entityRows(database, shotId);
  const drawings = await database('entities')
    .where({ shot_id: shotId, kind: 'drawing' })
    .orderBy('id')
    .select<{ id: Id; bytes: number }[]>('id', database.raw('pg_column_size(body) as bytes'));
  const versions = await database('versions')
    .where({ shot_id: shotId })
    .orderBy('created_at')
    .select<(Omit<ArchivedShot['versions'][number], 'createdAt'> & { created_at: Date })[]>(
      'id',
      'name',
      'made',
      'revision',
      'created_at',
    );
  const shelf = await database<{ shot_id: Id; kind: string; tags: string[]; note: string }>('shelf')
    .where({ shot_id: shotId })
    .first('kind', 'tags', 'note');
  const older = await olderOf(database, shotId);
  const assets = new Set<AssetId>();
  const bodies: Record<string, unknown>[] = entities.map(({ body }) => body);
  for (const each of older)
    if (each.kind !== 'drawing') bodies.push((await olderRow(database, each.id, each.revision)).body);
  for (const body of bodies) {
    const read = readEntity(body);
    if ('ok' in read) for (const asset of assetsOf(read.ok)) assets.add(asset);
  }
  const named = entities.find(({ body }) => body['id'] === shotId)?.body['name'];
  const name = typeof named === 'string' ? named : '';
  return {
    shot: {
      id: shotId,
      productionId,
      name,
      revision,
      entities: entities.length,
      drawings: drawings.map(({ id }) => id),
      older,
      versions: versions.map(({ created_at, ...version }) => ({ ...version, createdAt: created_at.toISOString() })),
      shelf: shelf ?? null,
    },
    rows: new DrawingRows(database, drawings),
    assets,
  };
}

/** Drawings asked for at once, bytes of their bodies at most, and how many: one query each took most of the time. */
const [AT_ONCE, MAX_AT_ONCE] = [4 * 1024 * 1024, 64] as const;

/** Rows of drawings in the order they are asked for, fetched some at a time. One that is deleted is no more than named by others: it comes without its marks. */
export class DrawingRows {
  private readonly here = new Map<Id, ArchivedRow>();
  private next = 0;
  private coming: Promise<(ArchivedRow & { id: Id })[]> | null = null;

  /** @param drawings with the bytes of each, in the order in which they will be asked for. */
  constructor(
    private readonly database: Knex,
    private readonly drawings: readonly { readonly id: Id; readonly bytes: number }[],
  ) {}

  async of(id: Id): Promise<ArchivedRow> {
    while (!this.here.has(id)) {
      const rows = await (this.coming ?? this.fetch());
      // The next ones come while these are written.
      this.coming = this.next < this.drawings.length ? this.fetch() : null;
      this.coming?.catch(() => undefined);
      for (const { id: own, ...row } of rows) this.here.set(own, row);
      if (rows.length === 0) throw new Error(`Drawing ${id} is not there`);
    }
    const row = this.here.get(id)!;
    this.here.delete(id);
    return row.deleted ? { ...row, body: { kind: 'drawing', id, marks: {}, order: [] } } : row;
  }

  private fetch(): Promise<(ArchivedRow & { id: Id })[]> {
    const ids: Id[] = [];
    for (let bytes = 0; this.next < this.drawings.length && ids.length < MAX_AT_ONCE; this.next++) {
      const drawing = this.drawings[this.next]!;
      bytes += drawing.bytes;
      if (ids.length > 0 && bytes > AT_ONCE) break;
      ids.push(drawing.id);
    }
    // Sent at once, not when it is first waited for.
    return Promise.resolve(
      this.database<Row>('entities').whereIn('id', ids).select('id', 'revision', 'deleted', 'body'),
    );
  }
}

export const olderRow = async (database: Knex, id: Id, revision: number): Promise<ArchivedRow> =>
  database('older_bodies').where({ id, revision }).first<ArchivedRow>('revision', 'deleted', 'body');

/** What is to be said of assets that are there. */
export async function assetsFor(database: Knex, wanted: ReadonlySet<AssetId>): Promise<ArchivedAsset[]> {
  return database('assets')
    .whereRaw('sha256 = any(?)', [[...wanted]])
    .orderBy('sha256')
    .select<ArchivedAsset[]>('sha256', 'type', 'width', 'height', 'seconds', database.raw('length(content) as bytes'));
}

/** Bytes of an asset that go in or out of the database at once: it tells them as text, twice as long. */
export const SLICE = 2 * 1024 * 1024;

/** The bytes of an asset, slice by slice. */
export async function* assetBytes(database: Knex, { sha256, bytes }: ArchivedAsset): AsyncGenerator<Buffer> {
  for (let from = 0; from < bytes; from += SLICE) {
    const row = await database('assets')
      .where({ sha256 })
      .first<{ part: Buffer } | undefined>(database.raw('substring(content from ? for ?) as part', [from + 1, SLICE]));
    if (!row) throw new Error(`Asset ${sha256} is not there`);
    yield row.part;
  }
}

/** Settings of the shelf, as a manifest holds them. */
export const keptSettings = (database: Knex): Promise<ArchiveManifest['kept']> =>
  database('kept').orderBy('created_at').orderBy('id').select<ArchiveManifest['kept']>('kind', 'name', 'what');
