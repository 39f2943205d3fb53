/** How much room everything takes in all: what the database holds, packed as it is there, and the files of the home. */
import type { Knex } from 'knex';
import { readdir, stat, statfs } from 'node:fs/promises';
import { join } from 'node:path';
import { homeFolder } from '../home.ts';

/** Bytes, each thing counted once. */
export interface RoomInAll {
  /** Shots and the shelf as they are now. */
  readonly shots: number;
  /** Bodies that were replaced and are kept for undo and versions, and parts of saves. */
  readonly before: number;
  /** Shots that were deleted and can still be brought back. */
  readonly deleted: number;
  /** Pictures, sounds and footage that were brought in. */
  readonly assets: number;
  /** Exports and archives to take away. */
  readonly exports: number;
  /** The loops of cards and versions. */
  readonly loops: number;
  /** Backups that lie in the home, made by Tallow or asked for. */
  readonly backups: number;
  /** What the database takes beyond all of that: indexes, its queue, room it will use again. */
  readonly rest: number;
  /** What is left on the disk of the home. */
  readonly free: number;
}

/** Bytes of all files in a folder of the home and below; 0 where there is none. */
async function sizeOfFolder(folder: string): Promise<number> {
  const files = await readdir(folder, { recursive: true, withFileTypes: true }).catch(() => []);
  let bytes = 0;
  for (const file of files)
    // One that goes meanwhile takes no room.
    if (file.isFile())
      bytes += await stat(join(file.parentPath, file.name)).then(
        ({ size }) => size,
        () => 0,
      );
  return bytes;
}

export async function roomInAll(database: Knex): Promise<RoomInAll> {
  const sum = async (table: string, column: string): Promise<number> => {
    const row = await database(table).first<{ bytes: string | null }>(
      database.raw('sum(pg_column_size(??)) as bytes', [column]),
    );
    return Number(row?.bytes ?? 0);
  };
  // The largest table is gone through once.
  const size = (isDeleted: boolean): string =>
    `sum(pg_column_size(entities.body)) filter (where least(shots.deleted_at, productions.deleted_at) is ${isDeleted ? 'not ' : ''}null)`;
  const bodies = await database('entities')
    .join('shots', 'shots.id', 'entities.shot_id')
    .join('productions', 'productions.id', 'shots.production_id')
    .first<Record<'living' | 'deleted', string | null>>(
      database.raw(`${size(false)} as living, ${size(true)} as deleted`),
    );
  const folder = (name: string): Promise<number> => sizeOfFolder(homeFolder(name));
  const kept = {
    shots: Number(bodies.living ?? 0),
    before: (await sum('older_bodies', 'body')) + (await sum('save_parts', 'content')),
    deleted: Number(bodies.deleted ?? 0),
    assets: await sum('assets', 'content'),
  };
  const whole = (await database.select(database.raw('pg_database_size(current_database()) as bytes')).first()) as {
    bytes: string;
  };
  const counted = Object.values(kept).reduce((all, bytes) => all + bytes, 0);
  const disk = await statfs(homeFolder(''));
  return {
    ...kept,
    assets: kept.assets + (await folder('footage')),
    exports: (await folder('exports')) + (await folder('archives')),
    loops: await folder('loops'),
    backups: await folder('backups'),
    rest: Math.max(0, Number(whole.bytes) - counted),
    free: disk.bavail * disk.bsize,
  };
}
