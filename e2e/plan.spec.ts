import {
  readEntity,
  documentOf,
  type Drawing,
  type Entity,
  type Layer,
  type Path,
  type Starter,
} from '@tallow/core/document';
import { ticksOf } from '@tallow/core/plan';
import { layAll, marksFrom, sceneOf, starterOf } from '@tallow/core/starters';
import { expect, test, type Page } from './test.ts';
import { beenHere, address, makeShot, openDesk, painted, Pen, pixels, saved, stored, storedDrawings } from './desk.ts';
import { choose, tipped } from './controls.ts';

async function openPlan(page: Page, shot: string): Promise<void> {
  await beenHere(page);
  await page.goto(`${address()}/shots/${shot}/plan`);
  await expect(page.getByTestId('picture')).toHaveAttribute('data-shown', /\d+/);
}
const tool = (page: Page, name: string) => page.getByTestId('plan-tray').getByRole('button', { name, exact: true });
const start = (page: Page, name: string) => tipped(page.getByTestId('plan-tray'), `${name}:`);
/** A starter has been laid, and the settings say so again instead of how far it is. */
const laid = async (page: Page, says: RegExp | string): Promise<void> => {
  await expect(page.getByTestId('laying')).toHaveText(says);
};

const entitiesOf = async (shot: string): Promise<Entity[]> => {
  const bodies = (await stored(address(), shot)).entities;
  return bodies.flatMap((body) => {
    const read = readEntity(body);
    return 'ok' in read ? [read.ok] : [];
  });
};
const kindOf = async <K extends Entity['kind']>(shot: string, kind: K) =>
  (await entitiesOf(shot)).filter((e): e is Extract<Entity, { kind: K }> => e.kind === kind);

async function drawPath(page: Page): Promise<void> {
  const pen = await Pen.on(page);
  await pen.tap(tool(page, 'Path'));
  await pen.stroke({ x: 0.15, y: 0.7 }, { x: 0.8, y: 0.35 }, 40);
  await expect(page.getByTestId('plan-text')).toContainText('12 ticks on 1s');
}

test('a path is planned, a tick is dragged on the picture and in the chart, and its stand-in is stamped', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openPlan(page, shot);
  await drawPath(page);
  const pen = await Pen.on(page);
  const share = async (i: number) => Number(await page.locator(`[data-tick="${i}"]`).getAttribute('data-share'));
  const [before, next] = [await share(5), await share(6)];
  const tick = (await page.locator('[data-tick="5"] line').last().boundingBox())!;
  const from = { x: tick.x + tick.width / 2, y: tick.y + tick.height / 2 };
  await pen.drag([from, { x: from.x + 6, y: from.y - 3 }, { x: from.x + 9, y: from.y - 5 }]);
  await expect.poll(() => share(5)).toBeGreaterThan(before + 0.005);
  expect(await share(5)).toBeLessThanOrEqual(next);
  const moved = await share(5);
  // The chart's tick is the same tick: dragged down it goes back along the way, but never past the one before.
  const dot = (await page.locator('[data-chart-tick="5"]').boundingBox())!;
  const at = { x: dot.x + dot.width / 2, y: dot.y + dot.height / 2 };
  await pen.drag([at, { x: at.x, y: at.y + 30 }, { x: at.x, y: at.y + 300 }]);
  await expect.poll(() => share(5)).toBeLessThan(moved);
  expect(await share(5)).toBeGreaterThanOrEqual(await share(4));
  // Two drags are two steps.
  await page.getByRole('button', { name: /^Undo move tick/ }).click();
  await expect.poll(() => share(5)).toBeCloseTo(moved, 3);
  await page.getByRole('button', { name: 'Stamp 12 drawings' }).click();
  await saved(page);
  const [path] = await kindOf(shot, 'path');
  expect(ticksOf(path as Path)[5]).toBeCloseTo(moved, 3);
  const layer = (await kindOf(shot, 'layer')).find((l) => l.name === 'Path 1')!;
  const list = (await kindOf(shot, 'runlist')).find((l) => l.id === layer.runListId)!;
  expect(list.runs.map((run) => run.length)).toEqual(Array(12).fill(1));
  expect(await storedDrawings(address(), shot)).toHaveLength(12);
});

