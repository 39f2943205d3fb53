/** The step Assemble by pen and by keys: uses moved, shifted, doubled, cut off and mended, tilted, sent along a path, nested, played, exported. */
import { createCanvas } from '@napi-rs/canvas';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { assembled, bars, dragged, farFromDesk, shotFrame, step, usesOf } from './assembled.ts';
import { address, painted, Pen, pixels, ring, saved, stored } from './desk.ts';
import { choose } from './controls.ts';
import { expect, test } from './test.ts';

test('a use is moved by the pen, nudged and shifted by keys, each one step', async ({ page }) => {
  const { shot } = await assembled(page);
  const [before] = await usesOf(shot);
  // The ring touches the middle of its frame's right side.
  const area = (await page.getByTestId('picture').boundingBox())!;
  const handles = page.locator('[data-handle=Size] circle:last-child');
  const [top, bottom] = [(await handles.nth(1).boundingBox())!, (await handles.nth(2).boundingBox())!];
  const at: [number, number] = [
    (top.x + top.width / 2 - area.x - 2) / area.width,
    ((top.y + bottom.y) / 2 + top.height / 2 - area.y) / area.height,
  ];
  await dragged(page, at, [at[0] + 0.2, at[1] + 0.1]);
  await saved(page);
  const [moved] = await usesOf(shot);
  const [dx, dy] = [moved!.x - before!.x, moved!.y - before!.y];
  expect(dx).toBeGreaterThan(60);
  expect(dx / dy / ((0.2 * area.width) / (0.1 * area.height))).toBeCloseTo(1, 1);
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('ArrowDown');
  await saved(page);
  expect((await usesOf(shot))[0]).toMatchObject({ x: moved!.x + 10, y: moved!.y + 1 });
  await page.keyboard.press('Control+KeyZ');
  await page.keyboard.press('Control+KeyZ');
  await page.keyboard.press('Control+KeyZ');
  await saved(page);
  expect((await usesOf(shot))[0]).toMatchObject({ x: before!.x, y: before!.y });
  // The most frequent of all: a start shifted by a frame, while it plays, by a key, by a button, by a drag.
  await page.keyboard.press('Space');
  await page.keyboard.press('Shift+Period');
  await page.getByRole('button', { name: 'Later' }).click();
  await expect(bars(page)).toHaveAttribute('data-start', '2');
  await page.keyboard.press('Space');
  const bar = (await bars(page).boundingBox())!;
  await page.mouse.move(bar.x + 60, bar.y + 10);
  await page.mouse.down();
  await page.mouse.move(bar.x + 60 + (bar.width / 34) * 4, bar.y + 10, { steps: 5 });
  await page.mouse.up();
  await expect(bars(page)).toHaveAttribute('data-start', '6');
  // Escape puts a drag back.
  await page.mouse.move(bar.x + 120, bar.y + 10);
  await page.mouse.down();
  await page.mouse.move(bar.x + 220, bar.y + 10, { steps: 4 });
  await bars(page).press('Escape');
  await page.mouse.up();
  await expect(bars(page)).toHaveAttribute('data-start', '6');
});

test('a painted element three times, out of step, is one action; touched copies stay', async ({ page }) => {
  const { shot } = await assembled(page);
  const source = (await usesOf(shot))[0]!;
  await page.getByRole('button', { name: 'Copies', exact: true }).click();
  await page.getByRole('button', { name: 'Scatter three copies' }).click();
  await expect(bars(page)).toHaveCount(4);
  await saved(page);
  const uses = await usesOf(shot);
  expect(new Set(uses.map(({ phase }) => phase)).size).toBe(4);
  await bars(page).first().click();
  await page.keyboard.press('ArrowRight');
  await saved(page);
  const touched = (await usesOf(shot)).find((each) => {
    const was = uses.find(({ id }) => id === each.id)!;
    return was.start !== each.start;
  })!;
  await page.getByRole('button', { name: 'Others' }).click();
  await expect(page.getByText('1 changed by hand and kept.')).toBeVisible();
  await saved(page);
  const after = await usesOf(shot);
  expect(after.find(({ id }) => id === touched.id)).toMatchObject({ start: touched.start, x: touched.x, y: touched.y });
  // Within a region that is drawn.
  await page.getByRole('button', { name: 'Within a region' }).click();
  const pen = await Pen.on(page);
  await ring(pen, 0.25, 0.3, 0.1);
  await saved(page);
  // The two that were not touched lie close together now.
  const [one, two] = (await usesOf(shot)).filter(({ id }) => id !== touched.id && id !== source.id);
  expect(Math.hypot(one!.x - two!.x, one!.y - two!.y)).toBeLessThan(180);
  expect(Math.hypot(one!.x - source.x, one!.y - source.y)).toBeGreaterThan(80);
});

