/** What common work takes of the hand, counted and held against docs/labour.md. */
import { readFileSync } from 'node:fs';
import type { Locator } from '@playwright/test';
import { address, beenHere, drawn, makeShot, openDesk, painted, Pen, saved, stored, storedDrawings } from './desk.ts';
import { choose, tipped } from './controls.ts';
import { expect, test, type Page } from './test.ts';

/** What the table says, by task. */
const TABLE = new Map(
  readFileSync(new URL('../docs/labour.md', import.meta.url), 'utf8')
    .split('\n')
    .flatMap((line) => {
      const [, task, count] = /^\| (.+?) +\| (\d+) +\|$/.exec(line) ?? [];
      return task && count ? [[task, Number(count)] as const] : [];
    }),
);

/** A hand whose doings are counted. */
class Hand {
  private count = 0;

  constructor(
    private readonly page: Page,
    private readonly pen: Pen,
  ) {}

  async key(key: string): Promise<void> {
    this.count += 1;
    await this.page.keyboard.press(key);
  }
  async press(control: Locator): Promise<void> {
    this.count += 1;
    await control.click();
  }
  /** A press or a drag of the pen in the picture, shares of it. */
  async stroke(...places: readonly { x: number; y: number }[]): Promise<void> {
    this.count += 1;
    await this.pen.down(places[0]!);
    for (const place of places) await this.pen.move(place);
    await this.pen.up(places.at(-1)!);
  }
  async drag(handle: Locator, by: { x: number; y: number }): Promise<void> {
    this.count += 1;
    const box = (await handle.boundingBox())!;
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await this.pen.drag([
      { x, y },
      { x: x + by.x / 2, y: y + by.y / 2 },
      { x: x + by.x, y: y + by.y },
    ]);
  }
  /** It took what the table says. */
  took(task: string): void {
    expect(TABLE.has(task), `“${task}” in docs/labour.md`).toBe(true);
    expect(this.count, task).toBe(TABLE.get(task));
    this.count = 0;
  }
}

async function desk(page: Page): Promise<{ shot: string; pen: Pen; hand: Hand }> {
  const shot = await makeShot(address(), { length: 48 });
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  return { shot, pen, hand: new Hand(page, pen) };
}

/** A round line, some of it left open. */
async function ring(pen: Pen, cx: number, open = 0): Promise<void> {
  const at = (i: number) => {
    const turn = (open / 2 + (1 - open) * (i / 40)) * 2 * Math.PI;
    return { x: cx + 0.08 * Math.cos(turn), y: 0.5 + 0.08 * (640 / 360) * Math.sin(turn), force: 0.6 };
  };
  await pen.down(at(0));
  await pen.moves(Array.from({ length: 40 }, (_, i) => at(i + 1)));
  await pen.up(at(40));
}

const countOfKind = async (shot: string, kind: string) =>
  (await stored(address(), shot)).entities.filter((each) => each.kind === kind).length;

test('closing, timing, glow, copies', async ({ page }) => {
  const { shot, hand } = await desk(page);
  await drawn(page, 12);
  await hand.key('Alt+Shift+KeyC');
  await expect(page.getByTestId('element-time')).toContainText('cycle');
  hand.took('close a cycle');
  await hand.press(page.getByRole('button', { name: 'More', exact: true }));
  await hand.press(page.getByRole('menuitem', { name: 'Whole layer on 3s' }));
  await expect(page.getByTestId('frame-of')).toContainText('of 36');
  hand.took('the whole layer from 2s to 3s');
  await hand.key('Alt+KeyE');
  await hand.press(page.getByTestId('looks-panel').getByRole('button', { name: 'Glow', exact: true }));
  await saved(page);
  hand.took('glow on 12 drawings');
  for (let i = 0; i < 3; i++) await page.keyboard.press('Alt+KeyE');
  for (let i = 0; i < 3; i++) await page.getByText('Add layer').click();
  await hand.key('Alt+Shift+KeyD');
  await saved(page);
  expect(await countOfKind(shot, 'layer')).toBe(8);
  hand.took('copy a painted element of 4 layers');
  const other = await makeShot(address(), { name: 'Labour into', length: 48 });
  await hand.press(page.getByRole('button', { name: 'More about Element 1 copy' }));
  await hand.press(page.getByRole('menuitem', { name: 'Copy', exact: true }));
  await hand.press(tipped(page, 'All shots'));
  await hand.press(page.locator('[data-testid=shot][data-name="Labour into"]').getByRole('link').first());
  await hand.press(page.getByRole('button', { name: 'More about Element 1' }));
  await hand.press(page.getByRole('menuitem', { name: 'Paste what was copied' }));
  await saved(page);
  expect(await countOfKind(other, 'layer')).toBe(5);
  hand.took('the same into another shot');
});

