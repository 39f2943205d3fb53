import { expect, test } from './test.ts';
import { address, countOf, makeShot, openDesk, painted, Pen, pixels, saved, storedMarks } from './desk.ts';
import { tipped } from './controls.ts';

test('a stroke looks the same under the pen, after pen-up and after reloading', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  const empty = await pixels(page);
  await pen.down({ x: 0.3, y: 0.5, force: 0.2 });
  await pen.moves(
    Array.from({ length: 70 }, (_, k) => k + 1).map((i) => ({
      x: 0.3 + i * 0.005,
      y: 0.5 + 0.12 * Math.sin(i / 6),
      force: 0.2 + 0.7 * Math.abs(Math.sin(i / 20)),
    })),
  );
  const live = await pixels(page);
  expect(live).not.toEqual(empty);
  await pen.up({ x: 0.66, y: 0.52 });
  expect(await pixels(page)).toEqual(live);
  await painted(page);
  expect(await pixels(page)).toEqual(live);
  await saved(page);
  await page.reload();
  await painted(page);
  await expect.poll(() => pixels(page)).toEqual(live);
});

test('a half-opaque stroke and a rub-out under a layer above it settle to the pixel', async ({ page }) => {
  const shot = await makeShot(address(), { background: null });
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.35, y: 0.4 }, { x: 0.65, y: 0.6 });
  await page.getByText('Add layer').click();
  await pen.stroke({ x: 0.35, y: 0.6 }, { x: 0.65, y: 0.4 });
  await page.locator('[data-testid=layer][data-name=Line] button[aria-pressed]').click();
  await page.getByLabel('Opacity in per cent').fill('50');
  for (const tool of ['Ink', 'Rub out']) {
    await page.getByRole('group', { name: 'Brushes' }).getByText(tool).click();
    await painted(page);
    await pen.down({ x: 0.4, y: 0.45, force: 0.5 });
    await pen.moves(
      Array.from({ length: 50 }, (_, k) => k + 1).map((i) => ({
        x: 0.4 + 0.2 * Math.sin(i / 9),
        y: 0.45 + i * 0.003,
        force: 0.8,
      })),
    );
    const live = await pixels(page);
    await pen.up({ x: 0.5, y: 0.6 });
    expect(await pixels(page)).toEqual(live);
    await painted(page);
    expect(await pixels(page)).toEqual(live);
  }
});

test('no frame between pen-down and the settled stroke shows it twice or not at all', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await page.getByLabel('Opacity in per cent').fill('50');
  // Watches one pixel of the first stroke on every frame while a second one is begun at once.
  await pen.stroke({ x: 0.4, y: 0.5 }, { x: 0.6, y: 0.5 });
  await painted(page);
  const settled = await page.getByTestId('picture').evaluate((canvas: HTMLCanvasElement) => {
    const spot = [Math.round(canvas.width * 0.5), Math.round(canvas.height * 0.5)] as const;
    const read = () => Array.from(canvas.getContext('2d')!.getImageData(spot[0], spot[1] - 12, 1, 40).data).join();
    const seen = new Set([read()]);
    const watch = () => {
      seen.add(read());
      requestAnimationFrame(watch);
    };
    watch();
    (window as unknown as { seen: Set<string> }).seen = seen;
    return seen.size;
  });
  expect(settled).toBe(1);
  for (let i = 0; i < 4; i++) await pen.stroke({ x: 0.2, y: 0.2 + i * 0.02 }, { x: 0.3, y: 0.2 + i * 0.02 }, 12);
  await painted(page);
  expect(await page.evaluate(() => (window as unknown as { seen: Set<string> }).seen.size)).toBe(1);
  await saved(page);
  expect(await storedMarks(address(), shot)).toEqual([5]);
});

test('pressure, tilt and places beyond the frame are kept; no pressure draws one width', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.01, y: 0.5 }, { x: 0.5, y: 0.01 });
  await page.getByLabel('pressure').uncheck();
  await pen.stroke({ x: 0.4, y: 0.4 }, { x: 0.6, y: 0.6 });
  await saved(page);
  const { drawings } = (await (await fetch(`${address()}/api/shots/${shot}`)).json()) as { drawings: string[] };
  const [drawing] = (await (await fetch(`${address()}/api/shots/${shot}/drawings?ids=${drawings[0]!}`)).json()) as [
    { order: string[]; marks: Record<string, { brush: { pressure: boolean }; samples: Record<string, string> }> },
  ];
  const [first, second] = drawing.order.map((id) => drawing.marks[id]!);
  const column = (text: string) => new Float32Array(Uint8Array.from(Buffer.from(text, 'base64')).buffer);
  expect(new Set(column(first!.samples['pressure']!)).size).toBeGreaterThan(5);
  expect(column(first!.samples['altitude']!)[0]!).toBeLessThan(1.5);
  expect(Math.min(...column(first!.samples['x']!))).toBeLessThan(-320);
  expect(second!.brush.pressure).toBe(false);
});

test('drawing works through a turned, mirrored and zoomed view, and fit comes back', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await page.getByTestId('picture').focus();
  for (const key of ['BracketRight', 'KeyM', 'Equal']) await page.keyboard.press(key);
  await painted(page);
  await pen.down({ x: 0.5, y: 0.5, force: 0.5 });
  await pen.moves(Array.from({ length: 19 }, (_, k) => k + 1).map((i) => ({ x: 0.5 + i * 0.005, y: 0.5, force: 0.5 })));
  const live = await pixels(page);
  await pen.up({ x: 0.6, y: 0.5 });
  await painted(page);
  expect(await pixels(page)).toEqual(live);
  await tipped(page, 'Upright').click();
  await expect(page.getByText('· 0°')).toBeVisible();
  await page.keyboard.press('Digit0');
  await expect(page.getByRole('button', { name: 'Mirror' })).toHaveAttribute('aria-pressed', 'false');
});

test('locked and hidden layers say why they cannot be drawn on', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await page.getByRole('button', { name: 'Lock Line' }).click({ force: true });
  await expect(page.getByTestId('pen-text')).toHaveText('“Line” is locked. Unlock it to draw on it.');
  await pen.stroke({ x: 0.4, y: 0.4 }, { x: 0.6, y: 0.6 });
  await page.getByRole('button', { name: 'Unlock Line' }).click();
  await page.getByRole('button', { name: 'Hide Line' }).click();
  await expect(page.getByTestId('pen-text')).toHaveText('“Line” is hidden. Show it to draw on it.');
  await pen.stroke({ x: 0.4, y: 0.4 }, { x: 0.6, y: 0.6 });
  await saved(page);
  expect(await storedMarks(address(), shot)).toEqual([]);
});

test('a swatch changed once changes everything drawn with it, and undo brings it back', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.4, y: 0.5 }, { x: 0.6, y: 0.5 });
  await painted(page);
  const before = await pixels(page);
  await page.locator('[data-testid=swatch][data-name=line]').click();
  await page.getByLabel('Colour as hex').fill('#00ff00');
  await painted(page);
  expect(await countOf(page, [0, 255, 0])).toBeGreaterThan(200);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+KeyZ');
  await painted(page);
  expect(await pixels(page)).toEqual(before);
});
