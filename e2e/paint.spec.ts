import { address, countOf, makeShot, marksOf, openDesk, painted, Pen, saved, stored, storedDrawings } from './desk.ts';
import { expect, test, type Page } from './test.ts';

const frameOf = (page: Page) => page.getByTestId('frame-of');

/** Draws most of a circle's line. @param open share of it that is left open at its right. */
async function ring(pen: Pen, cx: number, cy: number, r: number, open = 0, aspect = 640 / 360): Promise<void> {
  const count = 60;
  const at = (i: number) => {
    const turn = (open / 2 + (1 - open) * (i / count)) * 2 * Math.PI;
    return { x: cx + r * Math.cos(turn), y: cy + r * aspect * Math.sin(turn), force: 0.6 };
  };
  await pen.down(at(0));
  await pen.moves(Array.from({ length: count }, (_, i) => at(i + 1)));
  await pen.up(at(count));
}

async function desk(page: Page): Promise<{ shot: string; pen: Pen }> {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  return { shot, pen: await Pen.on(page) };
}

/** The pen over a place of the picture, shares of it, without touching. */
async function hover(page: Page, x: number, y: number): Promise<void> {
  const box = (await page.getByTestId('picture').boundingBox())!;
  await page.mouse.move(box.x + x * box.width - 3, box.y + y * box.height);
  await page.mouse.move(box.x + x * box.width, box.y + y * box.height);
}

const FLAME: [number, number, number] = [0xff, 0xa6, 0x2b];

test('a gap is shown before filling with the least Gap that holds; then the fill lies under its line, on a tied layer', async ({
  page,
}) => {
  const { shot, pen } = await desk(page);
  await ring(pen, 0.5, 0.5, 0.15, 0.04);
  await page.locator('[data-testid=swatch][data-name=flame]').click();
  await page.keyboard.press('KeyF');
  const panel = page.getByTestId('fill-panel');
  await expect(page.getByTestId('fill-where')).toHaveText('Onto a fill layer, made under these lines.');
  await hover(page, 0.5, 0.5);
  await expect(page.getByTestId('leak')).toHaveCount(1);
  await pen.stroke({ x: 0.5, y: 0.5 }, { x: 0.5, y: 0.5 }, 1);
  await expect(
    page.getByText(/The fill runs out at one place: close the line there or raise Gap to \d+ px/),
  ).toBeVisible();
  await page.getByRole('button', { name: /^Gap \d+ px$/ }).click();
  await hover(page, 0.49, 0.5);
  await expect(page.getByTestId('leak')).toHaveCount(0);
  await expect(page.getByTestId('fill-overlay')).not.toHaveAttribute('data-region', '0');
  await pen.stroke({ x: 0.5, y: 0.5 }, { x: 0.5, y: 0.5 }, 1);
  await expect(page.getByTestId('fill-where')).toHaveText('Onto “Line fill”.');
  await saved(page);
  const { entities } = await stored(address(), shot);
  const layers = entities.filter((e) => e.kind === 'layer');
  expect(layers.map((e) => e['role']).sort()).toEqual(['body', 'line']);
  expect(new Set(layers.map((e) => e['runListId'])).size).toBe(1);
  const shape = (await marksOf(address(), shot)).find((mark) => mark.kind === 'shape')!;
  expect(shape.kind === 'shape' && shape.rings[0]!.length / 6).toBeLessThan(40);
  await panel.getByRole('button', { name: 'Layers' }).click();
  await painted(page);
  // No bare fringe: nothing of the background is left inside the line.
  expect(await countOf(page, FLAME)).toBeGreaterThan(3000);
  const bare = await page.getByTestId('picture').evaluate((canvas: HTMLCanvasElement) => {
    const [w, h] = [canvas.width, canvas.height];
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, w, h);
    let count = 0;
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) {
        const i = (y * w + x) * 4;
        // Well inside the ring, where its gap is not.
        if (Math.hypot(x - w / 2, y - h / 2) > 0.1 * w) continue;
        if (Math.abs(data[i]! - 0xff) > 3 || Math.abs(data[i + 1]! - 0xa6) > 3) count += 1;
      }
    return count;
  });
  expect(bare).toBe(0);
  await page.keyboard.press('Control+KeyZ');
  await saved(page);
  expect((await stored(address(), shot)).entities.filter((e) => e.kind === 'layer')).toHaveLength(1);
});

