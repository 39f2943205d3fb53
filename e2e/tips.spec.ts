import { expect, test } from '@playwright/test';
import { address, makeShot, openDesk } from './desk.ts';
import { tipped } from './controls.ts';

test('what a control does is told to the mouse that rests on it, to the finger that stays, and to who comes by keys', async ({
  browser,
}) => {
  const context = await browser.newContext({ hasTouch: true, viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await openDesk(page, address(), await makeShot(address()));
  const tip = page.getByRole('tooltip');
  const upright = tipped(page, 'Upright');

  await upright.hover();
  await expect(tip).toHaveText(/^Upright/);
  const [own, all] = [(await tip.boundingBox())!, page.viewportSize()!];
  expect(own.x).toBeGreaterThanOrEqual(0);
  expect(own.x + own.width).toBeLessThanOrEqual(all.width);
  expect(own.y + own.height).toBeLessThanOrEqual(all.height);
  await page.mouse.move(400, 400);
  await expect(tip).toHaveCount(0);

  // A finger that stays asks; what the button does is left undone.
  const turn = page.getByRole('button', { name: 'Turn right' });
  const box = (await turn.boundingBox())!;
  const angle = await upright.textContent();
  const session = await context.newCDPSession(page);
  const finger = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  await session.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [finger] });
  await expect(tip).toHaveText(/^Turn right/);
  await session.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
  expect(await upright.textContent()).toBe(angle);
  await page.touchscreen.tap(finger.x, finger.y);
  await expect(upright).not.toHaveText(angle!);

  // By keys it is the control's description; one Escape closes the dialog, not the tip.
  await page.keyboard.press('Shift+Slash');
  const dialog = page.getByRole('dialog');
  await expect(dialog).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(dialog).toHaveCount(0);
  await page.getByRole('link', { name: 'Plan', exact: true }).focus();
  for (let i = 0; i < 8 && (await tip.count()) === 0; i++) {
    await page.keyboard.press('Tab');
    await page.waitForFunction(() => {
      const now = document.activeElement;
      return !now?.closest('[data-tip]') || document.querySelector('[role=tooltip]');
    });
  }
  await expect(tip).toBeVisible();
  expect(await page.evaluate(() => document.activeElement?.getAttribute('aria-describedby'))).toBe('tip');
  await context.close();
});
