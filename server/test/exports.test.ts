import { randomId, shotOf } from '@tallow/core/document';
import { furnaceMouth, FURNACE_MOUTH_ID } from '@tallow/demo';
import { existsSync, readdirSync, statSync } from 'node:fs';
import { ensureDemo } from '../demo.ts';
import { runExport } from '../exports/export-job.ts';
import { exportPath, exportsFolder } from '../exports/exports.service.ts';
import { SavesService } from '../shots/saves.service.ts';
import { ShotsService } from '../shots/shots.service.ts';
import { startServer, type Harness } from './harness.ts';

let server: Harness;
let shots: ShotsService;

beforeAll(async () => {
  server = await startServer();
  shots = new ShotsService(server.database, new SavesService(server.database));
  await ensureDemo(server.database, false);
  const shot = shotOf(furnaceMouth());
  const { revision } = (await server.send('GET', `/shots/${shot.id}`)).json as { revision: number };
  const body = { ...shot, length: 4, width: 192, height: 108 };
  await server.send('POST', `/shots/${shot.id}/saves`, {
    saveId: randomId(),
    baseRevision: revision,
    puts: [{ id: shot.id, kind: 'shot', body }],
    deletes: [],
  });
}, 60_000);
afterAll(() => server.stop());

interface Answer {
  id: string;
  state: string;
  done: number;
  frames: number;
  bytes: number | null;
}
const ask = async (): Promise<Answer> =>
  (await server.send('POST', `/shots/${FURNACE_MOUTH_ID}/exports`, { background: true })).json;
const list = async (): Promise<Answer[]> => (await server.send('GET', `/shots/${FURNACE_MOUTH_ID}/exports`)).json;
const one = async (id: string): Promise<Answer> => (await list()).find((each) => each.id === id)!;

test('an export waits in the list, is run, and its file is served under the shot’s name', async () => {
  const asked = await ask();
  expect(asked).toMatchObject({ state: 'waiting', frames: 4, done: 0, bytes: null });
  expect((await server.send('GET', `/exports/${asked.id}/file`)).status).toBe(409);
  await runExport(server.database, shots, asked.id);
  const done = await one(asked.id);
  expect(done).toMatchObject({ state: 'done', done: 4, bytes: statSync(exportPath(asked.id)).size });
  const file = await fetch(`${server.address}/api/exports/${asked.id}/file`);
  expect(file.headers.get('content-disposition')).toContain('furnace-mouth.zip');
  expect(
    Buffer.from(await file.arrayBuffer())
      .subarray(0, 2)
      .toString(),
  ).toBe('PK');
});

test('run again after its worker was killed, it gives the same frames; run once done, it is left alone', async () => {
  const asked = await ask();
  await server.database('exports').where({ id: asked.id }).update({ state: 'running', done: 2 });
  await runExport(server.database, shots, asked.id);
  const first = await one(asked.id);
  expect(first.state).toBe('done');
  const { mtimeMs } = statSync(exportPath(asked.id));
  await runExport(server.database, shots, asked.id);
  expect(statSync(exportPath(asked.id)).mtimeMs).toBe(mtimeMs);
});

test('stopped before or while it runs, it leaves no file behind', async () => {
  const asked = await ask();
  expect((await server.send('POST', `/exports/${asked.id}/stop`)).json).toMatchObject({ state: 'stopped' });
  await runExport(server.database, shots, asked.id);
  expect(existsSync(exportPath(asked.id))).toBe(false);
  const second = await ask();
  const running = runExport(server.database, shots, second.id);
  await server.send('POST', `/exports/${second.id}/stop`);
  await running;
  expect((await one(second.id)).state).toBe('stopped');
  expect(readdirSync(exportsFolder()).filter((name) => name.includes(second.id))).toEqual([]);
});

test('an export whose shot cannot be read fails and says so', async () => {
  const asked = await ask();
  await server.send('DELETE', `/shots/${FURNACE_MOUTH_ID}`);
  await runExport(server.database, shots, asked.id);
  await server.send('POST', `/shots/${FURNACE_MOUTH_ID}/restore`);
  expect(await one(asked.id)).toMatchObject({ state: 'failed', trouble: expect.stringContaining('not there') });
});

test('deleted, it is gone with its file; unknown ones are not found', async () => {
  const asked = await ask();
  await runExport(server.database, shots, asked.id);
  expect((await server.send('DELETE', `/exports/${asked.id}`)).status).toBe(204);
  expect(existsSync(exportPath(asked.id))).toBe(false);
  expect((await server.send('GET', `/exports/${randomId()}/file`)).status).toBe(404);
  expect((await server.send('POST', `/shots/${FURNACE_MOUTH_ID}/exports`, { background: 'yes' })).status).toBe(422);
});
