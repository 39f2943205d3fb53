import { expect, test } from '@playwright/test';
import { Application } from './application.ts';
import { makeShot, openDesk, painted, Pen, pixels, saved, storedMarks } from './desk.ts';

let application: Application;
test.beforeAll(async () => {
  application = await Application.start();
});
test.afterAll(() => application.stop());

const line = (i: number) => [{ x: 0.3, y: 0.3 + i * 0.05 }, { x: 0.7, y: 0.32 + i * 0.05 }, 8] as const;

test('the server killed between strokes: drawing goes on, and after a restart every stroke is there, once', async ({
  page,
}) => {
  const shot = await makeShot(application.address);
  await openDesk(page, application.address, shot);
  const pen = await Pen.on(page);
  await pen.stroke(...line(0));
  await saved(page);
  await application.killServer();
  await pen.stroke(...line(1));
  await expect(page.getByTestId('saved')).toHaveText('Not saved yet');
  await expect(page.getByTestId('saved')).toHaveAttribute('data-tip', /kept in this browser/);
  await pen.stroke(...line(2));
  await application.startServer();
  await saved(page);
  expect(await storedMarks(application.address, shot)).toEqual([3]);
});

test('the answer to a committed save lost: it is repeated and nothing is doubled', async ({ page }) => {
  const shot = await makeShot(application.address);
  await openDesk(page, application.address, shot);
  const pen = await Pen.on(page);
  let lost = 0;
  await page.route('**/saves', async (route) => {
    if (lost < 2) {
      lost += 1;
      await route.fetch();
      await route.abort('connectionreset');
    } else await route.continue();
  });
  await pen.stroke(...line(0));
  await pen.stroke(...line(1));
  await saved(page);
  expect(lost).toBe(2);
  expect(await storedMarks(application.address, shot)).toEqual([2]);
});

test('the tab closed while the server is gone: the next one finds the strokes and saves them', async ({ context }) => {
  const shot = await makeShot(application.address);
  const first = await context.newPage();
  await openDesk(first, application.address, shot);
  const pen = await Pen.on(first);
  await pen.stroke(...line(0));
  await saved(first);
  // From here on nothing of this tab's saves comes through.
  await first.route('**/saves', (route) => route.abort());
  await pen.stroke(...line(1));
  await expect(first.getByTestId('saved')).toHaveText('Not saved yet');
  await painted(first);
  const shown = await pixels(first);
  await first.close();
  const second = await context.newPage();
  await openDesk(second, application.address, shot);
  await expect.poll(() => pixels(second)).toBe(shown);
  await saved(second);
  await expect.poll(() => storedMarks(application.address, shot)).toEqual([2]);
  await second.close();
});

test('the shot left and opened again in one tab before it is saved: the strokes are there and are saved', async ({
  page,
}) => {
  const shot = await makeShot(application.address, { name: 'Left early' });
  await openDesk(page, application.address, shot);
  await page.route('**/saves', (route) => route.abort());
  await (await Pen.on(page)).stroke(...line(0));
  await expect(page.getByTestId('saved')).toHaveText('Not saved yet');
  await page.getByRole('link', { name: 'Tallow' }).click();
  await page.unroute('**/saves');
  await page.getByRole('link', { name: 'Open Left early' }).click();
  await expect.poll(() => storedMarks(application.address, shot)).toEqual([1]);
  await saved(page);
});

test('the database stopped under a running page: the header says so and saving resumes by itself', async ({ page }) => {
  const shot = await makeShot(application.address);
  await openDesk(page, application.address, shot);
  const pen = await Pen.on(page);
  await pen.stroke(...line(0));
  await saved(page);
  await application.stopDatabase();
  await pen.stroke(...line(1));
  await expect(page.getByTestId('saved')).toHaveText('Not saved yet', { timeout: 15_000 });
  expect((await fetch(`${application.address}/api/health`)).status).toBe(503);
  await application.startDatabase();
  await expect(page.getByTestId('saved')).toHaveText('Saved', { timeout: 20_000 });
  expect(await storedMarks(application.address, shot)).toEqual([2]);
});

test('two tabs on the same drawing: nothing lost, nothing doubled, undo takes only one’s own', async ({ context }) => {
  const shot = await makeShot(application.address);
  const [one, two] = [await context.newPage(), await context.newPage()];
  await openDesk(one, application.address, shot);
  const penOne = await Pen.on(one);
  await penOne.stroke(...line(0));
  await saved(one);
  await openDesk(two, application.address, shot);
  const penTwo = await Pen.on(two);
  for (let i = 1; i <= 2; i++) {
    await one.bringToFront();
    await penOne.stroke(...line(2 * i - 1));
    await two.bringToFront();
    await penTwo.stroke(...line(2 * i));
  }
  await saved(one);
  await saved(two);
  await expect.poll(() => storedMarks(application.address, shot)).toEqual([5]);
  await one.bringToFront();
  await one.keyboard.press('Control+KeyZ');
  await saved(one);
  await expect.poll(() => storedMarks(application.address, shot)).toEqual([4]);
  await expect.poll(async () => (await pixels(one)) === (await pixels(two)), { timeout: 10_000 }).toBe(true);
});

test('two tabs on different drawings, both made at once: both are there', async ({ context }) => {
  const shot = await makeShot(application.address);
  const [one, two] = [await context.newPage(), await context.newPage()];
  await openDesk(one, application.address, shot);
  await openDesk(two, application.address, shot);
  // The second tab hears nothing of the first until it has drawn itself.
  await two.route(/saves|changes/, (route) => route.abort());
  await one.bringToFront();
  await (await Pen.on(one)).stroke(...line(0));
  await saved(one);
  await two.bringToFront();
  await (await Pen.on(two)).stroke(...line(1));
  await expect(two.getByTestId('saved')).toHaveText('Not saved yet');
  await two.unroute(/saves|changes/);
  await saved(one);
  await saved(two);
  await expect.poll(() => storedMarks(application.address, shot)).toEqual([1, 1]);
  // Each stays on the drawing it has drawn on.
  await expect(one.getByTestId('frame-of')).toHaveText('1 of 4');
  await expect(two.getByTestId('frame-of')).toHaveText('3 of 4');
});
