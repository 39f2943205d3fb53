import { expect, test, type Page } from './test.ts';
import { address, countOf, drawn, makeShot, openDesk, painted, Pen, pixels, saved, stored } from './desk.ts';
import { choose, tipped } from './controls.ts';

const row = (page: Page, name: string) => page.locator(`[data-testid=element][data-name="${name}"]`);
const layer = (page: Page, name: string) => page.locator(`[data-testid=layer][data-name="${name}"]`);
const close = async (page: Page) => {
  await page.getByTestId('element-time').click();
  await page.getByText('Close into a cycle').click();
};
const onEach = async (page: Page, frames: number) => {
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: `Whole layer on ${frames}s` }).click();
};

test('two elements of 24 and 36 frames play on their own time; the strip follows and tells the turn', async ({
  page,
}) => {
  const shot = await makeShot(address(), { length: 72 });
  await openDesk(page, address(), shot);
  const cycleOf = async (drawings: number) => {
    await drawn(page, 1);
    for (let i = 1; i < drawings; i++) await page.keyboard.press('Shift+KeyS');
    await close(page);
    await onEach(page, 4);
  };
  await cycleOf(6);
  await expect(page.getByTestId('frame-of')).toContainText('of 24');
  await page.getByText('Add element').click();
  await expect(tipped(row(page, 'Element 2'), 'Open Element 2')).toHaveAttribute('aria-pressed', 'true');
  await cycleOf(9);
  await expect(page.getByTestId('frame-of')).toContainText('of 36');
  await tipped(row(page, 'Element 1'), 'Open Element 1').click();
  await expect(page.getByTestId('frame-of')).toContainText('of 24');
  // A frame of the shot is one of each element's own, in a turn of its own.
  const strip = (await page.getByRole('slider', { name: 'Shot', exact: true }).boundingBox())!;
  await page.mouse.click(strip.x + (strip.width * 60.5) / 72, strip.y + 10);
  await expect(page.getByTestId('hub-where')).toHaveText('shot 61 · turn 3');
  await expect(page.getByTestId('frame-of')).toHaveText('13 of 24');
  await tipped(row(page, 'Element 2'), 'Open Element 2').click();
  await expect(page.getByTestId('hub-where')).toHaveText('shot 61 · turn 2');
  await expect(page.getByTestId('frame-of')).toHaveText('25 of 36');
  // Stepping goes on through the turns of the active element, and round the shot.
  await page.getByTestId('picture').focus();
  for (let i = 0; i < 12; i++) await page.keyboard.press('Shift+KeyD');
  await expect(page.getByTestId('hub-where')).toHaveText('shot 1 · turn 1');
  await tipped(row(page, 'Element 1'), 'Open Element 1').click();
  await page.evaluate(() => {
    const text = document.querySelector('[data-testid=hub-where]')!;
    const seen = new Set<string>();
    const watch = () => {
      seen.add(text.textContent!.split('turn ')[1]!);
      if (seen.size < 3) requestAnimationFrame(watch);
      else document.body.dataset['turns'] = [...seen].sort().join();
    };
    watch();
  });
  await page.keyboard.press('Space');
  await expect(page.locator('body')).toHaveAttribute('data-turns', '1,2,3');
  await page.keyboard.press('Space');
});

