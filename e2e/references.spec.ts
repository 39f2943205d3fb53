import { createCanvas } from '@napi-rs/canvas';
import { strToU8, zipSync } from 'fflate';
import { address, countOf, makeShot, openDesk, painted, Pen, pixels, saved, stored } from './desk.ts';
import { expect, test, type Page } from './test.ts';

function picture(colour: string, width = 64, height = 36): Buffer {
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d');
  context.fillStyle = colour;
  context.fillRect(0, 0, width, height);
  return canvas.toBuffer('image/png');
}
const bring = (page: Page, ...files: { name: string; buffer: Buffer }[]) =>
  page
    .getByTestId('reference-file')
    .setInputFiles(files.map((file) => ({ ...file, mimeType: 'application/octet-stream' })));

test('a picture is brought in under the drawing, faded, kept to a range, set beside, and gone with one undo', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const empty = await pixels(page);
  await page.getByRole('button', { name: 'References', exact: true }).click();
  await bring(page, { name: 'glow.png', buffer: picture('#00c000') });
  await expect(page.getByTestId('plate')).toHaveCount(1);
  await expect.poll(() => countOf(page, [0, 0xc0, 0])).toBeGreaterThan(10_000);
  await page.getByLabel('Opacity, typed').first().fill('50');
  await page.getByLabel('Opacity, typed').first().press('Enter');
  await expect.poll(() => countOf(page, [0, 0xc0, 0])).toBe(0);
  // The pen moves it on the picture, and Escape puts it back.
  await page.getByLabel('Place it with the pen').check();
  const pen = await Pen.on(page);
  const placed = await page.getByLabel('Across, typed').inputValue();
  await pen.down({ x: 0.5, y: 0.5 });
  await pen.moves([{ x: 0.6, y: 0.5 }]);
  await expect(page.getByLabel('Across, typed')).not.toHaveValue(placed);
  await page.keyboard.press('Escape');
  await pen.up({ x: 0.6, y: 0.5 });
  await expect(page.getByLabel('Across, typed')).toHaveValue(placed);
  await page.getByLabel('Place it with the pen').uncheck();
  await page.getByLabel('Only on frames').check();
  await page.getByLabel('First frame').fill('5');
  await page.getByLabel('First frame').press('Enter');
  await painted(page);
  await expect.poll(() => pixels(page)).toBe(empty);
  await page.getByLabel('Only on frames').uncheck();
  await page.getByLabel('Target: beside the picture').check();
  await expect(page.getByTestId('target')).toBeVisible();
  await saved(page);
  const plates = (await stored(address(), shot)).entities.filter((e) => e.kind === 'plate');
  expect(plates.map((p) => [p['guide'], p['beside'], p['opacity']])).toEqual([[true, true, 0.5]]);
  await page.reload();
  await expect(page.getByTestId('target')).toBeVisible();
  await page.getByRole('button', { name: 'References', exact: true }).click();
  await page.getByRole('button', { name: 'Delete glow' }).click();
  await expect(page.getByTestId('target')).toBeHidden();
  await page.keyboard.press('Control+KeyZ');
  await expect(page.getByTestId('target')).toBeVisible();
});

test('numbered pictures and a zip of them are one plate at the shot’s rate; what is wrong is said and changes nothing', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await page.getByRole('button', { name: 'References', exact: true }).click();
  await bring(page, { name: 'broken.png', buffer: Buffer.from('no picture') });
  await expect(page.getByText(/broken\.png: This file is broken/)).toBeVisible();
  await expect(page.getByTestId('plate')).toHaveCount(0);
  await bring(
    page,
    { name: 'walk-10.png', buffer: picture('#0000c0') },
    { name: 'walk-2.png', buffer: picture('#00c000') },
  );
  await expect(page.getByTestId('plate')).toContainText('2 f');
  // walk-2 comes before walk-10.
  await expect.poll(() => countOf(page, [0, 0xc0, 0])).toBeGreaterThan(10_000);
  await page.getByRole('button', { name: 'Delete walk-2' }).click();
  const zip = zipSync({ 'run/run-1.png': picture('#c00000'), 'run/run-2.png': picture('#00c000') });
  await bring(page, { name: 'run.zip', buffer: Buffer.from(zip) });
  await expect(page.getByTestId('plate')).toContainText('2 f');
  await expect.poll(() => countOf(page, [0xc0, 0, 0])).toBeGreaterThan(10_000);
  await saved(page);
  // Dropped on the picture, one comes in too.
  const transfer = await page.evaluateHandle(
    (bytes) => {
      const data = new DataTransfer();
      data.items.add(new File([Uint8Array.from(bytes)], 'dropped.png'));
      return data;
    },
    [...picture('#c0c000')],
  );
  await page.getByTestId('picture').dispatchEvent('drop', { dataTransfer: transfer });
  await page.getByRole('button', { name: 'Bring in', exact: true }).click();
  await expect(page.getByTestId('plate')).toHaveCount(2);
});

test('an OpenRaster file comes in as separate plates by its layers', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const stack = `<?xml version="1.0"?><image w="320" h="180"><stack><layer name="Lamp" src="data/a.png" x="10" y="20"/><stack opacity="0.5"><layer name="Wall" src="data/b.png" visibility="hidden"/></stack></stack></image>`;
  const file = zipSync({
    mimetype: [strToU8('image/openraster'), { level: 0 }],
    'stack.xml': strToU8(stack),
    'data/a.png': Uint8Array.from(picture('#ff0000', 40, 20)),
    'data/b.png': Uint8Array.from(picture('#0000ff', 40, 20)),
  });
  await page.getByRole('button', { name: 'References' }).click();
  await bring(page, { name: 'room.ora', buffer: Buffer.from(file) });
  await expect(page.getByText('2 layers of room.ora came in, each a plate.')).toBeVisible();
  await saved(page);
  const plates = (await stored(address(), shot)).entities.filter((each) => each['kind'] === 'plate');
  const lamp = plates.find((each) => each['name'] === 'Lamp')!;
  // The whole is twice as large in the shot; the layer's middle is 30 px across and 30 px down in it.
  expect(lamp).toMatchObject({ scale: 2, x: 60, y: 60, opacity: 1, visible: true });
  expect(plates.find((each) => each['name'] === 'Wall')).toMatchObject({ opacity: 0.5, visible: false });
});
