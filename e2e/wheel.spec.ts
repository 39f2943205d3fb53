import { expect, test, type Page } from './test.ts';
import { address, drawn, makeShot, openDesk, painted, Pen, pixels, runsOf, saved } from './desk.ts';

const frameOf = (page: Page) => page.getByTestId('frame-of');

/** The wheel as a pen meets it: places as shares of a turn and px from the middle. */
class Disc {
  private constructor(
    private readonly page: Page,
    private readonly middle: { x: number; y: number },
  ) {}

  static async on(page: Page): Promise<Disc> {
    const box = (await page.getByTestId('wheel').boundingBox())!;
    return new Disc(page, { x: box.x + box.width / 2, y: box.y + box.height / 2 });
  }

  async to(turn: number, radius: number): Promise<void> {
    const angle = turn * 2 * Math.PI;
    await this.page.mouse.move(this.middle.x + radius * Math.sin(angle), this.middle.y - radius * Math.cos(angle));
  }

  /** Goes round from one place to another in small steps, without letting go. */
  async drag(from: number, to: number, radius: number): Promise<void> {
    await this.to(from, radius);
    await this.page.mouse.down();
    for (let i = 1; i <= 12; i++) await this.to(from + ((to - from) * i) / 12, radius);
  }

  async tap(turn: number, radius: number): Promise<void> {
    await this.to(turn, radius);
    await this.page.mouse.down();
    await this.page.mouse.up();
  }
}
const RING = 95;

/** Six drawings on 2s with a bar each a little farther right, closed into a cycle: 12 frames. */
async function sixDrawn(page: Page): Promise<string> {
  const shot = await makeShot(address(), { length: 36 });
  await openDesk(page, address(), shot);
  await drawn(page, 6);
  await page.getByTestId('element-time').click();
  await page.getByText('Close into a cycle').click();
  await page.getByTestId('picture').focus();
  return shot;
}

test('a tap picks an arc, a drag over unpicked arcs picks a range, Escape gives back what was', async ({ page }) => {
  await sixDrawn(page);
  const disc = await Disc.on(page);
  await disc.tap(1.5 / 6, RING);
  await expect(page.getByTestId('picked')).toHaveText('1 drawing picked, frames 3–4');
  await expect(frameOf(page)).toHaveText('3 of 12');
  await disc.drag(2.5 / 6, 4.5 / 6, RING);
  await expect(page.getByTestId('picked')).toHaveText('3 drawings picked, frames 5–10');
  await expect(page.getByTestId('beside-pen')).toHaveText('3 picked');
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('picked')).toHaveText('1 drawing picked, frames 3–4');
  await page.mouse.up();
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('picked')).toHaveCount(0);
});

test('picked arcs move among the others with frame numbers, in one undo step, and Escape puts them back', async ({
  page,
}) => {
  const shot = await sixDrawn(page);
  await saved(page);
  const before = await runsOf(shot);
  const disc = await Disc.on(page);
  await disc.drag(0.5 / 6, 1.5 / 6, RING);
  await page.mouse.up();
  await disc.drag(1 / 6, 3.6 / 6, RING);
  await expect(page.getByTestId('beside-pen')).toHaveText('frames 5–8');
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await saved(page);
  expect(await runsOf(shot)).toEqual(before);
  await disc.drag(1 / 6, 3.6 / 6, RING);
  await page.mouse.up();
  await expect(page.getByTestId('picked')).toHaveText('2 drawings picked, frames 5–8');
  await saved(page);
  const [a, b, c, d, e, f] = before;
  expect(await runsOf(shot)).toEqual([c, d, a, b, e, f]);
  await page.keyboard.press('Control+KeyZ');
  await saved(page);
  expect(await runsOf(shot)).toEqual(before);
});

test('the ends of what is picked stretch it; the start takes frames from the drawing before, across the seam too', async ({
  page,
}) => {
  const shot = await sixDrawn(page);
  const disc = await Disc.on(page);
  await disc.tap(2.5 / 6, RING);
  await disc.drag(2.97 / 6, 3.95 / 6, RING);
  await expect(page.getByTestId('beside-pen')).toHaveText(/^frames 5–8, 4 f$/);
  await page.keyboard.press('Escape');
  await expect(frameOf(page)).toContainText('of 12');
  await page.mouse.up();
  await disc.drag(2.97 / 6, 3.95 / 6, RING);
  await page.mouse.up();
  await expect(frameOf(page)).toContainText('of 14');
  await saved(page);
  const lengths = async () => (await runsOf(shot)).map((run) => run.split(' ')[1]).join(' ');
  expect(await lengths()).toBe('2 2 4 2 2 2');
  await page.keyboard.press('Control+KeyZ');
  // The first drawing begins a frame earlier: the last gives it, across the seam.
  await disc.tap(0.5 / 6, RING);
  await disc.drag(0.03 / 6, -0.5 / 6, RING);
  await page.mouse.up();
  await saved(page);
  expect(await lengths()).toBe('3 2 2 2 2 1');
  await expect(frameOf(page)).toContainText('of 12');
});

