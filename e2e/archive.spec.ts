/** Archives from the page of shots: a shot taken away as one file, read back beside itself, and what is none refused in words. */
import { readFileSync } from 'node:fs';
import { address, makeShot, openDesk, painted, Pen, ring, saved, storedMarks } from './desk.ts';
import { expect, test, type Page } from './test.ts';

const card = (page: Page, name: string) => page.getByRole('article').filter({ hasText: name });

test('a shot is taken away as one file and read back beside itself', async ({ page }) => {
  const name = `Archived ${Date.now()}`;
  const shot = await makeShot(address(), { name });
  await openDesk(page, address(), shot);
  await painted(page);
  await ring(await Pen.on(page), 0.5, 0.5);
  await saved(page);
  await page.goto(`${address()}/`);
  const coming = page.waitForEvent('download');
  await page.getByRole('button', { name: `More about ${name}` }).click();
  await page.getByRole('menuitem', { name: 'Archive' }).click();
  const file = await coming;
  expect(file.suggestedFilename()).toMatch(/\.tallow\.zip$/);
  const buffer = readFileSync(await file.path());
  await page.getByLabel('Archive to open').setInputFiles({ name: 'a.tallow.zip', mimeType: 'application/zip', buffer });
  await expect(page.getByText(`“${name}” came in. One was here already: it stands beside that.`)).toBeVisible();
  await expect(card(page, name)).toHaveCount(2);
  const links = await card(page, name).getByRole('link', { name, exact: true }).all();
  const ids = await Promise.all(
    links.map(async (link) => /shots\/([^/]+)/.exec((await link.getAttribute('href'))!)![1]!),
  );
  const copy = ids.find((id) => id !== shot)!;
  expect(await storedMarks(address(), copy)).toEqual(await storedMarks(address(), shot));
  await page
    .getByLabel('Archive to open')
    .setInputFiles({ name: 'b.zip', mimeType: 'application/zip', buffer: buffer.subarray(0, 900) });
  await expect(page.getByText('breaks off: the file is not whole. Nothing was changed.')).toBeVisible();
});
