/** Versions by pen and by keys: a stage named, gone back to in two actions, gone on from in a new shot; nothing after it is lost. */
import { address, countOf, makeShot, openDesk, painted, Pen, saved, stored } from './desk.ts';
import { tipped } from './controls.ts';
import { expect, test, type Page } from './test.ts';

const LINE: [number, number, number] = [140, 42, 20];
const card = (page: Page, name: string) => page.locator(`[data-testid=version][data-name="${name}"]`);

test('a stage is named and gone back to in two actions; where one was is kept; a new shot goes on from it', async ({
  page,
}) => {
  const shot = await makeShot(address(), { name: 'Staged' });
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.3, y: 0.3 }, { x: 0.7, y: 0.3 });
  await painted(page);
  await saved(page);
  const first = await countOf(page, LINE);
  await page.keyboard.press('Alt+Shift+KeyV');
  await page.getByLabel('Name of a new version').fill('plan');
  await page.keyboard.press('Enter');
  await expect(card(page, 'plan')).toContainText('no drawing has changed since');
  await page.keyboard.press('Escape');
  await page.getByTestId('picture').focus();
  await pen.stroke({ x: 0.3, y: 0.7 }, { x: 0.7, y: 0.7 });
  await page.keyboard.press('KeyS');
  await painted(page);
  await pen.stroke({ x: 0.5, y: 0.2 }, { x: 0.5, y: 0.8 });
  await saved(page);
  await page.keyboard.press('KeyA');
  await painted(page);
  expect(await countOf(page, LINE)).toBeGreaterThan(first * 1.5);
  // One key, one press.
  await page.keyboard.press('Alt+Shift+KeyV');
  await expect(card(page, 'plan')).toContainText('2 drawings have changed since');
  await card(page, 'plan').getByRole('button', { name: 'Go back', exact: true }).click();
  await expect(page.getByText('The shot is as it was in “plan”. What came after is among the versions.')).toBeVisible();
  await expect(card(page, 'Before going back to “plan”')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect.poll(() => countOf(page, LINE)).toBe(first);
  await saved(page);
  expect((await stored(address(), shot)).drawings).toHaveLength(1);
  // And forth again: nothing was lost.
  await page.keyboard.press('Alt+Shift+KeyV');
  await card(page, 'Before going back to “plan”').getByRole('button', { name: 'Go back', exact: true }).click();
  await expect.poll(async () => (await stored(address(), shot)).drawings.length).toBe(2);
  await card(page, 'plan').getByRole('button', { name: 'New shot', exact: true }).click();
  await expect(page).not.toHaveURL(new RegExp(shot));
  await expect(tipped(page, 'Staged, plan · click to rename')).toBeVisible();
  await expect.poll(() => countOf(page, LINE)).toBe(first);
});

test('it is renamed and let go; taken away, a shot is named by itself', async ({ page }) => {
  const shot = await makeShot(address(), { name: 'Kept', length: 2 });
  await openDesk(page, address(), shot);
  await (await Pen.on(page)).stroke({ x: 0.3, y: 0.3 }, { x: 0.7, y: 0.3 });
  await saved(page);
  await page.getByRole('link', { name: 'Export' }).click();
  await page.getByRole('button', { name: 'Export 2 frames' }).click();
  await expect(page.getByTestId('export')).toHaveAttribute('data-state', 'done', { timeout: 30_000 });
  await page.getByRole('button', { name: /^Versions/ }).click();
  const made = card(page, 'Taken away as kept-alpha.zip');
  await expect(made).toContainText('by itself');
  await tipped(made, 'Rename').click();
  await page.getByLabel('Name of the version').fill('To the director');
  await page.keyboard.press('Enter');
  await expect(card(page, 'To the director')).toBeVisible();
  await page.getByRole('button', { name: 'Let “To the director” go' }).click();
  await expect(page.getByTestId('version')).toHaveCount(0);
});

test('one element comes back alone, one layer beside, and two versions play in step', async ({ page }) => {
  const shot = await makeShot(address(), { name: 'Parts', length: 4 });
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.3, y: 0.3 }, { x: 0.7, y: 0.3 });
  await painted(page);
  await saved(page);
  const first = await countOf(page, LINE);
  const keep = async (name: string): Promise<void> => {
    await page.keyboard.press('Alt+Shift+KeyV');
    await page.getByLabel('Name of a new version').fill(name);
    await page.keyboard.press('Enter');
    await expect(card(page, name)).toBeVisible();
    await page.keyboard.press('Escape');
    await page.getByTestId('picture').focus();
  };
  await keep('thin');
  await pen.stroke({ x: 0.3, y: 0.5 }, { x: 0.7, y: 0.5 });
  await page.getByRole('button', { name: 'Add element' }).click();
  await painted(page);
  await pen.stroke({ x: 0.3, y: 0.7 }, { x: 0.7, y: 0.7 });
  await saved(page);
  await keep('thick');
  await page.keyboard.press('Alt+Shift+KeyV');
  await expect(page.getByTestId('room')).toContainText(/ kB as it is now, \d+ kB kept of what came before\./);
  // Side by side.
  await card(page, 'thin').getByRole('button', { name: 'Compare' }).click();
  await expect(page.getByText('Choose the version that “thin” is played beside.')).toBeVisible();
  await card(page, 'thick').getByRole('button', { name: 'Compare' }).click();
  // Loops are made at the lowest priority, so late on a busy machine.
  test.setTimeout(240_000);
  await expect(page.getByTestId('side-by-side').locator('img[data-plays=true]')).toHaveCount(2, { timeout: 120_000 });
  await page.getByRole('button', { name: 'Done comparing' }).click();
  // One element as it was; the other one stays.
  await card(page, 'thin').getByRole('button', { name: 'Only a part' }).click();
  await page.getByRole('menuitem', { name: 'Element 1, as it was' }).click();
  await expect(page.getByText('“Element 1” is as it was in “thin”. Everything else stays.')).toBeVisible();
  await card(page, 'thick').getByRole('button', { name: 'Only a part' }).click();
  await page.getByRole('menuitem', { name: 'Line, over what it is now' }).last().click();
  await expect(page.getByText('“Line” of “thick” lies over it.')).toBeVisible();
  await page.keyboard.press('Escape');
  await painted(page);
  await saved(page);
  const { entities } = await stored(address(), shot);
  expect(entities.filter(({ kind }) => kind === 'element')).toHaveLength(2);
  expect(entities.filter(({ kind }) => kind === 'layer')).toHaveLength(3);
  await page.keyboard.press('Control+KeyZ');
  await painted(page);
  await page.getByTestId('picture').focus();
  // Two lines are left: the first, and that of the other element.
  await expect.poll(() => countOf(page, LINE)).toBeLessThan(first * 2.2);
  await page.keyboard.press('Control+KeyZ');
  await expect.poll(() => countOf(page, LINE)).toBeGreaterThan(first * 2.6);
});
