/** Long work with the pen alone: its other end, its button, the strip for the other hand, cleaning up over a rough, the last export again. */
import { expect, test, type Page } from '@playwright/test';
import { address, makeShot, marksOf, openDesk, painted, Pen, pixels, saved } from './desk.ts';
import { makeRough } from './rough.ts';

/** Pen events with a button of their own, which a browser without a pen cannot be sent from outside. */
async function penWith(page: Page, button: number, places: readonly (readonly [number, number])[]): Promise<void> {
  await page.evaluate(
    ([which, list]) => {
      const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=picture]')!;
      canvas.setPointerCapture = () => undefined;
      const box = canvas.getBoundingClientRect();
      const send = (type: string, [x, y]: readonly [number, number], buttons: number) =>
        canvas.dispatchEvent(
          new PointerEvent(type, {
            pointerType: 'pen',
            pointerId: 5,
            isPrimary: true,
            bubbles: true,
            cancelable: true,
            pressure: 0.8,
            clientX: box.left + x * box.width,
            clientY: box.top + y * box.height,
            button: type === 'pointermove' ? -1 : which,
            buttons,
          }),
        );
      const held = which === 5 ? 32 : 2;
      send('pointerdown', list[0]!, held);
      for (const place of list.slice(1)) send('pointermove', place, held);
      send('pointerup', list.at(-1)!, 0);
    },
    [button, places] as const,
  );
}

test('the pen’s other end rubs out, its button picks a colour or does what it is set to', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.3, y: 0.5 }, { x: 0.7, y: 0.5 });
  await painted(page);
  await penWith(page, 5, [
    [0.5, 0.4],
    [0.5, 0.5],
    [0.5, 0.6],
  ]);
  await saved(page);
  const marks = await marksOf(address(), shot);
  expect(marks.map(({ kind }) => kind)).toEqual(['stroke', 'rub']);
  // The active brush is the one it was.
  await expect(page.getByRole('button', { name: 'Ink', exact: true })).toHaveAttribute('aria-pressed', 'true');

  await page.getByTestId('forms').click();
  await page.getByRole('menuitem', { name: 'The button on the pen' }).click();
  await page.getByRole('menuitemradio', { name: 'Move the picture' }).click();
  const fitted = await page.getByTestId('picture').evaluate((canvas) => canvas.dataset['wanted']);
  await penWith(page, 2, [
    [0.5, 0.5],
    [0.6, 0.6],
  ]);
  await expect(page.getByTestId('picture')).not.toHaveAttribute('data-wanted', fitted!);
  await painted(page);
  // It moved the picture and drew nothing.
  await saved(page);
  expect(await marksOf(address(), shot)).toHaveLength(2);
});

test('forty drawings are cleaned up by pen events alone, with one press between strokes', async ({ page }) => {
  test.setTimeout(240_000);
  const COUNT = 40;
  const shot = await makeShot(address(), { length: 2 * COUNT });
  await makeRough(shot, COUNT);
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await pen.tap(page.getByTestId('forms'));
  await pen.tap(page.getByRole('menuitemcheckbox', { name: 'Buttons for the other hand' }));
  await page.keyboard.press('Escape');
  await pen.tap(page.getByText('Add layer'));
  const next = page.getByTestId('other-hand').getByRole('button', { name: /^Clean next/ });
  let presses = 0;
  const press = async () => {
    presses += 1;
    await pen.tap(next);
  };
  await press();
  for (let i = 0; i < COUNT; i++) {
    await expect(page.getByTestId('pen-text')).toContainText(`${i + 1} of ${COUNT}`);
    await pen.stroke({ x: 0.35, y: 0.5 }, { x: 0.65, y: 0.5 + 0.002 * i }, 6);
    if (i === 0) await expect(page.getByTestId('open-ends')).toHaveAttribute('data-count', '2');
    if (i < COUNT - 1) await press();
  }
  await saved(page);
  // One to begin with, then one from drawing to drawing.
  expect(presses).toBe(COUNT);
  const lines = (await marksOf(address(), shot)).filter((mark) => mark.kind === 'stroke' && mark.brush.kind === 'ink');
  // Each drawing has its own.
  expect(lines).toHaveLength(COUNT);
});

