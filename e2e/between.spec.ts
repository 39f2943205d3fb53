import { address, drawn, makeShot, openDesk, painted, Pen, runsOf, saved, storedDrawings, stored } from './desk.ts';
import { expect, test, type Page } from './test.ts';

const frameOf = (page: Page) => page.getByTestId('frame-of');

async function two(page: Page): Promise<string> {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 2);
  await page.keyboard.press('KeyA');
  await expect(frameOf(page)).toHaveText('1 of 4');
  await page.keyboard.press('Alt+KeyB');
  return shot;
}

/** The left ends of the strokes on the server, by place. */
async function places(shot: string): Promise<number[]> {
  const { entities } = await stored(address(), shot);
  const list = entities.find((e) => e.kind === 'runlist' && e.runs!.length > 0)!;
  const layer = entities.find((e) => e.kind === 'layer')!;
  const bodies = new Map((await storedDrawings(address(), shot)).map((body) => [body.id, body]));
  return list.runs!.map((run) => {
    const body = bodies.get(layer.slots![run.slot!]!)!;
    const mark = body.marks[body.order[0]!] as unknown as { samples: { x: string } };
    return Buffer.from(mark.samples.x, 'base64').readFloatLE(0);
  });
}

test('in-betweens are laid, respaced on the chart, follow their drawings, and are taken away', async ({ page }) => {
  const shot = await two(page);
  await expect(page.getByTestId('pairs')).toHaveText('1 go across');
  const panel = page.getByTestId('between-panel');
  await panel.getByRole('button', { name: '3', exact: true }).click();
  await panel.getByRole('button', { name: 'Lay 3 in-betweens' }).click();
  await expect(frameOf(page)).toHaveText('3 of 10');
  await saved(page);
  const even = await places(shot);
  const share = (all: readonly number[], i: number) => (all[i]! - all[0]!) / (all.at(-1)! - all[0]!);
  expect([1, 2, 3].map((i) => Math.round(share(even, i) * 100))).toEqual([25, 50, 75]);
  // A tick is dragged with the pen.
  const pen = await Pen.on(page);
  const tick = (await page.locator('[data-tick="2"]').boundingBox())!;
  const at = { x: tick.x + tick.width / 2, y: tick.y + tick.height / 2 };
  await pen.drag([at, { x: at.x + 20, y: at.y }, { x: at.x + 40, y: at.y }]);
  await expect(page.locator('[data-tick="2"]')).not.toHaveAttribute('aria-valuenow', '75');
  await saved(page);
  expect(share(await places(shot), 3)).toBeGreaterThan(0.8);
  // The first drawing changes: the in-betweens go along, as part of that step.
  await page.keyboard.press('KeyA');
  await expect(frameOf(page)).toHaveText('1 of 10');
  await painted(page);
  await pen.stroke({ x: 0.2, y: 0.7 }, { x: 0.4, y: 0.8 }, 8);
  await expect(page.getByTestId('pairs')).toHaveText('1 go across, 1 vanish');
  await expect
    .poll(async () => {
      await saved(page);
      return (await storedDrawings(address(), shot))
        .map((body) => body.order.length)
        .sort()
        .join(' ');
    })
    .toBe('1 2 2 2 2');
  await page.keyboard.press('Control+KeyZ');
  await saved(page);
  await expect
    .poll(async () => (await storedDrawings(address(), shot)).map((body) => body.order.length).join(' '))
    .toBe('1 1 1 1 1');
  await panel.getByRole('button', { name: 'Take away' }).click();
  await expect(frameOf(page)).toHaveText('1 of 4');
  await saved(page);
  expect(await runsOf(shot)).toHaveLength(2);
});

test('what is drawn on by hand stays when in-betweens are laid again', async ({ page }) => {
  const shot = await two(page);
  const panel = page.getByTestId('between-panel');
  await panel.getByRole('button', { name: 'Lay in-between' }).click();
  await expect(frameOf(page)).toHaveText('3 of 6');
  await painted(page);
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.5, y: 0.7 }, { x: 0.7, y: 0.8 }, 8);
  await expect(page.getByTestId('between-what')).toContainText('1 drawn on by hand and kept');
  await panel.getByRole('button', { name: 'straight' }).click();
  await saved(page);
  expect((await storedDrawings(address(), shot)).map((body) => body.order.length).sort()).toEqual([1, 1, 2]);
  await panel.getByRole('button', { name: 'Let them be' }).click();
  await expect(panel.getByRole('button', { name: 'Lay in-between' })).toBeVisible();
});

