import { channels, contrast, luminance } from '@tallow/core/colour';
import { expect, test, type Page } from './test.ts';
import { address, countOf, drawn, makeShot, openDesk, painted, Pen, pixels, saved } from './desk.ts';

const close = async (page: Page) => {
  await page.getByTestId('element-time').click();
  await page.getByText('Close into a cycle').click();
};

test('the page’s threads share memory, so that what can wait stops for the hand', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  expect(await page.evaluate(() => crossOriginIsolated)).toBe(true);
});

/** How much of the picture is not see-through right after its room has changed, before it is drawn anew. */
async function shownAfter(page: Page, act: () => Promise<void>): Promise<number> {
  await page.evaluate(() => {
    const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=picture]')!;
    const looked = new Promise((done) => {
      new MutationObserver((_, watch) => {
        watch.disconnect();
        const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
        let seen = 0;
        for (let i = 3; i < data.length; i += 4) if (data[i]! > 0) seen += 1;
        done(seen / (canvas.width * canvas.height));
      }).observe(canvas, { attributes: true, attributeFilter: ['data-wanted'] });
    });
    Object.assign(window, { looked });
  });
  await act();
  return page.evaluate(() => (window as unknown as { looked: Promise<number> }).looked);
}

for (const place of ['draw', 'assemble'] as const)
  test(`the picture never blinks when its room changes: ${place}`, async ({ page }) => {
    const shot = await makeShot(address());
    await openDesk(page, address(), shot);
    await drawn(page, 1);
    await saved(page);
    if (place === 'assemble') {
      await page.getByRole('link', { name: 'Assemble' }).click();
      // The picture of Draw was painted too.
      await expect(page.getByTestId('assemble-foot')).toBeVisible();
      await painted(page);
    }
    for (const height of [700, 800]) {
      const seen = await shownAfter(page, () => page.setViewportSize({ width: 1280, height }));
      expect(seen).toBeGreaterThan(0.5);
      await painted(page);
    }
  });

test('on the last drawing of a cycle the first is seen as the next, in its colour', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 3);
  await painted(page);
  const after = channels('#a48cff');
  expect(await countOf(page, after, 24)).toBe(0);
  await close(page);
  await painted(page);
  expect(await countOf(page, after, 24)).toBeGreaterThan(20);
});

test('ghosts keep 3:1 on opaque orange: their colour on their dark edge, and the edge on the fire', async ({
  page,
}) => {
  const shot = await makeShot(address(), { background: '#ffa62b' });
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await page.getByRole('group', { name: 'Brushes' }).getByText('Shape').click();
  await page.getByLabel('Width in px').fill('200');
  for (const x of [0.3, 0.4, 0.5, 0.6]) {
    if (x > 0.3) await page.keyboard.press('KeyS');
    await painted(page);
    await pen.down({ x, y: 0.5 });
    await pen.up({ x, y: 0.5 });
  }
  await page.keyboard.press('Shift+KeyW');
  await expect(page.getByText('3 before')).toBeVisible();
  for (const look of ['outline', 'full']) {
    await painted(page);
    // Along a row outside the drawing: the farthest ghost's rim on the bare orange.
    const rim = await page.getByTestId('picture').evaluate((canvas: HTMLCanvasElement) => {
      const { data } = canvas.getContext('2d')!.getImageData(0, canvas.height >> 1, canvas.width >> 1, 1);
      return Array.from({ length: data.length / 4 }, (_, i) => [data[i * 4]!, data[i * 4 + 1]!, data[i * 4 + 2]!]);
    });
    const lights = rim.map(([r, g, b]) => luminance(r!, g!, b!));
    const orange = luminance(...channels('#ffa62b'));
    const inside = lights.findIndex((light) => contrast(light, orange) < 1.05);
    const first = lights.findIndex((light, i) => i > inside && contrast(light, orange) > 1.5);
    expect(first).toBeGreaterThan(inside);
    const near = lights.slice(first - 1, first + 8);
    const edge = Math.min(...near);
    expect(contrast(edge, orange)).toBeGreaterThanOrEqual(3);
    // The coloured line lies between two dark edges.
    const colour = Math.max(...near.slice(near.indexOf(edge)));
    expect(contrast(colour, edge)).toBeGreaterThanOrEqual(3);
    if (look === 'outline') await page.keyboard.press('Alt+KeyW');
  }
});

