/** Smears by pen and by keys: laid in one press, dragged, pulled, made other kinds, laid again, taken away, exported. */
import { readFileSync } from 'node:fs';
import { documentOf, entitiesOf, find, readEntity, type Entity, type Stroke } from '@tallow/core/document';
import { smearWork } from '@tallow/core/edit';
import { seededIds } from '@tallow/core/geometry';
import { computeSmear } from '@tallow/core/smears';
import { unzipSync } from 'fflate';
import { address, makeShot, openDesk, painted, Pen, ring, saved, stored, storedDrawings } from './desk.ts';
import { expect, test, type Page } from './test.ts';

/** A shot of rings at some places, on 2s; one stands on the last. */
async function rings(page: Page, places: readonly number[]): Promise<{ shot: string; pen: Pen }> {
  const shot = await makeShot(address(), { length: 48 });
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  for (const [i, x] of places.entries()) {
    if (i > 0) await page.keyboard.press('KeyS');
    await painted(page);
    await ring(pen, x, 0.5);
  }
  await saved(page);
  return { shot, pen };
}

const smearsOf = async (shot: string) =>
  (await stored(address(), shot)).entities.filter((each) => each.kind === 'smear');
const frameOf = (page: Page) => page.getByTestId('frame-of');
/** Left and right end of what a drawing's strokes cover. */
async function reach(shot: string, id: string): Promise<[number, number]> {
  const drawing = (await storedDrawings(address(), shot)).find((each) => each.id === id)!;
  const xs = Object.values(drawing.marks).flatMap((mark) => {
    const { samples } = mark as unknown as { samples: { x: string } };
    return [...new Float32Array(Uint8Array.from(Buffer.from(samples.x, 'base64')).buffer)];
  });
  return [Math.min(...xs), Math.max(...xs)];
}
const laidIn = (smear: Record<string, unknown>): string[] =>
  Object.values(smear['laid'] as Record<string, Record<string, string>>).flatMap((slots) => Object.keys(slots));

test('one press lays a stretch from the last drawing to here, in a frame of the hold before', async ({ page }) => {
  const { shot } = await rings(page, [0.15, 0.2, 0.7]);
  await page.keyboard.press('Slash');
  await expect(page.getByTestId('smear-panel')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Undo stretch/ })).toBeVisible();
  await expect(frameOf(page)).toHaveText('4 of 6');
  await saved(page);
  const [smear] = await smearsOf(shot);
  expect(smear).toMatchObject({ form: 'stretch', time: 'hold' });
  const { entities } = await stored(address(), shot);
  const layer = entities.find((each) => each.kind === 'layer')!;
  const [left, right] = await reach(shot, layer.slots![smear!['slot'] as string]!);
  // It reaches from near where it was to where it is: x runs from the middle of 640 px.
  expect(left).toBeLessThan(-0.05 * 640);
  expect(right).toBeGreaterThan(0.2 * 640);
  // One step takes all of it back.
  await page.keyboard.press('Control+KeyZ');
  await expect(frameOf(page)).toContainText('of 6');
  await saved(page);
  expect(await smearsOf(shot)).toHaveLength(0);
  expect(await storedDrawings(address(), shot)).toHaveLength(3);
});

test('dragged from its button it follows the pen: sideways how much, up and down its bend, one step', async ({
  page,
}) => {
  const { shot } = await rings(page, [0.15, 0.7]);
  await page.keyboard.press('Slash');
  await expect(page.getByRole('button', { name: /^Undo stretch/ })).toBeVisible();
  await saved(page);
  const [before] = await smearsOf(shot);
  const box = (await page.getByTestId('smear-button').boundingBox())!;
  const pen = await Pen.on(page);
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await pen.drag([
    { x, y },
    { x: x + 30, y },
    { x: x - 100, y: y - 80 },
  ]);
  await expect.poll(async () => (await smearsOf(shot))[0]?.bend).not.toBe(0);
  const [after] = await smearsOf(shot);
  expect((after!.settings as Record<string, number>)['amount']).toBeLessThan(
    (before!.settings as Record<string, number>)['amount']!,
  );
  // Undone, it is as it was laid; undone again it is gone.
  await page.keyboard.press('Control+KeyZ');
  await expect.poll(async () => (await smearsOf(shot))[0]?.bend).toBe(0);
  await page.keyboard.press('Control+KeyZ');
  await expect.poll(async () => (await smearsOf(shot)).length).toBe(0);
});