test('fills go through the drawings, what needs a look is listed, and changed lines are filled again', async ({
  page,
}) => {
  const { shot, pen } = await desk(page);
  for (let i = 0; i < 4; i++) {
    if (i > 0) await page.keyboard.press('KeyS');
    await painted(page);
    await ring(pen, 0.3 + i * 0.03, 0.5, 0.08);
    // The third drawing has one more, which was in none before.
    if (i === 2) await ring(pen, 0.7, 0.4, 0.06);
  }
  await page.getByTestId('wheel').press('ArrowUp');
  for (let i = 0; i < 2; i++) await page.keyboard.press('KeyA');
  await expect(frameOf(page)).toHaveText('1 of 8');
  await painted(page);
  await page.locator('[data-testid=swatch][data-name=flame]').click();
  await page.keyboard.press('KeyF');
  await pen.stroke({ x: 0.3, y: 0.5 }, { x: 0.3, y: 0.5 }, 1);
  await expect(page.getByTestId('fill-where')).toHaveText('Onto “Line fill”.');
  await page.getByRole('button', { name: 'Through the drawings' }).click();
  await expect(page.getByTestId('fill-outcome')).toHaveText('4 drawings: 3 filled, 1 with a new region.');
  await page
    .getByTestId('fill-reports')
    .getByRole('button', { name: /frame 5/ })
    .click();
  await expect(frameOf(page)).toHaveText('5 of 8');
  await saved(page);
  const shapes = async () =>
    (await storedDrawings(address(), shot))
      .map((body) => Object.values(body.marks).filter((mark) => mark.kind === 'shape').length)
      .filter((count) => count > 0);
  expect(await shapes()).toEqual([1, 1, 1, 1]);
  // A line that changes: what was filled from it is offered again.
  await page.getByTestId('fill-panel').getByRole('button', { name: 'Layers' }).click();
  await painted(page);
  await pen.stroke({ x: 0.3, y: 0.2 }, { x: 0.36, y: 0.22 }, 6);
  await page.keyboard.press('KeyF');
  await expect(page.getByTestId('fill-stale')).toContainText('One drawing’s lines changed');
  await page.getByRole('button', { name: 'Fill again' }).click();
  await expect(page.getByTestId('fill-stale')).toHaveCount(0);
});

test('twelve drawings whose lines gape differently are filled in two actions; the gap each needs is told before', async ({
  page,
}) => {
  const { shot, pen } = await desk(page);
  await page.getByTestId('wheel').press('ArrowUp');
  // On 2s, every other one gapes wider.
  for (let i = 0; i < 12; i++) {
    if (i > 0) await page.keyboard.press('KeyS');
    await painted(page);
    await ring(pen, 0.4 + i * 0.004, 0.5, 0.08, i % 2 === 0 ? 0 : 0.03 + i * 0.007);
  }
  for (let i = 0; i < 11; i++) await page.keyboard.press('KeyA');
  await expect(frameOf(page)).toHaveText('1 of 24');
  await painted(page);
  await page.locator('[data-testid=swatch][data-name=flame]').click();
  await page.keyboard.press('KeyF');
  await pen.stroke({ x: 0.4, y: 0.5 }, { x: 0.4, y: 0.5 }, 1);
  await expect(page.getByTestId('fill-needs')).toContainText('all 12');
  const told = await page.getByTestId('fill-needs').getByRole('button').allInnerTexts();
  expect(told.length).toBeGreaterThan(3);
  await page.getByRole('button', { name: 'Through the drawings' }).click();
  await expect(page.getByTestId('fill-outcome')).toHaveText('All 12 drawings are filled.');
  await saved(page);
  const shapes = (await storedDrawings(address(), shot)).flatMap(({ marks }) =>
    Object.values(marks).filter(({ kind }) => kind === 'shape'),
  );
  expect(shapes).toHaveLength(12);
});