test('the onion skin’s settings: counts, look, colours and the layer’s own switch, remembered on the next visit', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 3);
  await painted(page);
  const ownOnion = async () => {
    await page.getByTestId('layer-more').click();
    await page.getByRole('menuitemcheckbox', { name: /^Onion skin/ }).click();
  };
  const before = await pixels(page);
  await page.getByRole('button', { name: 'Onion skin settings' }).click();
  await page.getByRole('group', { name: 'Drawings before' }).getByText('2').click();
  await painted(page);
  const two = await pixels(page);
  expect(two).not.toBe(before);
  await page.getByRole('slider', { name: 'farther' }).fill('10');
  await painted(page);
  expect(await pixels(page)).not.toBe(two);
  await page.getByLabel('Before #57b4ff, after #f2d64b').click();
  await painted(page);
  expect(await countOf(page, channels('#57b4ff'), 40)).toBeGreaterThan(20);
  await page.getByText('farthest from the swatches').click();
  await page.keyboard.press('Escape');
  await ownOnion();
  await painted(page);
  const none = await pixels(page);
  await ownOnion();
  await page.keyboard.press('KeyW');
  await painted(page);
  expect(await pixels(page)).toBe(none);
  await page.reload();
  await expect(page.getByText('Onion skin off')).toBeVisible();
});

test('a pinned drawing is a ghost wherever the playhead is', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 4);
  await page.keyboard.press('KeyW');
  await painted(page);
  const bare = await pixels(page);
  for (let i = 0; i < 3; i++) await page.keyboard.press('KeyA');
  await page.keyboard.press('KeyK');
  for (let i = 0; i < 3; i++) await page.keyboard.press('KeyD');
  await painted(page);
  expect(await pixels(page)).not.toBe(bare);
  await page.getByRole('button', { name: 'Onion skin settings' }).click();
  await page.getByRole('button', { name: 'Unpin 1' }).click();
  await painted(page);
  expect(await pixels(page)).toBe(bare);
});

test('held keys flip to the neighbour and come back, show the silhouette, and roll', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 3);
  const frame = page.getByTestId('frame-of');
  await page.keyboard.down('KeyQ');
  await expect(frame).toHaveText('3 of 6');
  await page.keyboard.up('KeyQ');
  await expect(frame).toHaveText('5 of 6');
  await page.keyboard.down('Shift');
  await page.keyboard.down('KeyE');
  await expect(frame).not.toHaveText('5 of 6');
  await page.keyboard.up('KeyE');
  await page.keyboard.up('Shift');
  await expect(frame).toHaveText('5 of 6');
  await painted(page);
  const before = await pixels(page);
  await page.keyboard.down('KeyB');
  await expect.poll(() => countOf(page, channels('#cfcac2'))).toBeGreaterThan(100_000);
  expect(await countOf(page, channels('#14110f'))).toBeGreaterThan(300);
  await page.keyboard.up('KeyB');
  await painted(page);
  await expect.poll(() => pixels(page)).toBe(before);
});

test('without keys: a button held flips, rolls or shows the silhouette, and comes back when it is let go', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 3);
  await painted(page);
  const frame = page.getByTestId('frame-of');
  const before = await pixels(page);
  for (const name of ['Previous drawing', 'Hold to roll through the neighbours', 'Hold for the silhouette']) {
    await page.getByRole('button', { name }).hover();
    await page.mouse.down();
    if (name === 'Hold for the silhouette')
      await expect.poll(() => countOf(page, channels('#cfcac2'))).toBeGreaterThan(100_000);
    else await expect(frame).not.toHaveText('5 of 6');
    await page.mouse.up();
    await expect(frame).toHaveText('5 of 6');
    await painted(page);
    await expect.poll(() => pixels(page)).toBe(before);
  }
  await page.getByRole('button', { name: 'Previous drawing' }).click();
  await expect(frame).toHaveText('3 of 6');
});

test('a backdrop is for judging only, panels hide, full screen has no controls, and each comes back', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await page.getByRole('button', { name: 'Backdrop for judging' }).click();
  await page.getByText('blue', { exact: true }).click();
  await painted(page);
  expect(await countOf(page, channels('#23427a'))).toBeGreaterThan(50_000);
  await page.keyboard.press('Backquote');
  await expect(page.getByTestId('tray')).toHaveCount(0);
  await page.getByRole('button', { name: 'Show column, strip and tray' }).last().click();
  await expect(page.getByTestId('tray')).toBeVisible();
  await page.keyboard.press('Shift+Space');
  await expect(page.getByRole('banner')).toHaveCount(0);
  await expect(page.getByTestId('pen-text')).toHaveCount(0);
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('pen-text')).toBeVisible();
  // The server never hears of the backdrop.
  const body = (await (await fetch(`${address()}/api/shots/${shot}`)).json()) as { shot: { background: string } };
  expect(body.shot.background).toBe('#202020');
});