test('what comes from nowhere is pulled in the picture', async ({ page }) => {
  const { shot, pen } = await rings(page, [0.6]);
  await page.keyboard.press('Slash');
  await expect(page.getByTestId('smear-panel')).toContainText('pull in the picture from where it comes');
  await pen.stroke({ x: 0.05, y: 0.2 }, { x: 0.6, y: 0.5 }, 10);
  await expect(page.getByRole('button', { name: /^Undo stretch/ })).toBeVisible();
  await saved(page);
  const [smear] = await smearsOf(shot);
  expect(smear).toMatchObject({ way: 'line', form: 'stretch' });
  await expect(frameOf(page)).toHaveText('1 of 3');
});

test('every kind is laid, is laid again when a drawing changes, and is taken away whole', async ({ page }) => {
  test.setTimeout(120_000);
  const { shot, pen } = await rings(page, [0.15, 0.25, 0.75]);
  await page.keyboard.press('Slash');
  await expect(page.getByRole('button', { name: /^Undo stretch/ })).toBeVisible();
  const panel = page.getByTestId('smear-panel');
  for (const [kind, behind] of [
    ['Trail', true],
    ['Swath', true],
    ['Lines', true],
    ['Copies', false],
    ['Stretch', false],
  ] as const) {
    await panel.getByRole('button', { name: kind, exact: true }).click();
    await expect.poll(async () => (await smearsOf(shot))[0]?.form).toBe(kind.toLowerCase());
    const [smear] = await smearsOf(shot);
    expect(smear!['slot'] === null).toBe(behind);
    expect(laidIn(smear!).length).toBeGreaterThan(0);
  }
  // Redrawn, the drawing that arrives brings its smear along, in the same step.
  const prints = async () => JSON.stringify((await smearsOf(shot))[0]!.laid);
  const before = await prints();
  await panel.getByRole('button', { name: 'Layers' }).click();
  await page.keyboard.press('KeyD');
  await painted(page);
  await ring(pen, 0.85, 0.5);
  await expect.poll(prints).not.toBe(before);
  await page.keyboard.press('Control+KeyZ');
  await expect.poll(prints).toBe(before);
  await page.keyboard.press('Slash');
  await panel.getByRole('button', { name: 'Take away' }).click();
  await saved(page);
  expect(await smearsOf(shot)).toHaveLength(0);
  expect(await storedDrawings(address(), shot)).toHaveLength(3);
});

test('the fast ones are smeared at once, each by its speed, in one step', async ({ page }) => {
  const { shot } = await rings(page, [0.1, 0.12, 0.32, 0.6, 0.85, 0.87]);
  await page.keyboard.press('Slash');
  await expect(page.getByRole('button', { name: /^Undo stretch/ })).toBeVisible();
  await page.keyboard.press('Control+KeyZ');
  await page.getByRole('button', { name: 'The fast ones' }).click();
  await page.keyboard.press('Alt+KeyA');
  await expect(page.getByText('3 fast drawings are smeared.')).toBeVisible();
  await saved(page);
  const amounts = (await smearsOf(shot)).map(({ settings }) => (settings as Record<string, number>)['amount']!);
  expect(amounts).toHaveLength(3);
  // The farther it goes the more it is stretched.
  expect(new Set(amounts).size).toBeGreaterThan(1);
  await expect(frameOf(page)).toContainText('of 12');
  // Asked again nothing is smeared twice.
  await page.keyboard.press('Alt+KeyA');
  await expect(page.getByText(/^Nothing is too fast here/)).toBeVisible();
  // How much is moved afterwards, twice: all of it stays the one step.
  const share = page.getByRole('slider', { name: 'How much' });
  const max = async () => {
    const stored = (await smearsOf(shot)).map(({ settings }) => (settings as Record<string, number>)['amount']!);
    return [stored.length, Math.max(...stored)] as const;
  };
  const [, before] = await max();
  await share.press('ArrowRight');
  await share.press('ArrowRight');
  await expect.poll(async () => (await max())[1]).toBeGreaterThan(before);
  await saved(page);
  await page.keyboard.press('Control+KeyZ');
  await expect.poll(async () => (await smearsOf(shot)).length).toBe(0);
});

