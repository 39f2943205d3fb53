/** An archive kept: productions, shots and assets in one transaction. What exists here already stays as it is. */
import { documentOf, encodeEntity, randomId, type Id } from '@tallow/core/document';
import { archivePath, type ArchiveManifest, type ArchivedAsset, type ArchivedShot } from '@tallow/core/formats';
import { keptKinds, readKept, shelfFacts, shelfKinds, type KeptKindName, type ShelfKind } from '@tallow/core/shelf';
import type { Knex } from 'knex';
import { SHELF_ID } from '../db/migrations.ts';
import { Stopped, type Tell } from '../queue/telling.ts';
import { checkAsset } from './asset-check.ts';
import { SLICE } from './contents.ts';
import { renewed } from './new-ids.ts';
import { manifestOf, openArchivedShot, type ReadRow, type ReadShot } from './read-archive.ts';
import { BadArchive, type ZipReader } from './zip-reader.ts';

/** What came of a shot of an archive. */
export interface CameShot {
  readonly id: Id;
  readonly name: string;
  /** It exists here already and came in beside that, under ids of its own. */
  readonly renewed: boolean;
  readonly onShelf: boolean;
}

/** Rows that are written with one statement. */
const ROWS = 40;

/** Writes rows as they come. */
class Rows {
  private waiting: object[] = [];

  constructor(
    private readonly database: Knex,
    private readonly table: string,
  ) {}

  async add(row: object): Promise<void> {
    this.waiting.push(row);
    if (this.waiting.length >= ROWS) await this.flush();
  }

  async flush(): Promise<void> {
    if (this.waiting.length > 0) await this.database(this.table).insert(this.waiting);
    this.waiting = [];
  }
}

/** Whether any of some ids is taken. */
async function areTaken(database: Knex, ids: readonly Id[], versions: readonly Id[]): Promise<boolean> {
  for (const [table, wanted] of [
    ['entities', ids],
    ['versions', versions],
  ] as const) {
    const found = await database(table)
      .whereRaw('id = any(?::uuid[])', [[...wanted]])
      .first<{ id: Id } | undefined>('id');
    if (found) return true;
  }
  return false;
}

/** The production that shots of an archive go into: the same where it is here, else one of its name. */
/** Settings of the shelf that are not here yet under their name. @throws BadArchive */
async function keepSettings(database: Knex, { kept }: ArchiveManifest): Promise<void> {
  for (const { kind, name, what } of kept) {
    const read = isKept(kind) ? readKept(kind, what) : { wrong: 'is of a kind that is not known' };
    if ('wrong' in read) throw new BadArchive(`Settings “${name}” of the shelf: ${read.wrong}.`);
    await database('kept')
      .insert({ id: randomId(), kind, of: read.ok.of, name, what: JSON.stringify(read.ok.what) })
      .onConflict(['kind', 'of', 'name'])
      .ignore();
  }
}
const isKept = (kind: string): kind is KeptKindName => (keptKinds as readonly string[]).includes(kind);

async function productionsFor(database: Knex, { productions }: ArchiveManifest): Promise<Map<Id, Id>> {
  const into = new Map<Id, Id>([[SHELF_ID, SHELF_ID]]);
  for (const { id, name } of productions) {
    const known = await database<{ id: Id; deleted_at: Date | null }>('productions').where({ id }).first();
    const own = known?.deleted_at ? randomId() : id;
    if (!known || known.deleted_at) await database('productions').insert({ id: own, name });
    into.set(id, own);
  }
  return into;
}

async function keepShelf(database: Knex, shotId: Id, { told, entities }: ReadShot): Promise<void> {
  const { kind, tags, note } = told.shelf!;
  if (!shelfKinds.some((each) => each === kind))
    throw new BadArchive(`“${told.name}” is of a kind that the shelf does not know: ${kind}.`);
  const doc = documentOf(
    told.id,
    entities.flatMap(({ entity, deleted }) => (deleted ? [] : [entity])),
  );
  await database('shelf').insert({
    shot_id: shotId,
    kind: kind as ShelfKind,
    tags,
    note,
    shipped: false,
    ...shelfFacts(doc),
  });
}

export class ArchiveKeeper {
  private done = 0;

