/** Puts the demo in, or back to how it was built, as an ordinary save on top of what is there. */
import { encodeEntity, randomId, shotOf, type ShotDocument } from '@tallow/core/document';
import { duplicateShot, setShot } from '@tallow/core/edit';
import { MADE_RATE, MADE_SOUNDS, wavOf } from '@tallow/core/sound';
import { DEMO_SHOTS, GLASSHOUSE_ID, NIGHT_CUES, nightShift, SHIPPED, type Recorded } from '@tallow/demo';
import { Readable } from 'node:stream';
import type { Knex } from 'knex';
import type { SavesService } from './shots/saves.service.ts';
import { ShelfService } from './shelf/shelf.service.ts';
import { SoundsService } from './sounds/sounds.service.ts';
import { shotServices } from './shots/services.ts';
import type { ShotsService } from './shots/shots.service.ts';

const BUILT = 'demo built';
const SHELVED = 'shelf filled';

/**
 * Puts the effects that ship on the shelf, on the first start of a database that has a shelf. What was taken off it stays
 * off; with TALLOW_SHELF set to `empty` none comes.
 */
export async function ensureShelf(database: Knex, shipped = SHIPPED): Promise<void> {
  if (process.env['TALLOW_SHELF'] === 'empty') return;
  if (await database('facts').where({ name: SHELVED }).first()) return;
  const shelf = new ShelfService(database, shotServices(database).shots);
  for (const { kind, tags, note, build } of shipped) {
    // Laying an effect takes a moment: connections that were waiting are heard first.
    await new Promise((heard) => setImmediate(heard));
    await shelf.put(build(), { kind, tags: [...tags], note }, true);
  }
  await database('facts')
    .insert({ name: SHELVED, value: JSON.stringify(new Date().toISOString()) })
    .onConflict('name')
    .ignore();
}

async function rebuild(database: Knex, shots: ShotsService, saves: SavesService, built: ShotDocument): Promise<void> {
  const row = await database<{ id: string; revision: number }>('shots').where({ id: built.shotId }).first();
  if (!row) {
    await shots.insert(built, GLASSHOUSE_ID);
    return;
  }
  const known = await database<{ id: string; shot_id: string; kind: string; deleted: boolean }>('entities')
    .where({ shot_id: built.shotId })
    .select('id', 'kind', 'deleted');
  // An id stays of its kind for ever: where an earlier demo gave one to something else, all of it gets new ones.
  const isTaken = known.some(({ id, kind }) => id in built.entities && built.entities[id]!.kind !== kind);
  const doc = isTaken ? setShot(duplicateShot(built, built.shotId, randomId), { name: shotOf(built).name }) : built;
  const puts = Object.values(doc.entities).map((entity) => ({
    id: entity.id,
    kind: entity.kind,
    body: encodeEntity(entity),
    restore: known.some((k) => k.id === entity.id),
  }));
  const deletes = known.filter((each) => !each.deleted && !(each.id in doc.entities)).map((each) => each.id);
  await saves.save(doc.shotId, { saveId: randomId(), baseRevision: row.revision, puts, deletes });
  await database('shots').where({ id: doc.shotId }).update({ deleted_at: null, production_id: GLASSHOUSE_ID });
}

/** Makes the demo's sounds and keeps them as if they had been brought in. */
async function record(database: Knex): Promise<Recorded> {
  const sounds = new SoundsService(database);
  const kept = new Map<string, { asset: string; seconds: number }>();
  for (const { made, seed } of NIGHT_CUES) {
    const wav = wavOf(MADE_SOUNDS[made].make(seed), MADE_RATE);
    const { sha256, seconds } = await sounds.keep(
      Readable.from([Buffer.from(wav.buffer)]),
      AbortSignal.timeout(60_000),
    );
    kept.set(`${made}.${seed}`, { asset: sha256, seconds });
  }
  return (made, seed) => kept.get(`${made}.${seed}`) ?? null;
}

/**
 * Builds the demo on the first start of a database, or whenever `fresh` asks for it. Nothing else is touched. With
 * TALLOW_DEMO set to `empty` it comes only when it is asked for.
 * @param builds how its shots are made, one after the other.
 */
export async function ensureDemo(database: Knex, fresh: boolean, builds = DEMO_SHOTS): Promise<void> {
  const built = await database<{ name: string }>('facts').where({ name: BUILT }).first();
  if (!fresh && (built || process.env['TALLOW_DEMO'] === 'empty')) return;
  const { shots, saves } = shotServices(database);
  await database('productions')
    .insert({ id: GLASSHOUSE_ID, name: 'The Glasshouse' })
    .onConflict('id')
    .merge({ name: 'The Glasshouse', deleted_at: null });
  const recorded = builds.includes(nightShift) ? await record(database) : undefined;
  for (const build of builds) {
    const doc = build(recorded);
    // Laying a shot takes a second or so: connections that were waiting are heard first.
    await new Promise((heard) => setImmediate(heard));
    await rebuild(database, shots, saves, doc);
  }
  await database('facts')
    .insert({ name: BUILT, value: JSON.stringify(new Date().toISOString()) })
    .onConflict('name')
    .merge();
}
