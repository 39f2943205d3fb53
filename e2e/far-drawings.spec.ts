/** A shot larger than what the page has at hand: far drawings lie aside, and nobody notices. */
import {
  address,
  makeShot,
  openDesk,
  painted,
  Pen,
  pixels,
  saved,
  storedDrawings,
  storedMarks,
  strokesOf,
} from './desk.ts';
import { makeRough } from './rough.ts';
import { expect, test, type Page } from './test.ts';

const COUNT = 40;

/** Runs in the page before anything else: a machine with little memory, where it is counted what is put aside and waited for. */
function onSmallMachine(): void {
  Object.defineProperty(navigator, 'deviceMemory', { value: 0.25 });
  const counted = { aside: 0, waits: 0 };
  Object.assign(window, { counted });
  window.Blob = class extends Blob {
    constructor(...given: ConstructorParameters<typeof Blob>) {
      super(...given);
      counted.aside += 1;
    }
  };
  const { open } = XMLHttpRequest.prototype;
  XMLHttpRequest.prototype.open = function (this: XMLHttpRequest, ...given: unknown[]) {
    if (given[2] === false) counted.waits += 1;
    Reflect.apply(open, this, given);
  };
}

const counted = (page: Page): Promise<{ aside: number; waits: number }> =>
  page.evaluate(() => (window as unknown as { counted: { aside: number; waits: number } }).counted);

/** The pictures of some frames, gone to from the first one by one. */
async function pictures(page: Page, frames: number): Promise<string[]> {
  const found: string[] = [];
  await page.keyboard.press('Home');
  for (let i = 0; i < frames; i++) {
    await painted(page);
    found.push(await pixels(page));
    await page.keyboard.press('KeyD');
  }
  return found;
}

test('a shot larger than the memory for it looks, is drawn on, undone and copied as any other', async ({
  page,
  desk,
}) => {
  const shot = await makeShot(address(), { length: 2 * COUNT });
  // 80 kB each: more than twice what a machine of a quarter GB has at hand.
  await makeRough(shot, COUNT, 4000);
  await openDesk(page, address(), shot);
  const all = await pictures(page, COUNT);
  expect(new Set(all).size).toBe(COUNT);
  await page.goto('about:blank');

  const small = await desk.newPage();
  await small.addInitScript(onSmallMachine);
  await openDesk(small, address(), shot);
  await expect.poll(async () => (await counted(small)).aside).toBeGreaterThan(COUNT / 3);
  expect(await pictures(small, COUNT)).toEqual(all);

  // The last drawing is one that was put aside first.
  await small.keyboard.press('End');
  await painted(small);
  const before = await pixels(small);
  const pen = await Pen.on(small);
  await pen.stroke({ x: 0.3, y: 0.3 }, { x: 0.6, y: 0.4 });
  await painted(small);
  expect(await pixels(small)).not.toBe(before);
  await saved(small);
  expect(await storedMarks(address(), shot)).toEqual([...Array<number>(COUNT - 1).fill(1), 2]);
  await small.keyboard.press('Control+KeyZ');
  await painted(small);
  expect(await pixels(small)).toBe(before);

  // All drawings are needed for a copy of the layer.
  await small.getByTestId('layer-more').click();
  await small.getByRole('menuitem', { name: 'Copies' }).click();
  await small.getByRole('menuitem', { name: 'Duplicate this layer' }).click();
  await expect.poll(async () => (await storedDrawings(address(), shot)).length).toBe(2 * COUNT);
  const waves = (await strokesOf(address(), shot)).map(({ samples }) => samples.y.join());
  expect([waves.length, new Set(waves).size]).toEqual([2 * COUNT, COUNT]);
  expect((await counted(small)).waits).toBe(0);
  await small.close();
});
