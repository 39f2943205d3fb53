/** Rows about memory: what page, server and worker take in a shot of 960 drawings against a shot of 8. */
import type { Id } from '@tallow/core/document';
import { chromium, type Browser } from '@playwright/test';
import { CHROMIUM, FLAGS } from '../e2e/chromium.ts';
import { openDatabase } from '../server/db/database.ts';
import { LOOP_QUEUE, openQueue } from '../server/queue/queue.ts';
import { shotServices } from '../server/shots/services.ts';
import { newId } from './documents.ts';
import { grown, SIZES } from './growing.ts';
import type { Row } from './measure.ts';
import { ended, maxOf, PORT, started } from './programs.ts';

const GOAL = 1.2;
/** What was read back stays at hand for 20 s. */
const REST_MS = 25_000;
/** What the page has at hand of drawings at most, and what is left of one that lies aside: where it is shown, and what is known of it. */
const AT_HAND_MB = 64;
const ASIDE_MB = 0.02;

/** The processes that run pages. */
async function renderers(browser: Browser): Promise<number[]> {
  const session = await browser.newBrowserCDPSession();
  const { processInfo } = await session.send('SystemInfo.getProcessInfo');
  await session.detach();
  return processInfo.filter(({ type }) => type === 'renderer').map(({ id }) => id);
}

/** The page after a turn and a stroke: all its threads and pictures together, and what its own script holds, MB. */
async function pageMemory(browser: Browser, shotId: Id, turnMs: number): Promise<{ whole: number; script: number }> {
  const before = new Set(await renderers(browser));
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`http://127.0.0.1:${PORT}/shots/${shotId}/draw`);
  await page.waitForSelector('[data-testid=picture][data-shown]');
  await page.waitForLoadState('networkidle', { timeout: 180_000 });
  await page.keyboard.press('Space');
  await page.waitForTimeout(turnMs + 2000);
  await page.keyboard.press('Space');
  // What was played is put aside again.
  await page.waitForTimeout(REST_MS);
  const pids = (await renderers(browser)).filter((pid) => !before.has(pid));
  const whole = Math.max(...pids.map(maxOf));
  const session = await page.context().newCDPSession(page);
  await session.send('HeapProfiler.collectGarbage');
  const heap = (await session.send('Runtime.getHeapUsage')) as { usedSize: number; backingStorageSize?: number };
  await page.close();
  return { whole, script: (heap.usedSize + (heap.backingStorageSize ?? 0)) / 1024 / 1024 };
}

interface Memory {
  readonly drawings: number;
  readonly whole: number;
  readonly script: number;
  readonly server: number;
  readonly worker: number;
}

async function memoryOf(drawings: number, browser: Browser, url: string): Promise<Memory> {
  const database = openDatabase(url);
  const queue = await openQueue(url, () => undefined);
  const server = await started('server.js');
  const doc = grown(drawings);
  const production = newId();
  await database('productions').insert({ id: production, name: `Memory ${drawings}` });
  await shotServices(database).shots.insert(doc, production);
  const turnMs = (drawings / 8) * 2 * (1000 / 24);
  const page = await pageMemory(browser, doc.shotId, turnMs);
  // The demo's own loops would come first.
  await queue.purgeQueue(LOOP_QUEUE);
  const worker = await started('worker.js', 'cards');
  await queue.send(LOOP_QUEUE, { shotId: doc.shotId }, { singletonKey: doc.shotId });
  while (!(await database('loops').where({ shot_id: doc.shotId }).first()))
    await new Promise((next) => setTimeout(next, 200));
  const memory = { drawings, ...page, server: maxOf(server.pid!), worker: maxOf(worker.pid!) };
  await ended(worker);
  await ended(server);
  await queue.stop({ graceful: false });
  await database.destroy();
  return memory;
}

export async function memoryRows(): Promise<Row[]> {
  const url = process.env['DATABASE_URL'];
  if (!url) throw new Error('DATABASE_URL is not set; use npm run bench');
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: FLAGS });
  const measured: Memory[] = [];
  for (const size of SIZES) measured.push(await memoryOf(size, browser, url));
  await browser.close();
  const small = measured[0]!;
  const MB = (value: number) => `${Math.round(value)} MB`;
  return measured.slice(1).flatMap((large): Row[] => {
    const row = (what: string, now: number, before: number): Row => ({
      what: `${what}, ${large.drawings} drawings`,
      against: `the same in ${small.drawings}`,
      goal: GOAL,
      ratio: now / before,
      measured: `${MB(now)}, ${MB(before)}`,
    });
    const more = AT_HAND_MB + large.drawings * ASIDE_MB;
    return [
      row('server, most while it opens', large.server, small.server),
      row('worker, most while it makes the loop', large.worker, small.worker),
      {
        what: `what the page holds more, ${large.drawings} drawings`,
        against: `${AT_HAND_MB} MB and ${ASIDE_MB} MB a drawing`,
        goal: 1,
        ratio: (large.script - small.script) / more,
        measured: `${MB(large.script)}, ${MB(small.script)}; its process with painters and pictures ${MB(large.whole)}, ${MB(small.whole)}`,
      },
    ];
  });
}
