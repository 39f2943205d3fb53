/** Starts Tallow: installs what is missing, runs the database, server and worker, and prints the address. */
import { mkdirSync, readFileSync } from 'node:fs';
import { accessToken } from './access.mjs';
import { backupFolder, backupNow, backUpDaily } from './backups.mjs';
import { ensureBuilt } from './build.mjs';
import { startCluster } from './database.mjs';
import { homeOf } from './home.mjs';
import { keepRunning } from './keep-running.mjs';
import { pagePort } from './page-port.mjs';
import { closeHome } from './private-home.mjs';
import { startProgram } from './program.mjs';
import { ensurePackages, ensurePrograms } from './system.mjs';

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

async function main() {
  const home = homeOf();
  const fresh = process.argv.includes('--fresh-demo');
  const above = ancestors();
  setInterval(() => {
    if (ancestors() !== above) void stop(0);
  }, 500).unref();
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0));
  const wished = Number(process.env.TALLOW_PORT ?? 4600);
  if (!Number.isInteger(wished) || wished < 1 || wished > 65535)
    throw new Error(`TALLOW_PORT must be a port from 1 to 65535, not ${process.env.TALLOW_PORT}.`);
  ensurePrograms();
  ensurePackages();
  ensureBuilt();
  mkdirSync(home, { recursive: true, mode: 0o700 });
  closeHome(home);
  const token = accessToken(home);
  const watch = { home, isStopping: () => stopping };
  if (!process.env.DATABASE_URL) {
    await keepRunning(
      'The database',
      async () => {
        // Server and worker find it again where it was.
        cluster = await startCluster(home, { port: cluster?.port ?? 0 });
        return cluster;
      },
      watch,
    );
  }
  const backups = process.env.DATABASE_URL ? null : backupFolder(home);
  if (backups && !backupNow(cluster, ['before-upgrade', backups]).isDone)
    throw new Error(
      'The backup before the upgrade could not be written; nothing was upgraded. TALLOW_BACKUPS=off goes on without.',
    );
  const port = await pagePort(wished, process.argv.includes('--wait-for-port'));
  const env = {
    DATABASE_URL: process.env.DATABASE_URL || cluster.url,
    TALLOW_HOME: home,
    TALLOW_PORT: String(port),
    // Not as an argument: those can be read by everybody on the machine.
    TALLOW_ACCESS_TOKEN: token ?? '',
    NODE_ENV: 'production',
  };
  let demo = fresh ? ['--fresh-demo'] : [];
  await keepRunning(
    'The server',
    async () => {
      const running = await startProgram('server.js', demo, env, children);
      demo = [];
      return running;
    },
    watch,
  );
  for (const [name, work] of [
    ['The worker', 'asked'],
    ['The worker for cards', 'cards'],
  ])
    void keepRunning(name, () => startProgram('worker.js', [work], env, children), watch).catch(fail);
  if (backups) backUpDaily(() => cluster, backups, children);
  console.log(`Tallow is at http://localhost:${port}${token ? `/?token=${token}` : ''}`);
}

function fail(error) {
  if (stopping) return;
  if (!error.isSaid) console.error(error.message);
  void stop(1);
}

main().catch(fail);
