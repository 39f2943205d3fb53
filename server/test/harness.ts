/** The server on a real database of its own, answering on loopback. */
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { Knex } from 'knex';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createApp } from '../app.ts';
import type { BackupPlace } from '../backup/place.ts';
import { migrate, openDatabase } from '../db/database.ts';

const script = (await import(join(import.meta.dirname, '..', '..', 'scripts', 'database.mjs'))) as {
  startCluster(home: string, options: { settings: string[] }): Promise<BackupPlace & { stop(): Promise<void> }>;
  restore(url: string, dump: string): void;
};

export interface Harness {
  readonly address: string;
  readonly database: Knex;
  readonly home: string;
  /** The cluster, as backups need to know it. */
  readonly place: BackupPlace;
  send(
    method: string,
    path: string,
    body?: unknown,
    headers?: Record<string, string>,
  ): Promise<{ status: number; json: never }>;
  stop(): Promise<void>;
}

interface Start {
  /** Connections to the database at most. */
  readonly connections?: number;
  /** A dump of an earlier database to begin with, beside this file. */
  readonly dump?: string;
}

export async function startServer({ connections, dump }: Start = {}): Promise<Harness> {
  const home = mkdtempSync(join(tmpdir(), 'tallow-server-'));
  chmodSync(home, 0o755);
  const cluster = await script.startCluster(home, { settings: ['fsync=off'] });
  if (dump) script.restore(cluster.url, join(import.meta.dirname, dump));
  process.env['DATABASE_URL'] = cluster.url;
  process.env['TALLOW_HOME'] = home;
  const database = openDatabase(cluster.url, connections);
  await migrate(database);
  const app: NestExpressApplication = await createApp(database);
  await app.listen(0, '127.0.0.1');
  const { port } = app.getHttpServer().address() as AddressInfo;
  const address = `http://127.0.0.1:${port}`;
  return {
    address,
    database,
    home,
    place: cluster,
    async send(method, path, body, headers = {}) {
      const response = await fetch(`${address}/api${path}`, {
        method,
        headers: { ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
        body: body === undefined ? null : typeof body === 'string' ? body : JSON.stringify(body),
      });
      const text = await response.text();
      return { status: response.status, json: (text ? JSON.parse(text) : null) as never };
    },
    async stop() {
      await app.close();
      await database.destroy();
      await cluster.stop();
      rmSync(home, { recursive: true, force: true });
    },
  };
}