test('ticks keep their frames when the path is reshaped and simplified; ease and slow places are set while the row plays', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openPlan(page, shot);
  await drawPath(page);
  const pen = await Pen.on(page);
  await page.getByRole('button', { name: 'Play the row' }).click();
  await page.getByRole('button', { name: 'Slow place', exact: true }).click();
  await expect(page.getByTestId('slow-place')).toBeVisible();
  const soft = page.getByRole('slider', { name: 'Soft at end' });
  await soft.focus();
  await soft.press('End');
  await expect(page.getByRole('textbox', { name: 'Soft at end, typed' })).toHaveValue('100');
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  const shares = () =>
    page.locator('[data-tick]').evaluateAll((all) => all.map((each) => each.getAttribute('data-share')));
  const before = await shares();
  const node = (await page.locator('[data-node="1"]').boundingBox())!;
  await pen.drag([
    { x: node.x + 5, y: node.y + 5 },
    { x: node.x + 25, y: node.y - 20 },
    { x: node.x + 45, y: node.y - 40 },
  ]);
  await expect(page.getByRole('button', { name: /^Undo reshape path/ })).toBeVisible();
  expect(await shares()).toEqual(before);
  // Both spacings are seen one above the other.
  await page.getByRole('button', { name: 'Both', exact: true }).click();
  await expect(page.getByTestId('rows')).toContainText('Flat');
});

test('a fire is laid, drawn over, and laid again with another height: what was drawn by hand is kept', async ({
  page,
}) => {
  const shot = await makeShot(address(), { width: 960, height: 540, length: 48 });
  await openPlan(page, shot);
  const pen = await Pen.on(page);
  await pen.tap(start(page, 'Fire'));
  await laid(page, 'A fire that burns round and round');
  await saved(page);
  const starter = async () => (await kindOf(shot, 'starter'))[0] as Starter;
  const first = await starter();
  expect(first.laid['body']).toHaveLength(12);
  // One stroke by hand on the drawing of the first frame.
  await page.getByRole('link', { name: 'Draw', exact: true }).click();
  await expect(page.getByTestId('pen-text')).toContainText('Fire body, drawing 1');
  await painted(page);
  await pen.stroke({ x: 0.4, y: 0.5 }, { x: 0.6, y: 0.5 });
  await saved(page);
  // The layer knows what laid it, and leads back to its settings.
  await page.getByTestId('layer-more').click();
  await page.getByRole('menuitem', { name: /^Settings of Fire/ }).click();
  await expect(page.getByTestId('by-hand')).toContainText('One drawing was changed by hand and will be kept');
  const marks = async (i: number) => {
    const drawings = (await storedDrawings(address(), shot)) as unknown as { id: string; order: string[] }[];
    return drawings.find((d) => d.id === first.laid['body']![i]!.drawingId)!.order.join();
  };
  const [kept, other] = [await marks(0), await marks(1)];
  // While it moves it is previewed, and nothing is laid.
  const height = page.getByRole('slider', { name: 'Height' });
  await height.evaluate((input: HTMLInputElement) => {
    const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!;
    set.call(input, '300');
    input.dispatchEvent(new Event('input', { bubbles: true }));
  });
  await expect(page.getByTestId('preview')).toHaveAttribute('data-previews', /[1-9]/);
  expect((await starter()).settings['height']).toBe(first.settings['height']);
  await height.dispatchEvent('pointerup');
  await expect(page.getByRole('button', { name: /^Undo height/ })).toBeVisible();
  await expect(page.getByTestId('preview')).toHaveCount(0);
  await saved(page);
  expect((await starter()).settings['height']).toBe(300);
  expect(await marks(0)).toBe(kept);
  expect(await marks(1)).not.toBe(other);
  // Unless told otherwise.
  await page.getByRole('button', { name: 'Lay over it' }).click();
  await expect(page.getByTestId('by-hand')).toHaveCount(0);
  await saved(page);
  expect(await marks(0)).not.toBe(kept);
  // Undo puts the hand's work back.
  await page.getByRole('button', { name: /^Undo lay over/ }).click();
  await expect(page.getByTestId('by-hand')).toBeVisible();
});

test('a starter lands sized on the floor; the next press in the picture says where else it stands', async ({
  page,
}) => {
  const shot = await makeShot(address(), { width: 640, height: 360, length: 48 });
  await openPlan(page, shot);
  await start(page, 'Fire').click();
  await laid(page, 'A fire that burns round and round');
  await saved(page);
  const starter = async () => (await kindOf(shot, 'starter'))[0] as Starter;
  const first = await starter();
  // Element space has its middle in the middle of the picture.
  expect(first.y).toBeCloseTo(0.88 * 360 - 180, 3);
  expect(first.settings['height']).toBeLessThan(0.88 * 360);
  await expect(page.getByText('Press in the picture where it shall stand.')).toBeVisible();
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.3, y: 0.6 }, { x: 0.3, y: 0.6 }, 1);
  await expect(page.getByRole('button', { name: /^Undo place fire/ })).toBeVisible();
  await saved(page);
  const placed = await starter();
  expect(placed.id).toBe(first.id);
  expect(placed.x).toBeLessThan(first.x - 50);
  expect(placed.y).toBeLessThan(first.y);
  // One press only: the next one is the pen's again.
  await expect(page.getByText('Press in the picture where it shall stand.')).toHaveCount(0);
});

