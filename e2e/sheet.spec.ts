import { address, drawn, makeShot, openDesk, painted, Pen, runsOf, saved, stored } from './desk.ts';
import { tipped } from './controls.ts';
import { expect, test, type Page } from './test.ts';

const cell = (page: Page, frame: number, column = 0) =>
  page.getByTestId('sheet').getByRole('row').nth(frame).getByRole('gridcell').nth(column);
/** The numbers of the sheet's first column, a bar for a frame on which one is held, a dot for nothing. */
const column = async (page: Page, frames: number): Promise<string> => {
  const words: string[] = [];
  for (let frame = 1; frame <= frames; frame++) {
    const label = (await cell(page, frame).getAttribute('aria-label'))!;
    words.push(/drawing (\d+)/.exec(label)?.[1] ?? (label.endsWith('held') ? '|' : '.'));
  }
  return words.join('');
};
const holds = async (shot: string): Promise<string> => (await runsOf(shot)).map((run) => run.split(' ')[1]).join(' ');

async function openSheet(page: Page, drawings: number): Promise<string> {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, drawings);
  await page.getByRole('button', { name: 'Sheet', exact: true }).click();
  await expect(page.getByTestId('sheet')).toBeVisible();
  return shot;
}

test('the sheet is typed into: numbers, ranges, nothing, holding on; undo takes each back', async ({ page }) => {
  const shot = await openSheet(page, 4);
  expect(await column(page, 8)).toBe('1|2|3|4|');
  await cell(page, 3).click();
  await expect(page.getByTestId('frame-of').or(page.getByTestId('pen-text')).first()).toBeVisible();
  await page.keyboard.type('4');
  await expect(page.getByTestId('typing')).toContainText('4');
  await page.keyboard.press('Enter');
  expect(await column(page, 8)).toBe('1|4|3|4|');
  await expect(page.getByTestId('pen-text')).toContainText('drawing 3');
  await page.keyboard.type('x');
  await page.keyboard.press('Enter');
  expect(await column(page, 8)).toBe('1|4|..4|');
  await page.keyboard.type('-');
  await page.keyboard.press('Enter');
  // Past the end the last one is held on, and two frames of it are one hold with what was there.
  await cell(page, 1).click();
  await page.keyboard.type('1-2x3');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toHaveCount(0);
  expect((await column(page, 6)).replace(/\d/g, 'n')).toBe('n||n||');
  for (let i = 0; i < 4; i++) await page.keyboard.press('Control+KeyZ');
  expect(await column(page, 8)).toBe('1|2|3|4|');
  await page.keyboard.type('7-');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toHaveText('“7-” is no drawing: type 7, 3-9, 1-8x2, x or -');
  await saved(page);
  expect(await holds(shot)).toBe('2 2 2 2');
});

test('frames are picked with the pen across the sheet, and the wheel has them picked too', async ({ page }) => {
  await openSheet(page, 4);
  const pen = await Pen.on(page);
  const middle = async (frame: number) => {
    const box = (await cell(page, frame).boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  await pen.drag([await middle(3), await middle(4), await middle(6)]);
  await expect(page.getByTestId('picked')).toHaveText('2 drawings picked, frames 3–6');
  await page.getByRole('button', { name: 'Wheel', exact: true }).click();
  await expect(page.locator('[data-picked]')).toHaveCount(2);
  await page.getByRole('button', { name: 'Sheet', exact: true }).click();
  await page.getByTestId('sheet').getByRole('grid').focus();
  await cell(page, 1).click();
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByTestId('picked')).toHaveText('2 drawings picked, frames 1–4');
});

test('timing of what is picked: retimed, thinned, turned round, stretched, repeated; each one step', async ({
  page,
}) => {
  const shot = await openSheet(page, 6);
  await page.keyboard.press('Alt+KeyT');
  const panel = page.getByTestId('timing-panel');
  await panel.getByRole('button', { name: 'whole layer' }).click();
  await panel.getByRole('button', { name: '1s', exact: true }).click();
  await saved(page);
  expect(await holds(shot)).toBe('1 1 1 1 1 1');
  await panel.getByRole('textbox', { name: 'Holds along a list' }).fill('1, 2, 3');
  await panel.getByRole('button', { name: 'Hold', exact: true }).click();
  await saved(page);
  expect(await holds(shot)).toBe('1 2 3 1 2 3');
  await panel.getByRole('button', { name: /^Repeat, thin out/ }).click();
  await panel.getByRole('button', { name: 'Turn round' }).click();
  await panel.getByRole('button', { name: 'Thin out', exact: true }).click();
  await saved(page);
  expect(await holds(shot)).toBe('3 4 5');
  await panel.getByRole('textbox', { name: 'Stretch to frames' }).fill('6');
  await panel.getByRole('button', { name: 'Stretch', exact: true }).click();
  await panel.getByRole('button', { name: 'Repeat', exact: true }).click();
  await saved(page);
  expect(await holds(shot)).toBe('2 2 2 2 2 2');
  // Three drawings, shown twice each: one is made its own.
  await page.keyboard.press('KeyA');
  await expect(page.getByTestId('pen-text')).toContainText('shown 2 times');
  await panel.getByRole('button', { name: 'Make this one its own' }).click();
  await expect(page.getByTestId('pen-text')).not.toContainText('shown 2 times');
  await saved(page);
  expect((await stored(address(), shot)).drawings).toHaveLength(4);
  await expect(page.getByRole('button', { name: /^Undo drawing of its own/ })).toBeVisible();
});

test('line over this: a tied layer, the rough dimmed, slots to draw, a key to the next', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 3);
  await page.getByTestId('layer-more').click();
  await page.getByRole('menuitem', { name: 'Line over this' }).click();
  await expect(page.getByText('3 to draw')).toBeVisible();
  await expect(page.getByTestId('frame-of')).toHaveText('1 of 6');
  await expect(page.locator('[data-bare]')).toHaveCount(3);
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.4, y: 0.4 }, { x: 0.6, y: 0.6 }, 6);
  await expect(page.getByText('2 to draw')).toBeVisible();
  await page.keyboard.press('Shift+KeyN');
  await expect(page.getByTestId('frame-of')).toHaveText('3 of 6');
  await pen.stroke({ x: 0.4, y: 0.4 }, { x: 0.6, y: 0.6 }, 6);
  // A drawing held on one is held on both; one made on one makes a slot on the other.
  await page.keyboard.press('KeyG');
  await page.keyboard.press('KeyS');
  await page.getByRole('button', { name: 'Sheet', exact: true }).click();
  const columns = page.getByTestId('sheet').locator('[data-bare]');
  await expect(columns).not.toHaveCount(0);
  await saved(page);
  const { entities } = await stored(address(), shot);
  const lists = entities.filter((e) => e.kind === 'runlist');
  expect(lists).toHaveLength(1);
  expect(lists[0]!.runs!.map((run) => run.length)).toEqual([2, 3, 3, 2]);
});

