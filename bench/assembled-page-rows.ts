/** Rows of the assembled shot in the page, 3840x2160: playing it from what is kept, a use that is dragged, a video that is scrubbed. */
import { createCanvas } from '@napi-rs/canvas';
import { chromium, type Page } from '@playwright/test';
import {
  dropEntities,
  entitiesOf,
  newPlacement,
  newShotDocument,
  putEntities,
  shotOf,
  type Drawing,
  type Plate,
  type RunList,
  type ShotDocument,
} from '@tallow/core/document';
import { addElement, addLayer } from '@tallow/core/edit';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { Knex } from 'knex';
import { createHash } from 'node:crypto';
import type { AddressInfo } from 'node:net';
import { resolve } from 'node:path';
import { CHROMIUM, FLAGS } from '../e2e/chromium.ts';
import { createApp } from '../server/app.ts';
import { migrate, openDatabase } from '../server/db/database.ts';
import { shotServices } from '../server/shots/services.ts';
import { nightShift } from '../demo/night-shift.ts';
import { newId, wandering } from './documents.ts';
import { against, median, type Row } from './measure.ts';

const SIZE = { width: 3840, height: 2160 } as const;
const FRAMES = 24;
/** Uses in all, of elements, each of so many drawings on two layers. */
const [USES, ELEMENTS, DRAWINGS] = [12, 4, 6] as const;
/** A scrubbed video shows at least as often, ms. */
const SCRUB_MS = 100;
/** Frames of the screen in which a drag is to be seen. */
const DRAG_FRAMES = 2;

/** A cycle of 24 frames: uses of four painted elements out of step, before a video. */
function assembled(video: Plate, count: number): ShotDocument {
  const facts = { ...SIZE, rate: 24, length: FRAMES, background: '#101010' };
  let doc = newShotDocument(newId(), { name: 'Assembled', ...facts }, newId);
  for (let i = 1; i < ELEMENTS; i++) doc = addElement(doc, `E${i}`, 0, newId).doc;
  const swatch = shotOf(doc).swatches[0]!;
  for (const element of entitiesOf(doc, 'element')) {
    doc = addLayer(doc, element.id, 'L', 'body', null, newId).doc;
    doc = putEntities(doc, { ...element, ...doc.entities[element.id], time: 'cycle' } as typeof element);
    for (const layer of entitiesOf(doc, 'layer').filter(({ elementId }) => elementId === element.id)) {
      const made = Array.from({ length: DRAWINGS }, (): Drawing => {
        const marks = Array.from({ length: 12 }, () => wandering(swatch, 120));
        return {
          kind: 'drawing',
          id: newId(),
          marks: Object.fromEntries(marks.map((mark) => [mark.id, mark])),
          order: marks.map(({ id }) => id),
        };
      });
      const slots = made.map(({ id }) => [newId(), id] as const);
      const list = doc.entities[layer.runListId] as RunList;
      const runs = slots.map(([slot]) => ({ id: newId(), slot, length: 2 }));
      doc = putEntities(doc, ...made, { ...layer, slots: Object.fromEntries(slots) }, { ...list, runs });
    }
  }
  const elements = entitiesOf(doc, 'element');
  const uses = Array.from({ length: count }, (_, i) => ({
    ...newPlacement(elements[i % ELEMENTS]!.id, { start: 0, x: 900 + (i % 4) * 600, y: 600 + (i >> 2) * 450 }, newId),
    phase: i,
  }));
  const plane = entitiesOf(doc, 'plane')[0]!;
  doc = dropEntities(
    doc,
    entitiesOf(doc, 'placement').map(({ id }) => id),
  );
  const order = [...uses.map(({ id }) => id), video.id];
  return putEntities(doc, ...uses, video, { ...plane, placements: order });
}