test('half speed plays at half the rate; played once, it stops at the end', async ({ page }) => {
  const shot = await makeShot(address(), { length: 6 });
  await openDesk(page, address(), shot);
  await drawn(page, 3);
  await page.keyboard.press('KeyH');
  await page.keyboard.press('Shift+KeyH');
  await page.keyboard.press('KeyA');
  await page.keyboard.press('KeyA');
  await page.keyboard.press('Space');
  await expect(page.getByTestId('hub-under')).toContainText('of 12');
  await expect(page.getByRole('button', { name: /^Play/ })).toBeVisible();
  await expect(page.getByTestId('frame-of')).toHaveText('6 of 6');
});

test('keys are bound anew, say what lost its key, survive a reload, and mirror for the left hand', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 2);
  await page.keyboard.press('Shift+Slash');
  await page.getByTestId('key-newDrawing').click();
  await page.keyboard.press('KeyD');
  await expect(page.getByRole('dialog').getByRole('status')).toHaveText('“Next drawing” had D and has lost it.');
  await expect(page.getByTestId('key-newDrawing')).toHaveText('D');
  await expect(page.getByTestId('key-next')).toHaveText('none');
  await page.keyboard.press('Escape');
  await page.keyboard.press('KeyD');
  await expect(page.getByTestId('frame-of')).toHaveText('5 of 6');
  await saved(page);
  await page.reload();
  await painted(page);
  await page.getByTestId('picture').focus();
  await page.keyboard.press('KeyS');
  await expect(page.getByTestId('frame-of')).toContainText('of 6');
  await page.keyboard.press('Shift+Slash');
  await page.getByRole('button', { name: 'All as they were' }).click();
  await page.getByLabel('I draw with the left hand').check();
  await expect(page.getByTestId('key-newDrawing')).toHaveText('L');
  await page.keyboard.press('Escape');
  await page.keyboard.press('KeyL');
  await expect(page.getByTestId('frame-of')).toContainText('of 8');
  const column = (await page.getByRole('complementary', { name: 'Element' }).boundingBox())!;
  expect(column.x).toBe(0);
});

test('what stays set is shown as chips in words, each ended by a press; the palette opens whole, and a key goes back', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const chips = page.getByTestId('set-chips').getByRole('button');
  await expect(chips).toHaveCount(0);
  for (const set of ['Shift+KeyL', 'Shift+KeyB', 'Shift+KeyX']) await page.keyboard.press(set);
  await expect(chips).toHaveText(['every 15°', 'behind', 'ruler']);
  const pen = await Pen.on(page);
  await pen.tap(chips.nth(1));
  await expect(chips).toHaveText(['every 15°', 'ruler']);
  for (let i = 0; i < 12; i++) await page.getByTestId('tray').getByRole('button', { name: 'Add swatch' }).click();
  // Whole rows only: none is cut.
  const strip = (await page.getByRole('group', { name: 'Palette' }).boundingBox())!;
  for (const swatch of await page.getByTestId('swatch').all()) {
    const box = (await swatch.boundingBox())!;
    expect(box.y + box.height).toBeLessThanOrEqual(strip.y + strip.height + 0.5);
  }
  await page.getByRole('button', { name: 'All swatches' }).click();
  await page.getByTestId('palette-sheet').getByText('core', { exact: true }).first().click();
  await expect(page.getByTestId('palette-sheet')).toBeHidden();
  const inHand = page.locator('[data-testid=swatch][aria-pressed=true]');
  await expect(inHand).toHaveAttribute('data-name', 'core');
  await page.getByTestId('picture').focus();
  await page.keyboard.press('Backslash');
  await expect(inHand).toHaveAttribute('data-name', /^swatch/);
  await page.keyboard.press('Backslash');
  await expect(inHand).toHaveAttribute('data-name', 'core');
});

test('the edge between wheel and layers gives one of them more room, by pen and keys, and is remembered', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 2);
  await page.keyboard.press('Escape');
  const height = async () => (await page.getByTestId('wheel').boundingBox())!.height;
  await page.getByRole('button', { name: 'Wheel', exact: true }).click();
  const before = await height();
  const edge = (await page.getByTestId('divider').boundingBox())!;
  const pen = await Pen.on(page);
  const [x, y] = [edge.x + edge.width / 2, edge.y + edge.height / 2];
  await pen.drag([
    { x, y },
    { x, y: y - 40 },
    { x, y: y - 80 },
  ]);
  const small = await height();
  expect(small).toBeLessThan(before - 60);
  await page.getByTestId('divider').press('ArrowDown');
  expect(await height()).toBeGreaterThan(small);
  const kept = await height();
  await page.reload();
  await painted(page);
  expect(await height()).toBeCloseTo(kept, 0);
  await page.getByTestId('divider').dblclick();
  expect(await height()).toBeCloseTo(before, 0);
});
