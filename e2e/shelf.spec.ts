/** The shelf by pen and by keys: an element kept, found again, put into another shot by a press and by a drop, told anew, taken off. */
import { countOf, address, makeShot, openDesk, painted, Pen, ring, saved, stored } from './desk.ts';
import { choose } from './controls.ts';
import { expect, test, type Page } from './test.ts';

const LINE: [number, number, number] = [140, 42, 20];
const item = (page: Page, name: string) => page.locator(`[data-testid=shelf-item][data-name="${name}"]`);

/** A ring drawn in the left of a shot, kept under a name. */
async function kept(page: Page, name: string, tags: string): Promise<void> {
  const shot = await makeShot(address(), { name: 'Kept from' });
  await openDesk(page, address(), shot);
  await ring(await Pen.on(page), 0.3, 0.5);
  await saved(page);
  await page.keyboard.press('Alt+Shift+KeyL');
  await page.getByLabel('Name on the shelf').fill(name);
  await page.getByLabel('Tags').fill(tags);
  await choose(page.getByLabel('Kind of effect'), 'impact');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText(`“${name}” stands on the shelf.`)).toBeVisible();
}

test('an element is kept, and stands in another shot in two actions, sized to it; undone it is gone', async ({
  page,
}) => {
  await kept(page, 'Ring of two', 'round, two');
  const other = await makeShot(address(), { width: 1280, height: 720, name: 'Put into' });
  await openDesk(page, address(), other);
  await painted(page);
  expect(await countOf(page, LINE)).toBe(0);
  // One key, one press.
  await page.keyboard.press('Alt+Shift+KeyH');
  await item(page, 'Ring of two').getByRole('button').click();
  await expect(page.getByText(/^“Ring of two” is in the shot/)).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Ring of two' })).toBeVisible();
  await expect.poll(() => countOf(page, LINE)).toBeGreaterThan(300);
  await saved(page);
  const { entities } = await stored(address(), other);
  const element = entities.find((each) => each['name'] === 'Ring of two')!;
  expect(element['shelf']).toMatchObject({ revision: 1 });
  const use = entities.find((each) => each.kind === 'placement' && each['elementId'] === element.id)!;
  // Twice as large as it was drawn.
  expect(use['shift']).toMatchObject({ scale: { constant: 2 } });
  await page.getByTestId('picture').focus();
  await page.keyboard.press('Control+KeyZ');
  await painted(page);
  expect(await countOf(page, LINE)).toBe(0);
});

test('dropped in the picture its anchor stands there; what is looked for is found', async ({ page }) => {
  await kept(page, 'Dropped ring', 'falls');
  const other = await makeShot(address(), { name: 'Dropped into' });
  await openDesk(page, address(), other);
  await page.keyboard.press('Alt+Shift+KeyH');
  const panel = page.getByTestId('shelf-panel');
  await panel.getByLabel('Find on the shelf').fill('falls ring');
  await expect(page.getByTestId('shelf-item')).toHaveCount(1);
  await choose(panel.getByLabel('Time'), 'cycle');
  await expect(panel.getByText('Nothing on the shelf is like that.')).toBeVisible();
  await choose(panel.getByLabel('Time'), '');
  const card = (await item(page, 'Dropped ring').getByRole('button').boundingBox())!;
  const picture = (await page.getByTestId('picture').boundingBox())!;
  const pen = await Pen.on(page);
  const to = { x: picture.x + picture.width * 0.7, y: picture.y + picture.height * 0.4 };
  await pen.drag([
    { x: card.x + 40, y: card.y + 30 },
    { x: card.x + 10, y: card.y + 30 },
    { x: to.x + 50, y: to.y },
    to,
  ]);
  await expect(page.getByText(/^“Dropped ring” is in the shot/)).toBeVisible();
  await saved(page);
  const { entities } = await stored(address(), other);
  const element = entities.find((each) => each['name'] === 'Dropped ring')!;
  const use = entities.find((each) => each.kind === 'placement' && each['elementId'] === element.id)!;
  const anchor = element['anchor'] as { x: number; y: number };
  // Right of the middle and above it, as the shot is fitted into the picture's area.
  expect((use['x'] as number) + anchor.x).toBeGreaterThan(400);
  expect((use['y'] as number) + anchor.y).toBeLessThan(180);
  // Beside the picture it is dropped nowhere.
  const before = entities.length;
  await pen.drag([
    { x: card.x + 40, y: card.y + 30 },
    { x: card.x + 20, y: card.y + 60 },
  ]);
  await saved(page);
  expect((await stored(address(), other)).entities).toHaveLength(before);
  // In Assemble it is picked as soon as it is there.
  await page.getByRole('link', { name: 'Assemble', exact: true }).click();
  await page.getByRole('button', { name: 'Use an element' }).click();
  await page.getByRole('menuitem', { name: /^From the shelf/ }).click();
  await item(page, 'Dropped ring').getByRole('button').click();
  await expect(page.getByTestId('bar')).toHaveCount(3);
});

