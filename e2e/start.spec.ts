import { expect, test } from '@playwright/test';
import { spawn, type ChildProcess } from 'node:child_process';
import { chmodSync, existsSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { running } from './processes.ts';

const root = join(import.meta.dirname, '..');
const home = mkdtempSync(join(tmpdir(), 'tallow-start-'));
chmodSync(home, 0o755);
test.afterAll(() => {
  rmSync(home, { recursive: true, force: true });
});

interface Started {
  readonly process: ChildProcess;
  readonly address: string;
  readonly said: () => string;
}

/** Runs the start command as a user would and waits for the address. */
async function start(port: number, through: 'node' | 'shell' = 'node'): Promise<Started> {
  const env = { ...process.env, TALLOW_HOME: home, TALLOW_PORT: String(port), DATABASE_URL: '', TALLOW_SHELF: 'empty' };
  const script = join(root, 'scripts', 'start.mjs');
  const child =
    through === 'node'
      ? spawn(process.execPath, [script], { cwd: root, env })
      : spawn('sh', ['-c', `"${process.execPath}" "${script}"; true`], { cwd: root, env });
  let said = '';
  child.stdout?.on('data', (data: Buffer) => (said += data.toString()));
  child.stderr?.on('data', (data: Buffer) => (said += data.toString()));
  await expect.poll(() => said, { timeout: 90_000 }).toContain('Tallow is at http');
  return { process: child, address: /Tallow is at (http:\/\/localhost:\d+)/.exec(said)![1]!, said: () => said };
}

const startCommandOf = (shell: number): number => running().find(({ parent }) => parent === shell)!.id;
/** A child by a word of its command, as soon as there is one. */
async function childOf(parent: number, word: string): Promise<number> {
  const find = () => running().find((each) => each.parent === parent && each.words.includes(word));
  await expect.poll(find, { timeout: 15_000 }).toBeDefined();
  return find()!.id;
}

const answers = (address: string): Promise<boolean> =>
  fetch(`${address}/api/health`).then(
    (response) => response.ok,
    () => false,
  );
const isDatabaseUp = (): boolean => existsSync(join(home, 'database', 'data', 'postmaster.pid'));

test('start makes everything, Ctrl+C ends all of it, and a second start finds what was there', async () => {
  test.setTimeout(240_000);
  const first = await start(4710);
  const health = (await (await fetch(`${first.address}/api/health`)).json()) as Record<string, string>;
  expect(health).toEqual({ status: 'ok', database: 'ok', version: expect.any(String) });
  const shots = (await (await fetch(`${first.address}/api/shots`)).json()) as { id: string; name: string }[];
  expect(shots.map((shot) => shot.name)).toEqual([
    'Night shift',
    'Furnace mouth',
    'Vent smoke',
    'The gather',
    'Skylight strike',
    'Burst flask',
    'The swing',
  ]);
  await fetch(`${first.address}/api/shots/${shots[0]!.id}`, {
    method: 'PATCH',
    headers: { 'content-type': 'application/json' },
    body: '{"name":"Kept"}',
  });
  first.process.kill('SIGINT');
  await expect.poll(() => answers(first.address)).toBe(false);
  await expect.poll(isDatabaseUp).toBe(false);

  // A taken port is said, and the next free one used.
  const taken = createServer().listen(4710, '127.0.0.1');
  const second = await start(4710, 'shell');
  expect(second.said()).toContain('Port 4710 is taken. On another port the browser does not find the unsaved work');
  expect(second.said()).toContain('Start with --wait-for-port');
  expect(second.address).not.toBe('http://localhost:4710');
  const kept = (await (await fetch(`${second.address}/api/shots`)).json()) as { name: string }[];
  expect(kept[0]!.name).toBe('Kept');
  taken.close();

  // Whatever of it is killed comes back by itself, the database with all that was acknowledged, and is reported in a line.
  const command = startCommandOf(second.process.pid!);
  for (const [name, find] of [
    ['The server', () => childOf(command, 'server.js')],
    ['The worker', () => childOf(command, 'worker.js asked')],
    ['The worker for cards', () => childOf(command, 'worker.js cards')],
    ['The database', () => childOf(command, 'postgres')],
  ] as const) {
    process.kill(await find(), 'SIGKILL');
    await expect.poll(second.said, { timeout: 30_000 }).toContain(`${name} ended (killed by SIGKILL)`);
    await expect.poll(second.said, { timeout: 30_000 }).toContain(`${name} is back.`);
    await expect.poll(() => answers(second.address), { timeout: 30_000 }).toBe(true);
  }
  const after = (await (await fetch(`${second.address}/api/shots`)).json()) as { name: string }[];
  expect(after[0]!.name).toBe('Kept');

  // The parent gone without a word, all of it stops by itself.
  second.process.kill('SIGKILL');
  await expect.poll(() => answers(second.address), { timeout: 15_000 }).toBe(false);
  await expect.poll(isDatabaseUp, { timeout: 15_000 }).toBe(false);
});
