/** What WCAG 2.2 AA asks of every view, menu and panel, as far as a program can tell. */
import axe from 'axe-core';
import { address, beenHere, drawn, makeShot, openDesk, painted } from './desk.ts';
import { tipped } from './controls.ts';
import { expect, test, type Page } from './test.ts';

const RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** Looks the page through as it is now. @param within a selector: behind an open menu nothing can be reached. */
async function expectFine(page: Page, what: string, within = 'body'): Promise<void> {
  await page.emulateMedia({ reducedMotion: 'reduce' });
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source);
  // What is still on its way would be judged by what it does not stay.
  await expect(async () => {
    expect(await violationsIn(page, within), what).toEqual([]);
  }).toPass({ timeout: 20_000 });
}

/** What is against a rule now. */
const violationsIn = (page: Page, within: string) =>
  page.evaluate(
    async ([values, part]) => {
      const { axe: checker } = window as unknown as { axe: typeof axe };
      const { violations } = await checker.run(part, { runOnly: { type: 'tag', values } });
      return violations.map(({ id, help, nodes }) => ({
        id,
        help,
        nodes: nodes.map((node) => `${node.html.slice(0, 160)} ${node.failureSummary?.slice(0, 240)}`),
      }));
    },
    [RULES, within] as const,
  );

test('the shots page, its dialogs and the page of keys', async ({ page }) => {
  await page.goto(address());
  await expect(page.locator('[data-testid=shot]').first()).toBeVisible();
  await expectFine(page, 'shots');
  await page.getByRole('button', { name: 'New shot' }).first().click();
  await expectFine(page, 'new shot');
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Shelf' }).click();
  await expect(page.getByTestId('shelf-count')).toContainText('effects');
  await expectFine(page, 'the shelf');
});

test('drawing: the desk with each form of time', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await expectFine(page, 'empty desk');
  await drawn(page, 3);
  await painted(page);
  for (const form of ['Wheel', 'Straight', 'Sheet']) {
    await page.getByRole('button', { name: form, exact: true }).click();
    await expectFine(page, form);
  }
});

test('drawing: every panel of the column', async ({ page }) => {
  test.setTimeout(180_000);
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 3);
  await page.getByText('Add folder').click();
  const panels: readonly (readonly [string, string])[] = [
    ['Pick up', 'KeyC'],
    ['Reshape', 'KeyV'],
    ['Fill', 'KeyF'],
    ['Smear', 'Slash'],
  ];
  for (const [name, key] of panels) {
    await page.keyboard.press(key);
    await expect(
      page
        .getByRole('region', { name })
        .or(page.getByLabel(name, { exact: true }))
        .first(),
    ).toBeVisible();
    await expectFine(page, name);
    await page.keyboard.press(key);
  }
  for (const key of ['KeyT', 'KeyB', 'KeyC', 'KeyO', 'KeyI', 'KeyF', 'KeyQ', 'KeyE', 'KeyM']) {
    await page.keyboard.press(`Alt+${key}`);
    await expectFine(page, `panel of ${key}`, 'aside');
  }
  await page.keyboard.press('Alt+Shift+KeyH');
  await expect(page.getByTestId('shelf-panel')).toBeVisible();
  await expectFine(page, 'shelf');
  await page.keyboard.press('Alt+Shift+KeyL');
  await expectFine(page, 'keep on the shelf', '[role=dialog]');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Alt+Shift+KeyV');
  await page.getByLabel('Name of a new version').fill('plan');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('version')).toHaveCount(1);
  await expectFine(page, 'versions', '[role=dialog]');
});

test('menus, planning, assembling and taking away', async ({ page }) => {
  test.setTimeout(180_000);
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 2);
  for (const open of [
    () => page.getByTestId('layer-more').click(),
    () => page.getByTestId('element-time').click(),
    () => page.getByRole('button', { name: 'More', exact: true }).click(),
    () => page.getByTestId('forms').click(),
    () => page.getByRole('button', { name: 'More about Element 1' }).click(),
  ]) {
    await open();
    await expect(page.getByRole('menu')).toBeVisible();
    await expectFine(page, 'menu', '[role=menu]');
    await page.keyboard.press('Escape');
    await expect(page.getByRole('menu')).toHaveCount(0);
  }
  await page.keyboard.press('Shift+Slash');
  await expect(page.getByRole('dialog')).toBeVisible();
  await expectFine(page, 'keys', '[role=dialog]');
  await page.keyboard.press('Escape');
  await tipped(page, 'All swatches')
    .or(page.getByRole('button', { name: /All swatches/ }))
    .first()
    .click();
  await expectFine(page, 'palette', '[role=dialog],[data-radix-popper-content-wrapper]');
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Plan', exact: true }).click();
  await expect(page.getByTestId('plan-tray')).toBeVisible();
  await expectFine(page, 'plan');
  await page.getByRole('link', { name: 'Assemble', exact: true }).click();
  await expect(page.getByTestId('uses')).toBeVisible();
  await expectFine(page, 'assemble');
  await page.getByTestId('bar').click();
  for (const name of ['Place', 'Time', 'Copies', 'Light', 'Looks']) {
    await page.getByRole('group', { name: 'Settings' }).getByRole('button', { name, exact: true }).click();
    await expectFine(page, `settings of a use: ${name}`, 'aside');
  }
  await page.getByTestId('upright').press('Enter');
  await expectFine(page, 'a plane');
  await page.getByRole('button', { name: 'Light on it' }).click();
  await page.getByRole('button', { name: /^Falls on/ }).click();
  await expectFine(page, 'a light');
  await page.keyboard.press('Alt+Shift+KeyF');
  await page.keyboard.press('Alt+Shift+KeyK');
  await page.keyboard.press('Alt+Shift+KeyJ');
  await expectFine(page, 'the camera');
  await page.keyboard.press('Alt+Shift+KeyF');
  await page.getByRole('button', { name: 'Values', exact: true }).click();
  await page.getByTestId('key').first().focus();
  await page
    .getByRole('button', { name: /in strip$/ })
    .first()
    .click();
  await expectFine(page, 'values');
  await page.getByRole('button', { name: 'Sound', exact: true }).click();
  await expectFine(page, 'menu of sounds', '[data-radix-popper-content-wrapper]');
  await page.getByRole('menuitem', { name: 'Strike' }).click();
  await expect(page.locator('[data-testid=sound-bar][data-state=there]')).toHaveCount(1);
  await expectFine(page, 'a sound');
  await page.getByRole('link', { name: 'Export', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Take away' })).toBeVisible();
  await expectFine(page, 'export');
  for (const family of ['Film', 'Loop', 'On one page', 'Frames']) {
    await page.getByRole('button', { name: family, exact: true }).click();
    await expectFine(page, `export: ${family}`);
  }
  await page.getByRole('button', { name: 'Numbers, version, handles' }).click();
  await expectFine(page, 'export: numbers');
});

test('the first visit', async ({ page }) => {
  const shot = await makeShot(address());
  await page.goto(`${address()}/shots/${shot}/draw`);
  await expect(page.getByTestId('ways-in')).toBeVisible();
  await expectFine(page, 'ways in');
  await beenHere(page);
});
