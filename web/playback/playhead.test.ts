import { newShotDocument, putEntities, randomId, shotOf, type Element, entitiesOf } from '@tallow/core/document';
import { addMark, newDrawing, setElement, setStart } from '@tallow/core/edit';
import { seededIds, discRing } from '@tallow/core/geometry';
import { exposures } from '@tallow/core/timing';
import { nextStep } from '../stage/next-step.ts';
import { current, shotFrameOf } from '../selection/current.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { setShowing, showing } from '../picture/showing.ts';
import { setToolState } from '../hand/tool-state.ts';
import { edit, openDocument } from '../shot/document.ts';
import { beginAnew } from '../shot/opening.ts';
import { ghostsOf, offeredPair, onionReach, ranges } from '../picture/onion.ts';
import { isLateInHold, penText } from '../pen/pen-target.ts';
import { flip, goTo, goToEnd, stepDrawing, stepPose, unflip, whyNotPose } from './playhead.ts';
import { beginShotTime, endShotTime, goToShotFrame, shotTime } from './shot-time.ts';
import { playback } from './playback.ts';
import { copySelected, deleteSelected, hold, paste, selectAll, shiftActive, whyNotPaste } from '../time/time-edits.ts';

const newId = seededIds(60);

/** A shot of 20 frames with a cycle of three drawings on 2s that begins on its third frame. */
function open(time: Element['time'] = 'cycle', count = 3): void {
  let doc = newShotDocument(
    newId(),
    { name: 'T', width: 640, height: 360, rate: 24, length: 20, background: null },
    newId,
  );
  const element = entitiesOf(doc, 'element')[0]!;
  const layer = element.layers[0]!;
  for (let i = 0; i < count; i++) {
    if (i > 0) doc = newDrawing(doc, layer, i * 2 - 1, newId).doc;
    const rings = [discRing(i * 30, 0, 20)];
    const swatch = shotOf(doc).swatches[1]!;
    doc = addMark(doc, layer, i * 2, { kind: 'shape', id: newId(), swatch, rings, rule: 'nonzero', opacity: 1 }, newId);
  }
  doc = setElement(doc, element.id, { time });
  const placement = entitiesOf(doc, 'placement')[0]!;
  beginAnew();
  setToolState({ newOnHeld: false, brushName: 'ink' });
  setSelection({ clip: null });
  openDocument(setStart(doc, placement.id, 2), 'Test', []);
}
const at = () => `${selection().frame}/${selection().turn}`;
const now = () => current()!;

beforeEach(() => {
  open();
});

describe('the playhead', () => {
  test('goes to the ends of this turn, and of the shot while it is on the shot', () => {
    goTo(3, 1);
    goToEnd(1);
    expect(at()).toBe('5/1');
    goToEnd(-1);
    expect(at()).toBe('0/1');
    beginShotTime();
    goToShotFrame(7);
    goToEnd(1);
    expect(shotTime().frame).toBe(19);
    goToEnd(-1);
    expect(shotTime().frame).toBe(0);
    endShotTime();
  });

  test('goes on from turn to turn, round to the first, and back', () => {
    expect([now().length, now().turns]).toEqual([6, 3]);
    goTo(5);
    goTo(6);
    expect(at()).toBe('0/1');
    expect(shotFrameOf(now(), selection().frame, selection().turn)).toBe(8);
    goTo(-1);
    expect(at()).toBe('5/0');
    goTo(-1, 0);
    expect(at()).toBe('5/2');
    goTo(6, 2);
    expect(at()).toBe('0/0');
  });
  test('steps by drawings, across the seam too', () => {
    goTo(1);
    stepDrawing(1);
    expect(at()).toBe('2/0');
    stepDrawing(-1);
    stepDrawing(-1);
    expect(at()).toBe('4/2');
    stepDrawing(1);
    expect(at()).toBe('0/0');
  });
  test('steps by keys and breakdowns only, round the seam too', () => {
    expect(whyNotPose()).toContain('No drawing of this layer');
    const { list } = now().active!;
    const [first, , third] = exposures(list).map(({ run }) => run.slot!);
    edit('keys', (doc) => putEntities(doc, { ...list, poses: { [first!]: 'key', [third!]: 'breakdown' } }));
    expect(whyNotPose()).toBeNull();
    goTo(1);
    stepPose(1);
    expect(at()).toBe('4/0');
    stepPose(1);
    expect(at()).toBe('0/1');
    stepPose(-1);
    expect(at()).toBe('4/0');
  });
  test('stops at the ends of what does not close', () => {
    open('one-shot');
    stepDrawing(-1);
    expect(at()).toBe('0/0');
    goTo(99);
    expect(at()).toBe('5/0');
    stepDrawing(1);
    expect(at()).toBe('5/0');
  });
  test('flipping shows the neighbour without ghosts and comes back to the very frame', () => {
    goTo(3);
    flip(-1);
    expect([at(), playback().flipping]).toEqual(['0/0', true]);
    flip(1);
    expect(at()).toBe('0/0');
    unflip();
    expect([at(), playback().flipping]).toEqual(['3/0', false]);
  });
});

