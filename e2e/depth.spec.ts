/** Planes of depth and the camera by pen and by keys: moved, undone, drawn under, exported. */
import { assembled, bars, dragged, farFromDesk, shotFrame, step } from './assembled.ts';
import { address, painted, pixels, saved, stored } from './desk.ts';
import { choose } from './controls.ts';
import { expect, test, type Page } from './test.ts';

interface StoredPlane {
  readonly name: string;
  readonly depth: number;
  readonly placements: readonly string[];
}
interface StoredCamera {
  readonly x: { constant?: number; keys?: { frame: number; value: number }[] };
  readonly zoom: { constant?: number };
  readonly shakes: { from: number }[];
}
const planesOf = async (shot: string) =>
  (await stored(address(), shot)).entities.filter((each) => each['kind'] === 'plane') as unknown as StoredPlane[];
const cameraOf = async (shot: string) =>
  (await stored(address(), shot)).entities.find((each) => each['kind'] === 'shot')!['camera'] as StoredCamera;
const uprights = (page: Page) => page.getByTestId('upright');

test('a plane is dragged to its depth in the cone, typed, moved by keys, hidden, alone, paled by air', async ({
  page,
}) => {
  const { shot } = await assembled(page, 12);
  await page.getByRole('button', { name: 'Plane', exact: true }).click();
  await expect(uprights(page)).toHaveCount(2);
  const flat = await pixels(page);
  const own = uprights(page).last();
  const box = (await own.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 90, box.y + box.height / 2, { steps: 6 });
  await page.mouse.up();
  await painted(page);
  expect(await pixels(page)).not.toBe(flat);
  await saved(page);
  const [dragged_] = (await planesOf(shot)).filter(({ placements }) => placements.length > 0);
  expect(dragged_!.depth).toBeGreaterThan(100);
  expect(dragged_!.depth % 10).toBe(0);
  await own.press('ArrowRight');
  await own.press('Shift+ArrowLeft');
  await saved(page);
  expect((await planesOf(shot)).find(({ placements }) => placements.length > 0)!.depth).toBe(dragged_!.depth - 90);
  const panel = page.getByTestId('plane-panel');
  await panel.getByLabel('Depth, typed').fill('640');
  await panel.getByLabel('Depth, typed').press('Enter');
  await saved(page);
  // As far as the shot is wide: half as large.
  await expect(panel).toContainText('Seen at 50 %');
  await painted(page);
  const far = await pixels(page);
  await panel.getByRole('button', { name: 'Air and distance, for all planes' }).click();
  await choose(panel.getByLabel('Far planes pale to'), { index: 1 });
  await painted(page);
  expect(await pixels(page)).not.toBe(far);
  await saved(page);
  expect(await farFromDesk(page)).toBeLessThanOrEqual(1);
});

test('what is hidden is not seen, alone shows one plane, and each is one step back', async ({ page }) => {
  await assembled(page, 12);
  await page.getByRole('button', { name: 'Plane', exact: true }).click();
  const whole = await pixels(page);
  const lanes = page.getByTestId('lane');
  await lanes.last().getByRole('button', { name: 'Picture plane', exact: true }).click();
  const panel = page.getByTestId('plane-panel');
  await panel.getByRole('button', { name: 'Seen' }).click();
  await painted(page);
  const empty = await pixels(page);
  expect(empty).not.toBe(whole);
  await page.keyboard.press('Control+KeyZ');
  await painted(page);
  expect(await pixels(page)).toBe(whole);
  await lanes.first().getByRole('button', { name: 'Plane 2', exact: true }).click();
  await panel.getByRole('button', { name: 'Alone' }).click();
  await painted(page);
  expect(await pixels(page)).toBe(empty);
  await panel.getByRole('button', { name: 'Alone' }).click();
  await painted(page);
  expect(await pixels(page)).toBe(whole);
});