test('what is cut off is told with what is missing, and mended in one press', async ({ page }) => {
  const { shot } = await assembled(page, 40);
  await expect(page.getByTestId('cut')).toContainText('4 of 12 frames, 8 missing');
  await page.getByTestId('cut').getByRole('button', { name: 'Lengthen the shot by 8' }).click();
  await expect(page.getByTestId('cut')).toHaveCount(0);
  await expect(page.getByTestId('place-line')).toContainText('of 48');
  await page.keyboard.press('Control+KeyZ');
  await page.getByTestId('cut').getByRole('button', { name: 'Only whole turns: 3' }).click();
  await saved(page);
  expect((await usesOf(shot))[0]).toMatchObject({ repeats: 3 });
  // Its end is trimmed by a drag, and told to be cut by its slot.
  const bar = (await bars(page).boundingBox())!;
  await page.mouse.move(bar.x + bar.width - 2, bar.y + 10);
  await page.mouse.down();
  await page.mouse.move(bar.x + bar.width - 2 - (bar.width / 36) * 5, bar.y + 10, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByTestId('cut')).toContainText('by the end of its slot');
});

test('laid on a tilted plane by its corners, drawn on flat, and the way back', async ({ page }) => {
  const { shot } = await assembled(page);
  const flat = await pixels(page);
  await page.getByRole('button', { name: 'On a tilted plane' }).click();
  const corner = page.locator('[data-handle="Corner top left"]');
  const box = (await corner.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + 70, box.y + 40, { steps: 6 });
  await page.mouse.up();
  await saved(page);
  expect((await usesOf(shot))[0]!.corners).not.toBeNull();
  await painted(page);
  expect(await pixels(page)).not.toBe(flat);
  // Drawing goes through no tilt: the stroke lies where the pen was, and in the element.
  await step(page, 'Draw');
  const pen = await Pen.on(page);
  await ring(pen, 0.5, 0.5, 0.02);
  await saved(page);
  await step(page, 'Assemble');
  await page.getByRole('button', { name: 'Flat again' }).click();
  await saved(page);
  expect((await usesOf(shot))[0]!.corners).toBeNull();
});

test('along a path, turned with it, bent while it plays', async ({ page }) => {
  const { shot } = await assembled(page);
  await page.getByRole('button', { name: 'Along a path' }).click();
  await expect(page.getByText('turned along it')).toBeVisible();
  await page.keyboard.press('Space');
  const point = page.locator('[data-handle="Point 2 of the way"]');
  const box = (await point.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y - 60, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByTestId('assemble-foot').getByRole('button', { name: /Play or stop/ })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await page.keyboard.press('Space');
  await saved(page);
  const path = (await usesOf(shot))[0]!.way!.pathId;
  expect((await stored(address(), shot)).entities.some(({ id }) => id === path)).toBe(true);
});

test('nested three deep, each name a way back, and edited at the root', async ({ page }) => {
  const { shot } = await assembled(page);
  const use = async (name: string) => {
    await page.getByTestId('assemble-foot').getByRole('button', { name: 'Use an element' }).click();
    await page.getByRole('menuitem', { name, exact: true }).click();
  };
  // Two more elements; the ring in the one, that in the other.
  await use('A new, empty one');
  await use('A new, empty one');
  await expect(bars(page)).toHaveCount(3);
  await page.keyboard.press('Escape');
  await page.getByTestId('uses').getByRole('button', { name: 'Go inside Element 3' }).click();
  await use('Element 2');
  await page.keyboard.press('Escape');
  await page.getByTestId('uses').getByRole('button', { name: 'Go inside Element 2' }).click();
  await use('Element 1');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('navigation', { name: 'What one stands in' })).toHaveText('·Shot›Element 3›Element 2');
  await saved(page);
  const held = (await usesOf(shot)).filter(({ holderId }) => holderId !== null);
  expect(held).toHaveLength(2);
  // It would lie in itself: said, and nothing changes.
  await page.getByTestId('assemble-foot').getByRole('button', { name: 'Use an element' }).click();
  await page.getByRole('menuitem', { name: 'Element 3', exact: true }).click();
  await expect(page.getByText('“Element 2” lies in “Element 3” already.')).toBeVisible();
  await page.getByRole('navigation', { name: 'What one stands in' }).getByRole('button', { name: 'Shot' }).click();
  await expect(bars(page)).toHaveCount(3);
  // What is drawn in the one element is seen in both places.
  await page.keyboard.press('Escape');
  await painted(page);
  const before = await pixels(page);
  await page
    .getByTestId('uses')
    .getByRole('button', { name: /^Element 1 · \d of \d$/ })
    .click();
  await step(page, 'Draw');
  const pen = await Pen.on(page);
  await ring(pen, 0.5, 0.3, 0.03);
  await saved(page);
  await step(page, 'Assemble');
  await page.keyboard.press('Escape');
  await painted(page);
  expect(await pixels(page)).not.toBe(before);
});

