/** Rows about growing shots: what an edit, a step and opening cost in a shot of 960 drawings against the same frame in a shot of 8. */
import { chromium, type Page } from '@playwright/test';
import { shotOf, type Shot } from '@tallow/core/document';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { AddressInfo } from 'node:net';
import { resolve } from 'node:path';
import { CHROMIUM, FLAGS } from '../e2e/chromium.ts';
import { createApp } from '../server/app.ts';
import { migrate, openDatabase } from '../server/db/database.ts';
import { shotServices } from '../server/shots/services.ts';
import { newId } from './documents.ts';
import { grown, SIZES } from './growing.ts';
import { median, type Row } from './measure.ts';

/** A task of the main thread as long as this is felt. */
const LONG_MS = 50;
const GOAL = 1.2;
const ROUNDS = 3;
/** ms after which a shot must have come in. */
const ALL_CAME_MS = 240_000;

const taskText = (ms: number): string => (ms > LONG_MS ? `${Math.round(ms)} ms` : 'under 50 ms');

type Figures = Record<string, { readonly ms: number; readonly longest: number }>;

/** What runs in the page before anything else: keeps the longest task of the main thread. */
function watchTasks(): void {
  const kept = { longest: 0 };
  const events: number[] = [];
  Object.assign(window, { tasks: kept, events });
  let began = 0;
  addEventListener('pointermove', () => (began = performance.now()), { capture: true });
  addEventListener('pointermove', () => events.push(performance.now() - began));
  new PerformanceObserver((list) => {
    for (const { duration } of list.getEntries()) kept.longest = Math.max(kept.longest, duration);
  }).observe({ type: 'longtask', buffered: true });
}

const longest = (page: Page): Promise<number> =>
  page.evaluate(() => {
    const { tasks } = window as unknown as { tasks: { longest: number } };
    const { longest: max } = tasks;
    tasks.longest = 0;
    return max;
  });

/** Key presses by name. The steps go frame by frame within the first hold: there the shots are the same. */
const PRESSES = {
  step: { code: 'KeyD', shiftKey: true },
  back: { code: 'KeyA', shiftKey: true },
  undo: { code: 'KeyZ', ctrlKey: true },
} as const;
type Press = keyof typeof PRESSES;

/** Presses a key in the page and waits until the picture shows what it did; ms. */
async function untilShown(page: Page, press: Press): Promise<number> {
  await page.evaluate(watchPicture);
  await page.evaluate((init) => {
    const event = { ...init, key: init.code, bubbles: true };
    window.dispatchEvent(new KeyboardEvent('keydown', event));
    window.dispatchEvent(new KeyboardEvent('keyup', event));
  }, PRESSES[press]);
  return settledMs(page);
}

/** Runs in the page: keeps when the next key or the pen comes, and when the picture has been drawn after it. */
function watchPicture(): void {
  const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=picture]')!;
  const before = canvas.dataset['wanted'];
  const settled = new Promise<number>((done) => {
    let began = performance.now();
    const begins = () => {
      began = performance.now();
    };
    for (const type of ['keydown', 'pointerup']) window.addEventListener(type, begins, { capture: true, once: true });
    // As soon as the page says so, not at the next frame of the screen: that would count in steps of 17 ms.
    const look = () => {
      const { wanted, shown } = canvas.dataset;
      if (wanted === before || wanted !== shown) return;
      end();
    };
    const observer = new MutationObserver(look);
    const end = () => {
      observer.disconnect();
      done(performance.now() - began);
    };
    observer.observe(canvas, { attributes: true, attributeFilter: ['data-wanted', 'data-shown'] });
    setTimeout(end, 20_000);
  });
  Object.assign(window, { settled });
}

/** Runs in the page: keeps how long after the next pen-up the header says that all is saved. */
function watchSaving(): void {
  const mark = document.querySelector('[data-testid=saved]')!;
  const isSaved = () => mark.textContent === 'Saved';
  const saved = new Promise<number>((done) => {
    const begins = () => {
      const began = performance.now();
      let sent = false;
      const look = () => {
        sent ||= !isSaved();
        if (sent && isSaved()) done(performance.now() - began);
        else requestAnimationFrame(look);
      };
      look();
    };
    window.addEventListener('pointerup', begins, { capture: true, once: true });
  });
  Object.assign(window, { saved });
}

