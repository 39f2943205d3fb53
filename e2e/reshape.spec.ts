import { expect, test, type Page } from './test.ts';
import { address, drawn, makeShot, openDesk, painted, Pen, pixels, saved, strokesOf } from './desk.ts';

const taken = (page: Page) => page.getByTestId('taken-count');
const ys = async (shot: string) => (await strokesOf(address(), shot)).map(({ samples: { y } }) => [...y]);

/** The picture once it has been the same five times one after the other. */
async function stillPixels(page: Page): Promise<string> {
  let [last, times] = ['', 0];
  await expect
    .poll(async () => {
      const next = await pixels(page);
      times = next === last ? times + 1 : 0;
      last = next;
      return times;
    })
    .toBeGreaterThan(4);
  return last;
}

/** A level stroke from 0.3 to 0.7, drawn without pressure. */
async function level(page: Page, y = 0.5): Promise<Pen> {
  const pen = await Pen.on(page);
  await pen.down({ x: 0.3, y });
  await pen.moves(Array.from({ length: 40 }, (_, k) => k + 1).map((i) => ({ x: 0.3 + i * 0.01, y })));
  await pen.up({ x: 0.7, y });
  await painted(page);
  return pen;
}

test('a point pulled takes what is near with it, to a spike too, and Escape and undo put it back', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await level(page);
  const other = await level(page, 0.55);
  expect(other).toBeDefined();
  await saved(page);
  const before = await ys(shot);
  const seen = await pixels(page);
  await page.keyboard.press('KeyV');
  await expect(page.getByTestId('reshape-overlay')).toHaveAttribute('data-points', /[4-9]/);
  // Pressed on the line between its points there is a point too.
  await pen.down({ x: 0.5, y: 0.5 });
  await pen.move({ x: 0.5, y: 0.45 });
  await pen.move({ x: 0.5, y: 0.4 });
  await page.keyboard.press('Escape');
  await pen.up({ x: 0.5, y: 0.4 });
  await saved(page);
  expect(await ys(shot)).toEqual(before);
  await pen.down({ x: 0.5, y: 0.5 });
  await pen.move({ x: 0.5, y: 0.45 });
  await pen.move({ x: 0.5, y: 0.4 });
  await pen.up({ x: 0.5, y: 0.4 });
  await expect(taken(page)).toHaveText('1 point');
  await saved(page);
  const [first, second] = await ys(shot);
  expect(Math.min(...first!)).toBeLessThan(before[0]![0]! - 20);
  expect(first![0]).toBe(before[0]![0]);
  expect(second).toEqual(before[1]);
  await page.keyboard.press('Control+KeyZ');
  // Across lines the one beside comes along.
  const group = (name: string) => page.getByRole('group', { name });
  await group('What comes along').getByText('all').click();
  await group('How the pull goes').getByText('to a point').click();
  await pen.down({ x: 0.5, y: 0.5 });
  await pen.move({ x: 0.5, y: 0.48 });
  await pen.move({ x: 0.5, y: 0.42 });
  await pen.up({ x: 0.5, y: 0.42 });
  await saved(page);
  expect(Math.min(...(await ys(shot))[1]!)).toBeLessThan(before[1]![0]! - 1);
  await page.keyboard.press('Control+KeyZ');
  await page.keyboard.press('KeyV');
  await painted(page);
  await expect.poll(() => pixels(page)).toBe(seen);
});

test('a pull is seen while the pen is down, as it will be, and the document has it when the pen lifts', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await level(page);
  // What lies over the pulled line stays over it, and what rubs it out does so.
  await page.locator('[data-testid=swatch][data-name=flame]').click();
  await pen.stroke({ x: 0.45, y: 0.3 }, { x: 0.45, y: 0.6 }, 12);
  await painted(page);
  await page.getByRole('group', { name: 'Brushes' }).getByText('Rub out').click();
  await pen.stroke({ x: 0.55, y: 0.3 }, { x: 0.55, y: 0.6 }, 12);
  await painted(page);
  await saved(page);
  const before = await ys(shot);
  await page.keyboard.press('KeyV');
  await painted(page);
  const seen = await pixels(page);
  const steps = await page.getByTestId('saved').textContent();
  await pen.down({ x: 0.5, y: 0.5 });
  await pen.move({ x: 0.5, y: 0.45 });
  await pen.move({ x: 0.5, y: 0.4 });
  await expect.poll(() => pixels(page)).not.toBe(seen);
  await expect(page.getByTestId('saved')).toHaveText(steps!);
  expect(await ys(shot)).toEqual(before);
  // The latest place of the pen is what is shown in the end.
  const held = await stillPixels(page);
  await pen.up({ x: 0.5, y: 0.4 });
  await painted(page);
  expect(await pixels(page)).toBe(held);
  await saved(page);
  expect(Math.min(...(await ys(shot))[0]!)).toBeLessThan(before[0]![0]! - 20);
  await page.keyboard.press('Control+KeyZ');
  await painted(page);
  expect(await pixels(page)).toBe(seen);
});

