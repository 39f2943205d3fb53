import { expect, test } from '@playwright/test';
import { unzipSync } from 'fflate';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Application } from './application.ts';
import { address, makeShot, openDesk, painted, Pen, saved } from './desk.ts';

test('frames are rendered on the server, numbered and zipped, and match the picture within one level', async ({
  page,
}) => {
  // At this size the fitted picture is shown at 100 %, so that its pixels can be compared with the file's.
  const area = await (async () => {
    const probe = await makeShot(address());
    await openDesk(page, address(), probe);
    return (await page.getByTestId('picture').boundingBox())!;
  })();
  const [width, height] = [area.width - 52, 2 * Math.floor((area.height - 80) / 2) - (area.height % 2)];
  const shot = await makeShot(address(), { width, height, length: 3, name: 'Match' });
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  for (let i = 0; i < 4; i++) await pen.stroke({ x: 0.2 + i * 0.1, y: 0.2 }, { x: 0.8 - i * 0.1, y: 0.8 }, 40);
  for (const [i, name] of ['Pencil', 'Grain', 'Haze'].entries()) {
    await page.getByRole('group', { name: 'Brushes' }).getByText(name, { exact: true }).click();
    await pen.stroke({ x: 0.15, y: 0.3 + i * 0.2 }, { x: 0.85, y: 0.35 + i * 0.2 }, 40);
  }
  await page.getByRole('group', { name: 'Brushes' }).getByText('Ink', { exact: true }).click();
  await page.getByLabel('Opacity in per cent').fill('60');
  await pen.stroke({ x: 0.2, y: 0.5 }, { x: 0.8, y: 0.4 }, 40);
  await page.getByRole('group', { name: 'Brushes' }).getByText('Rub out').click();
  await pen.stroke({ x: 0.3, y: 0.3 }, { x: 0.7, y: 0.6 }, 40);
  await page.getByText('Add layer').click();
  await page.getByLabel('Role').selectOption('guide');
  await saved(page);
  await page.getByRole('link', { name: 'Export' }).click();
  await page.getByRole('button', { name: 'With the background colour' }).click();
  await page.getByRole('button', { name: 'Export 3 frames' }).click();
  const row = page.getByTestId('export');
  await expect(row).toHaveAttribute('data-state', 'done', { timeout: 20_000 });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    row.getByRole('link', { name: 'Download' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('match.zip');
  const folder = mkdtempSync(join(tmpdir(), 'tallow-zip-'));
  const zip = join(folder, 'match.zip');
  await download.saveAs(zip);
  const files = unzipSync(readFileSync(zip));
  const names = Object.keys(files);
  expect(names.sort()).toEqual([
    'match/match-0001.png',
    'match/match-0002.png',
    'match/match-0003.png',
    'match/match-exposure-sheet.csv',
  ]);
  const png = Buffer.from(files[names[0]!]!).toString('base64');
  await page.getByRole('link', { name: 'Draw' }).click();
  await painted(page);
  await page.getByTestId('picture').focus();
  await page.keyboard.press('KeyW');
  // Moved until the frame's corner is the picture's: both are then drawn through the very same map.
  await page.getByRole('button', { name: 'Move the picture' }).click();
  const corner = { x: (area.width - width) / 2, y: (area.height - height) / 2 };
  expect([corner.x % 1, corner.y % 1]).toEqual([0, 0]);
  await page.mouse.move(area.x + 400, area.y + 300);
  await page.mouse.down();
  await page.mouse.move(area.x + 400 - corner.x, area.y + 300 - corner.y);
  await page.mouse.up();
  await page.getByRole('button', { name: 'Move the picture' }).click();
  await painted(page);
  const difference = await page.getByTestId('picture').evaluate(async (canvas: HTMLCanvasElement, data) => {
    const bytes = Uint8Array.from(atob(data), (c) => c.charCodeAt(0));
    const image = await createImageBitmap(new Blob([bytes], { type: 'image/png' }));
    const other = new OffscreenCanvas(image.width, image.height).getContext('2d')!;
    other.drawImage(image, 0, 0);
    const exported = other.getImageData(0, 0, image.width, image.height).data;
    const shown = canvas.getContext('2d')!.getImageData(0, 0, image.width, image.height).data;
    let most = 0;
    let drawn = 0;
    let beyondOne = 0;
    exported.forEach((v, i) => {
      const off = Math.abs(v - shown[i]!);
      most = Math.max(most, off);
      if (off > 1) beyondOne += 1;
      if (i % 4 === 0 && v > 60) drawn += 1;
    });
    return { most, drawn, beyondOne };
  }, png);
  expect(difference.drawn).toBeGreaterThan(1000);
  // Haze lays dozens of faint stamps on one another; each rounds on its own.
  expect(difference.most).toBeLessThanOrEqual(3);
  expect(difference.beyondOne).toBeLessThan(width * height * 0.001);
});

test('an export shows its progress and can be stopped; a killed worker’s job is taken up again', async ({ page }) => {
  test.setTimeout(200_000);
  const application = await Application.start();
  try {
    await page.goto(application.address);
    await page.getByRole('link', { name: 'Open Furnace mouth' }).click();
    await page.getByRole('link', { name: 'Export' }).click();
    await application.killWorker();
    await page.getByRole('button', { name: 'Export 72 frames' }).click();
    const row = page.getByTestId('export').first();
    await expect(row).toHaveAttribute('data-state', 'waiting');
    await row.getByRole('button', { name: 'Stop' }).click();
    await expect(row).toHaveAttribute('data-state', 'stopped');
    await row.getByRole('button', { name: /^Delete/ }).click();
    await expect(page.getByText('Nothing yet.')).toBeVisible();
    await application.startWorker();
    await page.getByRole('button', { name: 'Export 72 frames' }).click();
    await expect(row).toHaveAttribute('data-state', 'running', { timeout: 30_000 });
    await expect(page.getByRole('progressbar')).toBeVisible();
    await application.killWorker();
    await application.startWorker();
    await expect(row).toHaveAttribute('data-state', 'done', { timeout: 120_000 });
    await expect(row).toContainText('72 frames');
  } finally {
    await application.stop();
  }
});
