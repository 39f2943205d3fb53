/** Light by pen and by keys: added to a use, moved while the shot plays, chosen things lit, undone, exported. */
import { assembled, bars, farFromDesk } from './assembled.ts';
import { address, painted, pixels, saved, stored } from './desk.ts';
import { expect, test, type Page } from './test.ts';

interface StoredLight {
  readonly sourceId: string | null;
  readonly planeId: string | null;
  readonly x: { constant?: number };
  readonly radius: { constant?: number };
  readonly follows: number;
  readonly fallsOn: { placements: string[] } | null;
}
const lightsOf = async (shot: string) =>
  (await stored(address(), shot)).entities.filter((each) => each['kind'] === 'light') as unknown as StoredLight[];
const panel = (page: Page) => page.getByTestId('light-panel');

/** Two uses of a cycle beside each other; a light shines from the first. */
async function lit(page: Page): Promise<string> {
  const { shot } = await assembled(page, 12);
  await page.keyboard.press('Alt+Equal');
  await expect(bars(page)).toHaveCount(2);
  await bars(page).first().click();
  await page.getByRole('group', { name: 'Settings' }).getByRole('button', { name: 'Light', exact: true }).click();
  await page.getByRole('button', { name: 'Light from it' }).click();
  await expect(panel(page)).toBeVisible();
  await painted(page);
  return shot;
}

test('a light shines from a use on the others, is moved by the pen, set by typing, and each is one step back', async ({
  page,
}) => {
  const shot = await lit(page);
  await saved(page);
  const [light] = await lightsOf(shot);
  expect(light!.sourceId).not.toBeNull();
  expect(light!.follows).toBe(0.5);
  const before = await pixels(page);
  const handle = (await page.locator('[data-handle="Move the light"]').boundingBox())!;
  await page.mouse.move(handle.x + handle.width / 2, handle.y + handle.height / 2);
  await page.mouse.down();
  await page.mouse.move(handle.x + 70, handle.y + 30, { steps: 5 });
  await page.mouse.up();
  await painted(page);
  expect(await pixels(page)).not.toBe(before);
  await saved(page);
  expect((await lightsOf(shot))[0]!.x.constant).toBeGreaterThan(20);
  await panel(page).getByLabel('Reaches, typed').fill('500');
  await panel(page).getByLabel('Reaches, typed').press('Enter');
  await saved(page);
  expect((await lightsOf(shot))[0]!.radius).toEqual({ constant: 500 });
  await page.keyboard.press('Control+KeyZ');
  await page.keyboard.press('Control+KeyZ');
  await painted(page);
  expect(await pixels(page)).toBe(before);
  // Out, and lit again.
  await panel(page).getByRole('button', { name: 'Put the light out' }).click();
  await painted(page);
  const dark = await pixels(page);
  expect(dark).not.toBe(before);
  await panel(page).getByRole('button', { name: 'Light it again' }).click();
  await painted(page);
  expect(await pixels(page)).toBe(before);
  // What it falls on is chosen.
  await panel(page)
    .getByRole('button', { name: /^Falls on all/ })
    .click();
  const fold = panel(page).getByRole('region', { name: /^Falls on/ });
  for (const tick of await fold.getByRole('checkbox', { checked: true }).all()) await tick.uncheck();
  await painted(page);
  expect(await pixels(page)).toBe(dark);
});

test('a light is set while the shot plays, closes on a cycle, and the export is lit as the desk is', async ({
  page,
}) => {
  test.setTimeout(120_000);
  const shot = await lit(page);
  await page.keyboard.press('Space');
  const strength = panel(page).getByLabel('Strength', { exact: true });
  await strength.focus();
  for (let i = 0; i < 5; i++) await strength.press('ArrowRight');
  await expect(page.getByTestId('reached')).toContainText('of 24');
  await page.keyboard.press('Space');
  await saved(page);
  const [light] = await lightsOf(shot);
  expect(light).toMatchObject({ strength: { constant: 0.65 } });
  await painted(page);
  expect(await farFromDesk(page)).toBeLessThanOrEqual(3);
});

test('a light stands on a plane, is picked in the cone and in the picture, and taken away', async ({ page }) => {
  const { shot } = await assembled(page, 12);
  await page.getByTestId('lane').first().getByRole('button', { name: 'Picture plane', exact: true }).click();
  const bare = await pixels(page);
  await page.getByTestId('plane-panel').getByRole('button', { name: 'Light on it' }).click();
  await painted(page);
  expect(await pixels(page)).not.toBe(bare);
  await saved(page);
  expect((await lightsOf(shot))[0]!.planeId).not.toBeNull();
  await panel(page).getByRole('button', { name: 'All', exact: true }).click();
  await page.getByTestId('cone-light').press('Enter');
  await expect(panel(page)).toBeVisible();
  await panel(page).getByRole('button', { name: 'Take the light away' }).click();
  await painted(page);
  expect(await pixels(page)).toBe(bare);
  await saved(page);
  expect(await lightsOf(shot)).toEqual([]);
});