const settledMs = (page: Page): Promise<number> =>
  page.evaluate(() => (window as unknown as { settled: Promise<number> }).settled);

/** One stroke: ms that an event of the pen takes, and from pen-up until the picture has it. */
async function drawn(page: Page, y: number): Promise<{ event: number; settled: number }> {
  const box = (await page.getByTestId('picture').boundingBox())!;
  const at = (i: number) => [box.x + 160 + i * 6, box.y + y + 30 * Math.sin(i / 9)] as const;
  await page.mouse.move(...at(0));
  await page.mouse.down();
  await page.evaluate(() => {
    const { events } = window as unknown as { events: number[] };
    events.length = 0;
  });
  for (let i = 1; i < 60; i++) await page.mouse.move(...at(i));
  await page.evaluate(watchPicture);
  await page.mouse.up();
  return {
    settled: await settledMs(page),
    event: median(await page.evaluate(() => (window as unknown as { events: number[] }).events)),
  };
}

/** Waits until the picture and everything around it has been at rest for a second. */
async function atRest(page: Page): Promise<void> {
  await page.evaluate(async () => {
    const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=picture]')!;
    for (let rest = 0, last = ''; rest < 5;) {
      await new Promise((done) => setTimeout(done, 200));
      const now = `${canvas.dataset['wanted']}/${canvas.dataset['shown']}`;
      rest = now === last && canvas.dataset['wanted'] === canvas.dataset['shown'] ? rest + 1 : 0;
      last = now;
    }
  });
}

/** Counts the drawings that come into the page. */
function arrivals(page: Page): { of: (count: number) => Promise<void>; fromHere: () => void } {
  let came = 0;
  page.on('requestfinished', (request) => {
    came += new URL(request.url()).searchParams.get('ids')?.split(',').length ?? 0;
  });
  return {
    fromHere: () => {
      came = 0;
    },
    of: async (count) => {
      const late = Date.now() + ALL_CAME_MS;
      while (came < count) {
        if (Date.now() > late) throw new Error(`${came} of ${count} drawings came in`);
        await page.waitForTimeout(200);
      }
    },
  };
}

async function figuresOf(page: Page, address: string, { id, length, rate }: Shot, drawings: number): Promise<Figures> {
  const figures: Record<string, { ms: number; longest: number }> = {};
  const note = async (name: string, ms: number) => {
    figures[name] = { ms, longest: await longest(page) };
  };
  const come = arrivals(page);
  const opened: number[] = [];
  const opening: number[] = [];
  for (let i = 0; i < 3; i++) {
    await page.goto('about:blank');
    come.fromHere();
    const began = Date.now();
    await page.goto(`${address}/shots/${id}/draw`);
    await page.waitForSelector('[data-testid=picture][data-shown]');
    await untilShown(page, 'step');
    opened.push(Date.now() - began);
    opening.push(await longest(page));
  }
  figures['opening to the first step'] = { ms: median(opened), longest: median(opening) };
  // The rest of the shot comes in meanwhile.
  await come.of(drawings);
  // The smallest shot has one drawing a layer and so no neighbours: with the onion skin the pictures would not be the same.
  await page.getByTestId('picture').focus();
  await page.keyboard.press('KeyW');
  // A long cycle is seen unrolled: so is the short one.
  await page.getByRole('button', { name: 'Straight', exact: true }).click();
  await page.waitForTimeout(8000);
  await longest(page);
  const events: number[] = [];
  const settled: number[] = [];
  for (let i = 0; i < 9; i++) {
    const { event, settled: ms } = await drawn(page, 120 + 24 * i);
    events.push(event);
    settled.push(ms);
    await atRest(page);
  }
  const tasks = await longest(page);
  figures['pen event'] = { ms: median(events), longest: tasks };
  figures['pen-up to settled'] = { ms: median(settled), longest: tasks };
  const times = async (act: Press, rounds: number) => {
    const list: number[] = [];
    for (let i = 0; i < rounds; i++) {
      list.push(await untilShown(page, act));
      await atRest(page);
    }
    return median(list);
  };
  await note('undo', await times('undo', 9));
  const steps: number[] = [];
  for (let i = 0; i < 7; i++) steps.push(await times('back', 1), await times('step', 1));
  await note('step', median(steps));
  const switched: number[] = [];
  for (const nth of [1, 2, 3, 4]) {
    await page.evaluate(watchPicture);
    await page.evaluate((row) => {
      const layer = document.querySelectorAll('[data-testid=layer]')[row]!;
      const button = layer.querySelector<HTMLElement>('button[aria-pressed]')!;
      button.dispatchEvent(new PointerEvent('pointerup', { bubbles: true }));
      button.click();
    }, nth);
    switched.push(await settledMs(page));
    await atRest(page);
  }
  await note('layer switch', median(switched));
  const saved: number[] = [];
  for (let i = 0; i < 9; i++) {
    await page.evaluate(watchSaving);
    await drawn(page, 300 + 20 * i);
    saved.push(await page.evaluate(() => (window as unknown as { saved: Promise<number> }).saved));
    await atRest(page);
  }
  await note('pen-up until it is saved', median(saved));
  await page.keyboard.press('Space');
  // A turn is over when each of its frames has been drawn: how long that takes hangs on how many there are.
  await page.locator(`[data-ready="0-${length}"]`).waitFor({ state: 'attached', timeout: 120_000 });
  await page.waitForTimeout((length / rate) * 1000 + 1000);
  await longest(page);
  const reached: number[] = [];
  for (let i = 0; i < 8; i++) {
    reached.push(Number.parseFloat((await page.getByTestId('hub-under').textContent())!));
    await page.waitForTimeout(600);
  }
  await note('a frame of play after one turn', 1000 / median(reached));
  await page.keyboard.press('Space');
  return figures;
}

