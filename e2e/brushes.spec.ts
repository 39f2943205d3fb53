import { expect, test, type Page } from './test.ts';
import { address, countOf, makeShot, openDesk, painted, Pen, pixels, marksOf, saved, strokesOf } from './desk.ts';
import { choose } from './controls.ts';
import { makeRough } from './rough.ts';

const brush = (page: Page, name: string) =>
  page.getByRole('group', { name: 'Brushes' }).getByText(name, { exact: true });
const form = async (page: Page, name: string) => {
  await page.getByTestId('forms').click();
  await page.getByRole('menuitemradio', { name }).click();
  await expect(page.getByRole('menuitemradio', { name })).toBeHidden();
};

/** Draws a stroke that crosses itself and says that lifting the pen and painting anew change no pixel. */
async function settles(page: Page, pen: Pen): Promise<string> {
  await painted(page);
  await pen.down({ x: 0.3, y: 0.45, force: 0.3 });
  await pen.moves(
    Array.from({ length: 90 }, (_, k) => k + 1).map((i) => ({
      x: 0.45 + 0.15 * Math.sin(i / 14 - 1.5),
      y: 0.45 + i * 0.002,
      force: 0.3 + 0.6 * Math.abs(Math.sin(i / 25)),
    })),
  );
  const live = await pixels(page);
  await pen.up({ x: 0.5, y: 0.6 });
  expect(await pixels(page)).toEqual(live);
  await painted(page);
  expect(await pixels(page)).toEqual(live);
  return live;
}

test('every brush looks the same under the pen, after pen-up and after a reload, tapered and half opaque too', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  let live = '';
  for (const name of ['Ink', 'Pencil', 'Grain', 'Haze', 'Rub out']) {
    await brush(page, name).click();
    await page.getByLabel('Opacity in per cent').fill('60');
    await page.getByLabel('Taper out, typed').fill('60');
    await page.getByLabel('Taper out, typed').press('Enter');
    const before = live;
    live = await settles(page, pen);
    expect(live).not.toEqual(before);
  }
  await saved(page);
  await page.reload();
  await painted(page);
  await expect.poll(() => pixels(page)).toEqual(live);
  const marks = await marksOf(address(), shot);
  expect(marks.map((mark) => ('brush' in mark ? mark.brush.kind : ''))).toEqual([
    'ink',
    'pencil',
    'grain',
    'haze',
    'ink',
  ]);
});

test('the answer to pressure is drawn as a curve, tried on the pad by the practice pen, and kept as a variant', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pad = page.getByTestId('try-pad');
  const shown = () => pad.evaluate((c: HTMLCanvasElement) => c.toDataURL().length);
  // Pressing the active brush again opens its settings.
  await brush(page, 'Ink').click();
  const empty = await shown();
  await choose(page.getByLabel('What the practice pen draws'), { label: 'Ramp' });
  await expect.poll(shown).toBeGreaterThan(empty);
  const answer = page.getByRole('slider', { name: 'Answer at 100 per cent pressure' });
  await answer.focus();
  for (let i = 0; i < 10; i++) await page.keyboard.press('ArrowDown');
  await expect(answer).toHaveAttribute('aria-valuenow', '50');
  await page.getByRole('button', { name: 'Keep as variant' }).click();
  await page.getByLabel('Name of the variant').fill('Half hand');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'straight', exact: true }).click();
  await expect(answer).toHaveAttribute('aria-valuenow', '100');
  await page.reload();
  await painted(page);
  await brush(page, 'Ink').click();
  await page.getByRole('button', { name: 'Half hand', exact: true }).click();
  await expect(page.getByRole('slider', { name: 'Answer at 100 per cent pressure' })).toHaveAttribute(
    'aria-valuenow',
    '50',
  );
  // A stroke keeps what the curve answers.
  const pen = await Pen.on(page);
  await pen.down({ x: 0.4, y: 0.4, force: 1 });
  await pen.moves(Array.from({ length: 19 }, (_, k) => k + 1).map((i) => ({ x: 0.4 + i * 0.01, y: 0.5, force: 1 })));
  await pen.up({ x: 0.6, y: 0.5 });
  // The practice pen draws on the picture through the same door.
  await page.getByRole('button', { name: 'Practice pen on the picture' }).click();
  await expect(page.getByRole('button', { name: /^Undo/ })).toBeEnabled();
  await saved(page);
  await expect.poll(async () => (await marksOf(address(), shot)).length).toBe(2);
});