test('an element is named, begins later, goes to the back and is deleted, each by one undo', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await page.getByText('Add element').click();
  const names = () =>
    page.getByTestId('element').evaluateAll((rows) => rows.map((each) => (each as HTMLElement).dataset['name']));
  expect(await names()).toEqual(['Element 2', 'Element 1']);
  const more = () => page.getByRole('button', { name: /^More about (Element 2|Smoke)/ }).click();
  await more();
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await row(page, 'Element 2').getByLabel('Element name').fill('Smoke');
  await page.keyboard.press('Enter');
  await more();
  await page.getByRole('menuitem', { name: /^Begins on frame 1 of the shot/ }).click();
  await page.getByLabel('Begins on frame of the shot').fill('13');
  await page.keyboard.press('Enter');
  await saved(page);
  expect(
    (await stored(address(), shot)).entities
      .filter((e) => e.kind === 'placement')
      .map((e) => e['start'])
      .sort(),
  ).toEqual([0, 12]);
  await more();
  await page.getByRole('menuitem', { name: 'To the back' }).click();
  await expect.poll(names).toEqual(['Element 1', 'Smoke']);
  await more();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect.poll(names).toEqual(['Element 1']);
  await page.getByRole('button', { name: 'More about Element 1' }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(page.getByText('This is the only element.')).toBeVisible();
  await page.getByTestId('picture').focus();
  for (let i = 0; i < 5; i++) await page.keyboard.press('Control+KeyZ');
  await expect.poll(names).toEqual(['Element 1']);
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toHaveAttribute('aria-disabled', 'true');
});

test('a folder hides, locks and fades what lies in it, says so, and gives it back', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await page.getByLabel('pressure').uncheck();
  await pen.stroke({ x: 0.3, y: 0.5 }, { x: 0.7, y: 0.5 });
  await painted(page);
  const lines = await countOf(page, [140, 42, 20]);
  expect(lines).toBeGreaterThan(1000);
  await page.getByText('Add folder').click();
  await page.getByRole('button', { name: 'Hide Folder 1' }).click();
  await expect(page.getByTestId('pen-text')).toHaveText(
    '“Line” is hidden by its folder “Folder 1”. Show the folder to draw on it.',
  );
  await expect(tipped(layer(page, 'Line'), 'Hidden by its folder “Folder 1”')).toBeVisible();
  await painted(page);
  expect(await countOf(page, [140, 42, 20])).toBe(0);
  await page.getByRole('button', { name: 'Show Folder 1' }).click();
  await page.getByRole('button', { name: 'Lock Folder 1' }).click({ force: true });
  await expect(page.getByTestId('pen-text')).toHaveText(/^“Line” lies in the locked folder/);
  await page.getByRole('button', { name: 'Unlock Folder 1' }).click();
  await page.locator('[data-testid=folder] button[aria-expanded]').click();
  await page.getByLabel('Opacity of Folder 1').fill('50');
  await painted(page);
  // Half of the line over #202020.
  expect(await countOf(page, [86, 37, 26], 4)).toBeGreaterThan(lines * 0.8);
  // Drawing inside a faded folder looks the same under the pen and after.
  await pen.down({ x: 0.4, y: 0.3, force: 0.5 });
  await pen.moves(
    Array.from({ length: 20 }, (_, k) => k + 1).map((i) => ({ x: 0.4 + i * 0.01, y: 0.3 + i * 0.02, force: 0.6 })),
  );
  const live = await pixels(page);
  await pen.up({ x: 0.6, y: 0.7 });
  expect(await pixels(page)).toBe(live);
  await painted(page);
  expect(await pixels(page)).toBe(live);
  await page.getByTestId('folder-more').click();
  await page.getByRole('menuitem', { name: /^Take it apart/ }).click();
  await expect(page.getByTestId('folder')).toHaveCount(0);
  await expect(layer(page, 'Line')).toBeVisible();
});

test('one layer alone, all others dimmed or locked, and back to exactly what was', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.3, y: 0.3 }, { x: 0.7, y: 0.3 });
  await page.getByText('Add layer').click();
  await page.getByRole('button', { name: 'Lock Layer 2' }).click({ force: true });
  await page.getByText('Add layer').click();
  await pen.stroke({ x: 0.3, y: 0.7 }, { x: 0.7, y: 0.7 });
  await painted(page);
  const whole = await pixels(page);
  for (const key of ['KeyI', 'KeyO']) {
    await page.keyboard.press(key);
    await painted(page);
    expect(await pixels(page)).not.toBe(whole);
    await page.keyboard.press(key);
    await painted(page);
    expect(await pixels(page)).toBe(whole);
  }
  const locks = async () => {
    await saved(page);
    const { entities } = await stored(address(), shot);
    return entities
      .filter((e) => e.kind === 'layer')
      .map((e) => [e['name'], e['locked']].join(' '))
      .sort();
  };
  const before = await locks();
  await page.keyboard.press('KeyU');
  expect(await locks()).toEqual(['Layer 2 true', 'Layer 3 false', 'Line true']);
  await page.keyboard.press('KeyU');
  expect(await locks()).toEqual(before);
});

