/** More of the step Assemble: a use that rides on a followed point of another, one split in two, its anchor taken over, OpenRaster by its layers. */
import { createCanvas } from '@napi-rs/canvas';
import { strToU8, zipSync } from 'fflate';
import { assembled, bars, step, usesOf, type Use } from './assembled.ts';
import { address, makeShot, openDesk, painted, Pen, ring, saved, stored } from './desk.ts';
import { choose } from './controls.ts';
import { expect, test } from './test.ts';

const PLACES = [0.3, 0.4, 0.5];

test('a use rides on a point followed on another, on the use that is chosen', async ({ page }) => {
  const shot = await makeShot(address(), { length: 24 });
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  for (const [i, x] of PLACES.entries()) {
    if (i > 0) await page.keyboard.press('KeyS');
    await painted(page);
    await ring(pen, x, 0.5);
  }
  for (let i = 0; i < 2; i++) await page.keyboard.press('KeyA');
  await page.keyboard.press('Alt+KeyF');
  await page.getByRole('button', { name: 'New point' }).click();
  for (const x of PLACES) await pen.stroke({ x, y: 0.5 }, { x, y: 0.5 }, 1);
  await page.getByRole('button', { name: 'Draw again' }).click();
  // A second element: a dot.
  await page.getByRole('button', { name: 'Add element' }).click();
  await painted(page);
  await ring(pen, 0.5, 0.8, 0.01);
  await saved(page);
  await step(page, 'Assemble');
  const carrier = page.getByTestId('uses').getByText('Element 1');
  await carrier.click();
  await page.getByRole('button', { name: 'One more', exact: true }).click();
  await page.getByRole('slider', { name: 'Element 2', exact: true }).click();
  const choice = page.getByLabel('Rides on');
  await choice.click();
  const labels = (await page.getByRole('option').allTextContents()).slice(1);
  await page.keyboard.press('Escape');
  expect(new Set(labels).size).toBe(2);
  const ridden: (string | null)[] = [];
  for (const label of labels) {
    await choose(choice, { label });
    await saved(page);
    const seat = (await usesOf(shot)).flatMap((use) => use.seat ?? [])[0]!;
    ridden.push(seat.onUseId);
  }
  const [rider] = (await usesOf(shot)).filter(({ seat }) => seat);
  const carriers = (await usesOf(shot)).filter(({ elementId }) => elementId !== rider!.elementId);
  expect(ridden.toSorted()).toEqual(carriers.map(({ id }) => id).toSorted());
});

test('a use is split in two that go on as one, and its anchor is taken from where it begins', async ({ page }) => {
  const { shot } = await assembled(page);
  await page.getByLabel('Frame of the shot').fill('9');
  await page.keyboard.press('Enter');
  await painted(page);
  await page.getByRole('button', { name: 'Split here' }).click();
  await expect(bars(page)).toHaveCount(2);
  await saved(page);
  const starts = (uses: Use[]) => uses.map(({ start, phase }) => [start, phase]).toSorted(([a], [b]) => a! - b!);
  expect(starts(await usesOf(shot))).toEqual([
    [0, 0],
    [8, 8],
  ]);
  await page.getByRole('button', { name: 'Anchor where it begins' }).click();
  await saved(page);
  expect((await usesOf(shot)).filter(({ anchor }) => anchor)).toHaveLength(1);
});

test('OpenRaster comes in as a plate for each of its layers, in its place', async ({ page }) => {
  const { shot } = await assembled(page);
  const filled = (width: number, height: number, colour: string): Uint8Array => {
    const canvas = createCanvas(width, height);
    const context = canvas.getContext('2d');
    context.fillStyle = colour;
    context.fillRect(0, 0, width, height);
    return canvas.toBuffer('image/png');
  };
  const buffer = Buffer.from(
    zipSync({
      mimetype: [strToU8('image/openraster'), { level: 0 }],
      'stack.xml': strToU8(
        '<?xml version="1.0"?><image w="1280" h="720"><stack><layer name="beam" src="data/a.png" x="300" y="100"/>' +
          '<layer name="wall" src="data/b.png" opacity="0.5"/></stack></image>',
      ),
      'data/a.png': filled(400, 60, '#c8b43c'),
      'data/b.png': filled(1280, 720, '#203040'),
    }),
  );
  await page.getByRole('button', { name: 'Plate', exact: true }).click();
  await page.getByTestId('reference-file').setInputFiles({ name: 'set.ora', mimeType: 'image/openraster', buffer });
  await expect(page.getByText('2 layers of set.ora came in, each a plate.')).toBeVisible();
  await saved(page);
  const plates = (await stored(address(), shot)).entities.filter(({ kind }) => kind === 'plate');
  const byName = new Map(plates.map((plate) => [plate['name'], plate]));
  // The middle of the beam is at 500, 130 of a picture twice as large as the shot, which it is fitted to.
  expect(byName.get('beam')).toMatchObject({ x: 250, y: 65 });
  expect(byName.get('wall')).toMatchObject({ opacity: 0.5 });
});