/** 1920x1080 pictures that differ from frame to frame, kept as the server keeps what a video was taken apart into. */
async function video(database: Knex): Promise<Plate> {
  const [width, height] = [1920, 1080];
  const assets: string[] = [];
  for (let i = 0; i < FRAMES; i++) {
    const canvas = createCanvas(width, height);
    const context = canvas.getContext('2d');
    for (let k = 0; k < 200; k++) {
      context.fillStyle = `hsl(${(k * 37 + i * 9) % 360} 40% ${20 + (k % 40)}%)`;
      context.fillRect((k * 131 + i * 40) % width, (k * 71) % height, 260, 140);
    }
    const content = canvas.toBuffer('image/jpeg');
    const sha256 = createHash('sha256').update(content).digest('hex');
    await database('assets')
      .insert({ sha256, type: 'image/jpeg', width, height, content })
      .onConflict('sha256')
      .ignore();
    assets.push(sha256);
  }
  return {
    kind: 'plate',
    id: newId(),
    name: 'Video',
    assets,
    width,
    height,
    x: SIZE.width / 2,
    y: SIZE.height / 2,
    scale: 2,
    angle: 0,
    corners: null,
    opacity: 1,
    guide: false,
    beside: false,
    visible: true,
    locked: false,
    cut: null,
    span: null,
  };
}

const stands = (page: Page): Promise<unknown> =>
  page.waitForFunction(() => {
    const { wanted, shown } = document.querySelector<HTMLElement>('[data-testid=picture]')!.dataset;
    return shown !== undefined && wanted === shown;
  });

/** ms a frame of playing takes once all frames are kept. */
async function played(page: Page): Promise<number> {
  await page.keyboard.press('Space');
  await page.waitForTimeout(20_000);
  const reached: number[] = [];
  for (let i = 0; i < 8; i++) {
    reached.push(Number.parseFloat((await page.getByTestId('reached').textContent())!));
    await page.waitForTimeout(500);
  }
  await page.keyboard.press('Space');
  await stands(page);
  return 1000 / median(reached);
}

/** Frames of the screen from an event of the pen until the picture has changed, while a use is carried. */
async function dragged(page: Page): Promise<number> {
  await page.getByTestId('bar').first().click();
  await stands(page);
  const box = (await page.locator('[data-handle="Size"]').first().boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  // The parts it is shown in are made with the first move.
  await page.mouse.move(x + 12, y + 4, { steps: 3 });
  await page.waitForTimeout(2500);
  await page.evaluate(() => {
    const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=picture]')!;
    const small = Object.assign(document.createElement('canvas'), { width: 96, height: 54 });
    const context = small.getContext('2d', { willReadFrequently: true })!;
    const look = (): string => {
      context.drawImage(canvas, 0, 0, 96, 54);
      return context.getImageData(0, 0, 96, 54).data.join();
    };
    const frames: number[] = [];
    addEventListener(
      'pointermove',
      () => {
        const before = look();
        let count = 0;
        const next = () => {
          count += 1;
          if (look() !== before || count > 60) frames.push(count);
          else requestAnimationFrame(next);
        };
        requestAnimationFrame(next);
      },
      { capture: true },
    );
    Object.assign(window, { frames });
  });
  for (let i = 1; i <= 8; i++) {
    await page.mouse.move(x + 12 + i * 25, y + 4 + i * 9);
    await page.waitForTimeout(300);
  }
  await page.mouse.up();
  return median(await page.evaluate(() => (window as unknown as { frames: number[] }).frames));
}

/** ms from the playhead's being dragged to another frame until that frame shows, all frames unseen. */
async function scrubbed(page: Page): Promise<number> {
  const ruler = (await page.getByTestId('shot-ruler').boundingBox())!;
  const at = (frame: number) => [ruler.x + (ruler.width * (frame + 0.5)) / FRAMES, ruler.y + ruler.height / 2] as const;
  await page.mouse.move(...at(0));
  await page.mouse.down();
  await stands(page);
  const times: number[] = [];
  for (let frame = 1; frame < FRAMES; frame++) {
    const began = Date.now();
    await page.mouse.move(...at(frame));
    await stands(page);
    times.push(Date.now() - began);
  }
  await page.mouse.up();
  return median(times);
}