test('a layer that screens or adds looks the same under the pen and after, and export warns of it', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.3, y: 0.5 }, { x: 0.7, y: 0.5 });
  await page.getByText('Add layer').click();
  for (const blend of ['screen', 'lighter']) {
    await choose(page.getByLabel('Blend'), blend);
    await painted(page);
    await pen.down({ x: 0.5, y: 0.3, force: 0.8 });
    await pen.moves(
      Array.from({ length: 20 }, (_, k) => k + 1).map((i) => ({ x: 0.5 + 0.005 * i, y: 0.3 + i * 0.02, force: 0.8 })),
    );
    const live = await pixels(page);
    await pen.up({ x: 0.6, y: 0.7 });
    await painted(page);
    expect(await pixels(page)).toBe(live);
  }
  // Drawn below it, the stroke lies under the blend while the pen is down.
  await layer(page, 'Line').getByRole('button', { pressed: false }).first().click();
  await painted(page);
  await pen.down({ x: 0.45, y: 0.45, force: 0.8 });
  await pen.moves(
    Array.from({ length: 20 }, (_, k) => k + 1).map((i) => ({ x: 0.45 + 0.01 * i, y: 0.45, force: 0.8 })),
  );
  const live = await pixels(page);
  await pen.up({ x: 0.65, y: 0.45 });
  await painted(page);
  expect(await pixels(page)).toBe(live);
  await page.getByRole('link', { name: 'Export' }).click();
  await expect(page.getByText('it will look different over other footage')).toBeVisible();
  await page.getByRole('button', { name: 'With the background colour' }).click();
  await expect(page.getByText('it will look different over other footage')).toHaveCount(0);
});

test('an element of several painted layers is copied in one action, a layer with what is tied to it in one more', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 2);
  await page.getByTestId('layer-more').click();
  await page.getByRole('menuitem', { name: 'Line over this' }).click();
  await drawn(page, 1);
  await saved(page);
  const kinds = async () => {
    const { entities, drawings } = await stored(address(), shot);
    const count = (kind: string) => entities.filter((each) => each.kind === kind).length;
    return { elements: count('element'), layers: count('layer'), drawings: drawings.length };
  };
  const before = await kinds();
  await page.getByRole('button', { name: 'More about Element 1' }).click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect(page.getByRole('heading', { name: 'Element 1 copy' })).toBeVisible();
  await saved(page);
  const after = await kinds();
  expect(after).toEqual({ elements: 2, layers: 2 * before.layers, drawings: 2 * before.drawings });
  await page.getByTestId('layer-more').click();
  await page.getByRole('menuitem', { name: 'Copies' }).click();
  await page.getByRole('menuitem', { name: 'Duplicate with what is tied to it' }).click();
  await expect(page.getByTestId('layer')).toHaveCount(2 * before.layers);
  await page.getByRole('button', { name: /^Undo duplicate tied layers/ }).click();
  await page.getByRole('button', { name: /^Undo duplicate element/ }).click();
  await saved(page);
  expect(await kinds()).toEqual(before);
});

