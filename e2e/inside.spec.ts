import { entitiesOf, randomId, type Id, type Shape, type ShotDocument } from '../core/document/index.ts';
import { addLook, addFolder, addLayer, addMark, newLook, setFolder, setLayer } from '../core/edit/index.ts';
import { polygonRing } from '../core/geometry/index.ts';
import { changed } from './changed.ts';
import { expect, test, type Page } from './test.ts';
import { address, countOf, makeShot, marksOf, openDesk, painted, Pen, pixels, saved } from './desk.ts';

const brush = (page: Page, name: string) =>
  page.getByRole('group', { name: 'Brushes' }).getByText(name, { exact: true });
const more = async (page: Page, item: string) => {
  await page.getByTestId('layer-more').click();
  if (item.startsWith('Join')) await page.getByRole('menuitem', { name: 'Join', exact: true }).press('ArrowRight');
  await page.getByRole('menu').getByText(item, { exact: true }).press('Enter');
  await expect(page.getByRole('menu')).toBeHidden();
};
/** A disc of 160 px in the middle. */
async function disc(page: Page): Promise<Pen> {
  const pen = await Pen.on(page);
  await brush(page, 'Shape').click();
  await page.getByLabel('Width in px').fill('160');
  await pen.down({ x: 0.5, y: 0.5 });
  await pen.up({ x: 0.5, y: 0.5 });
  await painted(page);
  return pen;
}
/** Pixels that differ from the dark background. */
const lit = async (page: Page): Promise<number> => {
  const [all, dark] = await Promise.all([countOf(page, [0, 0, 0], 255), countOf(page, [0x20, 0x20, 0x20], 20)]);
  return all - dark;
};

/** The colour a fifth of the picture from the left, where the pen goes down. @param y share of the height. */
const colourAt = (page: Page, y: number): Promise<number[]> =>
  page.getByTestId('picture').evaluate((canvas: HTMLCanvasElement, down) => {
    const at = [Math.round(canvas.width * 0.2), Math.round(canvas.height * down)] as const;
    return [...canvas.getContext('2d')!.getImageData(...at, 1, 1).data];
  }, y);

test('on a layer that draws only inside, the stroke stays within what is there, the same under the pen and after', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await disc(page);
  const before = await lit(page);
  await more(page, 'Draw only inside what is there');
  await page.locator('[data-testid=swatch]').nth(1).click();
  await brush(page, 'Ink').click();
  await page.getByLabel('Width in px').fill('40');
  await pen.down({ x: 0.3, y: 0.5, force: 0.9 });
  await pen.moves(Array.from({ length: 40 }, (_, k) => k + 1).map((i) => ({ x: 0.3 + i * 0.01, y: 0.5, force: 0.9 })));
  const live = await pixels(page);
  await pen.up({ x: 0.7, y: 0.5 });
  expect(await pixels(page)).toEqual(live);
  await painted(page);
  expect(await pixels(page)).toEqual(live);
  expect(Math.abs((await lit(page)) - before)).toBeLessThan(before * 0.03);
  await saved(page);
  expect((await marksOf(address(), shot)).map((mark) => ('lays' in mark ? mark.lays : undefined))).toEqual([
    undefined,
    'inside',
  ]);
});

test('a layer clips to the one below it, under the pen too, is tinted whole, and joins only where marks can be kept', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await disc(page);
  const before = await lit(page);
  await page.getByText('Add layer').click();
  await more(page, 'Clip to the layer below');
  await page.locator('[data-testid=swatch]').nth(1).click();
  await brush(page, 'Ink').click();
  await page.getByLabel('Width in px').fill('40');
  await painted(page);
  await pen.down({ x: 0.3, y: 0.5, force: 0.9 });
  await pen.moves(Array.from({ length: 40 }, (_, k) => k + 1).map((i) => ({ x: 0.3 + i * 0.01, y: 0.5, force: 0.9 })));
  const live = await pixels(page);
  await pen.up({ x: 0.7, y: 0.5 });
  await painted(page);
  expect(await pixels(page)).toEqual(live);
  expect(Math.abs((await lit(page)) - before)).toBeLessThan(before * 0.03);
  // Clipped, it cannot be joined, and says so; unclipped it can.
  await more(page, 'Join with the layer below');
  await expect(page.getByRole('status').filter({ hasText: 'clipped' })).toBeVisible();
  await more(page, 'Clip to the layer below');
  await painted(page);
  const open = await pixels(page);
  expect(open).not.toEqual(live);
  await more(page, 'Join with the layer below');
  await expect(page.getByTestId('layer')).toHaveCount(1);
  await painted(page);
  expect(await pixels(page)).toEqual(open);
  await page.keyboard.press('Control+KeyZ');
  await expect(page.getByTestId('layer')).toHaveCount(2);
  await page.getByTestId('layer-more').click();
  await page.getByRole('menuitem', { name: 'Tint' }).press('ArrowRight');
  await expect(page.getByRole('menuitemradio').first()).toBeFocused();
  await page.getByRole('menuitemradio').nth(3).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('menu')).toBeHidden();
  await expect(page.getByRole('button', { name: /^Undo tint layer/ })).toBeVisible();
  await painted(page);
  expect(await pixels(page)).not.toEqual(open);
});

