import { createCanvas, loadImage } from '@napi-rs/canvas';
import { unzipSync } from 'fflate';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { hexOf, oklchOf } from '../core/colour/index.ts';
import { newestVersion } from '../core/brush/index.ts';
import {
  BRUSH_KINDS,
  constant,
  findAll,
  shotOf,
  type BrushSettings,
  type LookKind,
  type Layer,
  type Mark,
  type Shape,
  type Stroke,
  entitiesOf,
} from '../core/document/index.ts';
import { addLook, addLayer, addMark, newLook, setElement } from '../core/edit/index.ts';
import { polygonRing } from '../core/geometry/index.ts';
import { drawDrawing, Scratch, drawFrame, paintsOf, type RenderContext, type Surface } from '../core/render/index.ts';
import { fittedView, viewMatrix } from '../web/view/view.ts';
import { address, countOf, makeShot, openDesk, painted, Pen, saved, stored } from './desk.ts';
import { changed } from './changed.ts';
import { choose } from './controls.ts';
import { expect, test, type Page } from './test.ts';

const SIZE = { width: 640, height: 360 };

function surfaceOf(width: number, height: number, deep = false): Surface {
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d', { colorType: deep ? 'float16' : 'unorm8' });
  return { width, height, picture: canvas, context: context as unknown as Surface['context'] };
}

const star = (swatch: string, radius: number, turn = 0): Shape => ({
  kind: 'shape',
  id: randomUUID(),
  swatch,
  rings: [
    polygonRing(
      Array.from({ length: 14 }, (_, i) => {
        const r = i % 2 === 0 ? radius : radius * 0.55;
        return [r * Math.cos(turn + i * 0.449), r * Math.sin(turn + i * 0.449)] as [number, number];
      }),
    ),
  ],
  rule: 'nonzero',
  opacity: 1,
});

/** A wave of some brush, pressed harder along its way. */
function wave(swatch: string, brush: BrushSettings, y: number): Stroke {
  const column = (value: (t: number) => number) => Float32Array.from({ length: 60 }, (_, i) => value(i / 59));
  return {
    kind: 'stroke',
    id: randomUUID(),
    swatch,
    brush,
    seed: 77,
    samples: {
      x: column((t) => -220 + 440 * t),
      y: column((t) => y + 12 * Math.sin(t * 9)),
      pressure: column((t) => 0.15 + 0.85 * t),
      altitude: column(() => 1),
      azimuth: column(() => 0),
    },
  };
}
const BRUSHES: readonly BrushSettings[] = BRUSH_KINDS.map((kind, i) => ({
  kind,
  version: newestVersion(kind),
  width: [8, 7, 30, 40][i]!,
  opacity: 1,
  pressure: true,
  ...(kind === 'haze' ? { flow: 0.3 } : {}),
}));