/** A page of the application with a database of its own, for as long as rows are measured. */
async function onPage<T>(
  work: (page: Page, address: string, production: string, database: Knex) => Promise<T>,
): Promise<T> {
  const url = process.env['DATABASE_URL'];
  if (!url) throw new Error('DATABASE_URL is not set; use npm run bench');
  const database = openDatabase(url);
  await migrate(database);
  const app: NestExpressApplication = await createApp(database, resolve('dist/web'));
  await app.listen(0, '127.0.0.1');
  const address = `http://127.0.0.1:${(app.getHttpServer().address() as AddressInfo).port}`;
  const production = newId();
  await database('productions').insert({ id: production, name: 'Assembled' });
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: FLAGS });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  try {
    return await work(page, address, production, database);
  } finally {
    await browser.close();
    await app.close();
    await database.destroy();
  }
}

/** How often a light is changed, and how often in all; the first turn of the shot ends after so many. */
const [MOVE_MS, MOVES, TURN] = [250, 100, 40] as const;

/** Frames a second that the demo shot plays at, at half size, while a light of it is changed four times a second: nothing that was kept is of use. */
export const lightPageRows = (): Promise<Row[]> =>
  onPage(async (page, address, production, database) => {
    const doc = nightShift();
    await shotServices(database).shots.insert(doc, production);
    await page.goto(`${address}/shots/${doc.shotId}/assemble`);
    await page.waitForSelector('[data-testid=picture][data-shown]');
    await page.waitForLoadState('networkidle');
    await page.getByRole('button', { name: 'Firelight' }).press('Enter');
    const strength = page.getByTestId('light-panel').getByLabel('Strength', { exact: true });
    await page.keyboard.press('Space');
    await page.getByRole('button', { name: 'What is heavy' }).click({ timeout: 20_000 });
    await page.getByRole('menuitemcheckbox', { name: 'Play at half size' }).click();
    await page.keyboard.press('Escape');
    await page.waitForTimeout(5000);
    const reached: number[] = [];
    for (let i = 0; i < MOVES; i++) {
      await strength.press(i % 2 === 0 ? 'ArrowRight' : 'ArrowLeft');
      await page.waitForTimeout(MOVE_MS);
      reached.push(Number.parseFloat((await page.getByTestId('reached').textContent()) ?? '0'));
    }
    await page.keyboard.press('Space');
    const row = (when: string, list: readonly number[]) =>
      against(
        `a frame of Night shift played at half size while a light of it is changed, ${when}`,
        1000 / median(list),
        1000 / 12,
      );
    // The playhead says twice a second what was reached: not before it has.
    return [row('first turn', reached.slice(4, TURN)), row('later turns', reached.slice(TURN))];
  });

export async function assembledPageRows(): Promise<Row[]> {
  return onPage(async (page, address, production, database) => {
    const plate = await video(database);
    const open = async (count: number) => {
      const doc = assembled({ ...plate, id: newId() }, count);
      await shotServices(database).shots.insert(doc, production);
      await page.goto(`${address}/shots/${doc.shotId}/assemble`);
      await page.waitForSelector('[data-testid=picture][data-shown]');
      await page.waitForLoadState('networkidle');
    };
    await open(1);
    const alone = await scrubbed(page);
    await open(USES);
    const scrub = await scrubbed(page);
    const frame = await played(page);
    const drag = await dragged(page);
    return [
      against('a 1080p video scrubbed under one use, 3840x2160, until a frame shows', alone, SCRUB_MS),
      against(`a 1080p video scrubbed under ${USES} uses, 3840x2160, until a frame shows`, scrub, SCRUB_MS),
      against(`a frame of play of ${USES} uses before a video, 3840x2160, once kept`, frame, 1000 / 24),
      {
        what: 'a use that is dragged, 3840x2160, until the picture shows it',
        against: `${DRAG_FRAMES} frames of the screen`,
        goal: 1,
        ratio: drag / DRAG_FRAMES,
        measured: `${drag} frames`,
      },
    ];
  });
}
