/** What the start command is made of: keeping programs running, reasons in words, the right PostgreSQL. */
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

interface Ended {
  readonly how: string;
  readonly words: string;
}
interface Cluster {
  readonly port: number;
  readonly process: { kill(signal: NodeJS.Signals): boolean };
  readonly ended: Promise<Ended>;
  stop(): Promise<void>;
}
interface Scripts {
  keepRunning(
    name: string,
    start: () => Promise<{ ended: Promise<Ended> }>,
    options: { isStopping: () => boolean; home: string; say: (line: string) => void; quiet?: number },
  ): Promise<void>;
  CannotHeal: new (message: string) => Error;
  lastWords(said: string): string;
  adviceFor(words: string, home: string): string | null;
  postgresPrograms(version?: string, base?: string): string | null;
  startCluster(home: string, options: object): Promise<Cluster>;
}
const folder = join(import.meta.dirname, '..', '..', 'scripts');
const load = async (name: string) => (await import(join(folder, name))) as Scripts;
const { keepRunning, CannotHeal } = await load('keep-running.mjs');
const { lastWords, adviceFor } = await load('reasons.mjs');
const { postgresPrograms } = await load('system.mjs');
const { startCluster } = await load('database.mjs');

describe('a program that is kept running', () => {
  test('is started again for ever, with waits that grow, each told with its reason', async () => {
    const said: string[] = [];
    let starts = 0;
    let stopping = false;
    const done = new Promise<void>((all) => {
      void keepRunning(
        'The server',
        () => {
          starts += 1;
          if (starts === 5) {
            stopping = true;
            all();
          }
          const ended = Promise.resolve({ how: 'killed by SIGKILL', words: starts === 2 ? 'ENOSPC: no space' : '' });
          return Promise.resolve({ ended });
        },
        { isStopping: () => stopping, home: '/home/t', say: (line) => said.push(line) },
      );
    });
    await done;
    expect(said.filter((line) => line.includes('ended'))).toEqual([
      'The server ended (killed by SIGKILL). Started again in 0.2 s.',
      'The server ended (killed by SIGKILL): ENOSPC: no space. Started again in 0.4 s. Make room on the disk of /home/t; it goes on by itself then.',
      'The server ended (killed by SIGKILL). Started again in 0.8 s.',
      'The server ended (killed by SIGKILL). Started again in 2 s.',
    ]);
  });
  test('that was quiet for long enough is started again after a short wait', async () => {
    const said: string[] = [];
    let stopping = false;
    let starts = 0;
    await new Promise<void>((all) => {
      void keepRunning(
        'It',
        () => {
          starts += 1;
          if (starts === 4) {
            stopping = true;
            all();
          }
          const ended = new Promise<Ended>((done) => setTimeout(done, 60, { how: 'code 1', words: '' }));
          return Promise.resolve({ ended });
        },
        { isStopping: () => stopping, home: '', say: (line) => said.push(line), quiet: 20 },
      );
    });
    expect(said.filter((line) => line.includes('ended'))).toEqual(
      Array(3).fill('It ended (code 1). Started again in 0.2 s.'),
    );
  });
  test('is not tried again where that is of no use', async () => {
    const start = () => Promise.reject(new CannotHeal('Install it.'));
    const options = { isStopping: () => false, home: '', say: () => undefined };
    await expect(keepRunning('It', start, options)).rejects.toThrow('Install it.');
  });
});

test.each([
  ['2026-01-01 10:00:00.000 UTC [12] FATAL:  the database system is starting up\n', ''],
  [
    '2026-01-01 10:00:00.000 UTC [12] PANIC:  could not write to file "pg_wal/x": No space left on device\n',
    'PANIC:  could not write to file "pg_wal/x": No space left on device',
  ],
  ['Error: listen EADDRINUSE\n    at Server.listen (net.js)\n\nNode.js v20.20.2\n', 'Error: listen EADDRINUSE'],
])('the last words of %j tell what happened', (said, words) => {
  expect(lastWords(said)).toBe(words);
});

test('a fault that does not heal by itself says what to do', () => {
  expect(adviceFor('could not write: No space left on device', '/h')).toContain('Make room on the disk of /h');
  expect(adviceFor('listen EADDRINUSE', '/h')).toContain('port');
  expect(adviceFor('PANIC: could not locate a valid checkpoint record', '/h')).toContain('put back a copy');
  expect(adviceFor('killed', '/h')).toBeNull();
});

describe('the database', () => {
  const home = mkdtempSync(join(tmpdir(), 'tallow-cluster-'));
  chmodSync(home, 0o755);
  const base = join(home, 'postgresql');
  afterAll(() => {
    rmSync(home, { recursive: true, force: true });
  });
  const real = join(postgresPrograms()!, '..');
  const version = real.split('/').at(-1)!;

  test('keeps its port, its programs beside a newer version, and comes back after SIGKILL', async () => {
    const said: string[] = [];
    const say = (line: string) => said.push(line);
    const first = await startCluster(home, { settings: ['fsync=off'], say });
    first.process.kill('SIGKILL');
    expect(await first.ended).toMatchObject({ how: 'killed by SIGKILL' });
    expect(said).toEqual([]);
    mkdirSync(join(base, '99', 'bin'), { recursive: true });
    writeFileSync(join(base, '99', 'bin', 'initdb'), '#!/bin/sh\nexit 1\n', { mode: 0o755 });
    symlinkSync(real, join(base, version));
    expect(postgresPrograms(undefined, base)).toBe(join(base, '99', 'bin'));
    // What is left of the killed one may still be ending.
    let second: Cluster | null = null;
    while (!second) second = await startCluster(home, { settings: ['fsync=off'], say, base }).catch(() => null);
    expect(second.port).toBe(first.port);
    expect(said.at(-1)).toBe(`The database is of PostgreSQL ${version} and goes on with it; 99 is installed as well.`);
    await second.stop();

    const taken = createServer().listen(first.port, '127.0.0.1');
    const third = await startCluster(home, { settings: ['fsync=off'], say });
    expect(said.at(-1)).toBe(`The database's port ${first.port} is taken; it is on ${third.port} from now on.`);
    taken.close();
    await third.stop();
    expect(readFileSync(join(home, 'database-port'), 'utf8')).toBe(String(third.port));
  }, 60_000);
  test('of a version that is not installed says which to install', async () => {
    rmSync(join(base, version));
    await expect(startCluster(home, { base })).rejects.toThrow(`sudo apt-get install postgresql-${version}`);
  });
});
