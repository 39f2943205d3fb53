/** Playing against the clock: what is shown when, and when it ends. The clock and the painter are made up here. */
import { cycleOf, fixture } from '../../core/fixture.ts';
import { find } from '@tallow/core/document';
import { addMark, layerOn, setElement } from '@tallow/core/edit';
import { playback, setPlayback, stopPlaying } from '../playback/playback.ts';
import { goTo } from '../playback/playhead.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { edit, openDocument, undo, useDocument } from '../shot/document.ts';
import { beginAnew } from '../shot/opening.ts';
import { setShowing } from './showing.ts';
import { Player } from './player.ts';
import { useReady } from './ready.ts';

const made = fixture(31);
const { elementId, layerId, newId, stroke } = made;
/** ms of a frame at the shot's 24 a second. */
const FRAME = 1000 / 24;

let now = 0;
let asked: FrameRequestCallback[] = [];
/** Frames of the shot that were drawn, and those that were shown. */
let drawn: number[] = [];
let shown: number[] = [];
/** Which painter was asked for which frame. */
let lanes: (readonly [number, number])[] = [];
/** ms that drawing a frame takes, and the frames that were drawn softer. */
let takes = 0;
let soft: number[] = [];
/** Frames the painter has not finished. */
let late = new Set<number>();
let finish: (() => void)[] = [];

Object.assign(globalThis, {
  requestAnimationFrame: (tick: FrameRequestCallback) => asked.push(tick),
});
// A clock of this test's own: the one of Node.js is shared with the tests that run after it.
Object.defineProperty(globalThis, 'performance', { value: { now: () => now } });

const settle = async (): Promise<void> => {
  for (let i = 0; i < 60; i++) await Promise.resolve();
};
/** The screen is drawn once, so many ms later. */
async function pass(ms: number): Promise<void> {
  now += ms;
  const due = asked;
  asked = [];
  for (const tick of due) tick(now);
  await settle();
}

/** Lets it play on until something has come about; painters look again what to draw by a clock of their own. */
async function until(isSo: () => boolean): Promise<void> {
  while (!isSo()) {
    await pass(1);
    await new Promise((next) => setTimeout(next, 2));
  }
}

const pictureOf = (frame: number) => ({ frame, close: () => undefined }) as unknown as ImageBitmap;
const screen: ConstructorParameters<typeof Player>[0] = {
  show: (bitmap) => {
    shown.push((bitmap as unknown as { frame: number }).frame);
  },
  place: () => ({ width: 4, height: 4, view: [1, 0, 0, 1, 0, 0] }),
  mayDraw: () => true,
  draw: (lane, _width, _height, _view, shotFrame, _under, { moving }) => {
    (moving ? soft : drawn).push(shotFrame);
    lanes.push([lane, shotFrame]);
    now += takes;
    if (!late.has(shotFrame)) return Promise.resolve(pictureOf(shotFrame));
    return new Promise((done) => {
      finish.push(() => {
        done(pictureOf(shotFrame));
      });
    });
  },
};
let player: Player;

beforeEach(() => {
  beginAnew();
  setPlayback({ loops: true, speed: 1, pingPong: false, reached: null });
  setShowing({ assembling: false });
  [now, asked, drawn, soft, shown, finish, lanes] = [1000, [], [], [], [], [], []];
  takes = 0;
  late = new Set();
  // What frames took before is kept with it.
  player = new Player(screen);
  // Four drawings on 2s; an element that ends after eight frames.
  openDocument(
    setElement(
      cycleOf(made, 4, (i) => stroke(i * 20, 0, i * 20, 9)),
      elementId,
      { time: 'one-shot' },
    ),
    'Test',
    [],
  );
});
afterEach(() => {
  player.close();
});

const play = async (loops?: boolean): Promise<void> => {
  await Promise.race([player.play(loops), settle()]);
};

test('it keeps to the clock: each frame is shown when it is due, and the playhead goes with it', async () => {
  await play();
  expect(playback().playing).toBe(true);
  for (let i = 0; i < 5; i++) await pass(i === 0 ? 0 : FRAME + 0.01);
  expect(selection().frame).toBe(4);
  // Drawings on 2s are drawn once each.
  expect(drawn).toEqual([0, 2, 4, 6]);
  expect(shown.at(-1)).toBe(4);
});

test('on a slow screen frames are left out, and the beat is kept', async () => {
  await play();
  await pass(0);
  await pass(FRAME * 5 + 1);
  expect(selection().frame).toBe(5);
});

test('what comes in while it plays stops no frame from being drawn', async () => {
  late = new Set([2, 4, 6]);
  await play();
  await settle();
  // As at every drawing that is loaded.
  player.ahead.nudge();
  for (let i = 0; i < 4; i++) {
    finish.splice(0).forEach((done) => {
      done();
    });
    await settle();
    player.ahead.nudge();
  }
  expect(drawn.toSorted((p, q) => p - q)).toEqual([0, 2, 4, 6]);
});