test('the camera is moved by pen and keys over time, zoomed, shaken; it is off while drawing; the export sees through it', async ({
  page,
}) => {
  test.setTimeout(120_000);
  const { shot } = await assembled(page, 24);
  await shotFrame(page).fill('1');
  await shotFrame(page).press('Enter');
  await painted(page);
  const still = await pixels(page);
  await page.keyboard.press('Alt+Shift+KeyF');
  await expect(page.getByTestId('camera-panel')).toBeVisible();
  await page.keyboard.press('Alt+Shift+KeyK');
  await shotFrame(page).fill('13');
  await shotFrame(page).press('Enter');
  await painted(page);
  await dragged(page, [0.5, 0.5], [0.56, 0.5]);
  await saved(page);
  const moved = await cameraOf(shot);
  expect(moved.x.keys!.map(({ frame }) => frame)).toEqual([0, 12]);
  expect(moved.x.keys![1]!.value).toBeGreaterThan(20);
  await page.getByTestId('picture').press('Shift+ArrowLeft');
  await saved(page);
  expect((await cameraOf(shot)).x.keys![1]!.value).toBeCloseTo(moved.x.keys![1]!.value - 10, 6);
  const corner = (await page.locator('[data-handle="Zoom the camera"]').nth(2).boundingBox())!;
  await page.mouse.move(corner.x + corner.width / 2, corner.y + corner.height / 2);
  await page.mouse.down();
  await page.mouse.move(corner.x - 60, corner.y - 40, { steps: 5 });
  await page.mouse.up();
  await page.keyboard.press('Alt+Shift+KeyJ');
  await expect(page.getByTestId('shake')).toHaveCount(1);
  await saved(page);
  expect((await cameraOf(shot)).shakes).toMatchObject([{ from: 12 }]);
  // Beside it the picture stands still; through it, it does not.
  await shotFrame(page).fill('1');
  await shotFrame(page).press('Enter');
  await painted(page);
  expect(await pixels(page)).toBe(still);
  await shotFrame(page).fill('14');
  await shotFrame(page).press('Enter');
  await painted(page);
  const beside = await pixels(page);
  await page.getByRole('button', { name: 'Look through it' }).click();
  await painted(page);
  expect(await pixels(page)).not.toBe(beside);
  await bars(page).click();
  await saved(page);
  expect(await farFromDesk(page)).toBeLessThanOrEqual(1);
  await step(page, 'Draw');
  await expect(page.getByTestId('camera-frame')).toBeVisible();
});

test('all that changes over time is a curve in one place: its keys are dragged, moved by keys, eased, taken away', async ({
  page,
}) => {
  const { shot } = await assembled(page, 24);
  await shotFrame(page).fill('1');
  await shotFrame(page).press('Enter');
  await page.keyboard.press('Alt+Shift+KeyK');
  await shotFrame(page).fill('13');
  await shotFrame(page).press('Enter');
  await page.keyboard.press('Alt+Shift+KeyF');
  await page.getByTestId('camera-panel').getByLabel('Zoom, typed').fill('150');
  await page.getByTestId('camera-panel').getByLabel('Zoom, typed').press('Enter');
  await page.keyboard.press('Alt+Shift+KeyF');
  await page.getByRole('button', { name: 'Values', exact: true }).click();
  const zoom = page.getByRole('region', { name: 'Camera zoom' });
  const keys = zoom.getByTestId('key');
  await expect(keys).toHaveCount(2);
  await expect(page.getByTestId('curve')).toHaveCount(4);
  const last = (await keys.last().locator('.dot').boundingBox())!;
  await page.mouse.move(last.x + 4, last.y + 4);
  await page.mouse.down();
  await page.mouse.move(last.x + 60, last.y + 14, { steps: 5 });
  await page.mouse.up();
  await saved(page);
  const zoomOf = async () => (await cameraOf(shot)).zoom as { keys: { frame: number; value: number; ease: string }[] };
  const dragged_ = (await zoomOf()).keys[1]!;
  expect(dragged_.frame).toBeGreaterThan(13);
  expect(dragged_.value).toBeLessThan(1.5);
  await keys.last().press('ArrowLeft');
  await saved(page);
  expect((await zoomOf()).keys[1]!.frame).toBe(dragged_.frame - 1);
  await zoom.getByRole('button', { name: 'hold', exact: true }).click();
  await saved(page);
  expect((await zoomOf()).keys[1]!.ease).toBe('hold');
  await keys.last().press('Delete');
  await expect(keys).toHaveCount(1);
  await page.keyboard.press('Control+KeyZ');
  await expect(keys).toHaveCount(2);
  // In the strip, two over each other, each by its own measure; the one in front is under the pen.
  await page.getByRole('button', { name: 'Camera zoom in strip' }).click();
  await page.getByRole('button', { name: 'Camera turn in strip' }).click();
  const lane = page.getByTestId('value-lane');
  await expect(lane.getByRole('listitem')).toHaveCount(2);
  await lane.getByRole('button', { name: 'Camera zoom', exact: true }).click();
  const key = (await lane
    .getByRole('slider', { name: /^Camera zoom on frame/ })
    .last()
    .locator('.dot')
    .boundingBox())!;
  const before = (await zoomOf()).keys[1]!;
  await page.mouse.move(key.x + 4, key.y + 4);
  await page.mouse.down();
  await page.mouse.move(key.x - 60, key.y + 4, { steps: 5 });
  await page.mouse.up();
  await saved(page);
  expect((await zoomOf()).keys[1]!.frame).toBeLessThan(before.frame);
  await lane.getByRole('button', { name: 'Camera turn: out of the strip' }).click();
  await expect(lane.getByRole('listitem')).toHaveCount(1);
});