test('fills, and moving a line with its fill about a place', async ({ page }) => {
  test.setTimeout(120_000);
  const { pen, hand } = await desk(page);
  await page.getByTestId('wheel').press('ArrowUp');
  for (let i = 0; i < 12; i++) {
    if (i > 0) await page.keyboard.press('KeyS');
    await painted(page);
    await ring(pen, 0.4 + i * 0.004, i % 2 === 0 ? 0 : 0.03 + i * 0.007);
  }
  for (let i = 0; i < 11; i++) await page.keyboard.press('KeyA');
  await painted(page);
  await page.locator('[data-testid=swatch][data-name=flame]').click();
  await page.keyboard.press('KeyF');
  await hand.stroke({ x: 0.4, y: 0.5 });
  await expect(page.getByTestId('fill-needs')).toContainText('all 12');
  await hand.press(page.getByRole('button', { name: 'Through the drawings' }));
  await expect(page.getByTestId('fill-outcome')).toHaveText('All 12 drawings are filled.');
  hand.took('fill 12 drawings whose lines gape differently');
  await hand.key('KeyC');
  await hand.press(page.getByTestId('pick-reach'));
  await hand.press(page.getByRole('menuitemradio', { name: /^what is tied to it/ }));
  await hand.press(page.getByTestId('pick-panel').getByRole('button', { name: 'All', exact: true }));
  await expect(page.getByTestId('picked-count')).toHaveText('2 marks');
  await hand.stroke({ x: 0.4, y: 0.5 }, { x: 0.5, y: 0.55 });
  await expect(page.getByRole('button', { name: /^Undo move/ })).toBeVisible();
  hand.took('move a line with its fill');
  await hand.drag(page.getByTestId('pivot'), { x: 60, y: 120 });
  await expect(page.getByTestId('pivot')).toHaveAttribute('data-set', 'true');
  await hand.drag(page.getByTestId('turn-picked'), { x: 60, y: 30 });
  await expect(page.getByRole('button', { name: /^Undo turn/ })).toBeVisible();
  hand.took('turn what is picked up about a place');
});

test('light and shade', async ({ page }) => {
  test.setTimeout(120_000);
  const { shot, pen, hand } = await desk(page);
  await choose(page.getByLabel('Role'), 'body');
  await page.locator('[data-testid=swatch][data-name=flame]').click();
  await page.keyboard.press('Digit5');
  await page.getByLabel('Width in px').fill('140');
  for (let i = 0; i < 16; i++) {
    if (i > 0) await page.keyboard.press('KeyS');
    await painted(page);
    await pen.stroke({ x: 0.4 + i * 0.01, y: 0.5 }, { x: 0.4 + i * 0.01, y: 0.5 }, 1);
  }
  await saved(page);
  const before = (await storedDrawings(address(), shot)).length;
  await hand.key('Alt+Shift+KeyM');
  await expect(page.getByRole('button', { name: /^Undo tone/ })).toBeVisible();
  await saved(page);
  // Shade and light, on every drawing.
  expect((await storedDrawings(address(), shot)).length).toBe(before + 32);
  hand.took('light and shade on 16 drawings');
});