test('a closing stroke bounds and is never seen; unfill cuts a hole, replace repaints', async ({ page }) => {
  const { shot, pen } = await desk(page);
  await ring(pen, 0.5, 0.5, 0.16, 0.2);
  await painted(page);
  const before = await countOf(page, [0x8c, 0x2a, 0x14]);
  await page.keyboard.press('KeyF');
  const panel = page.getByTestId('fill-panel');
  await page.locator('[data-testid=swatch][data-name=flame]').click();
  await panel.getByRole('button', { name: 'Bridge a gap', exact: true }).click();
  await panel.getByText('Fill what it closes').click();
  await pen.stroke({ x: 0.63, y: 0.3 }, { x: 0.63, y: 0.7 }, 12);
  await expect(page.getByTestId('fill-where')).toHaveText('Onto “Line fill”.');
  await painted(page);
  expect(await countOf(page, FLAME)).toBeGreaterThan(3000);
  expect(await countOf(page, [0x8c, 0x2a, 0x14])).toBeLessThan(before + 60);
  await page.locator('[data-testid=swatch][data-name=core]').click();
  await panel.getByRole('button', { name: 'change', exact: true }).click();
  await pen.stroke({ x: 0.5, y: 0.5 }, { x: 0.5, y: 0.5 }, 1);
  await painted(page);
  await expect.poll(() => countOf(page, [0xff, 0xf0, 0xb8])).toBeGreaterThan(3000);
  await panel.getByRole('button', { name: 'empty', exact: true }).click();
  await pen.stroke({ x: 0.5, y: 0.5 }, { x: 0.5, y: 0.5 }, 1);
  await expect.poll(() => countOf(page, [0xff, 0xf0, 0xb8])).toBe(0);
  await saved(page);
  expect((await marksOf(address(), shot)).filter((mark) => mark.kind === 'shape')).toHaveLength(0);
});

test('a line takes its fill along when both are picked up, and they turn about a pivot that was put', async ({
  page,
}) => {
  const { shot, pen } = await desk(page);
  await ring(pen, 0.35, 0.5, 0.1);
  await page.locator('[data-testid=swatch][data-name=flame]').click();
  await page.keyboard.press('KeyF');
  await hover(page, 0.35, 0.5);
  await expect(page.getByTestId('fill-overlay')).not.toHaveAttribute('data-region', '0');
  await pen.stroke({ x: 0.35, y: 0.5 }, { x: 0.35, y: 0.5 }, 1);
  await expect(page.getByTestId('fill-where')).toHaveText('Onto “Line fill”.');
  await page.keyboard.press('KeyC');
  await page.getByTestId('pick-reach').click();
  await page.getByRole('menuitemradio', { name: /^what is tied to it/ }).click();
  const panel = page.getByTestId('pick-panel');
  await panel.getByRole('button', { name: 'All', exact: true }).click();
  await expect(page.getByTestId('picked-count')).toHaveText('2 marks');
  await painted(page);
  const filled = await countOf(page, FLAME);
  await page.getByLabel('Right, typed').fill('200');
  await page.getByLabel('Right, typed').press('Enter');
  await saved(page);
  const boxes = async () =>
    (await marksOf(address(), shot)).map((mark) => {
      const xs = mark.kind === 'shape' ? mark.rings[0]!.filter((_, i) => i % 2 === 0) : mark.samples.x;
      return Math.round((Math.min(...xs) + Math.max(...xs)) / 2);
    });
  const [line, fill] = await boxes();
  expect(Math.abs(line! - fill!)).toBeLessThan(3);
  await painted(page);
  expect(Math.abs((await countOf(page, FLAME)) - filled)).toBeLessThan(filled * 0.02);
  // Nothing is said to be filled again: it is as it was laid.
  await page.keyboard.press('KeyF');
  await expect(page.getByTestId('fill-panel')).toBeVisible();
  await expect(page.getByTestId('fill-stale')).toHaveCount(0);
  await page.keyboard.press('KeyC');
  await panel.getByRole('button', { name: 'All', exact: true }).click();
  const pivot = (await page.getByTestId('pivot').boundingBox())!;
  const picture = (await page.getByTestId('picture').boundingBox())!;
  await page.mouse.move(pivot.x + pivot.width / 2, pivot.y + pivot.height / 2);
  await page.mouse.down();
  await page.mouse.move(picture.x + picture.width * 0.5, picture.y + picture.height * 0.9, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByTestId('pivot')).toHaveAttribute('data-set', 'true');
  await page.getByLabel('Turn, typed').fill('180');
  await page.getByLabel('Turn, typed').press('Enter');
  await saved(page);
  const [turnedLine, turnedFill] = await boxes();
  expect(Math.abs(turnedLine! - turnedFill!)).toBeLessThan(3);
  expect(Math.abs(turnedLine! - line!)).toBeGreaterThan(20);
});
