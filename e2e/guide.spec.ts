/** The guide of the README, step by step, through the interface alone: a whole fire from nothing to its files. */
import { expect, test, type Download, type Page } from '@playwright/test';
import { strFromU8, unzipSync } from 'fflate';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { address, beenHere, makeShot, painted, Pen, saved, storedDrawings } from './desk.ts';
import { choose } from './controls.ts';

const DRAWINGS = 12;

/** A flame that sways with its phase: broad below, licked to a tip. */
async function flame(pen: Pen, phase: number, size: number): Promise<void> {
  const point = (t: number) => {
    const up = Math.sin(Math.PI * t);
    const sway = 0.035 * up * Math.sin(2 * Math.PI * (phase - 0.5 * up));
    return {
      x: 0.5 + size * 0.12 * Math.cos(2 * Math.PI * t + Math.PI / 2) + sway,
      y: 0.72 - size * 0.42 * up ** 1.6,
      force: 0.6,
    };
  };
  await pen.down(point(0));
  for (let i = 1; i <= 28; i++) await pen.move(point(i / 29));
  await pen.up(point(28 / 29));
}

async function fetched(page: Page, row: number): Promise<{ name: string; bytes: Buffer }> {
  const export_ = page.getByTestId('export').nth(row);
  await expect(export_).toHaveAttribute('data-state', 'done', { timeout: 40_000 });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    export_.getByRole('link', { name: 'Download' }).click(),
  ]);
  const keep = async (each: Download) => {
    const path = join(mkdtempSync(join(tmpdir(), 'tallow-export-')), 'file');
    await each.saveAs(path);
    return readFileSync(path);
  };
  return { name: download.suggestedFilename(), bytes: await keep(download) };
}

test('a fire of twelve drawings is made from nothing, closed, judged, and taken away as PNG and GIF', async ({
  page,
}) => {
  test.setTimeout(240_000);
  // A name of its own: a second try finds the shot of the first one beside it.
  const name = `First fire ${String(Date.now() % 100_000)}`;
  const slug = name.toLowerCase().replaceAll(' ', '-');
  const hint = page.getByTestId('first-step');
  await beenHere(page);
  await page.goto(address());
  await page.getByRole('button', { name: 'New shot' }).first().click();
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByRole('button', { name: 'Own', exact: true }).click();
  await page.getByLabel('Width').fill('640');
  await page.getByLabel('Height').fill('360');
  await page.getByRole('button', { name: 'frames', exact: true }).click();
  await page.getByLabel('Length').fill('48');
  await page.getByRole('button', { name: 'Make the shot' }).click();
  await expect(hint).toHaveText('Draw here. The first stroke makes the first drawing.');
  const pen = await Pen.on(page);
  await page.getByRole('group', { name: 'Brushes' }).getByText('Shape').click();
  await page.locator('[data-testid=swatch][data-name=body]').click();
  for (let i = 0; i < DRAWINGS; i++) {
    if (i > 0) await page.getByRole('button', { name: 'New drawing after this' }).click();
    if (i === 1) await expect(hint).toContainText('2 drawings. Go on until the last leads back to the first');
    await painted(page);
    await flame(pen, i / DRAWINGS, 1);
    if (i === 0) await expect(hint).toContainText('New drawing');
    if (i === 5) await expect(hint).toContainText('Close it into a cycle');
  }
  await page.getByTestId('element-time').click();
  await page.getByText('Close into a cycle').click();
  await expect(page.getByTestId('frame-of')).toContainText('of 24');
  // A brighter heart on a layer of its own, held for three.
  await page.getByRole('button', { name: 'Next drawing' }).click();
  await expect(page.getByTestId('frame-of')).toHaveText('1 of 24');
  await page.getByText('Add layer').click();
  await choose(page.getByLabel('Role'), 'tone');
  await page.locator('[data-testid=swatch][data-name=core]').click();
  for (let i = 0; i < 8; i++) {
    if (i > 0) await page.getByRole('button', { name: 'New drawing after this' }).click();
    await painted(page);
    await flame(pen, i / 8, 0.5);
  }
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Whole layer on 3s' }).click();
  await expect(page.getByTestId('layer').first()).toContainText('on 3s');
  await expect(page.getByTestId('frame-of')).toContainText('of 24');
  await page.getByRole('button', { name: /^Play/ }).click();
  await expect(page.getByTestId('hub-where')).toContainText('turn 2');
  await page.getByRole('button', { name: /^Stop/ }).click();
  await saved(page);

  await page.getByRole('link', { name: 'Export' }).click();
  await page.getByRole('button', { name: 'Export 48 frames' }).click();
  const zip = await fetched(page, 0);
  expect(zip.name).toBe(`${slug}-alpha.zip`);
  const files = unzipSync(zip.bytes);
  const pngs = Object.keys(files).filter((name) => name.endsWith('.png'));
  expect(pngs).toEqual(Array.from({ length: 48 }, (_, i) => `${slug}/${slug}-${String(i + 1).padStart(4, '0')}.png`));
  const looked = await page.evaluate(
    async (all) => {
      const found = [];
      for (const data of all) {
        const image = await createImageBitmap(new Blob([Uint8Array.from(atob(data), (c) => c.charCodeAt(0))]));
        const context = new OffscreenCanvas(image.width, image.height).getContext('2d')!;
        context.drawImage(image, 0, 0);
        const at = (x: number, y: number) => [...context.getImageData(x, y, 1, 1).data].join();
        found.push({ size: `${image.width}x${image.height}`, corner: at(2, 2), heart: at(320, 240) });
      }
      return found;
    },
    [pngs[0]!, pngs[13]!, pngs[47]!].map((name) => Buffer.from(files[name]!).toString('base64')),
  );
  for (const each of looked) expect(each).toEqual({ size: '640x360', corner: '0,0,0,0', heart: '255,240,184,255' });
  // A cycle: the second turn is the first again, byte for byte.
  expect(Buffer.from(files[pngs[24]!]!).equals(Buffer.from(files[pngs[0]!]!))).toBe(true);
  const sheet = strFromU8(files[`${slug}/${slug}-exposure-sheet.csv`]!).trim().split('\n');
  expect(sheet[0]).toBe('Frame,Element 1 / Layer 2,Element 1 / Line');
  expect(sheet.slice(1, 5)).toEqual(['1,1,1', '2,1,1', '3,1,2', '4,2,2']);

  await page.getByRole('button', { name: 'Loop', exact: true }).click();
  await page.getByRole('button', { name: 'one turn of Element 1' }).click();
  await page.getByRole('button', { name: 'Export GIF of 24 frames' }).click();
  await expect(page.getByTestId('export')).toHaveCount(2);
  const gif = await fetched(page, 0);
  expect(gif.name).toBe(`${slug}-alpha.gif`);
  const { width, height, frames } = await page.evaluate(async (data) => {
    const decoder = new ImageDecoder({
      type: 'image/gif',
      data: Uint8Array.from(atob(data), (c) => c.charCodeAt(0)),
    });
    await decoder.tracks.ready;
    const found: { duration: number; corner: number }[] = [];
    let [w, h] = [0, 0];
    for (let i = 0; i < decoder.tracks.selectedTrack!.frameCount; i++) {
      const { image } = await decoder.decode({ frameIndex: i });
      [w, h] = [image.displayWidth, image.displayHeight];
      const context = new OffscreenCanvas(w, h).getContext('2d')!;
      context.drawImage(image, 0, 0);
      found.push({ duration: image.duration ?? 0, corner: context.getImageData(2, 2, 1, 1).data[3]! });
      image.close();
    }
    return { width: w, height: h, frames: found };
  }, gif.bytes.toString('base64'));
  expect([width, height]).toEqual([640, 360]);
  // Flames on 2s and hearts on 3s change on 16 of the 24 frames.
  expect(frames).toHaveLength(16);
  const lasts = frames.reduce((sum, { duration }) => sum + duration, 0) / 1e6;
  expect(Math.abs(lasts - 1)).toBeLessThanOrEqual(0.01);
  expect(frames.every(({ duration, corner }) => duration >= 20_000 && corner === 0)).toBe(true);
  // Finished exports are fetched again, or cleared.
  await page.getByRole('button', { name: 'Clear the list' }).click();
  await expect(page.getByText('Nothing yet.')).toBeVisible();
  // Its card plays the loop once the server has made it.
  await page.goto(address());
  const card = page.locator(`[data-testid=shot][data-name="${name}"]`);
  await expect(card.locator('img')).toHaveAttribute('data-plays', 'true', { timeout: 90_000 });
  await page.getByLabel('Find a shot').fill(name.toLowerCase());
  await expect(page.locator('[data-testid=shot]')).toHaveCount(1);
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await page.reload();
  await expect(card.locator('img')).toHaveAttribute('data-plays', 'false');
});