test('what clips to the layer that is drawn on shows where the pen draws, while it is down', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await disc(page);
  await page.getByText('Add layer').click();
  await more(page, 'Clip to the layer below');
  await page.locator('[data-testid=swatch][data-name=flame]').click();
  await brush(page, 'Ink').click();
  await page.getByLabel('Width in px').fill('60');
  await pen.stroke({ x: 0.15, y: 0.5, force: 1 }, { x: 0.85, y: 0.5, force: 1 }, 20);
  await painted(page);
  const FLAME = [255, 166, 43] as const;
  const within = await countOf(page, FLAME);
  // On the layer below, beside the disc: the band that was hidden there comes out.
  await page.getByTestId('layer').last().click();
  await brush(page, 'Ink').click();
  await page.getByLabel('Width in px').fill('60');
  await painted(page);
  await pen.down({ x: 0.2, y: 0.35, force: 1 });
  await pen.moves(Array.from({ length: 30 }, (_, i) => ({ x: 0.2, y: 0.36 + i * 0.01, force: 1 })));
  await expect.poll(() => countOf(page, FLAME)).toBeGreaterThan(within + 500);
  const live = await pixels(page);
  await pen.up({ x: 0.2, y: 0.65 });
  expect(await pixels(page)).toEqual(live);
  await painted(page);
  expect(await pixels(page)).toEqual(live);
});

/** How far two colours lie apart, levels of all channels together. */
const apart = (a: readonly number[], b: readonly number[]): number =>
  a.reduce((sum, value, i) => sum + Math.abs(value - b[i]!), 0);

/** A disc with a band across the picture that clips to it, and how the disc's layer is kept. */
const KEPT: readonly [string, (doc: ShotDocument, layers: readonly Id[]) => ShotDocument][] = [
  ['glows', (doc, [, base]) => addLook(doc, base!, newLook(doc, 'glow', randomId))],
  // The disc is seen at half: what clips to it is cut by all of it, as when it plays.
  ['fades', (doc, [, base]) => addLook(doc, base!, newLook(doc, 'fade', randomId))],
  ['is blurred', (doc, [, base]) => addLook(doc, base!, newLook(doc, 'blur', randomId))],
  ['has something tinted on it', (doc, [band]) => addLook(doc, band!, newLook(doc, 'tint', randomId))],
  [
    'lies in a faded folder',
    (doc, layers) => {
      const filed = addFolder(doc, entitiesOf(doc, 'element')[0]!.id, 'Both', layers, randomId);
      return setFolder(filed.doc, filed.folderId, { opacity: 0.6 });
    },
  ],
];
for (const [how, keep] of KEPT)
  test(`what clips to a layer that ${how} shows where the pen draws on it`, async ({ page }) => {
    const shot = await makeShot(address());
    let [base, band] = ['', ''];
    await changed(shot, (doc) => {
      const [body, flame] = ['body', 'flame'].map(
        (name) => entitiesOf(doc, 'swatch').find((each) => each.name === name)!.id,
      );
      base = entitiesOf(doc, 'layer')[0]!.id;
      const added = addLayer(doc, entitiesOf(doc, 'element')[0]!.id, 'Band', 'tone', null, randomId);
      band = added.layerId;
      const area = (swatch: Id, points: [number, number][]): Shape => ({
        kind: 'shape',
        id: randomId(),
        swatch,
        rings: [polygonRing(points)],
        rule: 'nonzero',
        opacity: 1,
      });
      const box = (x: number, y: number): [number, number][] => [
        [-x, -y],
        [x, -y],
        [x, y],
        [-x, y],
      ];
      const disc = addMark(added.doc, base, 0, area(body!, box(80, 80)), randomId);
      const both = addMark(disc, band, 0, area(flame!, box(300, 25)), randomId);
      return keep(setLayer(both, band, { clip: true }), [band, base]);
    });
    await openDesk(page, address(), shot);
    const pen = await Pen.on(page);
    await page.locator(`[data-testid=layer][data-name=Line] button[aria-pressed]`).click();
    await brush(page, 'Ink').click();
    await page.getByLabel('Width in px').fill('60');
    await painted(page);
    const before = await pixels(page);
    await pen.down({ x: 0.2, y: 0.35, force: 1 });
    await pen.moves(Array.from({ length: 30 }, (_, i) => ({ x: 0.2, y: 0.36 + i * 0.01, force: 1 })));
    await expect.poll(() => pixels(page)).not.toBe(before);
    // Where the stroke crosses the band, the band is seen on it.
    const live = await colourAt(page, 0.5);
    expect(apart(live, await colourAt(page, 0.4))).toBeGreaterThan(60);
    await pen.up({ x: 0.2, y: 0.65 });
    await painted(page);
    // The light of what has been drawn comes when the pen lifts.
    if (how !== 'glows') expect(await colourAt(page, 0.5)).toEqual(live);
    expect(apart(await colourAt(page, 0.5), await colourAt(page, 0.4))).toBeGreaterThan(60);
  });

test('on a layer where nothing is drawn yet, what clips to it shows under the first stroke', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await page.getByText('Add layer').click();
  await more(page, 'Clip to the layer below');
  await page.locator('[data-testid=swatch][data-name=flame]').click();
  await page.getByLabel('Width in px').fill('60');
  await pen.stroke({ x: 0.15, y: 0.5, force: 1 }, { x: 0.85, y: 0.5, force: 1 }, 20);
  await painted(page);
  const FLAME = [255, 166, 43] as const;
  expect(await countOf(page, FLAME)).toBe(0);
  await page.locator('[data-testid=layer][data-name=Line] button[aria-pressed]').click();
  await page.getByLabel('Width in px').fill('60');
  await painted(page);
  await pen.down({ x: 0.5, y: 0.3, force: 1 });
  await pen.moves(Array.from({ length: 30 }, (_, i) => ({ x: 0.5, y: 0.31 + i * 0.013, force: 1 })));
  await expect.poll(() => countOf(page, FLAME)).toBeGreaterThan(500);
  const live = await pixels(page);
  await pen.up({ x: 0.5, y: 0.7 });
  await painted(page);
  expect(await pixels(page)).toEqual(live);
});
