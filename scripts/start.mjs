/** Starts Tallow: installs what is missing, runs the database, server and worker, and prints the address. */
import { spawn } from 'node:child_process';
import { mkdirSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { ensureBuilt } from './build.mjs';
import { freePort, startCluster } from './database.mjs';
import { ensurePackages, ensurePrograms, root } from './system.mjs';

const children = new Set();
let cluster = null;
let stopping = false;

async function stop(code) {
  if (stopping) return;
  stopping = true;
  for (const child of children) child.kill('SIGTERM');
  await Promise.race([
    Promise.all([...children].map((child) => new Promise((done) => child.once('exit', done)))),
    new Promise((done) => setTimeout(done, 4000)),
  ]);
  for (const child of children) child.kill('SIGKILL');
  await cluster?.stop();
  process.exit(code);
}

/** The processes above this one; when one of them goes, so do we. */
function ancestors() {
  const parentOf = (id) => {
    try {
      return Number(
        readFileSync(`/proc/${id}/stat`, 'utf8')
          .replace(/^.*\) /s, '')
          .split(' ')[1],
      );
    } catch {
      return 0;
    }
  };
  const parent = parentOf(process.pid);
  return `${parent} ${parent > 1 ? parentOf(parent) : 0}`;
}

/** Runs a program and runs it again should it die. Resolves when it first says that it is ready. */
function keepRunning(file, args, env) {
  return new Promise((ready, failed) => {
    let deaths = 0;
    let wasReady = false;
    const run = () => {
      const child = spawn(process.execPath, ['--enable-source-maps', join(root, 'dist', 'node', file), ...args], {
        cwd: root,
        env: { ...process.env, ...env },
        stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
      });
      children.add(child);
      child.on('message', () => {
        wasReady = true;
        ready();
      });
      child.once('exit', (code, signal) => {
        children.delete(child);
        if (stopping) return;
        deaths += 1;
        if (deaths > (wasReady ? 20 : 2)) failed(new Error(`${file} keeps ending (${code ?? signal})`));
        else setTimeout(run, deaths > 3 ? 1000 : 100);
      });
    };
    run();
  });
}

async function main() {
  const home = resolve(process.env.TALLOW_HOME ?? join(root, '.tallow'));
  const fresh = process.argv.includes('--fresh-demo');
  const above = ancestors();
  setInterval(() => {
    if (ancestors() !== above) void stop(0);
  }, 500).unref();
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0));
  ensurePrograms();
  ensurePackages();
  ensureBuilt();
  mkdirSync(home, { recursive: true });
  const wished = Number(process.env.TALLOW_PORT ?? 4600);
  if (!Number.isInteger(wished) || wished < 1 || wished > 65535)
    throw new Error(`TALLOW_PORT must be a port from 1 to 65535, not ${process.env.TALLOW_PORT}.`);
  if (!process.env.DATABASE_URL) {
    cluster = await startCluster(home);
    void cluster.ended.then(() => {
      if (stopping) return;
      console.error('The database has ended. Stopping; start again with npm start.');
      void stop(1);
    });
  }
  const port = await freePort(wished);
  if (port !== wished) console.log(`Port ${wished} is taken; using ${port}.`);
  const env = {
    DATABASE_URL: process.env.DATABASE_URL || cluster.url,
    TALLOW_HOME: home,
    TALLOW_PORT: String(port),
    NODE_ENV: 'production',
  };
  await keepRunning('server.js', fresh ? ['--fresh-demo'] : [], env);
  keepRunning('worker.js', [], env).catch(fail);
  console.log(`Tallow is at http://localhost:${port}`);
}

function fail(error) {
  console.error(error.message);
  void stop(1);
}

main().catch(fail);
