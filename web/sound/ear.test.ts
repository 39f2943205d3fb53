/** Hearing the shot against a made-up sound card: what is begun when, and which clock the picture goes by. */
import { newShotDocument, type ShotDocument, type Sound } from '@tallow/core/document';
import { addSound, setSound } from '@tallow/core/edit';
import { seededIds } from '@tallow/core/geometry';
import { dueFrame } from '@tallow/core/timing';
import type { Played } from './clock.ts';

const newId = seededIds(9);
const RATE = 24;

/** A sound card whose clock runs at a pace of its own. */
class Card {
  static last: Card;
  state = 'running';
  currentTime = 100;
  baseLatency = 0;
  outputLatency = 0;
  destination = {};
  begun: { when: number; offset: number; lasts: number; speed: number; stopped: boolean }[] = [];
  constructor() {
    Card.last = this;
  }
  resume = () => Promise.resolve();
  getOutputTimestamp = () => ({});
  createGain = () => ({
    gain: {
      setValueAtTime: () => undefined,
      linearRampToValueAtTime: () => undefined,
      cancelScheduledValues: () => undefined,
      setTargetAtTime: () => undefined,
    },
    connect: (to: unknown) => to,
    disconnect: () => undefined,
  });
  createBufferSource = () => {
    const one = { when: 0, offset: 0, lasts: 0, speed: 1, stopped: false };
    return {
      buffer: null,
      playbackRate: {
        set value(speed: number) {
          one.speed = speed;
        },
      },
      onended: null,
      connect: (to: unknown) => to,
      start: (when: number, offset: number, lasts: number) => {
        Object.assign(one, { when, offset, lasts });
        this.begun.push(one);
      },
      stop: () => {
        one.stopped = true;
      },
    };
  };
}
Object.assign(globalThis, {
  AudioContext: Card,
  OfflineAudioContext: class {
    decodeAudioData = () => Promise.resolve({ length: 48_000 * 60, numberOfChannels: 1, sampleRate: 48_000 });
  },
  fetch: () => Promise.resolve({ ok: true, arrayBuffer: () => Promise.resolve(new ArrayBuffer(0)) }),
});
const { Ear } = await import('./ear.ts');

const shot = (...sounds: Partial<Sound>[]): ShotDocument =>
  sounds.reduce<ShotDocument>(
    (doc, settings, i) => {
      const added = addSound(doc, { name: `S${i}`, asset: `${i}`.repeat(64), seconds: 60 }, settings.start ?? 0, newId);
      return setSound(added.doc, added.soundId, settings);
    },
    newShotDocument(newId(), { name: 'T', width: 64, height: 36, rate: RATE, length: 96, background: null }, newId),
  );
const played = (doc: ShotDocument, settings: Partial<Played> = {}): Played => ({
  doc,
  frames: Array.from({ length: 96 }, (_, i) => i),
  from: 0,
  rate: RATE,
  speed: 1,
  loops: true,
  ...settings,
});

/** The page's clock, ms, and the card's with it at a pace of its own. */
let time = 0;
let pace = 1;
const pass = (ms: number): number => {
  time += ms;
  Card.last.currentTime += (ms / 1000) * pace;
  return time;
};
async function begun(what: Played): Promise<InstanceType<typeof Ear>> {
  const ear = new Ear();
  await ear.ready(what);
  for (let i = 0; i < 20; i++) await Promise.resolve();
  ear.begin(what, time);
  return ear;
}
beforeEach(() => {
  [time, pace] = [1000, 1];
});

test('without a sound the machine is the clock, and no card is asked for', async () => {
  const before = Card.last;
  const what = played(shot());
  const ear = await begun(what);
  expect(ear.elapsed(what, time + 500)).toBe(500);
  expect(Card.last).toBe(before);
});

