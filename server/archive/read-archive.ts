/** What lies in an archive, read an entry at a time and held to the rules of Tallow: nothing it says is believed. */
import { readEntity, referencesOf, type Entity, type Id } from '@tallow/core/document';
import {
  archivedRow,
  archivePath,
  MANIFEST,
  readManifest,
  type ArchivedRow,
  type ArchivedShot,
  type ArchiveManifest,
} from '@tallow/core/formats';
import { withArchivedColumns } from './columns.ts';
import { BadArchive, type ZipReader } from './zip-reader.ts';

/** A body, and when it was written. Of one that is deleted no more than its id is asked for. */
export interface ReadRow {
  readonly revision: number;
  readonly deleted: boolean;
  readonly entity: Entity;
}

/** A shot, each of its bodies read when it is asked for. */
export interface ReadShot {
  readonly told: ArchivedShot;
  /** All bodies but drawings. */
  readonly entities: readonly ReadRow[];
  readonly drawing: (id: Id) => Promise<ReadRow>;
  readonly older: (older: ArchivedShot['older'][number]) => Promise<ReadRow>;
  /** Looks whether everything that was read so far points at things of the shot. @throws BadArchive */
  readonly checkReferences: () => void;
}

async function jsonOf(zip: ZipReader, name: string): Promise<unknown> {
  const text = (await zip.read(name)).toString('utf8');
  try {
    return JSON.parse(text);
  } catch {
    throw new BadArchive(`${name} is no JSON.`);
  }
}

/** @throws BadArchive for what is no archive, is damaged, or was made by a later Tallow. */
export async function manifestOf(zip: ZipReader): Promise<ArchiveManifest> {
  if (!zip.has(MANIFEST)) throw new BadArchive('This is no archive of Tallow.');
  const read = readManifest((await zip.read(MANIFEST)).toString('utf8'));
  if ('problem' in read) throw new BadArchive(read.problem);
  return read.ok;
}

function rowOf(json: unknown, where: string): ArchivedRow {
  const read = archivedRow.safeParse(json);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  throw new BadArchive(`${where}: ${issue?.path.join('.') ?? ''} ${issue?.message ?? ''}.`);
}

function entityOf(body: unknown, where: string): Entity {
  const read = readEntity(body);
  if ('ok' in read) return read.ok;
  const [problem] = read.problems;
  throw new BadArchive(`${where}: ${problem?.field ?? ''} ${problem?.message ?? ''}.`);
}

/** A row whose numbers lie beside it. */
async function rowAt(zip: ZipReader, name: string, id: Id, kind: string): Promise<ReadRow> {
  const { body, ...row } = rowOf(await jsonOf(zip, name), name);
  const columns = await zip.read(archivePath.columns(name));
  let whole: unknown;
  try {
    whole = withArchivedColumns(body, columns);
  } catch (error) {
    throw new BadArchive(`${name}: ${(error as Error).message}.`);
  }
  const entity = entityOf(whole, name);
  if (entity.id !== id || entity.kind !== kind) throw new BadArchive(`${name} is not the ${kind} it is named after.`);
  return { ...row, entity };
}

/** Opens a shot of an archive: its bodies but drawings are read. @throws BadArchive */
export async function openArchivedShot(zip: ZipReader, told: ArchivedShot): Promise<ReadShot> {
  const name = archivePath.entities(told.id);
  const json = await jsonOf(zip, name);
  if (!Array.isArray(json) || json.length !== told.entities)
    throw new BadArchive(`${name} does not hold the ${told.entities} bodies that ${MANIFEST} tells of.`);
  const known = new Set<Id>(told.drawings);
  const asked: { id: Id; where: string }[] = [];
  const taken = (row: ReadRow, where: string): ReadRow => {
    if (row.revision > told.revision) throw new BadArchive(`${where}: revision must be at most ${told.revision}.`);
    for (const { id, field } of referencesOf(row.entity)) asked.push({ id, where: `${where}: ${field}` });
    return row;
  };
  const entities = json.map((each, i) => {
    const where = `${name}, ${i}`;
    const { body, ...row } = rowOf(each, where);
    const entity = entityOf(body, `${where}: body`);
    if (known.has(entity.id)) throw new BadArchive(`${where} is of an id that is named twice.`);
    known.add(entity.id);
    if (entity.kind === 'drawing') throw new BadArchive(`${where} is a drawing: those have files of their own.`);
    if ((entity.kind === 'shot') !== (entity.id === told.id))
      throw new BadArchive(`${where} must be the shot itself if it is of kind shot.`);
    return taken({ ...row, entity }, where);
  });
  if (!entities.some(({ entity, deleted }) => entity.id === told.id && !deleted))
    throw new BadArchive(`${name} lacks the shot itself.`);
  for (const { revision, name: named } of told.versions)
    if (revision > told.revision)
      throw new BadArchive(`${MANIFEST}: the version “${named}” is of a revision that is not there.`);
  for (const { id } of told.older)
    if (!known.has(id)) throw new BadArchive(`${MANIFEST} tells of an older body of ${id}, which is not in the shot.`);
  return {
    told,
    entities,
    drawing: async (id) => {
      const at = archivePath.drawing(told.id, id);
      return taken(await rowAt(zip, at, id, 'drawing'), at);
    },
    older: async ({ id, kind, revision }) => {
      const at = archivePath.older(told.id, id, revision);
      const row = taken(await rowAt(zip, at, id, kind), at);
      if (row.revision !== revision) throw new BadArchive(`${at} is of another revision.`);
      return row;
    },
    checkReferences: () => {
      const lost = asked.find(({ id }) => !known.has(id));
      if (lost) throw new BadArchive(`${lost.where} names ${lost.id}, which is not in the shot.`);
    },
  };
}