test('every look and brush is the same in the browser and on the server, within the stated tolerance', async ({
  page,
}) => {
  const shot = await makeShot(address());
  const doc = await changed(shot, (base) => {
    const element = entitiesOf(base, 'element')[0]!;
    const swatches = findAll(base, 'swatch', shotOf(base).swatches);
    let next = setElement(base, element.id, { time: 'cycle' });
    const put = (name: string, shape: Mark, looks: readonly LookKind[], choices: Record<string, string> = {}) => {
      const added = addLayer(next, element.id, name, 'body', null, randomUUID);
      next = addMark(added.doc, added.layerId, 0, shape, randomUUID);
      for (const kind of looks) {
        const look = newLook(next, kind, randomUUID);
        const known = Object.fromEntries(Object.entries(choices).filter(([key]) => key in look.choices));
        next = addLook(next, added.layerId, { ...look, choices: { ...look.choices, ...known } });
      }
    };
    put('one', star(swatches[1]!.id, 120), ['texture', 'inner glow', 'glow'], { where: 'edge' });
    put('two', star(swatches[2]!.id, 70, 0.3), ['feather', 'texture', 'tint'], { form: 'hatching' });
    put('three', star(swatches[3]!.id, 40, 0.1), ['blur', 'fade'], { along: 'angle' });
    BRUSHES.forEach((brush, i) => {
      put(brush.kind, wave(swatches[i]!.id, brush, -130 + 85 * i), []);
    });
    put('four', star(swatches[0]!.id, 26, 0.2), ['texture', 'blur'], { form: 'smoke', along: 'even' });
    const waver = newLook(next, 'waver', randomUUID);
    return addLook(next, element.id, { ...waver, numbers: { ...waver.numbers, amount: constant(9) } });
  });
  await openDesk(page, address(), shot);
  await page.keyboard.press('Shift+KeyY');
  await painted(page);
  const area = (await page.getByTestId('picture').boundingBox())!;
  const [width, height] = [Math.round(area.width), Math.round(area.height)];
  const surface = surfaceOf(width, height);
  const rendering: RenderContext = {
    make: surfaceOf,
    pictureOf: (sheet, matrix, w, h) => {
      const own = surfaceOf(w, h);
      drawDrawing(own, new Scratch(surfaceOf), sheet.drawing, paintsOf(doc, sheet), matrix);
      return { picture: own.picture, left: 0, top: 0 };
    },
  };
  const view = viewMatrix(fittedView(SIZE, area), SIZE, area);
  drawFrame(surface, doc, 0, view, rendering, { guides: false, background: true, looks: 'all' });
  const ours = Buffer.from(surface.context.getImageData(0, 0, width, height).data).toString('base64');
  const found = await page.getByTestId('picture').evaluate((canvas: HTMLCanvasElement, text) => {
    const other = Uint8Array.from(atob(text), (c) => c.charCodeAt(0));
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
    let [max, far] = [0, 0];
    for (let i = 0; i < data.length; i++) {
      const difference = Math.abs(data[i]! - other[i]!);
      max = Math.max(max, difference);
      if (difference > 3) far += 1;
    }
    return { max, far: far / data.length, size: data.length === other.length };
  }, ours);
  // Stated: at most 3 of 255 but for one value in a thousand, and nowhere more than 24.
  expect(found.size).toBe(true);
  expect(found.far).toBeLessThan(0.001);
  expect(found.max).toBeLessThanOrEqual(24);
});

const add = async (page: Page, name: RegExp): Promise<void> => {
  await page.getByRole('button', { name: 'Add a look' }).click();
  await page.getByRole('menuitem', { name }).click();
};

test('looks are added, set over time, ordered, copied and switched; they are seen while drawing and in what is taken away', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.35, y: 0.5 }, { x: 0.65, y: 0.5 });
  await painted(page);
  const plain = await countOf(page, [0x20, 0x20, 0x20], 1);
  await page.keyboard.press('Alt+KeyE');
  await add(page, /^Glow/);
  await painted(page);
  // Light falls on what was background.
  await expect.poll(() => countOf(page, [0x20, 0x20, 0x20], 1)).toBeLessThan(plain - 3000);
  await page.getByRole('button', { name: 'Set Radius on this frame' }).click();
  await expect(page.getByRole('button', { name: 'Take the value of Radius on this frame away' })).toBeVisible();
  await add(page, /^Blur/);
  const cards = page.getByTestId('look');
  await expect(cards).toHaveCount(2);
  await page.getByRole('button', { name: 'Earlier' }).click();
  await expect(cards.first()).toHaveAttribute('data-kind', 'blur');
  await page.getByRole('button', { name: 'Copy', exact: true }).click();
  await page.getByRole('button', { name: 'whole element' }).click();
  await page.getByRole('button', { name: 'Paste 1' }).click();
  await expect(cards).toHaveCount(1);
  await page.getByRole('button', { name: 'Switch Blur off' }).click();
  await saved(page);
  const { entities } = await stored(address(), shot);
  const layer = entities.find((e) => e.kind === 'layer') as unknown as Layer;
  expect(layer.finishes.map(({ kind }) => kind)).toEqual(['blur', 'glow']);
  expect(layer.finishes[1]!.numbers['radius']).toMatchObject({ keys: [{ frame: 0 }] });
  await page.getByText('See looks while drawing').click();
  await painted(page);
  await expect.poll(() => countOf(page, [0x20, 0x20, 0x20], 1)).toBe(plain);
});

