import { expect, test, type Page } from './test.ts';
import {
  address,
  makeShot,
  marksOf,
  openDesk,
  painted,
  Pen,
  pixels,
  saved,
  strokesOf,
  drawn,
  storedDrawings,
} from './desk.ts';
import { choose } from './controls.ts';

/** Three strokes side by side, the middle one tall. */
async function threeStrokes(page: Page): Promise<Pen> {
  const pen = await Pen.on(page);
  for (const x of [0.3, 0.45, 0.6]) {
    await painted(page);
    await pen.stroke({ x, y: 0.35 }, { x, y: 0.6 }, 12);
  }
  await painted(page);
  return pen;
}
const boxed = async (pen: Pen, x0: number, y0: number, x1: number, y1: number) => {
  await pen.down({ x: x0, y: y0 });
  for (const [x, y] of [
    [x1, y0],
    [x1, y1],
    [x0, y1],
    [x0, y0 + 0.01],
  ] as const)
    await pen.move({ x, y });
  await pen.up({ x: x0, y: y0 });
};
const count = (page: Page) => page.getByTestId('picked-count');
const middles = async (shot: string) =>
  (await strokesOf(address(), shot)).map(({ samples: { x, y } }) => ({
    x: (Math.min(...x) + Math.max(...x)) / 2,
    y: (Math.min(...y) + Math.max(...y)) / 2,
    width: Math.max(...x) - Math.min(...x),
    height: Math.max(...y) - Math.min(...y),
  }));

test('marks are picked up by tap, lasso and all, added and taken away, moved, and one undo puts them back', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await threeStrokes(page);
  await saved(page);
  const before = await middles(shot);
  const seen = await pixels(page);
  await page.keyboard.press('KeyC');
  await pen.down({ x: 0.3, y: 0.45 });
  await pen.up({ x: 0.3, y: 0.45 });
  await expect(count(page)).toHaveText('1 mark');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await boxed(pen, 0.4, 0.3, 0.66, 0.66);
  await expect(count(page)).toHaveText('3 marks');
  await page.getByRole('button', { name: 'Take away' }).click();
  await pen.down({ x: 0.6, y: 0.45 });
  await pen.up({ x: 0.6, y: 0.45 });
  await expect(count(page)).toHaveText('2 marks');
  await page.getByRole('button', { name: 'New', exact: true }).click();
  // Inside the box the pen moves what is picked up; Escape half-way leaves it where it was.
  await pen.down({ x: 0.37, y: 0.5 });
  await pen.move({ x: 0.4, y: 0.55 });
  await page.keyboard.press('Escape');
  await pen.up({ x: 0.4, y: 0.55 });
  await painted(page);
  await pen.down({ x: 0.37, y: 0.5 });
  await pen.moves(Array.from({ length: 5 }, (_, k) => k + 1).map((i) => ({ x: 0.37, y: 0.5 + i * 0.02 })));
  await pen.up({ x: 0.37, y: 0.6 });
  await painted(page);
  await saved(page);
  const after = await middles(shot);
  expect(after[2]).toEqual(before[2]);
  for (const i of [0, 1]) {
    expect(after[i]!.x).toBeCloseTo(before[i]!.x, 1);
    expect(after[i]!.y).toBeGreaterThan(before[i]!.y + 20);
    expect(after[i]!.height).toBeCloseTo(before[i]!.height, 2);
  }
  // Arrows nudge in screen directions, whichever way the picture is turned.
  await page.keyboard.press('Shift+ArrowRight');
  await saved(page);
  expect((await middles(shot))[0]!.x).toBeCloseTo(after[0]!.x + 10, 2);
  await page.keyboard.press('Control+KeyZ');
  await page.keyboard.press('Control+KeyZ');
  await page.keyboard.press('KeyC');
  await painted(page);
  await expect.poll(() => pixels(page)).toBe(seen);
});

