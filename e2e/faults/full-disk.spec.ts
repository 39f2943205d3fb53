/**
 * A disk that was full once: from then on this browser's store must keep what it says it keeps, also over the browser's
 * end. (Chromium's acknowledges writes that it has lost by its next start, unless it is rinsed: web/saving/rinse.ts.)
 */
import { expect, test, type Page } from '@playwright/test';
import { makeShot, marksOf, openDesk, Pen, saved } from '../desk.ts';
import { Browser } from './browser.ts';
import { placeOf } from './tally.ts';
import { World } from './world.ts';

const stroke = (pen: Pen, number: number): Promise<void> => {
  const from = placeOf(number * 7);
  return pen.stroke(from, { x: from.x + 0.02, y: from.y + 0.02 }, 4);
};
const keptHere = (page: Page) => expect(page.getByTestId('saved')).toHaveAttribute('data-tip', /kept in this browser/);

/** How many marks the drawings have that this browser's store holds. */
const marksInStore = (page: Page): Promise<number> =>
  page.evaluate(
    () =>
      new Promise<number>((done) => {
        const opening = indexedDB.open('tallow');
        opening.onsuccess = () => {
          const database = opening.result;
          const reading = database.transaction('pending').objectStore('pending').getAll();
          reading.onsuccess = () => {
            const records = reading.result as { entity: { order?: unknown[] } | null }[];
            done(records.reduce((sum, { entity }) => sum + (entity?.order?.length ?? 0), 0));
            database.close();
          };
        };
      }),
  );

test('strokes drawn after the disk was full outlive the browser', async () => {
  test.setTimeout(180_000);
  const world = await World.start();
  const browser = new Browser(world.profile, () => world.killBrowser());
  try {
    test.skip(!world.ownDisk, 'Only root can make a small disk.');
    const shot = await makeShot(world.address);
    const context = await browser.open();
    const page = await context.newPage();
    await openDesk(page, world.address, shot);
    const pen = await Pen.on(page);
    await stroke(pen, 0);
    await saved(page);
    await context.route('**/saves', (route) => route.abort());
    await stroke(pen, 1);
    await keptHere(page);
    let drawn = 2;
    // Caches and logs on the same disk may make room again.
    await expect(async () => {
      world.fillDisk();
      await stroke(pen, drawn);
      drawn += 1;
      await expect(page.getByTestId('saved')).toHaveText('Only in this page', { timeout: 2000 });
    }).toPass();
    world.freeDisk();
    await keptHere(page);
    for (let i = 0; i < 2; i++, drawn++) await stroke(pen, drawn);
    await expect.poll(() => marksInStore(page)).toBe(drawn);
    await keptHere(page);
    world.killBrowser();
    await browser.close();
    const again = await (await browser.open()).newPage();
    await openDesk(again, world.address, shot);
    await saved(again);
    await expect.poll(async () => (await marksOf(world.address, shot)).length).toBe(drawn);
  } finally {
    await browser.close();
    await world.stop();
  }
});
