import { address, drawn, makeShot, openDesk, painted, Pen, pixels, saved, strokesOf } from './desk.ts';
import { expect, test } from './test.ts';

test('a ghost is moved, turned and scaled under the pen without touching its drawing, and one key puts all back', async ({
  page,
}) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  await drawn(page, 2);
  await saved(page);
  const drawings = (await strokesOf(address(), shot)).map(({ samples }) => [...samples.x]);
  await painted(page);
  const seen = await pixels(page);
  await page.getByRole('button', { name: 'Move ghosts for tracing' }).click();
  const pen = await Pen.on(page);
  const drag = async (x0: number, y0: number, x1: number, y1: number) => {
    await pen.down({ x: x0, y: y0 });
    await pen.moves([
      { x: (x0 + x1) / 2, y: (y0 + y1) / 2 },
      { x: x1, y: y1 },
    ]);
    await pen.up({ x: x1, y: y1 });
    await painted(page);
    return pixels(page);
  };
  const moved = await drag(0.3, 0.45, 0.5, 0.45);
  expect(moved).not.toBe(seen);
  // Escape in the middle of a drag leaves the ghost where it was.
  await pen.down({ x: 0.5, y: 0.45 });
  await pen.moves([{ x: 0.6, y: 0.6 }]);
  await page.keyboard.press('Escape');
  await pen.up({ x: 0.6, y: 0.6 });
  await painted(page);
  await expect.poll(() => pixels(page)).toBe(moved);
  await page.getByRole('button', { name: 'Turn', exact: true }).click();
  const turned = await drag(0.5, 0.35, 0.6, 0.45);
  expect(turned).not.toBe(moved);
  await page.getByRole('button', { name: 'Scale', exact: true }).click();
  expect(await drag(0.5, 0.55, 0.5, 0.7)).not.toBe(turned);
  await page.keyboard.press('Alt+KeyK');
  await painted(page);
  await expect.poll(() => pixels(page)).toBe(seen);
  await page.getByTestId('trace-line').getByRole('button', { name: 'Draw' }).click();
  await pen.stroke({ x: 0.6, y: 0.4 }, { x: 0.65, y: 0.5 }, 6);
  await saved(page);
  const after = (await strokesOf(address(), shot)).map(({ samples }) => [...samples.x]);
  expect(after).toHaveLength(3);
  for (const each of drawings) expect(after).toContainEqual(each);
});
