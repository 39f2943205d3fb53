/** This browser's store and the server, each failing alone and both at once. */
import { expect, test, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import pg from 'pg';
import { Application } from './application.ts';
import { makeShot, openDesk, painted, Pen, pixels, saved, storedDrawings, storedMarks } from './desk.ts';
import { leftInStore } from './browser-store.ts';

let application: Application;
test.beforeAll(async () => {
  application = await Application.start();
});
test.afterAll(() => application.stop());

const line = (i: number) => [{ x: 0.3, y: 0.3 + i * 0.05 }, { x: 0.7, y: 0.32 + i * 0.05 }, 8] as const;
const header = (page: Page) => page.getByTestId('saved');

/** A browser whose store cannot be opened, as in some private windows. */
const withoutStore = (page: Page) =>
  page.addInitScript(() => {
    IDBFactory.prototype.open = () => {
      throw new DOMException('A mutation operation was attempted on a database that did not allow mutations.');
    };
  });

/** Closes this browser's store under the page and empties it. */
async function loseStore(page: Page): Promise<void> {
  const session = await page.context().newCDPSession(page);
  await session.send('Storage.clearDataForOrigin', { origin: application.address, storageTypes: 'indexeddb' });
}

test('this browser’s store closed under the page: strokes go on to the server, and are kept here again when it fails', async ({
  page,
  context,
}) => {
  const shot = await makeShot(application.address);
  await openDesk(page, application.address, shot);
  const pen = await Pen.on(page);
  await pen.stroke(...line(0));
  await saved(page);
  await loseStore(page);
  await pen.stroke(...line(1));
  await saved(page);
  expect(await storedMarks(application.address, shot)).toEqual([2]);

  // Both gone, one after the other: what the store lost is written anew while the server is away.
  await context.route('**/saves', (route) => route.abort());
  await pen.stroke(...line(2));
  await expect(header(page)).toHaveText('Not saved yet');
  await loseStore(page);
  await pen.stroke(...line(3));
  await expect(header(page)).toHaveAttribute('data-tip', /kept in this browser/);
  await expect(header(page)).toHaveText('Not saved yet');
  await page.close();
  await context.unroute('**/saves');
  const next = await context.newPage();
  await openDesk(next, application.address, shot);
  await expect.poll(() => storedMarks(application.address, shot)).toEqual([4]);
});

test('a browser that keeps nothing: everything is saved on the server all the same', async ({ page }) => {
  await withoutStore(page);
  const shot = await makeShot(application.address);
  await openDesk(page, application.address, shot);
  const pen = await Pen.on(page);
  for (let i = 0; i < 4; i++) await pen.stroke(...line(i));
  await saved(page);
  await expect(header(page)).toHaveAttribute('data-tip', /on the server\. This browser keeps no copy/);
  await page.reload();
  expect(await storedMarks(application.address, shot)).toEqual([4]);
});

test('work that only the page has: the header says so, leaving asks, and a file of it is read back', async ({
  page,
}) => {
  await withoutStore(page);
  const shot = await makeShot(application.address, { name: 'Only here' });
  await openDesk(page, application.address, shot);
  const pen = await Pen.on(page);
  await pen.stroke(...line(0));
  // The header may still say so of the time before the stroke: the server is asked.
  await expect.poll(() => storedMarks(application.address, shot)).toEqual([1]);
  await saved(page);
  await page.route('**/saves', (route) => route.abort());
  await pen.stroke(...line(1));
  await pen.stroke(...line(2));
  await expect(header(page)).toHaveText('Only in this page');
  await expect(header(page)).toHaveAttribute('data-tip', /1 thing in this page only/);
  await painted(page);
  const shown = await pixels(page);

  // Within the application the page asks itself.
  await page.getByRole('link', { name: 'Tallow' }).click();
  const question = page.getByRole('dialog', { name: 'The latest work is only in this page' });
  await question.getByRole('button', { name: 'Stay' }).click();
  await expect(question).toBeHidden();
  // Leaving the application, the browser asks.
  const asked = page.waitForEvent('dialog');
  const leaving = page.close({ runBeforeUnload: true });
  const dialog = await asked;
  expect(dialog.type()).toBe('beforeunload');
  await dialog.dismiss();
  await leaving;
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as a file' }).click();
  const path = await (await download).path();
  expect(JSON.parse(readFileSync(path, 'utf8'))).toMatchObject({ shotId: shot, shotName: 'Only here' });

  await page.getByRole('link', { name: 'Tallow' }).click();
  await question.getByRole('button', { name: 'Leave without it' }).click();
  // The shot opens again only once it has been left for good.
  await page.getByRole('link', { name: 'Open Only here' }).click();
  await expect(page.getByTestId('picture')).toHaveAttribute('data-shown', /\d+/);
  await saved(page);
  await page.unroute('**/saves');
  expect(await storedMarks(application.address, shot)).toEqual([1]);
  for (let i = 0; i < 2; i++) {
    await header(page).click();
    await page.getByLabel('File of unsaved work').setInputFiles(path);
    await expect(page.getByText(i === 0 ? 'has been put in' : 'is in this shot already')).toBeVisible();
    await page.keyboard.press('Escape');
    await saved(page);
  }
  expect(await storedMarks(application.address, shot)).toEqual([3]);
  await painted(page);
  expect(await pixels(page)).toBe(shown);
});

test('a stroke on a drawing that has not come yet stays, is told to be only in this page, and lands where it was drawn', async ({
  page,
}) => {
  const shot = await makeShot(application.address);
  await openDesk(page, application.address, shot);
  await (await Pen.on(page)).stroke(...line(0));
  await saved(page);
  const [drawing] = await storedDrawings(application.address, shot);
  let letGo = (): void => undefined;
  const gate = new Promise<void>((done) => {
    letGo = done;
  });
  await page.route('**/drawings?**', async (route) => {
    await gate;
    await route.continue();
  });
  await page.reload();
  await expect(page.getByTestId('picture')).toHaveAttribute('data-wanted', /\d+/);
  await (await Pen.on(page)).stroke(...line(1));
  await expect(header(page)).toHaveText('Only in this page');
  await expect(header(page)).toHaveAttribute('data-tip', /waits until its drawing has come/);
  letGo();
  await saved(page);
  await painted(page);
  const after = await storedDrawings(application.address, shot);
  expect(after.map(({ id, order }) => [id, order.length])).toEqual([[drawing!.id, 2]]);
});

test('two closed tabs’ work, adopted by a tab that is closed before it has loaded: all of it comes, once', async ({
  context,
}) => {
  const shot = await makeShot(application.address);
  const first = await context.newPage();
  await openDesk(first, application.address, shot);
  await (await Pen.on(first)).stroke(...line(0));
  await saved(first);
  const second = await context.newPage();
  await openDesk(second, application.address, shot);
  await context.route('**/saves', (route) => route.abort());
  for (const [page, at] of [
    [first, 1],
    [second, 4],
  ] as const) {
    await page.bringToFront();
    const pen = await Pen.on(page);
    for (let i = 0; i < 3; i++) await pen.stroke(...line(at + i));
    await expect(header(page)).toHaveText('Not saved yet');
    await expect(header(page)).toHaveAttribute('data-tip', /kept in this browser/);
  }
  await first.close();
  await second.close();
  // It takes hold of what is there, merges it, but can neither save it nor load to the end.
  for (const blocked of ['**/tabs/*', '**/changes*', '**/saves']) {
    if (blocked !== '**/saves') await context.route(blocked, (route) => route.abort());
    const third = await context.newPage();
    await openDesk(third, application.address, shot);
    await third.waitForFunction(async () => (await navigator.locks.query()).held!.length >= 3);
    await third.close();
    if (blocked !== '**/saves') await context.unroute(blocked);
  }
  await context.unroute('**/saves');
  const last = await context.newPage();
  await openDesk(last, application.address, shot);
  await expect.poll(() => storedMarks(application.address, shot)).toEqual([7]);
  await saved(last);
});

test('work of a closed tab that has arrived after all is cleared away, without anything being drawn', async ({
  context,
}) => {
  const shot = await makeShot(application.address);
  const first = await context.newPage();
  await openDesk(first, application.address, shot);
  // The save arrives; its answer never does.
  await context.route('**/saves', async (route) => {
    await route.fetch();
    await route.abort();
  });
  await (await Pen.on(first)).stroke(...line(0));
  await expect.poll(() => storedMarks(application.address, shot)).toEqual([1]);
  expect(await leftInStore(first)).toBeGreaterThan(0);
  await first.close();
  await context.unroute('**/saves');
  const second = await context.newPage();
  await openDesk(second, application.address, shot);
  await expect.poll(() => leftInStore(second)).toBe(0);
  await saved(second);
  expect(await storedMarks(application.address, shot)).toEqual([1]);
});

test('something the server refuses never holds up the rest, and can be saved as a file', async ({ page }) => {
  const shot = await makeShot(application.address);
  await openDesk(page, application.address, shot);
  const pen = await Pen.on(page);
  await pen.stroke(...line(0));
  await saved(page);
  // Whatever holds this name is refused, without a word on which thing it is.
  await page.route('**/saves', async (route) => {
    if (!route.request().postData()?.includes('Cursed')) await route.continue();
    else
      await route.fulfill({
        status: 413,
        contentType: 'application/problem+json',
        body: JSON.stringify({ title: 'It is too large.', status: 413 }),
      });
  });
  await page.locator('[data-testid=layer][data-name="Line"] button[aria-pressed]').dblclick();
  await page.keyboard.type('Cursed');
  await page.keyboard.press('Enter');
  await expect(header(page)).toHaveText('Not saved yet');
  await pen.stroke(...line(1));
  await page.keyboard.press('KeyS');
  await pen.stroke(...line(2));
  await expect.poll(() => storedMarks(application.address, shot)).toEqual([1, 2]);
  await header(page).click();
  await expect(page.getByText('“Cursed”: It is too large.')).toBeVisible();
  await page.unroute('**/saves');
  await page.getByRole('button', { name: 'Try again now' }).click();
  await saved(page);
});

test('a database put back from a copy under an open page: the shot is loaded anew, and what was not saved is sent again', async ({
  page,
}) => {
  const shot = await makeShot(application.address);
  await openDesk(page, application.address, shot);
  const pen = await Pen.on(page);
  await pen.stroke(...line(0));
  await saved(page);
  const database = new pg.Client(application.databaseUrl);
  await database.connect();
  // As after a restore to before the second stroke: another epoch, an older revision.
  const rows = await database.query('select id, revision, body from entities where shot_id = $1', [shot]);
  const { revision } = (await database.query('select revision from shots where id = $1', [shot])).rows[0] as {
    revision: number;
  };
  await pen.stroke(...line(1));
  await saved(page);
  await page.route('**/saves', (route) => route.abort());
  await pen.stroke(...line(2));
  await expect(header(page)).toHaveText('Not saved yet');
  for (const { id, revision: at, body } of rows.rows as { id: string; revision: number; body: object }[])
    await database.query('update entities set revision = $2, body = $3 where id = $1', [id, at, body]);
  await database.query(
    'delete from older_bodies o using entities e where e.id = o.id and e.shot_id = $1 and o.revision >= e.revision',
    [shot],
  );
  await database.query('delete from saves where shot_id = $1 and revision > $2', [shot, revision]);
  await database.query('update shots set revision = $2 where id = $1', [shot, revision]);
  await database.query("update facts set value = to_jsonb(gen_random_uuid()::text) where name = 'epoch'");
  await database.end();
  await page.unroute('**/saves');
  await expect(page.getByText('put back from a copy')).toBeVisible();
  await saved(page);
  // The copy has the first stroke, this page the third; the second was taken back with the restore.
  await expect.poll(() => storedMarks(application.address, shot)).toEqual([2]);
  await painted(page);
});
