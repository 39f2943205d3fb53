/** What an archive of gigabytes takes in memory while it is written, fetched, handed in and read. `ARCHIVE_GB=2`. */
import { addPlate } from '@tallow/core/edit';
import type { ChildProcess } from 'node:child_process';
import { createHash, randomFillSync } from 'node:crypto';
import { createReadStream, createWriteStream, mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { crc32, deflateSync } from 'node:zlib';
import { openDatabase } from '../server/db/database.ts';
import { shotServices } from '../server/shots/services.ts';
import { newId, shotWith } from './documents.ts';
import type { Row } from './measure.ts';
import { ended, maxOf, PORT, started } from './programs.ts';

const GB = Number(process.env['ARCHIVE_GB'] ?? 2);
const GOAL_MB = 300;
/** A picture of noise, which no packing makes smaller: 43 MB. */
const [WIDTH, HEIGHT] = [4000, 3600] as const;

/** A PNG of noise (PNG, third edition, 11.2). */
function noise(): Buffer {
  const chunk = (name: string, data: Buffer): Buffer => {
    const whole = Buffer.alloc(12 + data.length);
    whole.writeUInt32BE(data.length);
    whole.write(name, 4, 'latin1');
    data.copy(whole, 8);
    whole.writeUInt32BE(crc32(whole.subarray(4, 8 + data.length)), 8 + data.length);
    return whole;
  };
  const rows = Buffer.alloc(HEIGHT * (1 + 3 * WIDTH));
  randomFillSync(rows);
  for (let y = 0; y < HEIGHT; y++) rows[y * (1 + 3 * WIDTH)] = 0;
  const head = Buffer.alloc(13);
  head.writeUInt32BE(WIDTH);
  head.writeUInt32BE(HEIGHT, 4);
  head.set([8, 2, 0, 0, 0], 8);
  const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  const pixels = deflateSync(rows, { level: 0 });
  return Buffer.concat([signature, chunk('IHDR', head), chunk('IDAT', pixels), chunk('IEND', Buffer.alloc(0))]);
}

interface Told {
  readonly id: string;
  readonly state: string;
  readonly trouble: string | null;
}
const api = (path: string, init?: RequestInit): Promise<Response> => fetch(`http://127.0.0.1:${PORT}/api${path}`, init);

/** @throws what the job says is wrong. */
async function finished({ id }: Told): Promise<void> {
  for (;;) {
    const { state, trouble } = (await (await api(`/archives/${id}`)).json()) as Told;
    if (trouble !== null) throw new Error(trouble);
    if (state === 'done') return;
    await new Promise((next) => setTimeout(next, 300));
  }
}

export async function archiveRows(): Promise<Row[]> {
  const url = process.env['DATABASE_URL'];
  if (!url) throw new Error('DATABASE_URL is not set; use npm run bench');
  const folder = mkdtempSync(join(tmpdir(), 'tallow-bench-archive-'));
  const path = join(folder, 'whole.zip');
  const rows: Row[] = [];
  const note = (what: string, program: ChildProcess): void => {
    const max = maxOf(program.pid!);
    rows.push({
      what: `${what} an archive of ${(statSync(path).size / 1024 ** 3).toFixed(1)} GB`,
      against: `${GOAL_MB} MB`,
      goal: 1,
      ratio: max / GOAL_MB,
      measured: `${Math.round(max)} MB`,
    });
  };
  const database = openDatabase(url);
  const both = async <T>(work: (server: ChildProcess, worker: ChildProcess) => Promise<T>): Promise<T> => {
    const programs = [await started('server.js'), await started('worker.js', 'asked')] as const;
    try {
      return await work(...programs);
    } finally {
      for (const each of programs) await ended(each);
    }
  };
  try {
    const production = newId();
    await both(async (server, worker) => {
      await database('productions').insert({ id: production, name: 'Large' });
      const assets: string[] = [];
      for (let bytes = 0; bytes < GB * 1024 ** 3;) {
        const content = noise();
        const sha256 = createHash('sha256').update(content).digest('hex');
        await database('assets').insert({ sha256, type: 'image/png', width: WIDTH, height: HEIGHT, content });
        assets.push(sha256);
        bytes += content.length;
      }
      const plate = { name: 'Noise', assets, width: WIDTH, height: HEIGHT };
      const { doc } = addPlate(shotWith(4), plate, newId);
      await shotServices(database).shots.insert(doc, production);
      const asked = await api('/archives', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ scope: 'shot', of: doc.shotId }),
      });
      const told = (await asked.json()) as Told;
      await finished(told);
      const file = await api(`/archives/${told.id}/file`);
      await pipeline(Readable.fromWeb(file.body as Parameters<typeof Readable.fromWeb>[0]), createWriteStream(path));
      note('worker, most while it writes', worker);
      note('server, most while it hands out', server);
    });
    // As on another machine: nothing of it is there.
    await database.raw('truncate shots, assets cascade');
    await both(async (server, worker) => {
      const answer = await api('/archives/in?name=whole.tallow.zip', {
        method: 'POST',
        headers: { 'content-type': 'application/octet-stream' },
        body: Readable.toWeb(createReadStream(path)) as BodyInit,
        duplex: 'half',
      } as RequestInit);
      if (!answer.ok) throw new Error(await answer.text());
      await finished((await answer.json()) as Told);
      note('server, most while it takes in', server);
      note('worker, most while it reads', worker);
    });
  } finally {
    await database.destroy();
    rmSync(folder, { recursive: true, force: true });
  }
  return rows;
}
