/** The step Assemble in tests: a cycle that stands in it, drags over the picture, an export held against the desk. */
import { readFileSync } from 'node:fs';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { unzipSync } from 'fflate';
import { address, makeShot, openDesk, painted, Pen, ring, saved, stored } from './desk.ts';
import { expect, type Page } from './test.ts';

export interface Use {
  readonly id: string;
  readonly elementId: string;
  readonly holderId: string | null;
  readonly start: number;
  readonly x: number;
  readonly y: number;
  readonly phase: number;
  readonly corners: unknown;
  readonly way: { pathId: string } | null;
  readonly mirror: boolean;
  readonly anchor: unknown;
  readonly seat?: { onElementId: string; onUseId: string | null } | null;
  readonly finishes: { numbers: Record<string, { keys?: { frame: number; value: number }[] }> }[];
  readonly shift: Record<string, { constant?: number }>;
}
export const usesOf = async (shot: string): Promise<Use[]> =>
  (await stored(address(), shot)).entities.filter((each) => each['kind'] === 'placement') as unknown as Use[];
export const shotFrame = (page: Page) => page.getByLabel('Frame of the shot');
export const bars = (page: Page) => page.getByTestId('bar');
export const step = async (page: Page, name: string): Promise<void> => {
  const link = page.getByRole('link', { name, exact: true });
  await link.click();
  // The step before stands until the next one is made.
  await expect(link).toHaveAttribute('aria-current', 'page');
  await painted(page);
};

/** A cycle of six drawings on 2s, a ring that circles its middle, assembled. */
export async function assembled(page: Page, length = 36): Promise<{ shot: string }> {
  const shot = await makeShot(address(), { length });
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  for (let i = 0; i < 6; i++) {
    if (i > 0) await page.keyboard.press('KeyS');
    await painted(page);
    await ring(pen, 0.5 + 0.04 * Math.cos(i), 0.5 + 0.04 * Math.sin(i));
  }
  await page.getByTestId('element-time').click();
  await page.getByText('Close into a cycle').click();
  await saved(page);
  await step(page, 'Assemble');
  await expect(bars(page)).toHaveCount(1);
  await bars(page).click();
  return { shot };
}

/** Drags with the pen over the picture, shares of the frame. */
export async function dragged(
  page: Page,
  from: readonly [number, number],
  to: readonly [number, number],
): Promise<void> {
  const pen = await Pen.on(page);
  const at = ([x, y]: readonly [number, number]) => ({ x, y, force: 0.5 });
  await pen.down(at(from));
  const way = Array.from({ length: 8 }, (_, i) => [
    from[0] + ((to[0] - from[0]) * (i + 1)) / 8,
    from[1] + ((to[1] - from[1]) * (i + 1)) / 8,
  ]) as [number, number][];
  await pen.moves(way.map(at));
  await pen.up(at(to));
}

/** The pixels of a PNG, four bytes each. */
async function pixelsOf(png: Buffer): Promise<Uint8ClampedArray> {
  const image = await loadImage(png);
  const context = createCanvas(image.width, image.height).getContext('2d');
  context.drawImage(image, 0, 0);
  return context.getImageData(0, 0, image.width, image.height).data;
}

/** Exports the shot and says by how much, of 255, the frame under the playhead differs at most from what the desk shows of it. */
export async function farFromDesk(page: Page): Promise<number> {
  await page.getByRole('button', { name: 'This frame as a picture' }).click();
  const [still] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: 'This frame as a PNG' }).click(),
  ]);
  const number = (await shotFrame(page).inputValue()).padStart(4, '0');
  const desk = readFileSync(await still.path());
  await page.getByRole('link', { name: 'Export' }).click();
  await page.getByText('With the background colour').click();
  await page.getByRole('button', { name: /^Export \d+ frames/ }).click();
  const row = page.getByTestId('export');
  await expect(row).toHaveAttribute('data-state', 'done', { timeout: 60_000 });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    row.getByRole('link', { name: 'Download' }).click(),
  ]);
  const files = unzipSync(readFileSync(await download.path()));
  const taken = files[Object.keys(files).find((name) => name.endsWith(`-${number}.png`))!]!;
  const [a, b] = [await pixelsOf(desk), await pixelsOf(Buffer.from(taken))];
  expect(b).toHaveLength(a.length);
  let [max, drawnOn] = [0, 0];
  a.forEach((v, i) => {
    max = Math.max(max, Math.abs(v - b[i]!));
    if (v !== a[i % 4]) drawnOn += 1;
  });
  expect(drawnOn).toBeGreaterThan(1000);
  return max;
}