test('where the eye loses the form it is said, with what to do; a jump that is meant is left in peace', async ({
  page,
}) => {
  const { shot } = await rings(page, [0.15, 0.75]);
  await page.keyboard.press('Slash');
  await expect(page.getByRole('button', { name: /^Undo stretch/ })).toBeVisible();
  await page.keyboard.press('Control+KeyZ');
  await page.keyboard.press('KeyD');
  const told = page.getByTestId('overlap');
  await expect(told).toContainText('The eye loses the form: 0 %');
  await told.getByRole('button', { name: 'This is meant' }).click();
  await expect(told).toHaveCount(0);
  await page.getByRole('button', { name: 'It is not' }).click();
  await expect(told).toBeVisible();
  await told.getByRole('button', { name: 'Trail' }).click();
  await expect.poll(async () => (await smearsOf(shot))[0]?.form).toBe('trail');
  await expect(told).toHaveCount(0);
});

test('a contact three ways is played in turn', async ({ page }) => {
  const { shot } = await rings(page, [0.15, 0.7]);
  await page.keyboard.press('Slash');
  await expect(page.getByRole('button', { name: /^Undo stretch/ })).toBeVisible();
  await page.keyboard.press('Control+KeyZ');
  await page.keyboard.press('KeyD');
  await page.getByRole('button', { name: 'Afterwards; area and length' }).click();
  await expect(page.getByTestId('volume-chart')).toBeVisible();
  await page.getByRole('button', { name: 'The contact three ways' }).click();
  await expect(page.getByRole('button', { name: /^Undo a contact three ways/ })).toBeVisible();
  await page.keyboard.press('Space');
  await saved(page);
  const { entities } = await stored(address(), shot);
  expect(entities.filter((each) => each.kind === 'variant')).toHaveLength(3);
});

test('what is picked up rides on a followed point, and comes along when the point is moved', async ({ page }) => {
  const { shot, pen } = await rings(page, [0.3, 0.4, 0.5]);
  // The middle of each ring is followed.
  await page.keyboard.press('KeyA');
  await page.keyboard.press('KeyA');
  await page.keyboard.press('Alt+KeyF');
  await page.getByRole('button', { name: 'New point' }).click();
  for (const x of [0.3, 0.4, 0.5]) await pen.stroke({ x, y: 0.5 }, { x, y: 0.5 }, 1);
  await page.getByRole('button', { name: 'Draw again' }).click();
  await page.getByTestId('piece-panel').getByRole('button', { name: 'Layers' }).click();
  for (let i = 0; i < 2; i++) await page.keyboard.press('KeyA');
  await painted(page);
  await pen.stroke({ x: 0.3, y: 0.5 }, { x: 0.36, y: 0.42 }, 8);
  await page.keyboard.press('KeyC');
  await page.getByTestId('pick-panel').getByRole('button', { name: 'All', exact: true }).click();
  await expect(page.getByTestId('picked-count')).toHaveText('2 marks');
  await page.getByRole('button', { name: 'Ride on a point' }).click();
  await page.getByRole('button', { name: 'What is picked rides' }).click();
  await saved(page);
  const { entities } = await stored(address(), shot);
  const ride = entities.find((each) => each.kind === 'ride')!;
  const layer = entities.find(({ id }) => id === ride['layerId'])!;
  expect(Object.keys(layer.slots!)).toHaveLength(3);
  const lefts = await Promise.all(Object.values(layer.slots!).map(async (id) => (await reach(shot, id))[0]));
  lefts.sort((a, b) => a - b);
  // A tenth of 640 px from one to the next.
  expect(lefts[1]! - lefts[0]!).toBeGreaterThan(56);
  expect(lefts[1]! - lefts[0]!).toBeLessThan(72);
});