test('what is picked up is scaled to nothing and back without loss, turned and mirrored, by handles and by numbers', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await threeStrokes(page);
  await saved(page);
  const before = (await strokesOf(address(), shot)).map((s) => [...s.samples.x]);
  await page.keyboard.press('KeyC');
  await page.getByRole('button', { name: 'All', exact: true }).click();
  await expect(count(page)).toHaveText('3 marks');
  const type = async (label: string, value: string) => {
    await page.getByLabel(`${label}, typed`).fill(value);
    await page.getByLabel(`${label}, typed`).press('Enter');
  };
  await type('Width', '0');
  await type('Height', '0');
  await saved(page);
  expect(Math.max(...(await middles(shot)).map((m) => m.width))).toBeLessThan(1);
  await type('Width', '100');
  await type('Height', '100');
  await saved(page);
  expect((await strokesOf(address(), shot)).map((s) => [...s.samples.x])).toEqual(before);
  // A corner handle scales with its opposite held.
  const corner = page.getByTestId('scale-1-1');
  const opposite = (await page.getByTestId('scale-0-0').boundingBox())!;
  const box = (await corner.boundingBox())!;
  const pen = await Pen.on(page);
  const from = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  await pen.drag([from, { x: from.x + 40, y: from.y + 40 }, { x: from.x + 60, y: from.y + 60 }]);
  await painted(page);
  const held = (await page.getByTestId('scale-0-0').boundingBox())!;
  expect(Math.abs(held.x - opposite.x) + Math.abs(held.y - opposite.y)).toBeLessThan(1);
  const wide = (await middles(shot)).length;
  expect(wide).toBe(3);
  await type('Turn', '90');
  await page.getByRole('button', { name: 'Mirror across' }).click();
  await saved(page);
  const turned = await middles(shot);
  expect(turned[0]!.width).toBeGreaterThan(turned[0]!.height * 2);
  await page.keyboard.press('Delete');
  await expect(count(page)).toHaveText('Pick up');
  await saved(page);
  expect(await marksOf(address(), shot)).toHaveLength(0);
});

test('marks are copied to every drawing picked on the wheel and changed in all of them at once', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 3);
  await page.keyboard.press('KeyC');
  await page.getByRole('button', { name: 'All', exact: true }).click();
  await page.keyboard.press('Control+KeyC');
  // All drawings of the layer are picked on the wheel; what is pasted goes onto each.
  await page.keyboard.press('Escape');
  await page.keyboard.press('KeyC');
  await page.getByTestId('wheel').focus();
  await page.keyboard.press('Control+KeyA');
  await page.keyboard.press('KeyC');
  await page.keyboard.press('Control+KeyV');
  await expect(count(page)).toHaveText('3 marks in 3 drawings');
  await page.getByRole('button', { name: 'fades', exact: true }).click();
  await page.getByLabel('Right, typed').fill('60');
  await page.getByLabel('Right, typed').press('Enter');
  await saved(page);
  const pasted = (await storedDrawings(address(), shot)).map((d) => d.order.length);
  expect(pasted).toEqual([2, 2, 2]);
  const xs = (await strokesOf(address(), shot)).map((s) => s.samples.x[0]!);
  // In the middle drawing they moved most.
  const moved = xs.filter((_, i) => i % 2 === 1);
  expect(new Set(moved.map((x) => x.toFixed(1))).size).toBe(2);
});