test('a matte hides what passes behind it, on every frame, and is never seen itself', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await page.getByLabel('Width in px').fill('60');
  await pen.stroke({ x: 0.3, y: 0.5 }, { x: 0.7, y: 0.5 });
  const line: [number, number, number] = [0x8c, 0x2a, 0x14];
  await painted(page);
  const whole = await countOf(page, line);
  await page.getByText('Add layer').click();
  await choose(page.getByLabel('Role'), 'matte');
  await page.getByTestId('layer-more').click();
  await page.getByRole('menuitemcheckbox', { name: /^Still/ }).click();
  await page.locator('[data-testid=swatch][data-name=core]').click();
  await pen.stroke({ x: 0.5, y: 0.2 }, { x: 0.5, y: 0.8 });
  // Looked at from another layer, the matte has cut its way out and is gone.
  await page.locator('[data-testid=layer][data-name=Line] button[aria-pressed]').click();
  await painted(page);
  await expect.poll(() => countOf(page, [0xff, 0xf0, 0xb8])).toBe(0);
  expect(await countOf(page, line)).toBeLessThan(whole * 0.97);
  expect(await countOf(page, line)).toBeGreaterThan(whole * 0.6);
  await saved(page);
});

test('the palette: a colour by hue, a gradient along the axis, another swatch for the whole element, files', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await page.locator('[data-testid=swatch][data-name=flame]').click();
  await page.keyboard.press('Digit5');
  await pen.stroke({ x: 0.5, y: 0.5 }, { x: 0.5, y: 0.5 }, 1);
  await page.getByRole('button', { name: 'Settings of the palette' }).click();
  const panel = page.getByTestId('palette-panel');
  await expect(page.getByTestId('swatch-used')).toHaveText('Used on 1 layer, 1 drawing');
  // What a swatch does is seen at once: one that cuts leaves nothing of itself.
  const flames = await countOf(page, [0xff, 0xa6, 0x2b]);
  expect(flames).toBeGreaterThan(500);
  const role = panel.getByLabel('Swatch role');
  const before = (await role.getAttribute('data-value'))!;
  await choose(role, 'hole');
  await expect.poll(() => countOf(page, [0xff, 0xa6, 0x2b])).toBe(0);
  await choose(role, before);
  await expect.poll(() => countOf(page, [0xff, 0xa6, 0x2b])).toBe(flames);
  await panel.getByLabel('Hue, typed').fill('250');
  await panel.getByLabel('Hue, typed').press('Enter');
  await expect(panel.getByLabel('Colour as hex')).not.toHaveValue('#ffa62b');
  await panel.getByRole('button', { name: 'linear' }).click();
  await expect(page.getByTestId('axis')).toBeVisible();
  await panel.getByRole('button', { name: 'its shape' }).click();
  await expect(page.getByTestId('axis')).toBeHidden();
  await panel.getByRole('button', { name: 'Keep it in turned colours' }).click();
  await panel.getByRole('button', { name: 'its own' }).click();
  await saved(page);
  const swatches = (await stored(address(), shot)).entities.filter((e) => e.kind === 'swatch');
  const flame = swatches.find((e) => e['name'] === 'flame')!;
  expect(flame['gradient']).toMatchObject({ form: 'linear', run: 'shape' });
  // A palette file comes in, a broken one says where it is broken and changes nothing.
  const file = (text: string) => ({ name: 'own.txt', mimeType: 'text/plain', buffer: Buffer.from(text) });
  await page.getByTestId('palette-file').setInputFiles(file('#336699 body night\nnonsense'));
  await expect(page.getByText('“own.txt” was not read. Line 2 must begin with a colour like #e4551b.')).toBeVisible();
  await page.getByTestId('palette-file').setInputFiles(file('#336699 body night\n#ffcc00 light lamp'));
  await expect(page.getByText('2 swatches from “own.txt”.')).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    panel.getByRole('button', { name: 'As CSS' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Test shot.css');
  // The dropper takes the background's colour into the active swatch.
  await panel.getByRole('button', { name: 'night', exact: true }).click();
  await panel.getByRole('button', { name: 'Take a colour from the picture' }).click();
  await pen.stroke({ x: 0.2, y: 0.2 }, { x: 0.2, y: 0.2 }, 1);
  await expect(panel.getByLabel('Colour as hex')).toHaveValue('#202020');
});

test('tone is cut from a filled body, follows it, and stays where it was drawn on by hand', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await choose(page.getByLabel('Role'), 'body');
  await page.locator('[data-testid=swatch][data-name=flame]').click();
  await page.keyboard.press('Digit5');
  await page.getByLabel('Width in px').fill('180');
  await pen.stroke({ x: 0.5, y: 0.5 }, { x: 0.5, y: 0.5 }, 1);
  await painted(page);
  await page.keyboard.press('Alt+KeyM');
  const panel = page.getByTestId('tone-panel');
  await panel.getByRole('button', { name: 'Lay tone on all drawings' }).click();
  await expect(page.getByTestId('tone-about')).toContainText('It follows when the body changes');
  await expect(panel.getByRole('button', { name: 'Line shade' })).toBeVisible();
  await saved(page);
  // Its swatch is made from the body's own colour.
  const made = (await stored(address(), shot)).entities.find((e) => e['name'] === 'flame shade')!;
  const shade = [1, 3, 5].map((i) => Number.parseInt(String(made['colour']).slice(i, i + 2), 16)) as [
    number,
    number,
    number,
  ];
  await expect.poll(() => countOf(page, shade)).toBeGreaterThan(500);
  const before = await countOf(page, shade);
  await panel.getByLabel('Shade, typed').fill('20');
  await panel.getByLabel('Shade, typed').press('Enter');
  await expect.poll(() => countOf(page, shade)).toBeLessThan(before * 0.8);
  // The body grows: its tone is cut again as part of that step.
  const small = await countOf(page, shade);
  await page.getByLabel('Width in px').fill('260');
  await pen.stroke({ x: 0.55, y: 0.5 }, { x: 0.55, y: 0.5 }, 1);
  await expect.poll(() => countOf(page, shade)).not.toBe(small);
  await page.keyboard.press('Control+KeyZ');
  await expect.poll(() => countOf(page, shade)).toBe(small);
  await saved(page);
  // A new drawing gets its tone by itself, and undo takes both.
  await page.keyboard.press('KeyS');
  await painted(page);
  await pen.stroke({ x: 0.4, y: 0.5 }, { x: 0.4, y: 0.5 }, 1);
  await expect.poll(() => countOf(page, shade)).toBeGreaterThan(500);
  await saved(page);
});