/** A shot opened in a browser that has never been here. */
async function openFirst(page: Page): Promise<string> {
  const shot = await makeShot(address(), { width: 640, height: 360 });
  await page.goto(`${address()}/shots/${shot}/draw`);
  await expect(page.getByTestId('picture')).toHaveAttribute('data-shown', /\d+/);
  return shot;
}

test('on a first visit an empty shot has three ways in, drawn; each begins, and they are gone for good', async ({
  page,
}) => {
  const first = await openFirst(page);
  const ways = page.getByTestId('ways-in');
  await expect(ways.getByRole('button')).toHaveCount(3);
  await ways.getByRole('button', { name: 'Start from a fire' }).click();
  await expect(ways).toHaveCount(0);
  await expect(page.getByTestId('pen-text')).toContainText('Fire');
  await saved(page);
  expect((await storedDrawings(address(), first)).length).toBeGreaterThan(12);
  await openFirst(page);
  await expect(page.getByTestId('first-step')).toHaveText('Draw here. The first stroke makes the first drawing.');
  await expect(ways).toHaveCount(0);
});

test('on a first visit drawing is a way in, and so is a picture', async ({ page }) => {
  await openFirst(page);
  const ways = page.getByTestId('ways-in');
  await expect(ways).toBeVisible();
  const png = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  );
  await page.getByTestId('first-picture').setInputFiles({ name: 'wall.png', mimeType: 'image/png', buffer: png });
  await expect(ways).toHaveCount(0);
  await expect(page.getByRole('button', { name: /^Undo bring in a picture/ })).toBeVisible();
  await page.evaluate(() => {
    localStorage.removeItem('tallow-begun');
  });
  await openFirst(page);
  await expect(ways).toBeVisible();
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.1, y: 0.2 }, { x: 0.3, y: 0.2 });
  await expect(ways).toHaveCount(0);
});
