import { address, drawn, makeShot, openDesk, painted, Pen, pixels, runsOf, saved, stored } from './desk.ts';
import { expect, test, type Page } from './test.ts';

const holds = async (shot: string): Promise<string> => (await runsOf(shot)).map((run) => run.split(' ')[1]).join(' ');
const frameOf = (page: Page) => page.getByTestId('frame-of');

async function cycle(page: Page, drawings: number): Promise<string> {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, drawings);
  await page.getByTestId('element-time').click();
  await page.getByText('Close into a cycle').click();
  await painted(page);
  return shot;
}

test('the seam is told and closed: in-betweens lie across it, one step of undo', async ({ page }) => {
  const shot = await cycle(page, 5);
  await page.keyboard.press('Alt+KeyC');
  await expect(page.getByTestId('seam-text')).toContainText('The seam jumps');
  await expect(page.getByTestId('seam-marks')).toBeVisible();
  await page.getByRole('button', { name: '3 across the seam' }).click();
  await page.getByRole('button', { name: 'Lay 3 across it' }).click();
  await expect(frameOf(page)).toHaveText('11 of 16');
  await expect(page.getByTestId('seam-text')).not.toContainText('The seam jumps');
  await saved(page);
  expect(await holds(shot)).toBe('2 2 2 2 2 2 2 2');
  await page.keyboard.press('Control+KeyZ');
  await saved(page);
  expect(await holds(shot)).toBe('2 2 2 2 2');
});

test('a cycle begins elsewhere, runs backwards, is made longer, and is cut where it joins best', async ({ page }) => {
  const shot = await cycle(page, 5);
  await page.keyboard.press('Alt+KeyC');
  const panel = page.getByTestId('cycle-panel');
  await page.keyboard.press('KeyA');
  await painted(page);
  const there = await pixels(page);
  await panel.getByRole('button', { name: 'Begin here' }).click();
  await expect(frameOf(page)).toHaveText('1 of 10');
  await painted(page);
  expect(await pixels(page)).toBe(there);
  const length = panel.getByRole('textbox', { name: 'Frames, all layers' });
  await length.fill('15');
  await panel.getByRole('button', { name: 'Set', exact: true }).click();
  await expect(frameOf(page)).toHaveText('1 of 15');
  await saved(page);
  expect(await holds(shot)).toBe('3 3 3 3 3');
  await panel.getByRole('button', { name: 'Turn it round' }).click();
  await panel.getByRole('button', { name: 'Where to cut' }).click();
  await panel.getByRole('button', { name: 'Cut here' }).first().click();
  await expect(frameOf(page)).toHaveText('1 of 12');
  await saved(page);
  expect(await holds(shot)).toBe('3 3 3 3');
});

test('the way back: the first drawing is the target in the last part', async ({ page }) => {
  await cycle(page, 5);
  await page.keyboard.press('Alt+KeyC');
  await page.getByText('Lead back').click();
  await page.keyboard.press('Alt+KeyC');
  await expect(page.getByTestId('lead-back')).toBeVisible();
  expect(Number(await page.locator('[data-way]').first().getAttribute('data-way'))).toBeGreaterThan(10);
  await page.keyboard.press('KeyD');
  await expect(page.getByTestId('lead-back')).toHaveCount(0);
});

test('a layer repeats by itself inside its element, and Tallow says when all meet', async ({ page }) => {
  await cycle(page, 4);
  await page.keyboard.press('KeyD');
  await expect(frameOf(page)).toHaveText('1 of 8');
  await page.getByRole('button', { name: 'Add layer' }).click();
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.2, y: 0.7 }, { x: 0.7, y: 0.7 }, 6);
  await page.keyboard.press('KeyS');
  await pen.stroke({ x: 0.2, y: 0.75 }, { x: 0.7, y: 0.75 }, 6);
  await page.keyboard.press('Alt+KeyC');
  const panel = page.getByTestId('cycle-panel');
  await panel.getByRole('textbox', { name: /repeat every/ }).fill('3');
  await panel.getByRole('button', { name: 'Repeat', exact: true }).click();
  await expect(page.getByTestId('meeting')).toContainText('does not divide 8. All meet again after 24 frames.');
  await expect(page.locator('[data-repeat]')).toHaveCount(3);
});