test('a sound begins on its frame; played round, it begins again on the next turn', async () => {
  const what = played(shot({ start: 12 }), { frames: Array.from({ length: 48 }, (_, i) => i) });
  const ear = await begun(what);
  const zero = Card.last.currentTime + 0.03;
  for (let ms = 0; ms < 3000; ms += 16) ear.elapsed(what, pass(16));
  const { begun: voices } = Card.last;
  expect(voices.map(({ when }) => when - zero)).toEqual([expect.closeTo(0.5, 6), expect.closeTo(2.5, 6)]);
  expect(voices[0]).toMatchObject({ offset: 0, lasts: expect.closeTo(1.5, 6) });
});

test('the picture keeps within half a frame of what is heard for a minute, however fast the card runs', async () => {
  for (const each of [0.99, 1, 1.01]) {
    pace = each;
    const what = played(shot({ start: 0 }), { frames: Array.from({ length: 1500 }, (_, i) => i), loops: false });
    const ear = await begun(what);
    const zero = Card.last.currentTime + 0.03;
    for (let ms = 0; ms < 60_000; ms += 1000 / 60) {
      const shown = dueFrame(ear.elapsed(what, pass(1000 / 60)), RATE, 0, 1500);
      const heard = (Card.last.currentTime - zero) * RATE;
      if (heard > 0) expect(Math.abs(heard - (shown + 0.5))).toBeLessThanOrEqual(0.5 + 1e-6);
    }
    expect(Card.last.begun).toHaveLength(1);
  }
});

test('a sound that comes in while it plays is heard from where the picture is, without a jump', async () => {
  const silent = played(shot());
  const ear = new Ear();
  ear.begin(silent, time);
  time += 700;
  expect(ear.elapsed(silent, time)).toBe(700);
  const loud = played(shot({ start: 0 }));
  await ear.ready(loud);
  for (let i = 0; i < 20; i++) await Promise.resolve();
  const steps: number[] = [];
  for (let i = 0; i < 30; i++) steps.push(ear.elapsed(loud, pass(16)));
  steps.slice(1).forEach((ms, i) => expect(ms - steps[i]!).toBeCloseTo(16, 3));
  const [voice] = Card.last.begun;
  // What is heard then is what lies under the picture then.
  expect(voice!.offset * 1000 - 700).toBeCloseTo((voice!.when - 100) * 1000, 3);
});

test('silenced, or with a card that stands still, playing goes on by the machine without a jump', async () => {
  const what = played(shot({ start: 0 }));
  const ear = await begun(what);
  for (let i = 0; i < 30; i++) ear.elapsed(what, pass(16));
  const before = ear.elapsed(what, pass(16));
  ear.mute(true);
  expect(ear.elapsed(what, pass(16)) - before).toBeCloseTo(16, 3);
  expect(Card.last.begun.every(({ stopped }) => stopped)).toBe(true);
  ear.mute(false);
  for (let i = 0; i < 10; i++) ear.elapsed(what, pass(16));
  pace = 0;
  const stood = ear.elapsed(what, pass(16));
  for (let i = 0; i < 60; i++) ear.elapsed(what, pass(16));
  expect(ear.elapsed(what, pass(16))).toBeGreaterThan(stood + 300);
});

test('at half speed it sounds for twice as long; an edit of a sound begins it anew where it is now', async () => {
  const doc = shot({ start: 0 });
  const slow = played(doc, { speed: 0.5 });
  const ear = await begun(slow);
  ear.elapsed(slow, pass(16));
  expect(Card.last.begun[0]).toMatchObject({ speed: 0.5, offset: 0 });
  for (let i = 0; i < 60; i++) ear.elapsed(slow, pass(16));
  expect(Card.last.begun).toHaveLength(1);
  const moved = { ...slow, doc: shot({ start: 6 }) };
  ear.elapsed(moved, pass(16));
  const [old, anew] = Card.last.begun;
  expect(old!.stopped).toBe(true);
  expect(anew!.offset).toBeGreaterThan(0);
  ear.end();
  expect(Card.last.begun.every(({ stopped }) => stopped)).toBe(true);
});