  /** @param database a transaction. */
  constructor(
    private readonly database: Knex,
    private readonly zip: ZipReader,
    private readonly tell: Tell,
  ) {}

  /** @param begun is called with how many entries there are. @throws BadArchive, Stopped: then the transaction is to be undone. */
  async keep(begun: (total: number) => Promise<unknown>): Promise<CameShot[]> {
    const manifest = await manifestOf(this.zip);
    const { shots, assets } = manifest;
    await begun(
      assets.length + shots.reduce((sum, { drawings, older }) => sum + 1 + drawings.length + older.length, 0),
    );
    const into = await productionsFor(this.database, manifest);
    for (const asset of assets) {
      const name = archivePath.asset(asset.sha256);
      const content = await this.zip.read(name);
      await checkAsset(content, asset, name);
      await this.keepAsset(asset, content);
      await this.goOn();
    }
    await keepSettings(this.database, manifest);
    const came: CameShot[] = [];
    for (const told of shots) {
      const productionId = into.get(told.productionId);
      if (!productionId || (productionId === SHELF_ID) !== (told.shelf !== null))
        throw new BadArchive(`“${told.name}” stands in no production of the archive.`);
      came.push(await this.keepShot(told, productionId));
    }
    return came;
  }

  /** Slice by slice where it is large: handed over at once it lies in memory twice more. */
  private async keepAsset({ sha256, type, width, height, seconds }: ArchivedAsset, content: Buffer): Promise<void> {
    const { database } = this;
    await database.raw('create temporary table if not exists asset_parts (nth integer, part bytea) on commit drop');
    for (let nth = 0; nth * SLICE < content.length; nth++)
      await database('asset_parts').insert({ nth, part: content.subarray(nth * SLICE, (nth + 1) * SLICE) });
    const whole = database.raw(`coalesce(string_agg(part, ''::bytea order by nth), ''::bytea)`);
    await database('assets')
      .insert({ sha256, type, width, height, seconds, content: database('asset_parts').select(whole) })
      .onConflict('sha256')
      // Whatever names it is saved later: until then it is as new (`server/tidy/tidy.ts`).
      .merge({ created_at: database.fn.now() });
    await database('asset_parts').truncate();
  }

  private async goOn(): Promise<void> {
    this.done += 1;
    if (!(await this.tell(this.done))) throw new Stopped();
  }

  private async keepShot(told: ArchivedShot, productionId: Id): Promise<CameShot> {
    const shot = await openArchivedShot(this.zip, told);
    await this.goOn();
    const own = [...shot.entities.map(({ entity }) => entity.id), ...told.drawings];
    const isHere = await areTaken(
      this.database,
      own,
      told.versions.map(({ id }) => id),
    );
    const kept = isHere ? await renewed(shot) : null;
    const id = kept?.id ?? told.id;
    await this.database('shots').insert({ id, production_id: productionId, revision: told.revision });
    const rowOf = ({ entity, revision, deleted }: ReadRow) => ({
      id: entity.id,
      shot_id: id,
      revision,
      deleted,
      body: JSON.stringify(encodeEntity(entity)),
    });
    const entities = new Rows(this.database, 'entities');
    const put = (row: ReadRow) => entities.add({ ...rowOf(row), kind: row.entity.kind });
    const older = new Rows(this.database, 'older_bodies');
    if (kept) {
      for (const row of kept.rows) await put(row);
      for (const row of kept.older) await older.add(rowOf(row));
      this.done += told.drawings.length + told.older.length;
    } else {
      for (const row of shot.entities) await put(row);
      for (const drawing of told.drawings) {
        await put(await shot.drawing(drawing));
        await this.goOn();
      }
      for (const each of told.older) {
        await older.add(rowOf(await shot.older(each)));
        await this.goOn();
      }
    }
    shot.checkReferences();
    await entities.flush();
    await older.flush();
    if (told.versions.length > 0)
      await this.database('versions').insert(
        told.versions.map(({ id: version, name, made, revision, createdAt }) => ({
          id: kept ? randomId() : version,
          shot_id: id,
          name,
          made,
          revision,
          created_at: createdAt,
        })),
      );
    if (told.shelf) await keepShelf(this.database, id, shot);
    return { id, name: told.name, renewed: isHere, onShelf: told.shelf !== null };
  }
}