test('the same smear is computed in the browser and outside it, and is in the exported frame', async ({ page }) => {
  test.setTimeout(90_000);
  const { shot } = await rings(page, [0.15, 0.2, 0.7]);
  await page.keyboard.press('Slash');
  await expect(page.getByRole('button', { name: /^Undo stretch/ })).toBeVisible();
  await page.getByTestId('smear-panel').getByRole('button', { name: 'Trail', exact: true }).click();
  await expect.poll(async () => (await smearsOf(shot))[0]?.['form']).toBe('trail');
  await page.getByTestId('smear-panel').getByRole('button', { name: 'Stretch', exact: true }).click();
  await expect.poll(async () => (await smearsOf(shot))[0]?.['form']).toBe('stretch');
  await saved(page);
  const read = (body: unknown): Entity => (readEntity(body) as { ok: Entity }).ok;
  const { entities } = await stored(address(), shot);
  const drawings = (await storedDrawings(address(), shot)).map(read);
  const doc = documentOf(shot, [...entities.map(read), ...drawings]);
  const smear = entitiesOf(doc, 'smear')[0]!;
  const { own } = computeSmear(smearWork(doc, smear)!, seededIds(1));
  for (const [layerId, marks] of own) {
    const laid = find(doc, 'drawing', find(doc, 'layer', layerId)!.slots[smear.slot!])!;
    expect(laid.order).toHaveLength(marks.length);
    laid.order.forEach((id, i) => {
      const [a, b] = [laid.marks[id] as Stroke, marks[i] as Stroke];
      expect(a.samples.x).toHaveLength(b.samples.x.length);
      for (const axis of ['x', 'y'] as const)
        a.samples[axis].forEach((v, k) => {
          expect(Math.abs(v - b.samples[axis][k]!)).toBeLessThanOrEqual(0.001);
        });
    });
  }
  await page.getByRole('link', { name: 'Export' }).click();
  await page.getByRole('button', { name: /^Export \d+ frames/ }).click();
  const row = page.getByTestId('export');
  await expect(row).toHaveAttribute('data-state', 'done', { timeout: 30_000 });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    row.getByRole('link', { name: 'Download' }).click(),
  ]);
  const files = unzipSync(readFileSync(await download.path()));
  const fourth = Object.keys(files).find((name) => name.endsWith('-0004.png'))!;
  // Between where it was and where it is nothing is drawn on the other frames; on this one the stretch is.
  const painted_ = async (name: string) =>
    page.evaluate(async (data) => {
      const bytes = Uint8Array.from(atob(data), (c) => c.charCodeAt(0));
      const image = await createImageBitmap(new Blob([bytes], { type: 'image/png' }));
      const context = new OffscreenCanvas(image.width, image.height).getContext('2d')!;
      context.drawImage(image, 0, 0);
      const { data: all } = context.getImageData(image.width * 0.45, image.height * 0.35, 30, image.height * 0.3);
      let drawn = 0;
      for (let i = 3; i < all.length; i += 4) if (all[i]! > 128) drawn += 1;
      return drawn;
    }, Buffer.from(files[name]!).toString('base64'));
  expect(await painted_(fourth)).toBeGreaterThan(100);
  expect(await painted_(fourth.replace('0004', '0003'))).toBe(0);
});