describe('what the pen will touch', () => {
  test('is told with its frames, and whether it is held here', () => {
    expect(penText(now(), 2).text).toBe('pen draws on Line, drawing 2, frames 3–4');
    expect(penText(now(), 3).text).toBe('pen draws on Line, drawing 2, frames 3–4, held here');
    setToolState({ newOnHeld: true });
    expect(isLateInHold(now(), 3)).toBe(true);
    expect(isLateInHold(now(), 2)).toBe(false);
    expect(penText(now(), 3).text).toBe('pen begins a new drawing on Line, frame 4; drawing 2 ends before it');
    setToolState({ brushName: 'rub' });
    expect(isLateInHold(now(), 3)).toBe(false);
  });
});

describe('the onion skin', () => {
  test('steps through its ranges by one key, from any other to the first', () => {
    expect(ranges.next({ before: 1, after: 0 })).toEqual({ before: 1, after: 1 });
    expect(ranges.next({ before: 1, after: 1 })).toEqual({ before: 3, after: 3 });
    expect(ranges.next({ before: 3, after: 3 })).toEqual({ before: 1, after: 0 });
    expect(ranges.next({ before: 5, after: 2 })).toEqual({ before: 1, after: 0 });
  });
  test('lays the nearest on top, fainter the farther, pinned ones below, each drawing once', () => {
    const onion = { ...showing().onion, on: true, before: 2, after: 0 };
    const pinned = Object.values(now().active!.layer.slots)[0]!;
    setShowing({ onion, pinned: [pinned] });
    const ghosts = ghostsOf(now(), onionReach(now(), 4, onion));
    expect(ghosts).toHaveLength(2);
    expect(ghosts[0]!.strength).toBeLessThan(ghosts[1]!.strength);
    const alone = ghostsOf(now(), onionReach(now(), 4, { ...onion, before: 1 }));
    expect(alone.map((g) => g.drawingId)[0]).toBe(pinned);
  });
  test('stand where the thing was in the shot when told to, the one before on its own frame', () => {
    const onion = { ...showing().onion, on: true, before: 1, after: 1 };
    goTo(3);
    setShowing({ onion: { ...onion, rides: true }, pinned: [] });
    const stood = () => ghostsOf(now(), onionReach(now(), 3, onion)).map((ghost) => ghost.stood);
    expect(stood()).toEqual([null, null]);
    setShowing({ onion: { ...onion, rides: false } });
    // The element begins on the third frame of the shot.
    expect(stood().toSorted()).toEqual([2, 6]);
  });
  test('offers a pair that is none of the swatches in use', () => {
    expect(offeredPair(now()).before).toMatch(/^#/);
  });
});

describe('drawings in hand', () => {
  const lengths = () => now().active!.list.runs.map((run) => run.length);
  test('what is picked is held, copied and deleted together; else what shows', () => {
    hold(4);
    expect(lengths()).toEqual([4, 2, 2]);
    setSelection({ selectedRuns: { layerId: now().active!.layer.id, first: 1, count: 2 } });
    hold(1);
    expect(lengths()).toEqual([4, 1, 1]);
    copySelected();
    expect(selection().clip!.parts).toHaveLength(2);
    paste();
    expect(now().active!.list.runs).toHaveLength(5);
    selectAll();
    deleteSelected('close up');
    expect(now().active!.list.runs).toHaveLength(0);
  });
  test('what was copied elsewhere is not pasted here', () => {
    expect(whyNotPaste()).toBe('Nothing has been copied yet.');
    setSelection({ clip: { shotId: randomId(), parts: [] } });
    expect(whyNotPaste()).toMatch(/another shot/);
  });
  test('a whole layer is moved in time: round a cycle, after empty frames elsewhere', () => {
    shiftActive(1);
    expect(now().active!.list.offset).toBe(1);
    open('open');
    shiftActive(2);
    expect(now().active!.list.runs[0]).toMatchObject({ slot: null, length: 2 });
    shiftActive(-5);
    expect(now().active!.list.runs[0]!.slot).not.toBeNull();
  });
});

test('the first steps lead from an empty shot to a closed cycle, and end there', () => {
  const said = [0, 1, 3, 6].map((count) => {
    open('open', count);
    return nextStep(now())!;
  });
  expect(said[0]).toMatch(/^Draw here/);
  expect(said[1]).toMatch(/New drawing/);
  expect(said[2]).toMatch(/^3 drawings/);
  expect(said[3]).toMatch(/^Close it/);
  edit('close', (doc) => setElement(doc, now().element.id, { time: 'cycle' }));
  expect(nextStep(now())).toMatch(/^Closed/);
  open('cycle', 9);
  expect(nextStep(now())).toBeNull();
});

test('what the shot does not show any more is told before the pen lands', () => {
  open('one-shot', 12);
  goTo(17);
  expect(penText(now(), selection().frame)).toMatchObject({ trouble: false });
  goTo(19);
  expect(penText(now(), selection().frame)).toEqual({
    text: 'after the end of the shot: pen draws on Line, drawing 10, frames 19–20, held here',
    trouble: true,
  });
});
