import { expect, test, type Page } from '@playwright/test';
import { SOME_PRODUCTION, SOME_SHOT, address, makeShot, openDesk, painted, Pen, pixels } from './desk.ts';
import { choose, tipped } from './controls.ts';

const card = (page: Page, name: string) => page.locator(`[data-testid=shot][data-name="${name}"]`);

test('a production and a shot are made, renamed, duplicated, deleted and brought back', async ({ page }) => {
  await page.goto(address());
  await expect(card(page, SOME_SHOT)).toBeVisible();
  await page.getByRole('button', { name: 'New production' }).click();
  const production = page.getByTestId('production').last();
  await production.getByRole('button', { name: /^More about Production/ }).click();
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await page.getByLabel('Production name').fill('Trials');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Trials' })).toBeVisible();
  await page.getByLabel('Trials', { exact: true }).getByRole('button', { name: 'New shot' }).click();
  await page.getByRole('button', { name: 'Make the shot' }).click();
  await expect(page.getByRole('alert')).toContainText('The name is empty');
  await page.getByLabel('Name', { exact: true }).fill('Candle');
  await page.getByRole('button', { name: 'Own', exact: true }).click();
  await page.getByLabel('Width').fill('15');
  await page.getByRole('button', { name: 'Make the shot' }).click();
  await expect(page.getByRole('alert')).toContainText('from 16 to 8192');
  await page.getByLabel('Width').fill('800');
  await page.getByLabel('Height').fill('600');
  await page.getByRole('button', { name: '12', exact: true }).click();
  await page.getByRole('button', { name: 'seconds' }).click();
  await page.getByLabel('Length').fill('2');
  await page.getByRole('button', { name: 'Transparent' }).click();
  await page.getByRole('button', { name: 'Make the shot' }).click();
  await expect(page.getByTestId('picture')).toBeVisible();
  await expect(page.getByText('800×600 · 12 fps')).toBeVisible();
  await page.getByRole('link', { name: 'Tallow' }).click();
  await expect(card(page, 'Candle')).toContainText('24 f · 2 s');
  await page.getByRole('button', { name: 'More about Candle' }).click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect(card(page, 'Candle copy')).toBeVisible();
  await page.getByRole('button', { name: 'More about Candle copy' }).click();
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await page.getByLabel('Shot name').fill('Lamp');
  await page.keyboard.press('Enter');
  await expect(card(page, 'Lamp')).toBeVisible();
  await page.getByRole('button', { name: 'More about Lamp' }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(card(page, 'Lamp')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(card(page, 'Lamp')).toBeVisible();
});

test('the format can be changed later without touching drawings; bad values are said and not taken', async ({
  page,
}) => {
  await page.goto(address());
  await card(page, SOME_SHOT)
    .getByRole('link', { name: `Open ${SOME_SHOT}` })
    .click();
  await tipped(page, 'Change the format').click();
  await page.getByLabel('Frames per second').fill('121');
  await expect(page.getByText('A whole number from 1 to 120')).toBeVisible();
  await page.getByLabel('Frames per second').fill('12');
  await page.keyboard.press('Enter');
  await expect(page.getByText('The shot lasts 6 s')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Undo frame rate/ }).click();
  await expect(page.getByText('1920×1080 · 24 fps')).toBeVisible();
});

test('what everything takes is told by what it is', async ({ page }) => {
  await page.goto(address());
  await expect(card(page, SOME_SHOT)).toBeVisible();
  await page.getByRole('button', { name: 'Archives and room' }).click();
  await page.getByRole('menuitem', { name: 'Room taken' }).click();
  const dialog = page.getByRole('dialog', { name: 'Room taken' });
  await expect(dialog.getByTestId('room-shots')).toContainText(/[1-9][\d.]* [kMG]B/);
  await expect(dialog.getByText(/in all; .* of the disk are free/)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(dialog).toHaveCount(0);
});

test('an unknown shot is said, with a way back', async ({ page }) => {
  await page.goto(`${address()}/shots/00000000-0000-4000-8000-000000000000/draw`);
  await expect(page.getByText('This shot is not there')).toBeVisible();
  await page.getByRole('link', { name: 'All shots' }).click();
  await expect(page.getByText(SOME_PRODUCTION)).toBeVisible();
});

test('the keys are shown on a page of their own', async ({ page }) => {
  await page.goto(address());
  await card(page, SOME_SHOT)
    .getByRole('link', { name: `Open ${SOME_SHOT}` })
    .click();
  await expect(page.getByTestId('picture')).toBeVisible();
  await page.keyboard.press('Shift+Slash');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('New drawing after this');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('a smaller size keeps the middle and says what leaves the frame; nothing is cut', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.1, y: 0.5 }, { x: 0.3, y: 0.5 });
  await painted(page);
  const before = await pixels(page);
  await tipped(page, 'Change the format').click();
  await page.getByLabel('Width, px').fill('120');
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 drawing now reaches beyond the frame, wholly outside.')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Undo size/ }).click();
  await page.getByTestId('picture').focus();
  await page.keyboard.press('Digit0');
  await painted(page);
  expect(await pixels(page)).toBe(before);
});

test('shots are found by name and put in order', async ({ page }) => {
  for (const name of ['Zinc spark', 'Ash drift'])
    await makeShot(address(), { name, length: name === 'Ash drift' ? 99 : 9 });
  await page.goto(address());
  const names = () =>
    page.getByTestId('shot').evaluateAll((cards) => cards.map((each) => (each as HTMLElement).dataset['name']!));
  await expect(card(page, 'Zinc spark').first()).toBeVisible();
  await choose(page.getByLabel('Order of shots'), 'name');
  const sorted = await names();
  expect(sorted.indexOf('Ash drift')).toBeLessThan(sorted.indexOf('Zinc spark'));
  await page.getByLabel('Find a shot').fill('zinc');
  await expect.poll(async () => new Set(await names())).toEqual(new Set(['Zinc spark']));
  await expect(page.getByTestId('production').getByRole('button', { name: 'New shot' })).toHaveCount(0);
  await page.getByLabel('Find a shot').fill('nothing like it');
  await expect(page.getByText('No shot is named like “nothing like it”.')).toBeVisible();
  // Standing still is one button away.
  await page.getByLabel('Find a shot').fill('');
  await page.getByRole('button', { name: 'Pause the loops' }).click();
  for (const plays of await page
    .getByTestId('shot')
    .locator('img')
    .evaluateAll((all) => all.map((each) => (each as HTMLElement).dataset['plays'])))
    expect(plays).toBe('false');
});
