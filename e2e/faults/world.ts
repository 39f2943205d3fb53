/** The application on a small disk of its own, kept running as the start command does, and everything that can befall it. */
import { spawnSync, type ChildProcess } from 'node:child_process';
import { chmodSync, closeSync, mkdirSync, mkdtempSync, openSync, rmSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { running } from '../processes.ts';

interface Ended {
  readonly ended: Promise<{ how: string; words: string }>;
}
interface Cluster extends Ended {
  readonly url: string;
  readonly port: number;
  readonly process: ChildProcess;
  stop(): Promise<void>;
}
interface Scripts {
  keepRunning(name: string, start: () => Promise<Ended>, options: object): Promise<void>;
  startCluster(home: string, options: object): Promise<Cluster>;
  freePort(wished: number): Promise<number>;
  startProgram(
    file: string,
    args: string[],
    env: object,
    children: Set<ChildProcess>,
    quiet: boolean,
  ): Promise<Ended & { process: ChildProcess }>;
}
const folder = join(import.meta.dirname, '..', '..', 'scripts');
const load = async (name: string) => (await import(join(folder, name))) as Scripts;
const { keepRunning } = await load('keep-running.mjs');
const { startCluster, freePort } = await load('database.mjs');
const { startProgram } = await load('program.mjs');

/** MB of the small disk: enough for the database, a browser's profile and little more. */
const DISK_MB = 700;
/** Written at a time while it is filled, bytes. */
const FILL_BYTES = 1 << 20;

export type Victim = 'server' | 'worker' | 'backend' | 'postmaster';

export class World {
  private readonly children = new Set<ChildProcess>();
  private readonly programs = new Map<'server' | 'worker', ChildProcess>();
  private cluster: Cluster | null = null;
  private stopping = false;
  readonly said: string[] = [];

  private constructor(
    readonly home: string,
    readonly port: number,
    /** Whether the disk is one of its own, so that it can be filled. */
    readonly ownDisk: boolean,
  ) {}

  get address(): string {
    return `http://127.0.0.1:${this.port}`;
  }
  get profile(): string {
    return join(this.home, 'profile');
  }

  static async start(): Promise<World> {
    const home = mkdtempSync(join(tmpdir(), 'tallow-faults-'));
    // Only root can; elsewhere everything but the full disk is tried.
    const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${DISK_MB}m`, 'tmpfs', home]).status === 0;
    chmodSync(home, 0o755);
    const world = new World(home, await freePort(0), mounted);
    mkdirSync(world.profile);
    const options = {
      home,
      isStopping: () => world.stopping,
      say: (line: string) => world.said.push(line),
      // Many deaths are the point here: waits stay short.
      quiet: 300,
    };
    const settings = ['max_wal_size=64MB', 'min_wal_size=32MB'];
    await keepRunning(
      'The database',
      async () => {
        world.cluster = await startCluster(home, { port: world.cluster?.port ?? 0, settings, say: options.say });
        return world.cluster;
      },
      options,
    );
    const env = {
      ...{ DATABASE_URL: world.cluster!.url, TALLOW_HOME: home, TALLOW_PORT: String(world.port) },
      ...{ TALLOW_SHELF: 'empty', TALLOW_DEMO: 'empty' },
    };
    for (const name of ['server', 'worker'] as const)
      await keepRunning(
        `The ${name}`,
        async () => {
          const started = await startProgram(
            `${name}.js`,
            name === 'worker' ? ['asked'] : [],
            env,
            world.children,
            true,
          );
          world.programs.set(name, started.process);
          return started;
        },
        options,
      );
    return world;
  }

  /** Kills a part without warning. @returns whether it was there to be killed. */
  kill(victim: Victim): boolean {
    const postmaster = this.cluster?.process.pid;
    const id =
      victim === 'server' || victim === 'worker'
        ? this.programs.get(victim)?.pid
        : victim === 'postmaster'
          ? postmaster
          : running().find(({ parent, words }) => parent === postmaster && / tallow tallow /.test(words))?.id;
    if (id === undefined) return false;
    try {
      process.kill(id, 'SIGKILL');
      return true;
    } catch {
      return false;
    }
  }

  /** The browser's own process, by its profile. */
  killBrowser(): boolean {
    const own = running().find(({ words }) => words.includes(this.profile) && !words.includes('--type='));
    if (!own) return false;
    process.kill(own.id, 'SIGKILL');
    return true;
  }

  /** Fills what is left of it; called again, what has become free since. */
  fillDisk(): void {
    const zeros = Buffer.alloc(FILL_BYTES);
    const file = openSync(join(this.home, 'filler'), 'a');
    try {
      for (;;) if (writeSync(file, zeros) < zeros.length) break;
    } catch {
      // It is full.
    } finally {
      closeSync(file);
    }
  }
  freeDisk(): void {
    rmSync(join(this.home, 'filler'), { force: true });
  }

  async isWell(): Promise<boolean> {
    return fetch(`${this.address}/api/health`).then(
      (response) => response.ok,
      () => false,
    );
  }

  /** Every drawing body that was ever stored, with the revision it came with and whether the drawing was deleted then. */
  async everyDrawing(): Promise<{ id: string; revision: number; deleted: boolean; body: unknown }[]> {
    const database = new pg.Client(this.cluster!.url);
    await database.connect();
    const { rows } = await database.query<{ id: string; revision: number; deleted: boolean; body: unknown }>(
      `select id, revision, deleted, body from entities where kind = 'drawing' union all
       select o.id, o.revision, o.deleted, o.body from older_bodies o join entities e using (id) where e.kind = 'drawing'
       order by 1, 2`,
    );
    await database.end();
    return rows;
  }

  /** What has become of some drawings, revision by revision, and which tab did it. */
  async historyOf(ids: readonly string[]): Promise<string[]> {
    const database = new pg.Client(this.cluster!.url);
    await database.connect();
    const { rows } = await database.query(
      `select e.id, e.revision, e.deleted, s.tab, s.seq from (
         select id, revision, deleted, shot_id from entities union all
         select id, revision, deleted, shot_id from older_bodies) e
       left join saves s on s.shot_id = e.shot_id and s.revision = e.revision
       where e.id = any($1::uuid[]) order by e.id, e.revision`,
      [ids],
    );
    await database.end();
    return rows.map((row) => JSON.stringify(row));
  }

  async stop(): Promise<void> {
    this.stopping = true;
    this.freeDisk();
    for (const child of this.children) child.kill('SIGKILL');
    await this.cluster?.stop().catch(() => undefined);
    if (this.ownDisk) spawnSync('umount', ['-l', this.home]);
    rmSync(this.home, { recursive: true, force: true });
  }
}
