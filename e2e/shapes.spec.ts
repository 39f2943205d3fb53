import { expect, test, type Page } from './test.ts';
import {
  address,
  countOf,
  drawn,
  makeShot,
  openDesk,
  painted,
  Pen,
  pixels,
  runsOf,
  saved,
  storedDrawings,
} from './desk.ts';

/** A closed loop round the middle of the picture, as a hand would draw it: it does not quite meet. */
async function loop(
  pen: Pen,
  at: { x: number; y: number },
  radius: number,
  onMove?: () => Promise<void>,
): Promise<void> {
  const point = (t: number) => ({
    x: at.x + radius * Math.cos(t * 6),
    y: at.y + 1.6 * radius * Math.sin(t * 6),
    force: 0.6,
  });
  await pen.down(point(0));
  for (let i = 1; i <= 40; i++) {
    await pen.move(point(i / 40));
    if (i === 40) await onMove?.();
  }
  await pen.up(point(1));
}
const tool = (page: Page, label: string) => page.getByRole('group', { name: 'Brushes' }).getByText(label).click();

test('a shape closes and fills itself, with a line of its own if wanted, the same before and after pen-up', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await tool(page, 'Shape');
  await page.locator('[data-testid=swatch][data-name=flame]').click();
  for (const [line, at] of [
    [false, { x: 0.3, y: 0.5 }],
    [true, { x: 0.65, y: 0.5 }],
  ] as const) {
    if (line) await page.getByRole('checkbox', { name: 'line', exact: true }).check();
    let live = '';
    await loop(pen, at, 0.08, async () => {
      live = await pixels(page);
    });
    expect(await pixels(page)).toBe(live);
    await painted(page);
    expect(await pixels(page)).toBe(live);
  }
  expect(await countOf(page, [255, 166, 43])).toBeGreaterThan(8000);
  expect(await countOf(page, [140, 42, 20])).toBeGreaterThan(500);
  await saved(page);
  const [drawing] = await storedDrawings(address(), shot);
  expect(drawing!.order.map((id) => drawing!.marks[id]!.kind)).toEqual(['shape', 'shape', 'stroke']);
  await page.reload();
  await painted(page);
  expect(await countOf(page, [255, 166, 43])).toBeGreaterThan(8000);
});

test('a tap makes a disc as wide as is set, rub out cuts it, and one undo takes each', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await tool(page, 'Shape');
  await page.locator('[data-testid=swatch][data-name=core]').click();
  await page.getByLabel('Width in px').fill('120');
  await pen.down({ x: 0.5, y: 0.5 });
  await pen.up({ x: 0.5, y: 0.5 });
  await painted(page);
  const scale = await page.getByTestId('picture').evaluate((c: HTMLCanvasElement) => (c.width - 52) / 640);
  const area = Math.PI * (60 * scale) ** 2;
  const disc = await countOf(page, [255, 240, 184]);
  expect(Math.abs(disc - area) / area).toBeLessThan(0.03);
  await tool(page, 'Rub out');
  await pen.stroke({ x: 0.3, y: 0.5 }, { x: 0.7, y: 0.5 });
  await painted(page);
  const cut = await countOf(page, [255, 240, 184]);
  expect(cut).toBeLessThan(disc * 0.9);
  await page.keyboard.press('Control+KeyZ');
  await painted(page);
  expect(await countOf(page, [255, 240, 184])).toBe(disc);
  await page.keyboard.press('Control+KeyZ');
  await painted(page);
  expect(await countOf(page, [255, 240, 184])).toBe(0);
});

test('the pen on a later frame of a hold draws into it, or begins a drawing there and shortens the hold', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 1);
  await page.getByRole('button', { name: '4s', exact: true }).click();
  await page.keyboard.press('Shift+KeyD');
  await page.keyboard.press('Shift+KeyD');
  await expect(page.getByTestId('pen-text')).toHaveText('pen draws on Line, drawing 1, frames 1–4, held here');
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.6, y: 0.4 }, { x: 0.7, y: 0.5 });
  await page.keyboard.press('KeyJ');
  await expect(page.getByTestId('pen-text')).toHaveText(
    'pen begins a new drawing on Line, frame 3; drawing 1 ends before it',
  );
  await page.keyboard.press('KeyW');
  await painted(page);
  await pen.down({ x: 0.6, y: 0.4, force: 0.7 });
  for (let i = 0; i < 20; i++) await pen.move({ x: 0.6 + i * 0.005, y: 0.6, force: 0.7 });
  const live = await pixels(page);
  await pen.up({ x: 0.7, y: 0.6 });
  await painted(page);
  // The held drawing is gone from under the pen at once; nothing changes when it lifts.
  expect(await pixels(page)).toBe(live);
  await saved(page);
  expect((await runsOf(shot)).map((run) => run.split(' ')[1])).toEqual(['2', '2']);
  expect((await storedDrawings(address(), shot)).map((d) => d.order.length).sort()).toEqual([1, 2]);
  await page.keyboard.press('Control+KeyZ');
  await saved(page);
  expect((await runsOf(shot)).map((run) => run.split(' ')[1])).toEqual(['4']);
});

test('strokes drawn too early are lifted into a new drawing after this one', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 1);
  const pen = await Pen.on(page);
  for (let i = 0; i < 3; i++) await pen.stroke({ x: 0.4 + i * 0.1, y: 0.4 }, { x: 0.4 + i * 0.1, y: 0.6 }, 6);
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Lift last 2' }).click();
  await expect(page.getByTestId('frame-of')).toHaveText('3 of 4');
  await saved(page);
  expect((await storedDrawings(address(), shot)).map((d) => d.order.length)).toEqual([2, 2]);
  await page.keyboard.press('KeyL');
  await saved(page);
  expect((await storedDrawings(address(), shot)).map((d) => d.order.length).sort()).toEqual([1, 1, 2]);
});

test('drawings are copied, cut and pasted, and deleted closing up or holding the one before', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 3);
  await page.keyboard.press('KeyA');
  await page.keyboard.press('Control+KeyC');
  await page.keyboard.press('Control+KeyV');
  await expect(page.getByTestId('frame-of')).toHaveText('5 of 8');
  await page.keyboard.press('Control+KeyX');
  await expect(page.getByTestId('frame-of')).toContainText('of 6');
  await page.keyboard.press('Shift+Delete');
  await saved(page);
  expect((await runsOf(shot)).map((run) => run.split(' ')[1])).toEqual(['2', '4']);
  await page.keyboard.press('Delete');
  await saved(page);
  expect((await runsOf(shot)).map((run) => run.split(' ')[1])).toEqual(['2']);
});

test('what is empty, doubled or out of sight is pointed out quietly, and a click goes there', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 2);
  await expect(page.getByTestId('finding')).toHaveCount(0);
  await page.keyboard.press('Shift+KeyS');
  await expect(page.getByTestId('finding')).toHaveText('Drawing 2 of Line is the same as drawing 3');
  await page.keyboard.press('Control+KeyZ');
  await page.keyboard.press('KeyS');
  await expect(page.getByTestId('finding')).toHaveCount(0);
  await page.keyboard.press('KeyA');
  await page.getByTestId('finding').click();
  await expect(page.getByTestId('frame-of')).toHaveText('5 of 6');
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.004, y: 0.2 }, { x: 0.008, y: 0.3 }, 6);
  await expect(page.getByTestId('finding')).toHaveText('Drawing 3 of Line lies wholly outside the frame');
});
