/** One thing of the shot cut by another, by pen and keys: within it, but for it, by all it has passed over; exported. */
import { assembled, bars, farFromDesk, shotFrame, usesOf } from './assembled.ts';
import { painted, pixels, saved } from './desk.ts';
import { choose } from './controls.ts';
import { expect, test } from './test.ts';

test('a use is seen within another, but for it, and by all it has passed over; the export is the same', async ({
  page,
}) => {
  test.setTimeout(120_000);
  const { shot } = await assembled(page, 12);
  await page.keyboard.press('Alt+Equal');
  await expect(bars(page)).toHaveCount(2);
  // Near enough that the rings cross.
  for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowLeft');
  await saved(page);
  const [first, second] = await usesOf(shot);
  expect(first!.elementId).toBe(second!.elementId);
  await painted(page);
  const plain = await pixels(page);
  const by = page.getByLabel('Cut by');
  await choose(by, { index: 1 });
  await painted(page);
  const within = await pixels(page);
  expect(within).not.toBe(plain);
  await page.getByRole('button', { name: 'but for that' }).click();
  await painted(page);
  const beside = await pixels(page);
  expect(new Set([plain, within, beside]).size).toBe(3);
  await page.getByRole('button', { name: 'within that' }).click();
  // On its own frame the ring crosses the other in a few places; by the end of a turn it has passed over more of it.
  await shotFrame(page).fill('12');
  await shotFrame(page).press('Enter');
  await painted(page);
  const here = await pixels(page);
  await page.getByText('by all it has passed over so far').click();
  await painted(page);
  expect(await pixels(page)).not.toBe(here);
  await saved(page);
  expect(await farFromDesk(page)).toBeLessThanOrEqual(1);
});

test('where an effect lies over a thing is found, and a wash laid there that is a look like any other', async ({
  page,
}) => {
  const { shot } = await assembled(page, 24);
  await page.keyboard.press('Alt+Equal');
  await expect(bars(page)).toHaveCount(2);
  // It goes away from the other over the shot: they touch at first, and no more later.
  await shotFrame(page).fill('1');
  await shotFrame(page).press('Enter');
  await page.getByRole('button', { name: 'Set Across on this frame' }).click();
  await page.getByLabel('Across, typed').fill('330');
  await page.getByLabel('Across, typed').press('Enter');
  await shotFrame(page).fill('12');
  await shotFrame(page).press('Enter');
  await page.getByLabel('Across, typed').fill('620');
  await page.getByLabel('Across, typed').press('Enter');
  await painted(page);
  await page.getByRole('group', { name: 'Settings' }).getByRole('button', { name: 'Looks' }).click();
  await page.getByRole('button', { name: 'Wash where it is touched' }).click();
  await choose(page.getByLabel('Touched by'), { index: 1 });
  await page.getByRole('button', { name: 'Find where' }).click();
  await expect(page.getByTestId('contact-chart')).toBeVisible();
  await expect(page.getByTestId('contact-chart')).toContainText('1–');
  await choose(page.getByLabel('Takes on'), { index: 2 });
  await page.getByRole('button', { name: 'Lay the wash' }).click();
  await saved(page);
  const washed = (await usesOf(shot)).find((use) => use.finishes.length > 0)!;
  const keys = washed.finishes[0]!.numbers['strength']!.keys!;
  expect(keys.length).toBeGreaterThanOrEqual(2);
  expect(Math.max(...keys.map(({ value }) => value))).toBeCloseTo(60, 3);
  await shotFrame(page).fill('2');
  await shotFrame(page).press('Enter');
  await painted(page);
  const tinted = await pixels(page);
  await page.keyboard.press('Control+KeyZ');
  await painted(page);
  expect(await pixels(page)).not.toBe(tinted);
});