test('round and round, the first follows the last', async () => {
  await play();
  await pass(0);
  await pass(FRAME * 9 + 1);
  expect(selection().frame).toBe(1);
  expect(playback().playing).toBe(true);
});

test('once from here, it ends on the last frame, however late the screen', async () => {
  setSelection({ frame: 6 });
  await play(false);
  await pass(0);
  await pass(FRAME * 30);
  expect(selection().frame).toBe(7);
  expect(playback().playing).toBe(false);
});

test('once from the very end begins again', async () => {
  setSelection({ frame: 7 });
  await play(false);
  await pass(0);
  expect(selection().frame).toBe(0);
});

test('a frame that is not drawn yet is not shown; when it comes, it is', async () => {
  late = new Set([2]);
  await play();
  await pass(0);
  await pass(FRAME * 2 + 1);
  expect(selection().frame).toBe(0);
  finish.forEach((done) => {
    done();
  });
  await settle();
  await pass(1);
  expect(selection().frame).toBe(2);
});

test('going to a frame stops it, and what was due is not shown any more', async () => {
  await play();
  await pass(0);
  goTo(5);
  expect(playback().playing).toBe(false);
  const before = shown.length;
  for (let i = 0; i < 4; i++) await pass(FRAME * 3);
  expect([selection().frame, shown.length]).toEqual([5, before]);
  expect(asked).toEqual([]);
});

test('half speed takes twice as long', async () => {
  setPlayback({ speed: 0.5 });
  await play();
  await pass(0);
  await pass(FRAME * 4 + 1);
  expect(selection().frame).toBe(2);
});

test('begun anew it plays once, not twice over', async () => {
  await play();
  stopPlaying();
  await play();
  await pass(0);
  expect(asked).toHaveLength(1);
});

test('an edit makes only those frames stale that show it; undo brings back what was drawn', async () => {
  await play();
  for (let i = 0; i < 8; i++) await pass(i === 0 ? 0 : FRAME + 0.01);
  stopPlaying();
  await settle();
  drawn = [];
  edit('stroke', (doc) => addMark(doc, layerId, 2, stroke(1, 1, 5, 5), newId));
  await play();
  for (let i = 0; i < 8; i++) await pass(FRAME + 0.01);
  expect(drawn).toEqual([2]);
  stopPlaying();
  undo();
  drawn = [];
  await play();
  for (let i = 0; i < 8; i++) await pass(FRAME + 0.01);
  expect(drawn).toEqual([]);
});

test('while something is moved in the assembled shot, frames that take long are drawn softer, and anew when it rests', async () => {
  setShowing({ assembling: true });
  takes = 500;
  await play();
  await settle();
  takes = 0;
  const change = (width: number) => {
    edit('stroke', (doc) => addMark(doc, layerId, 2, stroke(1, 1, width, 5), newId));
    player.noteEdit();
  };
  change(5);
  drawn = [];
  await pass(0);
  expect([soft, drawn]).toEqual([[2], []]);
  shown = [];
  for (let i = 0; i < 8; i++) await pass(FRAME);
  expect(shown).toContain(2);
  // Once is enough, until it is changed again.
  expect([soft, drawn]).toEqual([[2], []]);
  change(6);
  await until(() => soft.length === 2);
  expect([soft, drawn]).toEqual([[2, 2], []]);
  now += 2000;
  await until(() => drawn.length > 0);
  expect([soft, drawn]).toEqual([[2, 2], [2]]);
});

test('two frames in a row go to one painter, which has their drawings then, and the next two to the other', async () => {
  const { doc } = useDocument.getState();
  openDocument(layerOn(doc!, layerId, 0, 1).doc, 'Test', []);
  late = new Set([0, 1, 2, 3]);
  await play();
  expect(lanes).toEqual([
    [0, 0],
    [1, 2],
  ]);
  for (const done of finish.splice(0)) done();
  await settle();
  expect(lanes).toEqual([
    [0, 0],
    [1, 2],
    [0, 1],
    [1, 3],
  ]);
});

test('what is ready is told, frame by frame of the element', async () => {
  await play();
  for (let i = 0; i < 8; i++) await pass(200);
  expect(useReady.getState()).toEqual({ elementId, frames: [0, 1, 2, 3, 4, 5, 6, 7], shotFrames: [] });
});

test('frames whose drawings are not here yet are left for later', async () => {
  const { doc } = useDocument.getState();
  const [first] = Object.values(find(doc!, 'layer', layerId)!.slots);
  const entities = Object.fromEntries(Object.entries(doc!.entities).filter(([id]) => id !== first));
  openDocument({ ...doc!, entities }, 'Test', [first!]);
  setSelection({ frame: 4 });
  await play();
  await pass(FRAME);
  expect([...drawn].sort()).toEqual([2, 4, 6]);
});