test('the other hand holds a button: the drawing before is seen, the pen turns the picture, a drag sets the width', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.3, y: 0.4 }, { x: 0.7, y: 0.4 }, 6);
  await page.getByRole('button', { name: 'New drawing after this' }).click();
  await painted(page);
  await pen.stroke({ x: 0.3, y: 0.6 }, { x: 0.7, y: 0.6 }, 6);
  await page.getByTestId('forms').click();
  await page.getByRole('menuitemcheckbox', { name: 'Buttons for the other hand' }).click();
  await page.keyboard.press('Escape');
  await painted(page);
  const strip = page.getByTestId('other-hand');
  /** A finger of the other hand on a button, moved by so many px and lifted when `meanwhile` is over. */
  const holding = async (name: string, meanwhile: () => Promise<void>) => {
    const button = strip.getByRole('button', { name });
    const finger = { pointerType: 'touch', pointerId: 9, isPrimary: false, bubbles: true, buttons: 1 };
    await button.evaluate((element) => (element.setPointerCapture = () => undefined));
    await button.dispatchEvent('pointerdown', finger);
    await meanwhile();
    await button.dispatchEvent('pointerup', { ...finger, buttons: 0 });
  };
  const before = await pixels(page);
  await holding('Hold to see the drawing before', () => expect.poll(() => pixels(page)).not.toBe(before));
  await expect.poll(() => pixels(page)).toBe(before);

  await holding('Hold to turn the picture', () => pen.stroke({ x: 0.7, y: 0.5 }, { x: 0.5, y: 0.8 }, 6));
  await expect(page.getByRole('button', { name: /% · 0°/ })).toBeHidden();
  const width = page.getByLabel('Width in px');
  const thin = Number(await width.inputValue());
  await holding('Hold and drag sideways for width', () => pen.stroke({ x: 0.4, y: 0.5 }, { x: 0.6, y: 0.5 }, 6));
  expect(Number(await width.inputValue())).toBeGreaterThan(thin);
  // Nothing of that drew.
  await saved(page);
  expect(await marksOf(address(), shot)).toHaveLength(2);
});

test('each layer is drawn on with the brush and width it was last drawn on with, after a reload too', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  const brush = (name: string) => page.getByRole('button', { name, exact: true });
  await pen.tap(brush('Grain'));
  await page.getByLabel('Width in px').fill('33');
  await page.keyboard.press('Enter');
  await pen.stroke({ x: 0.3, y: 0.4 }, { x: 0.7, y: 0.4 }, 6);
  await pen.tap(page.getByText('Add layer'));
  await pen.tap(brush('Pencil'));
  await pen.stroke({ x: 0.3, y: 0.6 }, { x: 0.7, y: 0.6 }, 6);
  const row = (name: string) => page.locator(`[data-testid=layer][data-name="${name}"] button[aria-pressed]`);
  await pen.tap(row('Line'));
  await expect(brush('Grain')).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByLabel('Width in px')).toHaveValue('33');
  await saved(page);
  await page.reload();
  await painted(page);
  await pen.tap(row('Layer 2'));
  await expect(brush('Pencil')).toHaveAttribute('aria-pressed', 'true');
  await pen.tap(row('Line'));
  await expect(brush('Grain')).toHaveAttribute('aria-pressed', 'true');
});

test('the last export is made again in one press, from the desk too', async ({ page }) => {
  const shot = await makeShot(address(), { length: 4 });
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await page.keyboard.press('Control+KeyE');
  await expect(page.getByText('Nothing of this shot was exported yet')).toBeVisible();
  await pen.stroke({ x: 0.3, y: 0.5 }, { x: 0.7, y: 0.5 }, 6);
  await saved(page);
  await page.getByRole('link', { name: 'Export' }).click();
  await page.getByRole('button', { name: 'Export 4 frames' }).click();
  await expect(page.getByTestId('export')).toHaveCount(1);
  await expect(page.getByTestId('export')).toHaveAttribute('data-state', 'done', { timeout: 30_000 });
  await page.getByRole('link', { name: 'Draw' }).click();
  await painted(page);
  await page.keyboard.press('Control+KeyE');
  await expect(page.getByText(/is ready/)).toBeVisible({ timeout: 30_000 });
  await page.getByRole('link', { name: 'Export' }).click();
  await expect(page.getByTestId('export')).toHaveCount(2);
  await page.getByRole('button', { name: /^Again/ }).click();
  await expect(page.getByTestId('export')).toHaveCount(3);
});