test('from lines to what is taken away: filled through, lit, in other colours, and the exported pixels are those', async ({
  page,
}) => {
  const shot = await makeShot(address(), { length: 4, name: 'Painted' });
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  const ring = async (cx: number) => {
    const at = (i: number) => ({
      x: cx + 0.1 * Math.cos((i / 40) * 6.4),
      y: 0.5 + 0.18 * Math.sin((i / 40) * 6.4),
      force: 0.6,
    });
    await pen.down(at(0));
    await pen.moves(Array.from({ length: 40 }, (_, i) => at(i + 1)));
    await pen.up(at(40));
  };
  await ring(0.48);
  await page.keyboard.press('KeyS');
  await painted(page);
  await ring(0.52);
  await page.keyboard.press('KeyA');
  await painted(page);
  await page.locator('[data-testid=swatch][data-name=flame]').click();
  await page.keyboard.press('KeyF');
  await pen.stroke({ x: 0.48, y: 0.5 }, { x: 0.48, y: 0.5 }, 1);
  await expect(page.getByTestId('fill-where')).toHaveText('Onto “Line fill”.');
  await page.getByRole('button', { name: 'Through the drawings' }).click();
  await expect(page.getByTestId('fill-outcome')).toHaveText('All 2 drawings are filled.');
  await page.getByRole('button', { name: 'Layers', exact: true }).click();
  await page.getByText('Line fill').first().click();
  await page.keyboard.press('Alt+KeyE');
  await add(page, /^Glow/);
  await page.keyboard.press('Alt+KeyQ');
  await page.getByTestId('recolour').getByLabel('Hue turned by, typed').fill('180');
  await page.getByTestId('recolour').getByLabel('Hue turned by, typed').press('Enter');
  await page.getByRole('button', { name: 'Keep it in turned colours' }).click();
  await expect(page.getByRole('group', { name: 'Recolourings' }).getByRole('button', { pressed: true })).toHaveText(
    'turned 180°',
  );
  await saved(page);
  await page.getByRole('link', { name: 'Export' }).click();
  await page.getByRole('button', { name: 'Export 4 frames' }).click();
  const row = page.getByTestId('export');
  await expect(row).toHaveAttribute('data-state', 'done', { timeout: 25_000 });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    row.getByRole('link', { name: 'Download' }).click(),
  ]);
  const files = unzipSync(readFileSync(await download.path()));
  const turned = hexOf({ ...oklchOf('#ffa62b'), h: (oklchOf('#ffa62b').h + 180) % 360 });
  const [, , blue] = [1, 3, 5].map((i) => Number.parseInt(turned.slice(i, i + 2), 16));
  for (const [name, cx] of [
    ['0001', 0.48],
    ['0003', 0.52],
  ] as const) {
    const image = await loadImage(Buffer.from(files[`painted/painted-${name}.png`]!));
    const canvas = createCanvas(image.width, image.height);
    const context = canvas.getContext('2d');
    context.drawImage(image, 0, 0);
    const at = (x: number, y: number) =>
      Array.from(context.getImageData(Math.round(x * image.width), Math.round(y * image.height), 1, 1).data);
    const [r, g, b, a] = at(cx, 0.5);
    // The fill itself, brightened by its own light, and light beyond the line where nothing is drawn.
    expect(a).toBe(255);
    expect(b).toBeGreaterThan(r!);
    expect(b).toBeGreaterThanOrEqual(blue! - 8);
    expect(g).toBeGreaterThan(60);
    expect(at(cx + 0.125, 0.5)[3]).toBeGreaterThan(8);
    expect(at(0.05, 0.1)[3]).toBe(0);
  }
});