test('drawings on both sides of the seam are picked, held and moved together', async ({ page }) => {
  const shot = await sixDrawn(page);
  const disc = await Disc.on(page);
  await disc.drag(5.5 / 6, 6.5 / 6, RING);
  await page.mouse.up();
  await expect(page.getByTestId('picked')).toHaveText('2 drawings picked, frames 11–2');
  await page.getByRole('button', { name: '3s', exact: true }).click();
  await saved(page);
  expect((await runsOf(shot)).map((run) => run.split(' ')[1]).join(' ')).toBe('3 2 2 2 2 3');
  await page.keyboard.press('Control+KeyZ');
  await expect(page.getByRole('button', { name: /^Redo picked on 3s/ })).toBeVisible();
  await saved(page);
  const before = await runsOf(shot);
  await disc.drag(5.5 / 6, 2.6 / 6, RING);
  await page.mouse.up();
  await saved(page);
  const after = await runsOf(shot);
  expect([...after].sort()).toEqual([...before].sort());
  expect(after).not.toEqual(before);
  await expect(page.getByTestId('frame-of')).toContainText('of 12');
});

test('the rim scrubs on into the next turn, and the hub tells where that is in the shot', async ({ page }) => {
  await sixDrawn(page);
  const disc = await Disc.on(page);
  await disc.drag(0.5 / 12, 13.5 / 12, 133);
  await page.mouse.up();
  await expect(frameOf(page)).toHaveText('2 of 12');
  await expect(page.getByTestId('hub-where')).toHaveText('shot 14 · turn 2');
});

test('the disc turns by its edge and back by a tap; the seam is worked on like any other place', async ({ page }) => {
  await sixDrawn(page);
  const disc = await Disc.on(page);
  await disc.drag(0.3, 0.8, 165);
  await page.mouse.up();
  // Half a turn: what was on top is below.
  await disc.tap(0.5 + 0.5 / 12, 133);
  await expect(frameOf(page)).toHaveText('1 of 12');
  await disc.drag(0.3, 0.5, 165);
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await disc.tap(0.5 + 0.5 / 12, 133);
  await expect(frameOf(page)).toHaveText('1 of 12');
  await disc.tap(0.2, 165);
  await disc.tap(0.5 / 12, 133);
  await expect(frameOf(page)).toHaveText('1 of 12');
});

test('the onion skin’s reach is dragged at its ends, across the seam too, and Escape puts it back', async ({
  page,
}) => {
  await sixDrawn(page);
  const disc = await Disc.on(page);
  await disc.tap(0.5 / 12, 133);
  await painted(page);
  const one = await pixels(page);
  const before = page.getByText('before', { exact: false }).first();
  // The reach before ends where the last drawing begins: one drawing back across the seam.
  await disc.drag(-1 / 6, -3.5 / 6 + 1 / 12, 156.5);
  await expect(before).toHaveText('3 before');
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await expect(before).toHaveText('1 before');
  await disc.drag(-1 / 6, -2.5 / 6, 156.5);
  await page.mouse.up();
  await expect(before).toHaveText('3 before');
  await painted(page);
  expect(await pixels(page)).not.toBe(one);
});

test('a ring turned by hand shifts its phase while the loop plays', async ({ page }) => {
  const shot = await sixDrawn(page);
  const offset = async () => {
    await saved(page);
    const body = (await (await fetch(`${address()}/api/shots/${shot}`)).json()) as {
      entities: { kind: string; offset?: number }[];
    };
    return body.entities.find((e) => e.kind === 'runlist')!.offset;
  };
  const disc = await Disc.on(page);
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: /^Stop/ })).toBeVisible();
  await disc.drag(0.1, 0.1 + 3 / 12, RING);
  await expect(page.getByTestId('beside-pen')).toHaveText('3 frames later');
  await page.keyboard.press('Escape');
  await page.mouse.up();
  expect(await offset()).toBe(0);
  await disc.drag(0.1, 0.1 + 3 / 12, RING);
  await page.mouse.up();
  await expect(page.getByRole('button', { name: /^Stop/ })).toBeVisible();
  await page.keyboard.press('Space');
  expect(await offset()).toBe(3);
  await page.keyboard.press('Comma');
  expect(await offset()).toBe(2);
  await page.keyboard.press('Control+KeyZ');
  await page.keyboard.press('Control+KeyZ');
  expect(await offset()).toBe(0);
});