test('a late in-between in painted work', async ({ page }) => {
  test.setTimeout(120_000);
  const { shot, pen, hand } = await desk(page);
  for (let i = 0; i < 2; i++) {
    if (i > 0) await page.keyboard.press('KeyS');
    await painted(page);
    await ring(pen, 0.4 + i * 0.1);
  }
  await page.keyboard.press('KeyA');
  await painted(page);
  await page.locator('[data-testid=swatch][data-name=flame]').click();
  await page.keyboard.press('KeyF');
  await pen.stroke({ x: 0.4, y: 0.5 }, { x: 0.4, y: 0.5 });
  await page.getByRole('button', { name: 'Through the drawings' }).click();
  await expect(page.getByTestId('fill-outcome')).toHaveText('All 2 drawings are filled.');
  await page.keyboard.press('Alt+Shift+KeyM');
  await expect(page.getByRole('button', { name: /^Undo tone/ })).toBeVisible();
  await saved(page);
  const drawingsOf = async () => {
    const { entities } = await stored(address(), shot);
    const filled = new Set(
      (await storedDrawings(address(), shot)).flatMap(({ id, order }) => (order.length > 0 ? id : [])),
    );
    return entities.flatMap((each) =>
      each.kind === 'layer' ? Object.values(each.slots ?? {}).filter((id) => filled.has(id)).length : [],
    );
  };
  expect(await drawingsOf()).toEqual([2, 2, 2, 2]);
  await hand.key('Alt+Shift+KeyB');
  // Line, fill, shade and light.
  await expect.poll(drawingsOf).toEqual([3, 3, 3, 3]);
  hand.took('a late in-between in painted work of 4 layers');
  // All of it is one step.
  await page.keyboard.press('Control+KeyZ');
  await expect.poll(drawingsOf).toEqual([2, 2, 2, 2]);
  await page.keyboard.press('KeyD');
  await hand.key('Slash');
  await expect.poll(drawingsOf).toEqual([3, 3, 3, 3]);
  hand.took('a swing of a painted thing of 4 layers, smeared');
});

test('in-betweens, starting from a fire, the last export once more', async ({ page }) => {
  const { shot, hand } = await desk(page);
  await drawn(page, 2);
  await page.keyboard.press('KeyA');
  await painted(page);
  await hand.key('Quote');
  await hand.press(page.getByRole('button', { name: 'Lay in-between' }));
  await expect(page.getByRole('button', { name: /^Undo in-between/ })).toBeVisible();
  await saved(page);
  expect((await storedDrawings(address(), shot)).length).toBe(3);
  hand.took('one in-between of a line');
  await page.getByRole('link', { name: 'Export' }).click();
  await page.getByRole('button', { name: /^Export \d+ frames/ }).click();
  await expect(page.getByTestId('export')).toHaveCount(1);
  await page.getByRole('link', { name: 'Draw', exact: true }).click();
  await painted(page);
  await hand.key('Control+KeyE');
  await expect(page.getByText(/^Exporting .* again/)).toBeVisible();
  hand.took('the last export once more');
  await page.getByRole('link', { name: 'Plan' }).click();
  await beenHere(page);
  await hand.press(tipped(page.getByTestId('plan-tray'), 'Fire:'));
  await expect(page.getByRole('button', { name: /^Undo lay fire/ })).toBeVisible();
  hand.took('start from a fire, put where it belongs');
});

test('many uses of a painted element, a start, what is cut off', async ({ page }) => {
  const { shot, hand } = await desk(page);
  await drawn(page, 2);
  for (let i = 0; i < 3; i++) {
    await page.getByText('Add layer').click();
    await drawn(page, 1);
  }
  await page.getByTestId('element-time').click();
  await page.getByText('Close into a cycle').click();
  await saved(page);
  await page.getByRole('link', { name: 'Assemble', exact: true }).click();
  await page.getByTestId('bar').click();
  const uses = async () =>
    (await stored(address(), shot)).entities.filter((each) => each['kind'] === 'placement') as unknown as {
      start: number;
      phase: number;
    }[];
  await hand.key('Shift+Equal');
  await expect.poll(async () => (await uses()).length).toBe(4);
  hand.took('three more of a painted element of 4 layers, out of step');
  await page.keyboard.press('Control+KeyZ');
  await page.keyboard.press('Space');
  await hand.key('Shift+Period');
  hand.took('a start shifted by a frame while it plays');
  await page.keyboard.press('Space');
  await expect.poll(async () => (await uses())[0]!.start).toBe(1);
  await hand.press(page.getByTestId('cut').getByRole('button').first());
  await expect(page.getByTestId('cut')).toHaveCount(0);
  hand.took('what the end of the shot cuts off, mended');
});

test('every task of the table is counted', () => {
  const source = readFileSync(new URL('./labour.spec.ts', import.meta.url), 'utf8');
  for (const task of TABLE.keys()) if (task !== 'task') expect(source).toContain(`took('${task}')`);
  expect(TABLE.size).toBe(17);
});