test('on its page an effect is renamed, tagged, opened, taken off and put back', async ({ page }) => {
  await kept(page, 'Page ring', 'one');
  await page.goto(address());
  await page.getByRole('link', { name: 'Shelf' }).click();
  await page.getByLabel('Find on the shelf').fill('page');
  const more = (name: string) => page.getByRole('button', { name: `More about ${name}` }).click();
  await more('Page ring');
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await page.getByLabel('Name on the shelf').fill('Page hoop');
  await page.keyboard.press('Enter');
  await expect(item(page, 'Page hoop')).toBeVisible();
  await more('Page hoop');
  await page.getByRole('menuitem', { name: 'Tags' }).click();
  await page.getByLabel('Tags, with commas between').fill('hoop, two');
  await page.keyboard.press('Enter');
  await expect(page.getByText('hoop, two')).toBeVisible();
  await more('Page hoop');
  await page.getByRole('menuitem', { name: 'Liquid' }).click();
  await expect(item(page, 'Page hoop')).toContainText('Liquid');
  await more('Page hoop');
  await page.getByRole('menuitem', { name: 'Off the shelf' }).click();
  await expect(item(page, 'Page hoop')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(item(page, 'Page hoop')).toBeVisible();
  await item(page, 'Page hoop')
    .getByRole('button', { name: /^Open it/ })
    .click();
  await expect(page.getByTestId('picture')).toHaveAttribute('data-shown', /\d+/);
  await expect(page.getByRole('heading', { name: 'Page ring' })).toBeVisible();
});

test('a newer effect is offered with what would change; taken it stands where the old one stood', async ({ page }) => {
  await kept(page, 'Changing ring', 'newer');
  const other = await makeShot(address(), { name: 'Has the ring' });
  await openDesk(page, address(), other);
  await page.keyboard.press('Alt+Shift+KeyH');
  await item(page, 'Changing ring').getByRole('button').click();
  await expect(page.getByText(/^“Changing ring” is in the shot/)).toBeVisible();
  await saved(page);
  await expect(page.getByTestId('newer')).toHaveCount(0);
  // On the shelf it gets a second ring.
  const { shelfId } = (await stored(address(), other)).entities.find((each) => each['name'] === 'Changing ring')![
    'shelf'
  ] as {
    shelfId: string;
  };
  await openDesk(page, address(), shelfId);
  await painted(page);
  await ring(await Pen.on(page), 0.7, 0.5);
  await saved(page);
  await openDesk(page, address(), other);
  await painted(page);
  await page.keyboard.press('Alt+Shift+KeyH');
  const offer = page.getByTestId('newer');
  await expect(offer).toContainText('“Changing ring” is newer on the shelf.');
  await offer.getByRole('button', { name: 'What would change' }).click();
  await expect(page.getByTestId('newer-changes')).toHaveText('1 drawing is another.');
  const before = await countOf(page, LINE);
  await offer.getByRole('button', { name: 'Take the newer one' }).click();
  await expect(offer).toHaveCount(0);
  await expect.poll(() => countOf(page, LINE)).toBeGreaterThan(before * 1.5);
  await page.getByTestId('picture').focus();
  await page.keyboard.press('Control+KeyZ');
  await expect.poll(() => countOf(page, LINE)).toBe(before);
  await offer.getByRole('button', { name: 'Keep this one' }).click();
  await expect(offer).toHaveCount(0);
});

test('a variant, a palette and a pattern of holds stand on the shelf in every shot', async ({ page }) => {
  const first = await makeShot(address(), { name: 'Settings from' });
  await openDesk(page, address(), first);
  await painted(page);
  const inHand = page.getByTestId('tray').getByRole('button', { name: 'Ink' });
  await inHand.click();
  await page.getByRole('button', { name: 'Keep as variant' }).click();
  await page.getByLabel('Name of the variant').fill('Fence ink');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Settings of the palette' }).click();
  await page.getByRole('button', { name: 'Keep this palette' }).click();
  await page.getByLabel('Name of the palette').fill('Fence night');
  await page.keyboard.press('Enter');
  await page.getByTestId('picture').focus();
  await page.keyboard.press('Alt+KeyT');
  await page.getByLabel('Holds along a list').fill('1, 2, 4');
  await page.getByRole('button', { name: 'Keep the list' }).click();
  await page.getByLabel('Name of the pattern').fill('Fence out');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Fence out' })).toBeVisible();
  await page.goto(`${address()}/shelf`);
  for (const name of ['Fence ink', 'Fence night', 'Fence out'])
    await expect(page.locator(`[data-testid=kept][data-name="${name}"]`)).toBeVisible();
  const other = await makeShot(address(), { name: 'Settings into' });
  await openDesk(page, address(), other);
  await painted(page);
  await page.keyboard.press('Alt+KeyT');
  await page.getByRole('button', { name: 'Fence out' }).click();
  await expect(page.getByLabel('Holds along a list')).toHaveValue('1, 2, 4');
  await page.goto(`${address()}/shelf`);
  await page.getByRole('button', { name: 'Take Fence out off the shelf' }).click();
  await expect(page.locator('[data-testid=kept][data-name="Fence out"]')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('[data-testid=kept][data-name="Fence out"]')).toBeVisible();
});