test('a jump at the seam is named, and gone when the seam leads over', async ({ page }) => {
  await sixDrawn(page);
  // Five small steps to the right and a large one back.
  await expect(page.getByTestId('seam-step')).toHaveText(/^seam step \d\.\d×$/);
});

test('one-shots and long elements open unrolled, the choice stays with the element, and gestures are the same', async ({
  page,
}) => {
  const shot = await sixDrawn(page);
  await page.getByRole('button', { name: 'Straight' }).click();
  await saved(page);
  await page.reload();
  await painted(page);
  await expect(page.getByRole('button', { name: 'Straight' })).toHaveAttribute('aria-pressed', 'true');
  const box = (await page.getByTestId('wheel').boundingBox())!;
  const ring = page.getByTestId('wheel').locator('[data-playhead]');
  const head = (await ring.boundingBox())!;
  const perFrame = head.width;
  const y = head.y + head.height - 16;
  const x = (frame: number) => head.x + (frame + 0.5) * perFrame;
  expect(perFrame).toBeGreaterThan(8);
  expect(box.x + box.width).toBeGreaterThan(x(11));
  await page.mouse.move(x(2), y);
  await page.mouse.down();
  for (let f = 2; f <= 7; f += 0.5) await page.mouse.move(x(f), y);
  await page.mouse.up();
  await expect(page.getByTestId('picked')).toHaveText('3 drawings picked, frames 3–8');
  await page.getByRole('button', { name: '3s', exact: true }).click();
  await saved(page);
  expect((await runsOf(shot)).map((run) => run.split(' ')[1]).join(' ')).toBe('2 3 3 3 2 2');
  await page.getByTestId('element-time').click();
  await page.getByText('End as a one-shot').click();
  await page.getByRole('button', { name: 'Wheel', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Wheel', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByTestId('seam')).toHaveCount(0);
});

test('the hub shows the stroke as it is drawn', async ({ page }) => {
  const shot = await makeShot(address());
  await openDesk(page, address(), shot);
  const pen = await Pen.on(page);
  const marked = () =>
    page.getByTestId('loop').evaluate((canvas: HTMLCanvasElement) => {
      const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
      let count = 0;
      for (let i = 3; i < data.length; i += 4) if (data[i]! > 40) count += 1;
      return count;
    });
  expect(await marked()).toBe(0);
  await page.getByLabel('Width in px').fill('60');
  await pen.down({ x: 0.3, y: 0.5, force: 0.8 });
  await pen.moves(Array.from({ length: 20 }, (_, k) => k + 1).map((i) => ({ x: 0.3 + i * 0.02, y: 0.5, force: 0.8 })));
  await expect.poll(marked).toBeGreaterThan(30);
  await pen.up({ x: 0.7, y: 0.5 });
});

test('with Alt a ring is dragged as a whole, with Ctrl copies of what is picked; each is one step', async ({
  page,
}) => {
  const shot = await sixDrawn(page);
  await saved(page);
  const before = await runsOf(shot);
  const disc = await Disc.on(page);
  await page.keyboard.down('Alt');
  await disc.drag(0.5 / 6, 1 / 6, RING);
  await expect(page.getByTestId('beside-pen')).toHaveText('1 frame later');
  await page.mouse.up();
  await page.keyboard.up('Alt');
  await expect(page.getByRole('button', { name: /^Undo phase/ })).toBeVisible();
  await page.keyboard.press('Control+KeyZ');
  await disc.drag(0.5 / 6, 1.5 / 6, RING);
  await page.mouse.up();
  await expect(page.getByTestId('picked')).toHaveText('2 drawings picked, frames 1–4');
  await page.keyboard.down('Control');
  await disc.drag(1 / 6, 3.6 / 6, RING);
  await expect(page.getByTestId('beside-pen')).toHaveText('copies before frame 7');
  await page.mouse.up();
  await page.keyboard.up('Control');
  await expect(frameOf(page)).toHaveText('7 of 16');
  await saved(page);
  expect(await runsOf(shot)).toHaveLength(8);
  await page.keyboard.press('Control+KeyZ');
  await saved(page);
  expect(await runsOf(shot)).toEqual(before);
});
