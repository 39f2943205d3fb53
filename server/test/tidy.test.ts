/** What may go after 90 days, and what stays however old it is. */
import { randomId, type Entity } from '@tallow/core/document';
import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { exportPath } from '../exports/exports.service.ts';
import { tidy } from '../tidy/tidy.ts';
import { startServer, type Harness } from './harness.ts';

let server: Harness;
const production = randomId();
beforeAll(async () => {
  server = await startServer();
  mkdirSync(join(server.home, 'exports'));
  await server.send('POST', '/productions', { id: production, name: 'P' });
});
afterAll(() => server.stop());

const OLD = () => server.database.raw("now() - interval '91 days'");
const RECENT = () => server.database.raw("now() - interval '89 days'");

async function newShot(into = production): Promise<string> {
  const id = randomId();
  const size = { width: 64, height: 64, rate: 24, length: 2, background: null };
  await server.send('POST', '/shots', { id, productionId: into, name: 'S', ...size });
  return id;
}

async function export_(shot: string, state: string, created: unknown): Promise<string> {
  const id = randomId();
  await server.database('exports').insert({ id, shot_id: shot, state, frames: 1, file_name: 'f', created_at: created });
  writeFileSync(exportPath(id), 'frames');
  return id;
}

test('shots that were deleted long ago go with all that hangs on them; others, and those with a named version, stay', async () => {
  const [old, recent, named, living] = [await newShot(), await newShot(), await newShot(), await newShot()];
  await server.send('POST', `/shots/${named}/versions`, { id: randomId(), name: 'first' });
  expect(await server.database('versions').where({ shot_id: named })).toHaveLength(1);
  const made = await export_(old, 'done', RECENT());
  for (const id of [old, named]) await server.database('shots').where({ id }).update({ deleted_at: OLD() });
  await server.database('shots').where({ id: recent }).update({ deleted_at: RECENT() });
  const other = randomId();
  await server.send('POST', '/productions', { id: other, name: 'Old' });
  const inside = await newShot(other);
  await server.database('productions').where({ id: other }).update({ deleted_at: OLD() });

  expect(await tidy(server.database)).toMatchObject({ shots: 2 });
  const left = await server.database('shots').pluck('id');
  expect([old, inside, recent, named, living].map((id) => left.includes(id))).toEqual([false, false, true, true, true]);
  expect(await server.database('entities').where({ shot_id: old })).toEqual([]);
  expect(await server.database('productions').where({ id: other })).toEqual([]);
  expect(existsSync(exportPath(made))).toBe(false);
  // Brought back in time, it is whole.
  await server.send('POST', `/shots/${recent}/restore`);
  expect((await server.send('GET', `/shots/${recent}`)).status).toBe(200);
  expect(await tidy(server.database)).toEqual({ shots: 0, exports: 0, bodies: 0, assets: 0 });
});

test('exports that were over long ago go with their files; those under way and younger ones stay', async () => {
  const shot = await newShot();
  const gone = [await export_(shot, 'done', OLD()), await export_(shot, 'failed', OLD())];
  const stays = [await export_(shot, 'running', OLD()), await export_(shot, 'done', RECENT())];
  expect(await tidy(server.database)).toMatchObject({ exports: 2 });
  expect(gone.map((id) => existsSync(exportPath(id)))).toEqual([false, false]);
  expect(stays.map((id) => existsSync(exportPath(id)))).toEqual([true, true]);
});

test('pictures go that nothing names: a shot, what undo or a version still shows, a setting of the shelf or footage does', async () => {
  const shot = await newShot();
  const hash = (n: number) => n.toString(16).padStart(64, 'a');
  const { database } = server;
  const asset = (n: number, created: unknown) =>
    database('assets').insert({
      ...{ sha256: hash(n), type: 'image/png', width: 1, height: 1, content: Buffer.from('x'), created_at: created },
    });
  for (let n = 0; n < 6; n++) await asset(n, OLD());
  await asset(6, RECENT());
  const { entities } = (await server.send('GET', `/shots/${shot}`)).json as { entities: Entity[] };
  const body = JSON.stringify({ ...entities[0], kind: 'plate', assets: [hash(1)] });
  await database('entities').insert({ id: randomId(), shot_id: shot, kind: 'plate', revision: 1, deleted: true, body });
  const older = JSON.stringify({ kind: 'plate', assets: [hash(2)] });
  await database('saves').insert({ save_id: randomId(), shot_id: shot, base_revision: 1, revision: 2 });
  const id = randomId();
  await database('older_bodies').insert({ id, shot_id: shot, revision: 1, deleted: false, body: older });
  await database('entities').insert({ id, shot_id: shot, kind: 'plate', revision: 2, body: '{"kind":"plate"}' });
  await database('kept').insert({ id: randomId(), kind: 'x', of: '', name: 'n', what: JSON.stringify({ a: hash(3) }) });
  await database('footage').insert({ id: randomId(), name: 'f', state: 'done', assets: JSON.stringify([hash(4)]) });

  expect(await tidy(database)).toMatchObject({ assets: 2, bodies: 0 });
  expect((await database('assets').pluck<string[]>('sha256')).sort()).toEqual([1, 2, 3, 4, 6].map(hash).sort());
});

test('a picture that is brought in again is as new, whoever has not saved what names it yet', async () => {
  const { createCanvas } = await import('@napi-rs/canvas');
  const png = createCanvas(3, 3).toBuffer('image/png');
  const bring = async () => {
    const answer = await fetch(`${server.address}/api/assets`, {
      ...{ method: 'POST', headers: { 'content-type': 'application/octet-stream' }, body: new Uint8Array(png) },
    });
    return ((await answer.json()) as { sha256: string }).sha256;
  };
  const sha256 = await bring();
  await server.database('assets').where({ sha256 }).update({ created_at: OLD() });
  await bring();
  await tidy(server.database);
  expect(await server.database('assets').where({ sha256 })).toHaveLength(1);
});

test('the room taken in all counts each thing once, where it lies', async () => {
  const room = async () => (await server.send('GET', '/room')).json as unknown as Record<string, number>;
  const before = await room();
  const shot = await newShot();
  const made = await export_(shot, 'done', RECENT());
  const after = await room();
  const grown = (part: string): number => after[part]! - before[part]!;
  expect([grown('exports'), grown('loops'), grown('backups'), grown('deleted')]).toEqual([6, 0, 0, 0]);
  expect(grown('shots')).toBeGreaterThan(100);
  await server.send('DELETE', `/shots/${shot}`);
  const gone = await room();
  expect(gone['deleted']! - after['deleted']!).toBe(grown('shots'));
  expect(gone['shots']).toBe(before['shots']);
  expect(gone['free']).toBeGreaterThan(0);
  expect(existsSync(exportPath(made))).toBe(true);
});