test('the shot plays as a whole in every step, and stops where it is', async ({ page }) => {
  await assembled(page);
  await page.keyboard.press('Space');
  await expect(shotFrame(page)).not.toHaveValue('1');
  await page.keyboard.press('Space');
  await page.getByTestId('shot-ruler').click({ position: { x: 5, y: 5 } });
  await expect(shotFrame(page)).toHaveValue('1');
  await page.keyboard.press('Shift+KeyD');
  await expect(shotFrame(page)).toHaveValue('2');
  await shotFrame(page).fill('30');
  await shotFrame(page).press('Enter');
  await expect(shotFrame(page)).toHaveValue('30');
  await page.getByTestId('picture').focus();
  await page.keyboard.press('Home');
  await expect(shotFrame(page)).toHaveValue('1');
  // Escape takes back what the ruler is dragged to.
  const ruler = (await page.getByTestId('shot-ruler').boundingBox())!;
  await page.mouse.move(ruler.x + 4, ruler.y + 5);
  await page.mouse.down();
  await page.mouse.move(ruler.x + ruler.width / 2, ruler.y + 5);
  await expect(shotFrame(page)).not.toHaveValue('1');
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await expect(shotFrame(page)).toHaveValue('1');
  await shotFrame(page).fill('30');
  await shotFrame(page).press('Enter');
  await page.getByTestId('picture').focus();
  await step(page, 'Draw');
  await expect(page.getByRole('button', { name: 'plays the element' })).toBeVisible();
  await page.keyboard.press('Shift+Backquote');
  await expect(page.getByRole('button', { name: 'plays the shot' })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('Space');
  await expect.poll(() => page.getByTestId('hub-where').textContent()).not.toContain('shot 30 ');
  await page.keyboard.press('Space');
});

/** A film of a second in which everything moves. */
function film(): string {
  const path = join(mkdtempSync(join(tmpdir(), 'tallow-film-')), 'bar.webm');
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=24:d=1'],
    ...['-c:v', 'libvpx-vp9', '-deadline', 'realtime', '-cpu-used', '8', path],
  ]);
  return path;
}

test('a video comes in as a plate, lies before or behind a plane, and is drawn to', async ({ page }) => {
  test.setTimeout(90_000);
  const { shot } = await assembled(page);
  await page.getByTestId('assemble-foot').getByRole('button', { name: 'Plate' }).click();
  await page.getByTestId('reference-file').setInputFiles(film());
  await expect(page.getByText(/^24 frames came in: each of its frames/)).toBeVisible({ timeout: 30_000 });
  await saved(page);
  const plateOf = async () => (await stored(address(), shot)).entities.find((each) => each['kind'] === 'plate')!;
  expect((await plateOf())['assets']).toHaveLength(24);
  await painted(page);
  const behind = await pixels(page);
  await choose(page.getByLabel('Lies', { exact: true }), { label: 'on Picture plane, in front' });
  await saved(page);
  await painted(page);
  expect(await pixels(page)).not.toBe(behind);
  // Another frame of the shot shows another one of the film.
  await page.getByTestId('picture').focus();
  const first = await pixels(page);
  const was = await shotFrame(page).inputValue();
  await page.keyboard.press('Shift+KeyD');
  await expect(shotFrame(page)).not.toHaveValue(was);
  await painted(page);
  expect(await pixels(page)).not.toBe(first);
  await step(page, 'Draw');
  const pen = await Pen.on(page);
  await ring(pen, 0.4, 0.4, 0.02);
  await saved(page);
});