test('the answer drawn across in one go holds at every pressure it crossed, and Escape puts it back', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await brush(page, 'Ink').click();
  const answers = () =>
    page
      .getByRole('slider', { name: /^Answer at/ })
      .evaluateAll((all) => all.map((each) => Number(each.getAttribute('aria-valuenow'))));
  // The panel goes up after the picture.
  await expect.poll(answers).toHaveLength(5);
  const straight = await answers();
  const box = (await page.getByTestId('response').boundingBox())!;
  const across = Array.from({ length: 15 }, (_, i) => ({
    x: box.x + 10 + (i * (box.width - 20)) / 14,
    y: box.y + box.height / 2,
  }));
  await pen.drag(across);
  await expect.poll(answers).toEqual([50, 50, 50, 50, 50]);
  await page.getByRole('button', { name: 'straight', exact: true }).click();
  await expect.poll(answers).toEqual(straight);
  const [first, ...rest] = across;
  await page.mouse.move(first!.x, first!.y);
  await page.mouse.down();
  for (const { x, y } of rest) await page.mouse.move(x, y);
  await expect.poll(answers).toEqual([50, 50, 50, 50, 50]);
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await expect.poll(answers).toEqual(straight);
});

test('a curve goes through the points that were set; one is dragged, and Enter ends it as it is seen', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await form(page, 'Curve through points');
  const tap = async (x: number, y: number) => {
    await pen.down({ x, y });
    await pen.up({ x, y });
  };
  await tap(0.3, 0.5);
  await tap(0.4, 0.3);
  await tap(0.5, 0.5);
  const dots = page.getByTestId('set-points');
  await expect(dots).toHaveAttribute('data-count', '3');
  await pen.stroke({ x: 0.4, y: 0.3 }, { x: 0.42, y: 0.2 }, 6);
  await expect(dots).toHaveAttribute('data-count', '3');
  await tap(0.6, 0.4);
  const live = await pixels(page);
  await page.keyboard.press('Enter');
  await expect(dots).toHaveAttribute('data-count', '0');
  await painted(page);
  expect(await pixels(page)).toBe(live);
  await saved(page);
  const [stroke] = await strokesOf(address(), shot);
  expect(stroke!.samples.x.length).toBe(3 * 16 + 1);
  // Escape backs out of a curve that is begun.
  await tap(0.3, 0.7);
  await tap(0.5, 0.8);
  await page.keyboard.press('Escape');
  await expect(dots).toHaveAttribute('data-count', '0');
  await saved(page);
  expect(await strokesOf(address(), shot)).toHaveLength(1);
});

test('lines, boxes, circles and arcs are made exactly; Escape backs out of half a polyline', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  const drag = async (x0: number, y0: number, x1: number, y1: number) => {
    await pen.down({ x: x0, y: y0 });
    await pen.moves(
      Array.from({ length: 6 }, (_, k) => k + 1).map((i) => ({
        x: x0 + ((x1 - x0) * i) / 6,
        y: y0 + ((y1 - y0) * i) / 6,
      })),
    );
    const live = await pixels(page);
    await pen.up({ x: x1, y: y1 });
    return live;
  };
  await form(page, 'Straight line');
  const live = await drag(0.3, 0.3, 0.6, 0.35);
  await painted(page);
  expect(await pixels(page)).toEqual(live);
  await page.keyboard.press('Shift+KeyL');
  await drag(0.3, 0.4, 0.6, 0.42);
  await page.keyboard.press('Shift+KeyL');
  await form(page, 'Rectangle');
  await drag(0.3, 0.5, 0.4, 0.6);
  await form(page, 'Circle');
  await drag(0.6, 0.6, 0.65, 0.6);
  await form(page, 'Arc');
  await drag(0.3, 0.7, 0.5, 0.7);
  await drag(0.39, 0.66, 0.4, 0.65);
  await form(page, 'Point to point');
  await drag(0.6, 0.3, 0.7, 0.3);
  await drag(0.72, 0.34, 0.72, 0.36);
  await page.keyboard.press('Escape');
  await drag(0.6, 0.4, 0.7, 0.4);
  await drag(0.7, 0.5, 0.7, 0.5);
  await page.keyboard.press('Enter');
  await saved(page);
  const marks = await strokesOf(address(), shot);
  expect(marks).toHaveLength(6);
  const [line, level, box, circle, arc, poly] = marks.map(({ samples: { x, y } }) => ({ x: [...x], y: [...y] }));
  expect(line!.x).toHaveLength(2);
  expect(level!.y[1]).toBeCloseTo(level!.y[0]!, 3);
  expect(new Set(box!.x.map((v) => v.toFixed(2))).size).toBe(2);
  const [mx, my] = [
    (Math.min(...circle!.x) + Math.max(...circle!.x)) / 2,
    (Math.min(...circle!.y) + Math.max(...circle!.y)) / 2,
  ];
  const radii = circle!.x.map((v, i) => Math.hypot(v - mx, circle!.y[i]! - my));
  expect(Math.max(...radii) - Math.min(...radii)).toBeLessThan(0.01);
  expect(Math.min(...arc!.y)).toBeLessThan(arc!.y[0]! - 5);
  expect(poly!.x.length).toBe(4);
});