test('two timings are kept and compared, in turn too, and neither is lost', async ({ page }) => {
  const shot = await cycle(page, 3);
  await page.keyboard.press('Alt+KeyO');
  await page.getByRole('button', { name: 'Keep a variant' }).click();
  await expect(page.locator('[data-variant]')).toHaveCount(2);
  await page.getByTestId('wheel').focus();
  await page.keyboard.press('Control+KeyA');
  await page.getByRole('button', { name: '1s', exact: true }).click();
  await expect(frameOf(page)).toHaveText(/of 3$/);
  await page.keyboard.press('Alt+KeyV');
  await expect(frameOf(page)).toHaveText(/of 6$/);
  await expect(page.locator('[data-variant=A]')).toHaveAttribute('data-shown', 'true');
  // Drawing on one changes nothing of the other.
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.2, y: 0.8 }, { x: 0.7, y: 0.8 }, 6);
  await page.getByRole('button', { name: 'Show variant B' }).click();
  await expect(frameOf(page)).toHaveText(/of 3$/);
  await saved(page);
  expect((await stored(address(), shot)).drawings).toHaveLength(6);
  await page.getByText('Play them in turn').click();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: /^Stop/ })).toBeVisible();
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: 'Let variant A go' }).click();
  await expect(page.locator('[data-variant]')).toHaveCount(0);
  await saved(page);
  expect((await stored(address(), shot)).drawings).toHaveLength(3);
});

test('opacity and place change over time: keys on the wheel, round the seam, and a jump is told', async ({ page }) => {
  const shot = await cycle(page, 4);
  await page.keyboard.press('KeyD');
  await expect(frameOf(page)).toHaveText('1 of 8');
  await painted(page);
  const before = await pixels(page);
  await page.keyboard.press('Alt+KeyI');
  const panel = page.getByTestId('values-panel');
  await panel.getByRole('button', { name: 'Set Across on this frame' }).click();
  for (let i = 0; i < 7; i++) await page.keyboard.press('Shift+KeyD');
  await expect(frameOf(page)).toHaveText('8 of 8');
  const across = panel.getByRole('textbox', { name: 'Across' });
  await across.fill('120');
  await across.press('Enter');
  await expect(page.locator('[data-key]')).toHaveCount(2);
  await expect(page.getByTestId('jumps')).toContainText('Across jumps at the seam');
  await page.keyboard.press('Shift+KeyA');
  await painted(page);
  expect(await pixels(page)).not.toBe(before);
  await panel.getByRole('button', { name: 'Value of Across set before' }).click();
  await expect(frameOf(page)).toHaveText('1 of 8');
  await painted(page);
  // The pen lands where it is on the picture, however the layer is put.
  await page.keyboard.press('Shift+KeyA');
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.5, y: 0.8 }, { x: 0.6, y: 0.8 }, 6);
  await painted(page);
  await saved(page);
  const { entities } = await stored(address(), shot);
  expect(entities.find((e) => e.kind === 'layer')).toMatchObject({
    shift: { x: { keys: [{ value: 0 }, { value: 120 }] } },
  });
});

test('a range is played, to and fro, once from here', async ({ page }) => {
  await cycle(page, 4);
  await page.getByTestId('wheel').focus();
  await page.keyboard.press('Control+KeyA');
  await page.keyboard.press('Shift+KeyO');
  await expect(page.getByTestId('range')).toBeVisible();
  await page.keyboard.press('Alt+KeyH');
  await page.keyboard.press('Alt+KeyP');
  await page.keyboard.press('Space');
  await expect(page.getByTestId('hub-under')).toContainText('of 48');
  await page.keyboard.press('Space');
  await page.keyboard.press('Shift+KeyO');
  await expect(page.getByTestId('range')).toHaveCount(0);
  await page.keyboard.press('Shift+KeyP');
  await expect(page.getByRole('button', { name: /^Play/ })).toBeVisible();
});