test('points are ringed, smoothed, widened, cut and removed; the reach is set on the picture; a part is redrawn', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await level(page);
  await page.keyboard.press('KeyV');
  await pen.down({ x: 0.5, y: 0.5 });
  await pen.up({ x: 0.5, y: 0.5 });
  await expect(taken(page)).toHaveText('1 point');
  const reach = (await page.getByTestId('reach').boundingBox())!;
  const before = await page.getByLabel('Reach, typed').inputValue();
  await pen.drag([
    { x: reach.x + 5, y: reach.y + 5 },
    { x: reach.x + 45, y: reach.y + 5 },
  ]);
  await expect(page.getByLabel('Reach, typed')).not.toHaveValue(before);
  await saved(page);
  const pressed = (await strokesOf(address(), shot))[0]!.samples.pressure;
  await page.getByRole('button', { name: 'Thin' }).click();
  await saved(page);
  const thin = (await strokesOf(address(), shot))[0]!.samples.pressure;
  const middle = Math.floor(thin.length / 2);
  expect(thin[middle]!).toBeLessThan(pressed[middle]!);
  expect(thin[0]).toBe(pressed[0]);
  await page.getByRole('button', { name: 'Cut here' }).click();
  await saved(page);
  expect(await strokesOf(address(), shot)).toHaveLength(2);
  await page.keyboard.press('Control+KeyZ');
  await page.getByRole('button', { name: 'Redraw', exact: true }).click();
  await pen.down({ x: 0.4, y: 0.5 });
  await pen.moves(
    Array.from({ length: 20 }, (_, k) => k + 1).map((i) => ({
      x: 0.4 + i * 0.01,
      y: 0.5 - 0.1 * Math.sin((i / 20) * Math.PI),
    })),
  );
  await pen.up({ x: 0.6, y: 0.5 });
  await saved(page);
  const [redrawn] = await ys(shot);
  expect(Math.min(...redrawn!)).toBeLessThan(redrawn![0]! - 20);
  expect(redrawn!.at(-1)).toBeCloseTo(redrawn![0]!, 3);
  await page.getByRole('button', { name: 'Pull', exact: true }).click();
  // A line round the middle takes its points together; removing them goes straight past.
  await pen.down({ x: 0.42, y: 0.35 });
  for (const [x, y] of [
    [0.58, 0.35],
    [0.58, 0.47],
    [0.42, 0.47],
    [0.42, 0.36],
  ] as const)
    await pen.move({ x, y });
  await pen.up({ x: 0.42, y: 0.35 });
  await expect(taken(page)).toHaveText(/\d+ points?/);
  await page.getByRole('button', { name: 'Smooth' }).click();
  await page.getByRole('button', { name: 'Whole line' }).click();
  await saved(page);
  expect(Math.min(...(await ys(shot))[0]!)).toBeGreaterThan(Math.min(...redrawn!) - 0.01);
});

test('one pull goes through all drawings picked on the wheel, and they are all seen', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 3);
  await saved(page);
  const before = await strokesOf(address(), shot);
  await page.getByTestId('wheel').focus();
  await page.keyboard.press('Control+KeyA');
  const alone = await pixels(page);
  await page.keyboard.press('KeyV');
  await expect(taken(page)).toHaveText('Reshape in 3 drawings');
  await painted(page);
  await expect.poll(() => pixels(page)).not.toBe(alone);
  await page.getByRole('group', { name: 'What comes along' }).getByText('all').click();
  await page.getByLabel('Reach, typed').fill('300');
  await page.getByLabel('Reach, typed').press('Enter');
  const pen = await Pen.on(page);
  await pen.down({ x: 0.36, y: 0.475 });
  await pen.move({ x: 0.4, y: 0.475 });
  await pen.move({ x: 0.44, y: 0.475 });
  await pen.up({ x: 0.44, y: 0.475 });
  await saved(page);
  const after = await strokesOf(address(), shot);
  after.forEach(({ samples }, i) => {
    const moved = samples.x.map((x, k) => x - before[i]!.samples.x[k]!);
    expect(Math.max(...moved)).toBeGreaterThan(3);
  });
  await page.keyboard.press('Control+KeyZ');
  await saved(page);
  expect((await strokesOf(address(), shot)).map((s) => [...s.samples.x])).toEqual(before.map((s) => [...s.samples.x]));
});