/** The medians of several rounds. */
const medians = (rounds: readonly Figures[]): Figures =>
  Object.fromEntries(
    Object.keys(rounds[0] ?? {}).map((name) => [
      name,
      {
        ms: median(rounds.map((figures) => figures[name]!.ms)),
        longest: median(rounds.map((figures) => figures[name]!.longest)),
      },
    ]),
  );

export async function growthRows(): Promise<Row[]> {
  const url = process.env['DATABASE_URL'];
  if (!url) throw new Error('DATABASE_URL is not set; use npm run bench');
  const database = openDatabase(url);
  await migrate(database);
  const app: NestExpressApplication = await createApp(database, resolve('dist/web'));
  await app.listen(0, '127.0.0.1');
  const address = `http://127.0.0.1:${(app.getHttpServer().address() as AddressInfo).port}`;
  const production = newId();
  await database('productions').insert({ id: production, name: 'Growth' });
  const { shots } = shotServices(database);
  // The document itself is let go of: the server that is measured along with the page keeps none, and clearing up after
  // its hundreds of thousands of columns takes a core for a while.
  const insert = async (size: number): Promise<Shot> => {
    const doc = grown(size);
    await shots.insert(doc, production);
    return shotOf(doc);
  };
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: FLAGS });
  const rounds: Figures[][] = SIZES.map(() => []);
  // By turns: a machine that is slower for a while is so for all of them.
  for (let round = 0; round < ROUNDS; round++)
    for (const [i, size] of SIZES.entries()) {
      const shot = await insert(size);
      globalThis.gc?.();
      const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
      await page.addInitScript(watchTasks);
      rounds[i]!.push(await figuresOf(page, address, shot, size));
      await page.close();
    }
  const measured = rounds.map(medians);
  await browser.close();
  await app.close();
  await database.destroy();
  const [small] = measured;
  return measured.slice(1).flatMap((figures, i) =>
    Object.entries(figures).map(([name, { ms, longest: task }]): Row => {
      const before = small![name]!;
      return {
        what: `${name}, ${SIZES[i + 1]} drawings`,
        against: `the same in ${SIZES[0]}`,
        goal: GOAL,
        ratio: ms / before.ms,
        measured: `${ms.toPrecision(3)} ms, ${before.ms.toPrecision(3)} ms; longest task ${taskText(task)}, ${taskText(before.longest)}`,
      };
    }),
  );
}