test('what is picked up takes the swatch, width and brush that are set, in all picked drawings, and stays the same strokes', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 2);
  await saved(page);
  const before = await strokesOf(address(), shot);
  await page.locator('[data-testid=swatch][data-name=flame]').click();
  await page.getByRole('group', { name: 'Brushes' }).getByText('Grain').click();
  await page.getByLabel('Width in px').fill('33');
  await page.getByTestId('wheel').focus();
  await page.keyboard.press('Control+KeyA');
  await page.keyboard.press('KeyC');
  const panel = page.getByTestId('pick-panel');
  await panel.getByRole('button', { name: 'All', exact: true }).click();
  await expect(page.getByTestId('picked-count')).toContainText('2 marks');
  for (const what of ['swatch', 'width', 'brush']) await panel.getByText(what, { exact: true }).click();
  await saved(page);
  const after = await strokesOf(address(), shot);
  expect(after.map(({ id }) => id)).toEqual(before.map(({ id }) => id));
  expect(after.map(({ samples }) => samples)).toEqual(before.map(({ samples }) => samples));
  expect(after.map(({ brush }) => [brush.kind, brush.width])).toEqual([
    ['grain', 33],
    ['grain', 33],
  ]);
  expect(new Set(after.map(({ swatch }) => swatch)).size).toBe(1);
  expect(after[0]!.swatch).not.toBe(before[0]!.swatch);
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+KeyZ');
  await saved(page);
  expect(await strokesOf(address(), shot)).toEqual(before);
});

test('a lasso cuts strokes, ends are joined, a parallel line is laid beside, order and layer change, a grid bends', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await threeStrokes(page);
  await page.keyboard.press('KeyC');
  await page.getByLabel('Cut what it crosses').check();
  await boxed(pen, 0.25, 0.3, 0.65, 0.47);
  await expect(count(page)).toHaveText('3 marks');
  await saved(page);
  expect(await strokesOf(address(), shot)).toHaveLength(6);
  await page.keyboard.press('Control+KeyZ');
  await page.getByLabel('Cut what it crosses').uncheck();
  await boxed(pen, 0.25, 0.3, 0.5, 0.66);
  await expect(count(page)).toHaveText('2 marks');
  await page.getByRole('button', { name: 'Order, joining, lines beside, bending, layers' }).click();
  await page.getByRole('button', { name: 'Join by an arc' }).click();
  await saved(page);
  expect(await strokesOf(address(), shot)).toHaveLength(2);
  await page.getByRole('button', { name: 'Add parallel line' }).click();
  await saved(page);
  expect(await strokesOf(address(), shot)).toHaveLength(3);
  await page.getByRole('button', { name: 'Top', exact: true }).click();
  await page.getByRole('button', { name: 'Four corners' }).click();
  const handle = (await page.getByTestId('bend-0-1').boundingBox())!;
  const before = (await middles(shot)).at(-1)!;
  await pen.drag([
    { x: handle.x + 5, y: handle.y + 5 },
    { x: handle.x + 60, y: handle.y - 30 },
  ]);
  await saved(page);
  expect((await middles(shot)).at(-1)!.width).toBeGreaterThan(before.width + 5);
  await page.getByRole('button', { name: 'Off', exact: true }).click();
  await page.getByText('Layers', { exact: true }).click();
  await page.getByText('Add layer').click();
  await page.locator('[data-testid=layer][data-name=Line] button[aria-pressed]').click();
  await page.keyboard.press('KeyC');
  await choose(page.getByLabel('To layer'), { label: 'Layer 2' });
  await saved(page);
  const drawings = await storedDrawings(address(), shot);
  expect(drawings.map((d) => d.order.length).sort()).toEqual([1, 2]);
});

test('the key for all means marks in the picture and drawings on the wheel, and says which', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 2);
  await page.getByTestId('picture').focus();
  await page.keyboard.press('Control+KeyA');
  await expect(count(page)).toHaveText('1 mark');
  await expect(page.getByText('1 mark is picked up. On the wheel the same key picks drawings.')).toBeVisible();
  await page.getByTestId('wheel').focus();
  await page.keyboard.press('Control+KeyA');
  await expect(page.getByTestId('picked')).toContainText('2 drawings picked');
  await expect(page.getByText('All 2 drawings of “Line” are picked.')).toBeVisible();
  await page.getByTestId('picture').focus();
  await page.keyboard.press('Control+KeyA');
  await expect(count(page)).toHaveText('2 marks in 2 drawings');
});