test('a plate lies on a tilted plane, its corners moved by the pen, and is exported as it is seen', async ({
  page,
}) => {
  const { shot } = await assembled(page, 12);
  await page.getByTestId('assemble-foot').getByRole('button', { name: 'Plate' }).click();
  const canvas = createCanvas(320, 180);
  const context = canvas.getContext('2d');
  for (let i = 0; i < 8; i++) {
    context.fillStyle = i % 2 ? '#20508c' : '#d8b060';
    context.fillRect(i * 40, 0, 40, 180);
  }
  const buffer = canvas.toBuffer('image/png');
  await page.getByTestId('reference-file').setInputFiles({ name: 'floor.png', mimeType: 'image/png', buffer });
  await page.getByLabel('Guide: never taken away').uncheck();
  await painted(page);
  const flat = await pixels(page);
  await page.getByLabel('On a tilted plane').check();
  const corner = page.locator('[data-handle="Corner top left"]');
  const box = (await corner.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 120, y + 70, { steps: 6 });
  await page.mouse.up();
  await saved(page);
  await painted(page);
  expect(await pixels(page)).not.toBe(flat);
  const plateOf = async () => (await stored(address(), shot)).entities.find((each) => each['kind'] === 'plate')!;
  const [moved, kept] = (await plateOf())['corners'] as { x: number; y: number }[];
  expect(moved!.x).toBeGreaterThan(20);
  expect(kept).toEqual({ x: 320, y: 0 });
  await page.getByLabel('Place it with the pen').uncheck();
  expect(await farFromDesk(page)).toBeLessThanOrEqual(1);
  await page.getByRole('link', { name: 'Assemble' }).click();
  await page.getByTestId('assemble-foot').getByRole('button', { name: 'Plate' }).click();
  await page.getByLabel('On a tilted plane').uncheck();
  await saved(page);
  expect((await plateOf())['corners']).toBeNull();
});

test('footage dropped on the shots page makes a shot of its size, rate and length', async ({ page }) => {
  test.setTimeout(90_000);
  await page.goto(address());
  await expect(page.getByTestId('production').first()).toBeVisible();
  const data = readFileSync(film()).toString('base64');
  const transfer = await page.evaluateHandle((bytes) => {
    const file = new File([Uint8Array.from(atob(bytes), (c) => c.charCodeAt(0))], 'bar.webm');
    const transfer_ = new DataTransfer();
    transfer_.items.add(file);
    return transfer_;
  }, data);
  await page.getByTestId('production').first().dispatchEvent('drop', { dataTransfer: transfer });
  await page.waitForURL(/\/shots\/[^/]+\/assemble$/, { timeout: 30_000 });
  await expect(page.getByTestId('place-line')).toContainText('of 24');
  await saved(page);
  const id = /shots\/([^/]+)/.exec(page.url())![1]!;
  const { entities } = await stored(address(), id);
  expect(entities.find((each) => each['kind'] === 'shot')).toMatchObject({
    width: 320,
    height: 180,
    rate: 24,
    length: 24,
  });
  expect(entities.filter((each) => each['kind'] === 'plate')).toHaveLength(1);
});

test('this frame as a picture: a still plate, and a file of the shot’s size', async ({ page }) => {
  const { shot } = await assembled(page);
  const still = async (label: string) => {
    await page.getByRole('button', { name: 'This frame as a picture' }).click();
    await page.getByRole('menuitem', { name: label }).click();
  };
  await still('This frame as a still plate');
  await expect(page.getByText('Frame 11 is a still plate now, as a guide.')).toBeVisible();
  await saved(page);
  const plate = (await stored(address(), shot)).entities.find((each) => each['kind'] === 'plate');
  expect(plate).toMatchObject({ width: 640, height: 360, guide: true });
  const [download] = await Promise.all([page.waitForEvent('download'), still('This frame as a PNG')]);
  const png = readFileSync(await download.path());
  expect([png.readUInt32BE(16), png.readUInt32BE(20)]).toEqual([640, 360]);
});

test('the export equals the desk: uses out of step, one tilted, one tinted and faded', async ({ page }) => {
  test.setTimeout(120_000);
  await assembled(page, 12);
  await page.keyboard.press('Shift+Equal');
  await expect(bars(page)).toHaveCount(4);
  await bars(page).first().click();
  await page.getByRole('button', { name: 'On a tilted plane' }).click();
  const corner = (await page.locator('[data-handle="Corner bottom right"]').boundingBox())!;
  await page.mouse.move(corner.x + corner.width / 2, corner.y + corner.height / 2);
  await page.mouse.down();
  await page.mouse.move(corner.x + 60, corner.y + 30, { steps: 5 });
  await page.mouse.up();
  await bars(page).nth(1).click();
  await page.getByLabel('Opacity, typed').fill('60');
  await page.getByLabel('Opacity, typed').press('Enter');
  await page.getByRole('group', { name: 'Settings' }).getByRole('button', { name: 'Looks' }).click();
  await choose(page.getByLabel('All of it in'), { index: 2 });
  await saved(page);
  await shotFrame(page).fill('5');
  await shotFrame(page).press('Enter');
  await painted(page);
  expect(await farFromDesk(page)).toBeLessThanOrEqual(1);
});
