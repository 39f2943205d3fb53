/** Sound by pen and by keys: made, brought in, moved, trimmed, faded, heard in step with the picture, its hits used, undone. */
import { assembled, shotFrame } from './assembled.ts';
import { address, saved, stored } from './desk.ts';
import { expect, test, type Page } from './test.ts';
import { MADE_RATE, MADE_SOUNDS, wavOf } from '@tallow/core/sound';

interface StoredSound {
  readonly name: string;
  readonly seconds: number;
  readonly start: number;
  readonly part: { from: number; to: number };
  readonly fadeIn: number;
  readonly fadeOut: number;
  readonly heard: boolean;
}
const entities = async (shot: string) => (await stored(address(), shot)).entities;
const soundsOf = async (shot: string) =>
  (await entities(shot)).filter((each) => each['kind'] === 'sound') as unknown as StoredSound[];
const soundBars = (page: Page) => page.getByTestId('sound-bar');
const there = (page: Page, count: number) =>
  expect(page.locator('[data-testid=sound-bar][data-state=there]')).toHaveCount(count);

/** Goes to a frame, counted from 1. */
async function goTo(page: Page, frame: number): Promise<void> {
  await shotFrame(page).fill(String(frame));
  await shotFrame(page).press('Enter');
}

/** A burst made by code, laid from the shot's beginning on. */
async function madeBurst(page: Page): Promise<void> {
  await goTo(page, 1);
  await page.getByRole('button', { name: 'Sound', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Burst' }).click();
  await there(page, 1);
}

/** Drags from a share of a sound's bar, px along. */
async function dragBar(page: Page, share: number, by: number): Promise<void> {
  const box = (await soundBars(page).first().boundingBox())!;
  const [x, y] = [box.x + box.width * share, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + by, y, { steps: 6 });
  await page.mouse.up();
}

test('a sound is made, moved so that its hit is on the playhead, trimmed and faded by the pen, each one step back', async ({
  page,
}) => {
  const { shot } = await assembled(page, 96);
  await madeBurst(page);
  await saved(page);
  const [burst] = await soundsOf(shot);
  expect(burst).toMatchObject({ name: 'Burst', start: 0, seconds: MADE_SOUNDS.burst.seconds, heard: true });
  await expect(page.getByTestId('hits')).toContainText('hit');
  // The strongest hit alone.
  await page.getByTestId('sound-panel').getByLabel('Hits as faint as, typed').fill('5');
  await page.getByTestId('sound-panel').getByLabel('Hits as faint as, typed').press('Enter');
  await expect(page.getByTestId('hits')).toContainText('1 hit found');
  await goTo(page, 31);
  const lane = (await page.getByTestId('sound-lane').boundingBox())!;
  const perFrame = (lane.width - 118) / 96;
  await dragBar(page, 0.5, 28.4 * perFrame);
  await saved(page);
  // The hit, not the beginning, came to lie on the frame.
  const hit = MADE_SOUNDS.burst.hits[0]! * 24;
  expect(Math.abs((await soundsOf(shot))[0]!.start + hit - 30)).toBeLessThan(0.3);
  const box = (await soundBars(page).first().boundingBox())!;
  await dragBar(page, 1 - 2 / box.width, -20 * perFrame);
  await saved(page);
  const [trimmed] = await soundsOf(shot);
  expect(trimmed!.part.to).toBeLessThan(MADE_SOUNDS.burst.seconds - 0.5);
  const fade = (await page.getByTestId('fadeOut').boundingBox())!;
  await page.mouse.move(fade.x + fade.width / 2, fade.y + fade.height / 2);
  await page.mouse.down();
  await page.mouse.move(fade.x + fade.width / 2 - 12 * perFrame, fade.y + fade.height / 2, { steps: 5 });
  await page.mouse.up();
  await saved(page);
  expect((await soundsOf(shot))[0]!.fadeOut).toBeGreaterThan(0.3);
  await page.keyboard.press('Control+KeyZ');
  await page.keyboard.press('Control+KeyZ');
  await page.keyboard.press('Control+KeyZ');
  await saved(page);
  expect((await soundsOf(shot))[0]).toMatchObject({ start: 0, part: burst!.part, fadeOut: 0 });
});

test('by keys: moved, its hits gone to, the camera shaken there, phases begun there, silenced, taken away', async ({
  page,
}) => {
  const { shot } = await assembled(page, 96);
  await madeBurst(page);
  await soundBars(page).first().focus();
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowRight');
  await saved(page);
  expect((await soundsOf(shot))[0]!.start).toBe(4);
  await page.getByTestId('sound-panel').getByLabel('Hits as faint as, typed').fill('5');
  await page.getByTestId('sound-panel').getByLabel('Hits as faint as, typed').press('Enter');
  await expect(page.getByTestId('hits')).toContainText('1 hit found');
  await page.keyboard.press('Alt+Shift+KeyN');
  // The hit is 0.08 s after its beginning on the fifth frame.
  await expect(shotFrame(page)).toHaveValue(String(Math.floor(4 + 0.08 * 24 + 0.2) + 1));
  await page.getByRole('button', { name: 'Shake at this hit' }).click();
  await saved(page);
  const camera = (await entities(shot)).find((each) => each['kind'] === 'shot')!['camera'] as {
    shakes: { from: number }[];
  };
  expect(camera.shakes.map(({ from }) => from)).toEqual([Number(await shotFrame(page).inputValue()) - 1]);
  await page.getByRole('button', { name: 'Phases at the hits' }).click();
  await page.getByRole('menuitem').first().click();
  await saved(page);
  const element = (await entities(shot)).find((each) => each['kind'] === 'element')!;
  const phases = element['phases'] as { name: string; length: number }[];
  expect(phases.map(({ name }) => name)).toEqual(['Before', 'After']);
  expect(phases[0]!.length).toBe(camera.shakes[0]!.from);
  await page.getByRole('button', { name: 'Silence this sound' }).click();
  await saved(page);
  expect((await soundsOf(shot))[0]!.heard).toBe(false);
  await page.keyboard.press('Control+KeyZ');
  await page.keyboard.press('Alt+Shift+KeyU');
  await expect(page.getByTestId('sound-lane')).toContainText('Silent');
  await page.getByRole('button', { name: 'Take the sound away' }).click();
  await saved(page);
  expect(await soundsOf(shot)).toHaveLength(0);
  await expect(page.getByTestId('sound-lane')).toHaveCount(0);
});

/** What runs in the page before anything else: notes what is begun to be heard, and by which clock. */
function watchSound(): void {
  const heard: { when: number; offset: number; lasts: number }[] = [];
  const contexts: AudioContext[] = [];
  Object.assign(window, { heard, contexts });
  const begin = AudioBufferSourceNode.prototype.start;
  AudioBufferSourceNode.prototype.start = function (when = 0, offset = 0, lasts = 0) {
    heard.push({ when, offset, lasts });
    const context = this.context as AudioContext;
    if (!contexts.includes(context)) contexts.push(context);
    begin.call(this, when, offset, lasts);
  };
}

test('it is heard in step with the picture while it plays, and for a moment where the playhead goes', async ({
  page,
}) => {
  await page.addInitScript(watchSound);
  await assembled(page, 96);
  await madeBurst(page);
  await page.getByTestId('shot-ruler').click({ position: { x: 40, y: 8 } });
  const heard = () => page.evaluate(() => (window as unknown as { heard: unknown[] }).heard.length);
  await expect.poll(heard).toBeGreaterThan(0);
  await goTo(page, 1);
  // Every frame is drawn before it is measured.
  await expect(page.locator('[data-testid=shot-ruler] .bg-sound')).toHaveCount(96, { timeout: 60_000 });
  await page.evaluate(() => ((window as unknown as { heard: unknown[] }).heard.length = 0));
  await page.keyboard.press('Space');
  await expect.poll(heard).toBeGreaterThan(0);
  const far = await page.evaluate(async () => {
    const { heard: voices, contexts } = window as unknown as {
      heard: { when: number; offset: number }[];
      contexts: AudioContext[];
    };
    const [voice] = voices;
    const context = contexts.at(-1)!;
    const ruler = document.querySelector('[data-testid=shot-ruler]')!.getBoundingClientRect();
    const all: number[] = [];
    for (let i = 0; i < 120; i++) {
      const time = await new Promise<number>((next) => requestAnimationFrame(next));
      const { contextTime = 0, performanceTime = 0 } = context.getOutputTimestamp();
      const moment = contextTime + (time - performanceTime) / 1000;
      const head = document.querySelector('[data-testid=shot-playhead]')!.getBoundingClientRect();
      const frame = Math.round(((head.left - ruler.left) / ruler.width) * 96);
      const due = (moment - voice!.when + voice!.offset) * 24;
      if (due > 1 && due < 90) all.push(Math.abs(due - (frame + 0.5)));
    }
    return all.sort((a, b) => a - b)[Math.floor(all.length * 0.9)]!;
  });
  // Half a frame, and the screen's own frame that shows the playhead.
  expect(far).toBeLessThan(0.5 + (24 / 60) * 1.5);
  await page.keyboard.press('Space');
});

test('a file comes in by its content; one that is broken is told by name, and changes nothing', async ({ page }) => {
  const { shot } = await assembled(page, 48);
  await goTo(page, 1);
  await saved(page);
  const before = await entities(shot);
  const chooser = page.getByLabel('Sound file');
  await chooser.setInputFiles({
    name: 'door.mp3',
    mimeType: 'audio/mpeg',
    buffer: Buffer.from('not a sound '.repeat(50)),
  });
  await expect(page.getByText('door: This file is broken or no sound.')).toBeVisible();
  expect(await entities(shot)).toEqual(before);
  const wav = Buffer.from(wavOf(MADE_SOUNDS.roar.make(2), MADE_RATE));
  await chooser.setInputFiles({ name: 'furnace room.wav', mimeType: 'audio/wav', buffer: wav });
  await there(page, 1);
  await saved(page);
  expect((await soundsOf(shot))[0]).toMatchObject({ name: 'furnace room', seconds: 6 });
  await expect(page.getByTestId('sound-panel')).toContainText('96 frames past the end of the shot');
  // Another shot of the same sound: it is still there after the page has been opened anew.
  await page.reload();
  await there(page, 1);
});