test('a mark is tied to another by its dots, or said to have no partner', async ({ page }) => {
  await two(page);
  await expect(page.locator('[data-dot]')).toHaveCount(2);
  const pen = await Pen.on(page);
  await pen.tap(page.locator('[data-dot=from]'));
  await pen.tap(page.locator('[data-dot=from]'));
  await expect(page.getByTestId('pairs')).toHaveText('0 go across, 1 vanish, 1 appear');
  await pen.tap(page.locator('[data-dot=from]'));
  await pen.tap(page.locator('[data-dot=to]'));
  await expect(page.getByTestId('pairs')).toHaveText('1 go across');
  await page.getByRole('button', { name: 'Untie 1' }).click();
  await expect(page.getByRole('button', { name: 'Untie 1' })).toHaveCount(0);
});

test('marks picked up are given the name of a piece, by which they become each other', async ({ page }) => {
  const shot = await two(page);
  await page.keyboard.press('KeyC');
  for (const frame of ['1 of 4', '3 of 4']) {
    await expect(frameOf(page)).toHaveText(frame);
    await painted(page);
    await page.getByRole('button', { name: 'All', exact: true }).click();
    await page.getByRole('textbox', { name: 'Piece' }).fill('bar');
    await page.getByRole('textbox', { name: 'Piece' }).press('Enter');
    await page.getByTestId('picture').focus();
    await page.keyboard.press('KeyD');
  }
  await saved(page);
  const marks = (await storedDrawings(address(), shot)).flatMap((body) => Object.values(body.marks));
  expect(marks.map((mark) => (mark as { piece?: string }).piece)).toEqual(['bar', 'bar']);
});

test('one piece is drawn right round by itself, then the next; its arc and area are shown', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 3);
  await page.getByTestId('element-time').click();
  await page.getByText('Close into a cycle').click();
  await page.keyboard.press('Alt+KeyF');
  await page.getByRole('button', { name: 'Next piece' }).click();
  await expect(frameOf(page)).toHaveText('1 of 6');
  const pen = await Pen.on(page);
  for (let i = 0; i < 3; i++) {
    await painted(page);
    await pen.stroke({ x: 0.5 + i * 0.05, y: 0.3 - i * 0.03 }, { x: 0.55 + i * 0.05, y: 0.35 - i * 0.03 }, 6);
  }
  await expect(frameOf(page)).toHaveText('1 of 6');
  await expect(page.getByTestId('piece-areas').locator('rect')).toHaveCount(3);
  await page.getByRole('button', { name: 'Done with piece 1' }).click();
  await saved(page);
  const named = (await storedDrawings(address(), shot)).flatMap((body) =>
    Object.values(body.marks).flatMap((mark) => (mark as { piece?: string }).piece ?? []),
  );
  expect(named).toEqual(['piece 1', 'piece 1', 'piece 1']);
});

test('a point is followed from drawing to drawing, and a tick dragged is its target', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 3);
  await page.keyboard.press('KeyA');
  await page.keyboard.press('KeyA');
  await page.keyboard.press('Alt+KeyF');
  await page.getByRole('button', { name: 'New point' }).click();
  const pen = await Pen.on(page);
  for (let i = 0; i < 3; i++) {
    const place = { x: 0.3 + i * 0.1, y: 0.4 };
    await pen.down(place);
    await pen.up(place);
    await expect(page.locator('[data-trace-tick]')).toHaveCount(i + 1);
  }
  await page.getByRole('button', { name: 'Draw again' }).click();
  const tick = (await page.locator('[data-trace-tick]').nth(1).boundingBox())!;
  const at = { x: tick.x + tick.width / 2, y: tick.y + tick.height / 2 };
  await pen.drag([at, { x: at.x, y: at.y + 20 }, { x: at.x, y: at.y + 40 }]);
  await saved(page);
  const { entities } = await stored(address(), shot);
  const traces = (
    entities.find((e) => e.kind === 'element') as unknown as { traces: { points: Record<string, { aim: boolean }> }[] }
  ).traces;
  expect(Object.values(traces[0]!.points).filter(({ aim }) => aim)).toHaveLength(1);
  await page.getByText('Show where pieces would be next').click();
  await expect(page.getByTestId('ahead')).toHaveCount(1);
});

test('a held drawing boils for as long as it is held', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 1);
  for (let i = 0; i < 4; i++) await page.keyboard.press('KeyG');
  await expect(frameOf(page)).toHaveText('1 of 6');
  await page.keyboard.press('Alt+KeyF');
  await page.getByRole('button', { name: 'Boil', exact: true }).click();
  await page.getByRole('button', { name: 'Let it boil' }).click();
  await saved(page);
  expect((await runsOf(shot)).map((run) => run.split(' ')[1])).toEqual(['2', '2', '2']);
  expect((await stored(address(), shot)).drawings).toHaveLength(3);
});