test('what follows a path is laid again with the step that changed the path, and undone with it', async ({ page }) => {
  const shot = await makeShot(address(), { width: 960, height: 540, length: 48 });
  await openPlan(page, shot);
  await drawPath(page);
  const pen = await Pen.on(page);
  await pen.tap(start(page, 'Liquid'));
  await expect(page.getByRole('button', { name: /^Undo lay liquid/ })).toBeVisible();
  await saved(page);
  const laidOn = async () => {
    const [starter] = await kindOf(shot, 'starter');
    const drawings = (await storedDrawings(address(), shot)) as unknown as { id: string; order: string[] }[];
    const ids = new Set(Object.values(starter!.laid).flatMap((all) => all.map(({ drawingId }) => drawingId)));
    return {
      along: starter!.along,
      marks: drawings.flatMap(({ id, order }) => (ids.has(id) ? [order.join()] : [])).sort(),
    };
  };
  const first = await laidOn();
  expect(first.along).not.toBeNull();
  // The path itself is dragged, on one of its ticks.
  const tick = (await page.locator('[data-tick="5"] line').last().boundingBox())!;
  const from = { x: tick.x + tick.width / 2, y: tick.y + tick.height / 2 };
  await pen.drag([from, { x: from.x + 30, y: from.y - 20 }, { x: from.x + 60, y: from.y - 40 }]);
  await expect.poll(async () => (await laidOn()).along).not.toBe(first.along);
  await saved(page);
  const second = await laidOn();
  expect(second.marks).not.toEqual(first.marks);
  // One step: nothing of the liquid is left to undo by itself.
  await page.getByRole('button', { name: /^Undo move path/ }).click();
  await expect(page.getByRole('button', { name: /^Undo lay liquid/ })).toBeVisible();
  await saved(page);
  expect(await laidOn()).toEqual(first);
});

test('the same seed gives the same drawings in the browser and outside it', async ({ page }) => {
  const shot = await makeShot(address(), { width: 960, height: 540, length: 48 });
  await openPlan(page, shot);
  for (const [name, says] of [
    ['Fire', 'A fire that burns round and round'],
    ['Bolt', /^Lightning that strikes/],
    ['Burst', /^A flash, billows/],
  ] as const) {
    await start(page, name).click();
    await laid(page, says);
  }
  await saved(page);
  const entities = await entitiesOf(shot);
  const raw = (await storedDrawings(address(), shot)) as unknown[];
  const drawings = raw.map((body) => (readEntity(body) as { ok: Drawing }).ok);
  const doc = documentOf(shot, entities);
  const starters = entities.filter((e): e is Starter => e.kind === 'starter');
  expect(starters.map((s) => s.effect).sort()).toEqual(['bolt', 'burst', 'fire']);
  for (const starter of starters) {
    const frames = layAll(starterOf(starter.effect), sceneOf(doc, starter))!;
    for (const [key, list] of Object.entries(starter.laid)) {
      for (const index of [0, 3, 7]) {
        const own = drawings.find((d) => d.id === list[index]!.drawingId)!;
        const here = marksFrom(
          frames[index]![key] ?? [],
          () => '',
          starter,
          () => '',
        );
        expect(own.order).toHaveLength(here.length);
        own.order.forEach((id, m) => {
          const [a, b] = [own.marks[id]!, here[m]!];
          const columns = (mark: typeof a) =>
            mark.kind === 'shape' ? [...mark.rings] : [mark.samples.x, mark.samples.y];
          columns(a).forEach((column, c) => {
            expect(column).toHaveLength(columns(b)[c]!.length);
            const off = Math.max(...column.map((v, k) => Math.abs(v - columns(b)[c]![k]!)));
            expect(off).toBeLessThanOrEqual(0.001);
          });
        });
      }
    }
  }
});

test('guides are exactly level, seen faintly while drawing, by span, and never part of the picture', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openPlan(page, shot);
  await painted(page);
  const bare = await pixels(page);
  const pen = await Pen.on(page);
  await pen.tap(page.getByRole('button', { name: 'Guide', exact: true }));
  await page.getByRole('menuitem', { name: /^Level/ }).click();
  const guides = page.getByTestId('plan-marks').locator('[data-guide]');
  await pen.stroke({ x: 0.4, y: 0.6 }, { x: 0.5, y: 0.75 }, 8);
  await expect(guides).toHaveCount(1);
  await saved(page);
  const [guide] = await kindOf(shot, 'guide');
  expect(guide).toMatchObject({ form: 'level', elementId: null, span: null, locked: false });
  const line = guides.locator('line').first();
  expect(await line.getAttribute('y1')).toBe(await line.getAttribute('y2'));
  expect(await pixels(page)).toBe(bare);
  await page.getByRole('checkbox', { name: 'Seen throughout' }).uncheck();
  await expect(page.getByRole('slider', { name: 'Seen from' })).toBeVisible();
  await page.getByRole('link', { name: 'Draw', exact: true }).click();
  await expect(guides).toHaveCount(1);
  await expect(page.getByTestId('plan-marks')).toHaveAttribute('opacity', '0.34');
  await painted(page);
  expect(await pixels(page)).toBe(bare);
});

