/** More of what is assembled, by pen and keys: a plate cut by what passes it, the camera along a path, and a cover laid until nothing is left. */
import { createCanvas } from '@napi-rs/canvas';
import { assembled, farFromDesk, shotFrame, step } from './assembled.ts';
import { address, makeShot, openDesk, painted, Pen, pixels, saved, stored } from './desk.ts';
import { choose } from './controls.ts';
import { expect, test, type Page } from './test.ts';

const goTo = async (page: Page, frame: number): Promise<void> => {
  await shotFrame(page).fill(String(frame));
  await shotFrame(page).press('Enter');
  await painted(page);
};

test('a plate is seen within what an effect has passed over, and taken away like that', async ({ page }) => {
  test.setTimeout(120_000);
  const { shot } = await assembled(page, 12);
  const canvas = createCanvas(640, 360);
  const context = canvas.getContext('2d');
  context.fillStyle = '#3060c0';
  context.fillRect(0, 0, 640, 360);
  await page.getByTestId('assemble-foot').getByRole('button', { name: 'Plate' }).click();
  const buffer = canvas.toBuffer('image/png');
  await page.getByTestId('reference-file').setInputFiles({ name: 'wall.png', mimeType: 'image/png', buffer });
  await saved(page);
  await page.getByLabel('Guide: never taken away').uncheck();
  await painted(page);
  const plain = await pixels(page);
  await choose(page.getByLabel('Cut by'), { index: 1 });
  await painted(page);
  const within = await pixels(page);
  expect(within).not.toBe(plain);
  await page.getByText('by all it has passed over so far').click();
  await goTo(page, 12);
  expect(await pixels(page)).not.toBe(within);
  await saved(page);
  const plate = (await stored(address(), shot)).entities.find(({ kind }) => kind === 'plate')!;
  expect(plate['cut']).toMatchObject({ within: true, passed: true });
  expect(await farFromDesk(page)).toBeLessThanOrEqual(1);
});

test('the camera goes along a path of the plan; taken off it stands still again; the export sees through it', async ({
  page,
}) => {
  test.setTimeout(120_000);
  const { shot } = await assembled(page, 12);
  await page.getByRole('link', { name: 'Plan', exact: true }).click();
  const pen = await Pen.on(page);
  await pen.tap(page.getByTestId('plan-tray').getByRole('button', { name: 'Path', exact: true }));
  await pen.stroke({ x: 0.45, y: 0.5 }, { x: 0.6, y: 0.55 }, 30);
  await saved(page);
  await step(page, 'Assemble');
  await goTo(page, 9);
  const still = await pixels(page);
  await page.getByTestId('cone').getByRole('button', { name: 'The camera' }).click();
  const along = page.getByTestId('camera-panel').getByLabel('Goes along');
  await choose(along, { index: 1 });
  await page.getByRole('button', { name: 'Look through it' }).click();
  await painted(page);
  const moved = await pixels(page);
  expect(moved).not.toBe(still);
  await goTo(page, 2);
  expect(await pixels(page)).not.toBe(moved);
  await saved(page);
  const camera = async () =>
    (await stored(address(), shot)).entities.find(({ kind }) => kind === 'shot')!['camera'] as {
      pathId: string | null;
    };
  expect((await camera()).pathId).not.toBeNull();
  await page.keyboard.press('Control+KeyZ');
  await saved(page);
  expect((await camera()).pathId).toBeNull();
  await page.keyboard.press('Control+Shift+KeyZ');
  await goTo(page, 9);
  await saved(page);
  // It stands between whole pixels here.
  expect(await farFromDesk(page)).toBeLessThanOrEqual(1);
});

test('a cover is laid by one press, grows until the frame is full, and is one undo', async ({ page }) => {
  test.setTimeout(120_000);
  const shot = await makeShot(address(), { width: 640, height: 360, length: 24 });
  await openDesk(page, address(), shot);
  await page.getByRole('link', { name: 'Plan', exact: true }).click();
  await page.getByRole('button', { name: 'More starters' }).click();
  await page
    .getByRole('menuitem', { name: /^Cover/ })
    .first()
    .click();
  await expect(page.getByRole('button', { name: /^Undo (lay )?cover/i })).toBeVisible({ timeout: 60_000 });
  await saved(page);
  const kinds = async () => (await stored(address(), shot)).entities.filter(({ kind }) => kind === 'starter');
  expect(await kinds()).toHaveLength(1);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect.poll(async () => (await kinds()).length).toBe(0);
  await page.getByRole('button', { name: /^Redo/ }).click();
  await expect.poll(async () => (await kinds()).length).toBe(1);
  await step(page, 'Assemble');
  await goTo(page, 1);
  const first = await pixels(page);
  await goTo(page, 24);
  const last = await pixels(page);
  expect(last).not.toBe(first);
  // Half way it is seen with an edge.
  await goTo(page, 8);
  expect(await pixels(page)).not.toBe(last);
  expect(await farFromDesk(page)).toBeLessThanOrEqual(2);
});