test('straight ahead: each stroke goes on to the next drawing, and makes it where there is none', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await page.keyboard.press('Shift+KeyJ');
  const pen = await Pen.on(page);
  for (let i = 0; i < 3; i++) {
    await pen.stroke({ x: 0.3 + i * 0.1, y: 0.3 }, { x: 0.3 + i * 0.1, y: 0.6 }, 6);
    await expect(page.getByTestId('frame-of')).toHaveText(`${i * 2 + 3} of ${i * 2 + 4}`);
  }
  await page.keyboard.press('Shift+KeyJ');
  await painted(page);
  await saved(page);
  expect(await holds(shot)).toBe('2 2 2 2');
});

test('layers change together, are tied and untied, and a still one stands behind all', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 3);
  await page.keyboard.press('KeyA');
  await page.keyboard.press('KeyA');
  await page.getByRole('button', { name: 'Add layer' }).click();
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.2, y: 0.7 }, { x: 0.7, y: 0.7 }, 6);
  for (let i = 0; i < 4; i++) await page.keyboard.press('KeyG');
  // Both are six frames long; four of them go on both.
  await page.keyboard.press('Alt+KeyT');
  const panel = page.getByTestId('timing-panel');
  await panel.getByText('all layers').click();
  await panel.getByRole('button', { name: 'whole layer' }).click();
  await panel.getByRole('textbox', { name: 'Stretch to frames' }).fill('12');
  await panel.getByRole('button', { name: 'Stretch', exact: true }).click();
  await expect(page.getByTestId('frame-of')).toHaveText('1 of 12');
  await saved(page);
  expect(await holds(shot)).toMatch(/^(4 4 4 12|12 4 4 4)$/);
  await panel.getByRole('button', { name: 'Layers' }).click();
  // Tied, the new layer shows its one drawing on all slots of the first: nothing is seen to change.
  await page.getByTestId('layer-more').click();
  await page.getByRole('menuitem', { name: 'Tie in time to' }).press('ArrowRight');
  await page.getByRole('menuitem', { name: 'Line', exact: true }).press('Enter');
  await expect(tipped(page, 'Tied in time to Line')).toBeVisible();
  await page.getByTestId('layer-more').click();
  await page.getByRole('menuitem', { name: 'Untie from Line' }).click();
  await expect(tipped(page, 'Tied in time to Line')).toHaveCount(0);
  await page.getByTestId('layer-more').click();
  await page.getByRole('menuitem', { name: 'New still layer' }).press('ArrowRight');
  await page.getByRole('menuitem', { name: 'Behind all' }).press('Enter');
  await pen.stroke({ x: 0.2, y: 0.2 }, { x: 0.7, y: 0.2 }, 6);
  await expect(page.getByTestId('pen-text')).toContainText('shown throughout');
  await saved(page);
  const { entities } = await stored(address(), shot);
  expect(entities.filter((e) => e.kind === 'runlist' && e['period'] === 1)).toHaveLength(1);
});