test('phases are named on strip and wheel, one of them fills the wheel, and a starter is laid by their holds', async ({
  page,
}) => {
  const shot = await makeShot(address(), { length: 48 });
  await openPlan(page, shot);
  await start(page, 'Burst').click();
  await laid(page, /^A flash, billows/);
  await page.getByRole('button', { name: 'From a kind of effect: its phases' }).click();
  await page.getByRole('menuitem', { name: /^Explosion/ }).click();
  await expect(page.getByTestId('phases').getByRole('button')).toHaveCount(4);
  await page.getByRole('group', { name: 'Laid on' }).getByRole('button', { name: 'by phases' }).click();
  await expect(page.getByTestId('plan-text')).toContainText('by phases');
  await saved(page);
  const [starter] = await kindOf(shot, 'starter');
  const body = (await kindOf(shot, 'layer')).find((l: Layer) => l.id === starter!.layers['body'])!;
  const list = (await kindOf(shot, 'runlist')).find((l) => l.id === body.runListId)!;
  const holds = list.runs.map((run) => run.length);
  expect(holds.slice(0, 10)).toEqual(Array(10).fill(1));
  expect(holds.filter((hold) => hold === 3).length).toBeGreaterThan(2);
  expect(holds.reduce((a, b) => a + b, 0)).toBe(36);
  await page
    .getByTestId('phases')
    .getByRole('button', { name: /^Burst/ })
    .click();
  await page.getByRole('button', { name: 'Open in wheel' }).click();
  await page.getByRole('link', { name: 'Draw', exact: true }).click();
  const wheel = page.getByTestId('wheel');
  await expect(wheel.locator('[data-phase]')).toHaveText('Burst');
  await wheel.getByRole('button', { name: 'Burst · close' }).click();
  await expect(wheel.locator('[data-phase]')).toHaveCount(4);
});

test('anchor and bases are set with notes of what they do next, and come back after a reload', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await page.getByRole('link', { name: 'Plan', exact: true }).click();
  const pen = await Pen.on(page);
  await pen.tap(tool(page, 'Base'));
  await pen.stroke({ x: 0.4, y: 0.7 }, { x: 0.42, y: 0.7 }, 4);
  await pen.stroke({ x: 0.6, y: 0.7 }, { x: 0.62, y: 0.7 }, 4);
  await page.getByRole('button', { name: 'Note', exact: true }).click();
  await choose(page.getByRole('combobox', { name: 'What it does' }), 'break off');
  await pen.tap(tool(page, 'Anchor'));
  await pen.stroke({ x: 0.5, y: 0.8 }, { x: 0.5, y: 0.82 }, 4);
  await saved(page);
  await page.reload();
  await expect(page.getByTestId('plan-marks').locator('[data-base]')).toHaveText(['A', 'B · break off']);
  await page.getByRole('group', { name: 'Mood' }).getByRole('button', { name: 'angry' }).click();
  await saved(page);
  const [element] = await kindOf(shot, 'element');
  expect(element).toMatchObject({ mood: 'angry' });
  expect(element!.anchor.y).toBeGreaterThan(80);
});

test('what is picked up serves as the stand-in on a path', async ({ page }) => {
  const shot = await makeShot(address());
  await openPlan(page, shot);
  await drawPath(page);
  await page.getByRole('link', { name: 'Draw' }).click();
  const pen = await Pen.on(page);
  await page.getByRole('group', { name: 'Brushes' }).getByText('Shape', { exact: true }).click();
  await pen.down({ x: 0.5, y: 0.5 });
  await pen.up({ x: 0.5, y: 0.5 });
  await page.keyboard.press('KeyC');
  await page.getByRole('button', { name: 'All', exact: true }).click();
  await page.getByRole('button', { name: 'Order, joining, lines beside, bending, layers' }).click();
  await page.getByRole('button', { name: 'Use as stand-in on a path' }).click();
  await saved(page);
  const [path] = await kindOf(shot, 'path');
  expect(path!.standIn.form).toBe('shape');
  expect(path!.standIn.shape!.length).toBeGreaterThan(12);
});