test('strokes follow the ruler, close if they nearly do, and lie behind what is there', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await page.keyboard.press('Shift+KeyX');
  await expect(page.getByTestId('ruler')).toBeVisible();
  await pen.stroke({ x: 0.3, y: 0.49 }, { x: 0.6, y: 0.55 });
  await page.keyboard.press('Shift+KeyX');
  await page.keyboard.press('Shift+KeyC');
  await pen.down({ x: 0.5, y: 0.3 });
  await pen.moves(
    Array.from({ length: 40 }, (_, k) => k + 1).map((i) => ({
      x: 0.45 + 0.05 * Math.cos(i / 6.6),
      y: 0.3 + 0.08 * Math.sin(i / 6.6),
    })),
  );
  await pen.up({ x: 0.5, y: 0.29 });
  await saved(page);
  const [ruled, round] = await strokesOf(address(), shot);
  expect(Math.max(...ruled!.samples.y) - Math.min(...ruled!.samples.y)).toBeLessThan(0.01);
  expect(round!.samples.x.at(-1)).toBe(round!.samples.x[0]);
  expect(round!.samples.y.at(-1)).toBe(round!.samples.y[0]);
  // Behind: a broad stroke in another colour takes nothing from what is there.
  await page.locator('[data-testid=swatch]').nth(1).click();
  const line = await countOf(page, [255, 194, 92], 400);
  await page.keyboard.press('Shift+KeyB');
  await page.getByLabel('Width in px').fill('60');
  const before = await pixels(page);
  await pen.stroke({ x: 0.3, y: 0.5 }, { x: 0.6, y: 0.5 });
  await painted(page);
  expect(await pixels(page)).not.toEqual(before);
  expect(line).toBeGreaterThan(0);
  await saved(page);
  const stored = (await marksOf(address(), shot)).at(-1)!;
  expect('lays' in stored && stored.lays).toBe('behind');
});

test('a stroke keeps the version of its brush until the newest is asked for', async ({ page }) => {
  const shot = await makeShot(address());
  await makeRough(shot, 1, 30, 1);
  await openDesk(page, address(), shot);
  await painted(page);
  const versions = async () => {
    await saved(page);
    return (await strokesOf(address(), shot)).map(({ brush }) => brush.version);
  };
  expect(await versions()).toEqual([1]);
  const before = await pixels(page);
  const pen = await Pen.on(page);
  await pen.tap(page.getByRole('button', { name: 'Pick up', exact: true }));
  await page.getByRole('button', { name: 'All', exact: true }).click();
  await expect(page.getByText('Drawn with an older brush')).toBeVisible();
  await pen.tap(page.getByRole('button', { name: 'newest brush' }));
  await expect(page.getByText('Drawn with an older brush')).toBeHidden();
  expect(await versions()).toEqual([2]);
  await painted(page);
  expect(await pixels(page)).not.toBe(before);
  await page.keyboard.press('Control+KeyZ');
  expect(await versions()).toEqual([1]);
  await painted(page);
  expect(await pixels(page)).toBe(before);
});