test('a fade begins at the foot of what is drawn, wherever that is; both ends of its axis are pulled with the pen', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await changed(shot, (doc) =>
    addMark(
      doc,
      entitiesOf(doc, 'layer')[0]!.id,
      0,
      {
        ...star(shotOf(doc).swatches[0]!, 10),
        // Below the middle of the picture and to its left.
        rings: [polygonRing([[-120, 20], [-60, 20], [-60, 140], [-120, 140]])], // prettier-ignore
      },
      randomUUID,
    ),
  );
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await painted(page);
  const axis = async () => {
    const element = (await stored(address(), shot)).entities.find((each) => each.kind === 'element')!;
    return element as unknown as { anchor: { x: number; y: number }; tip: { x: number; y: number } | null };
  };
  await pen.tap(page.getByTestId('layer-more'));
  await pen.tap(page.getByRole('menuitem', { name: /^Looks/ }));
  await pen.tap(page.getByRole('button', { name: 'Add a look' }));
  await pen.tap(page.getByRole('menuitem', { name: /^Fade/ }));
  await saved(page);
  expect(await axis()).toMatchObject({ anchor: { x: -90, y: 140 }, tip: { x: -90, y: 20 } });
  const middleOf = async (label: string) => {
    const box = (await page.locator(`[data-handle^="${label}"]`).boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  const at = await middleOf('Anchor');
  await pen.drag([at, { x: at.x + 10, y: at.y - 10 }, { x: at.x + 20, y: at.y - 40 }]);
  await saved(page);
  const pulled = await axis();
  expect(pulled.anchor.x).toBeGreaterThan(-89);
  expect(pulled.anchor.y).toBeLessThan(139);
  expect(pulled.tip).toEqual({ x: -90, y: 20 });
  // One step each.
  await page.keyboard.press('Control+KeyZ');
  await page.keyboard.press('Control+KeyZ');
  await saved(page);
  expect(await axis()).toMatchObject({ anchor: { x: 0, y: 0 }, tip: null });
});