test('a layer and a whole element go into another shot, with their drawings and the swatches they need', async ({
  page,
}) => {
  const [shot, other] = [await makeShot(address(), { name: 'From' }), await makeShot(address(), { name: 'Into' })];
  await openDesk(page, address(), shot);
  await drawn(page, 2);
  await page.getByTestId('layer-more').click();
  await page.getByRole('menuitem', { name: 'Copies' }).click();
  await expect(page.getByRole('menuitem', { name: 'Paste what was copied' })).toHaveAttribute(
    'data-tip',
    /^Nothing is copied/,
  );
  await page.getByRole('menuitem', { name: 'Copy this layer' }).click();
  await expect(page.getByText('“Line” is copied.')).toBeVisible();
  await saved(page);
  const into = async () => {
    await tipped(page, 'All shots').click();
    await page.locator('[data-testid=shot][data-name=Into]').getByRole('link').first().click();
    await expect(page.getByTestId('picture')).toHaveAttribute('data-shown', /./);
  };
  await into();
  await page.getByTestId('layer-more').click();
  await page.getByRole('menuitem', { name: 'Copies' }).click();
  await page.getByRole('menuitem', { name: 'Paste what was copied' }).click();
  await expect(layer(page, 'Line copy')).toBeVisible();
  await saved(page);
  const drawings = async () => (await stored(address(), other)).drawings.length;
  expect(await drawings()).toBe(2);
  await tipped(page, 'All shots').click();
  await page.locator('[data-testid=shot][data-name=From]').getByRole('link').first().click();
  await page.getByRole('button', { name: 'More about Element 1' }).click();
  await page.getByRole('menuitem', { name: 'Copy', exact: true }).click();
  await expect(page.getByText('“Element 1” is copied.')).toBeVisible();
  await into();
  await page.getByRole('button', { name: 'More about Element 1' }).click();
  await page.getByRole('menuitem', { name: 'Paste what was copied' }).click();
  await expect(page.getByRole('heading', { name: 'Element 1 copy' })).toBeVisible();
  await painted(page);
  expect(await countOf(page, [140, 42, 20])).toBeGreaterThan(500);
  await saved(page);
  expect(await drawings()).toBe(4);
  await page.getByRole('button', { name: /^Undo paste/ }).click();
  await saved(page);
  expect(await drawings()).toBe(2);
});

test('a folder moves and glows as one over time', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 1);
  await painted(page);
  const before = await countOf(page, [140, 42, 20]);
  await page.getByText('Add folder').click();
  await page.locator('[data-testid=folder] button[aria-expanded]').click();
  await page.getByTestId('folder-more').click();
  await page.getByRole('menuitem', { name: 'Opacity and place over time' }).click();
  const values = page.getByTestId('values-panel');
  await expect(values.getByRole('heading')).toHaveText('Folder 1 over time');
  await values.getByLabel('Size', { exact: true }).fill('50');
  await values.getByLabel('Size', { exact: true }).press('Enter');
  await painted(page);
  // Half as long and half as wide.
  const half = await countOf(page, [140, 42, 20]);
  expect(half).toBeGreaterThan(before * 0.1);
  expect(half).toBeLessThan(before * 0.4);
  await values.getByRole('button', { name: 'Set Opacity on this frame' }).click();
  await expect(values.locator('[data-curve=opacity]')).toBeVisible();
  await tipped(values, 'Back to the layers').click();
  await page.locator('[data-testid=folder] button[aria-expanded]').click();
  await page.getByTestId('folder-more').click();
  await page.getByRole('menuitem', { name: /^Looks of the folder/ }).click();
  await page.getByRole('button', { name: 'Add a look' }).click();
  await page.getByRole('menuitem', { name: /^Blur/ }).click();
  await page.getByRole('checkbox', { name: 'Finished look' }).check();
  await painted(page);
  expect(await countOf(page, [140, 42, 20])).toBeLessThan(half / 2);
});

const still = async (page: Page) => {
  await page.getByTestId('layer-more').click();
  await page.getByRole('menuitemcheckbox', { name: /^Still/ }).click();
};

test('a still layer shows one drawing throughout and does not count for the length', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 3);
  await page.getByText('Add layer').click();
  await drawn(page, 1);
  await still(page);
  await expect(layer(page, 'Layer 2')).toContainText('still');
  await expect(page.getByTestId('pen-text')).toHaveText('pen draws on Layer 2, shown throughout');
  await still(page);
  await expect(layer(page, 'Layer 2')).not.toContainText('still');
});
