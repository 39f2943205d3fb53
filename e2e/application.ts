/** Starts and stops the parts of the application under test, each on its own so that each can be killed. */
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

interface Cluster {
  readonly url: string;
  readonly port: number;
  stop(): Promise<void>;
}
interface DatabaseScript {
  startCluster(home: string, options?: { port?: number; settings?: string[] }): Promise<Cluster>;
  freePort(wished: number): Promise<number>;
}

const root = join(import.meta.dirname, '..');
const script = (await import(join(root, 'scripts', 'database.mjs'))) as DatabaseScript;

export class Application {
  private server: ChildProcess | null = null;
  private worker: ChildProcess | null = null;
  private cards: ChildProcess | null = null;

  private constructor(
    readonly home: string,
    readonly port: number,
    private cluster: Cluster | null,
    readonly databaseUrl: string,
    private readonly demo: boolean,
  ) {}

  get address(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** A whole application in a folder of its own. @param demo whether the demo is built, for a quarter of a minute. */
  static async start({ demo = false } = {}): Promise<Application> {
    const home = mkdtempSync(join(tmpdir(), 'tallow-e2e-'));
    // The database's own user must be able to reach it.
    chmodSync(home, 0o755);
    const cluster = await script.startCluster(home);
    const application = new Application(home, await script.freePort(0), cluster, cluster.url, demo);
    await application.startServer();
    await application.startWorker();
    return application;
  }

  private async run(file: string, args: string[] = []): Promise<ChildProcess> {
    const env = {
      ...process.env,
      DATABASE_URL: this.databaseUrl,
      TALLOW_HOME: this.home,
      TALLOW_PORT: String(this.port),
      // What ships is laid for half a minute: tests bring what they need.
      TALLOW_SHELF: 'empty',
      TALLOW_DEMO: this.demo ? '' : 'empty',
    };
    const child = spawn(process.execPath, [join(root, 'dist', 'node', file), ...args], {
      cwd: root,
      env,
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    });
    await Promise.race([
      once(child, 'message'),
      once(child, 'exit').then(([code]) => {
        throw new Error(`${file} ended with ${String(code)} before it was ready`);
      }),
    ]);
    return child;
  }

  async startServer(...args: string[]): Promise<void> {
    this.server = await this.run('server.js', args);
  }

  async startWorker(): Promise<void> {
    this.worker = await this.run('worker.js', ['asked']);
    this.cards ??= await this.run('worker.js', ['cards']);
  }

  private async end(child: ChildProcess | null, signal: NodeJS.Signals): Promise<void> {
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const ended = once(child, 'exit');
    child.kill(signal);
    await ended;
  }

  /** Kills the server without warning. */
  killServer(): Promise<void> {
    return this.end(this.server, 'SIGKILL');
  }

  /** Kills the export worker without warning. */
  killWorker(): Promise<void> {
    return this.end(this.worker, 'SIGKILL');
  }

  async stopDatabase(): Promise<void> {
    await this.cluster?.stop();
    this.cluster = null;
  }

  async startDatabase(): Promise<void> {
    this.cluster = await script.startCluster(this.home, { port: Number(new URL(this.databaseUrl).port) });
  }

  async stop(): Promise<void> {
    await this.end(this.server, 'SIGTERM');
    await this.end(this.worker, 'SIGTERM');
    await this.end(this.cards, 'SIGTERM');
    await this.stopDatabase();
    rmSync(this.home, { recursive: true, force: true });
  }
}
