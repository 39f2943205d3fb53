import { expect, test, type CDPSession, type Page } from '@playwright/test';
import { address, makeShot, openDesk, painted, Pen, saved, storedMarks, strokesOf } from './desk.ts';
import { tipped } from './controls.ts';

type Finger = readonly [x: number, y: number];

/** Fingers on the picture, in shares of its area. */
async function touch(
  page: Page,
  session: CDPSession,
  type: 'touchStart' | 'touchMove' | 'touchEnd',
  fingers: readonly Finger[],
): Promise<void> {
  const box = (await page.getByTestId('picture').boundingBox())!;
  const touchPoints = fingers.map(([x, y], id) => ({ x: box.x + x * box.width, y: box.y + y * box.height, id }));
  await session.send('Input.dispatchTouchEvent', { type, touchPoints });
}

test('one finger draws, two zoom and leave no stroke; once a pen was seen, a finger only moves the picture', async ({
  browser,
}) => {
  const context = await browser.newContext({ hasTouch: true, viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const session = await context.newCDPSession(page);
  const zoom = () => tipped(page, 'Upright').textContent();
  await touch(page, session, 'touchStart', [[0.3, 0.5]]);
  for (let i = 1; i <= 10; i++) await touch(page, session, 'touchMove', [[0.3 + i * 0.03, 0.5]]);
  await touch(page, session, 'touchEnd', []);
  await saved(page);
  expect(await storedMarks(address(), shot)).toEqual([1]);

  const before = await zoom();
  await touch(page, session, 'touchStart', [[0.4, 0.5]]);
  await touch(page, session, 'touchStart', [
    [0.4, 0.5],
    [0.6, 0.5],
  ]);
  for (let i = 1; i <= 6; i++)
    await touch(page, session, 'touchMove', [
      [0.4 - i * 0.03, 0.5],
      [0.6 + i * 0.03, 0.5],
    ]);
  await touch(page, session, 'touchEnd', []);
  await painted(page);
  expect(await zoom()).not.toBe(before);

  const pen = await Pen.on(page);
  await pen.stroke({ x: 0.4, y: 0.3 }, { x: 0.6, y: 0.3 });
  await touch(page, session, 'touchStart', [[0.3, 0.6]]);
  for (let i = 1; i <= 6; i++) await touch(page, session, 'touchMove', [[0.3 + i * 0.03, 0.6]]);
  await touch(page, session, 'touchEnd', []);
  await saved(page);
  expect(await storedMarks(address(), shot)).toEqual([2]);

  // Palms that rest on the screen while the pen is down are no fingers: the stroke goes on.
  const still = await zoom();
  await pen.down({ x: 0.4, y: 0.7 });
  await pen.move({ x: 0.45, y: 0.7 });
  await touch(page, session, 'touchStart', [
    [0.6, 0.8],
    [0.7, 0.8],
  ]);
  await touch(page, session, 'touchMove', [
    [0.5, 0.8],
    [0.8, 0.8],
  ]);
  await pen.move({ x: 0.5, y: 0.7 });
  await touch(page, session, 'touchEnd', []);
  await pen.move({ x: 0.6, y: 0.7 });
  await pen.up({ x: 0.6, y: 0.7 });
  await saved(page);
  expect(await storedMarks(address(), shot)).toEqual([3]);
  expect(await zoom()).toBe(still);
  // As long as the stroke before it, which went as far.
  const [, whole, last] = (await strokesOf(address(), shot)).map(
    ({ samples }) => Math.max(...samples.x) - Math.min(...samples.x),
  );
  expect(last! / whole!).toBeCloseTo(1, 1);
  await context.close();
});

test('keys held down move and turn the picture under the pen and set the width; nothing is drawn', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  await page.getByTestId('picture').focus();
  const readout = () => tipped(page, 'Upright').textContent();
  await page.keyboard.down('KeyR');
  await pen.stroke({ x: 0.8, y: 0.5 }, { x: 0.5, y: 0.9 }, 8);
  await page.keyboard.up('KeyR');
  expect(await readout()).not.toContain('· 0°');
  await page.keyboard.press('Shift+KeyR');
  expect(await readout()).toContain('· 0°');
  await page.keyboard.down('KeyZ');
  await pen.stroke({ x: 0.4, y: 0.5 }, { x: 0.5, y: 0.5 }, 8);
  await page.keyboard.up('KeyZ');
  expect(Number(await page.getByLabel('Width in px').inputValue())).toBeGreaterThan(14);
  await page.keyboard.down('KeyT');
  await pen.stroke({ x: 0.4, y: 0.5 }, { x: 0.5, y: 0.5 }, 8);
  await page.keyboard.up('KeyT');
  expect(await storedMarks(address(), shot)).toEqual([]);
});

test('rubbing out where nothing is drawn says so and makes no drawing', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await page.getByTestId('picture').focus();
  await page.keyboard.press('Digit6');
  await (await Pen.on(page)).stroke({ x: 0.4, y: 0.5 }, { x: 0.6, y: 0.5 }, 6);
  await expect(page.getByText('Nothing is drawn here that could be rubbed out.')).toBeVisible();
  await saved(page);
  expect(await storedMarks(address(), shot)).toEqual([]);
});
