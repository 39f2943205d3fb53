/** What the pen drags on the wheel: every drag is one step, and backing out leaves all as it was. */
import { find, type Id } from '@tallow/core/document';
import { addLayer, setElement } from '@tallow/core/edit';
import { cycleOf, fixture, runsOf } from '../../core/fixture.ts';
import { setShowing, showing } from '../picture/showing.ts';
import { current } from '../selection/current.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { onScreen } from '../screen/screen.ts';
import { openDocument, undo, useDocument } from '../shot/document.ts';
import { beginAnew } from '../shot/opening.ts';
import { beginDrag, type Drag } from './drags.ts';
import type { WheelSpot, Zone } from './form.ts';

const made = fixture(21);
const { layerId, elementId, stroke } = made;
const at = (time: number, angle = 0): WheelSpot => ({ time, angle, x: time * 10, y: 0 });
const RING: Zone = { kind: 'ring', layerId, pxPerFrame: 20 };
const NONE = { alt: false, ctrl: false };
const doc = () => useDocument.getState().doc!;
const steps = () => useDocument.getState().done.map(({ name }) => name);
const holds = () => runsOf(doc(), layerId).map(({ length }) => length);
/** Numbers of the drawings in the order they lie in. */
const order = (first: readonly Id[]) => runsOf(doc(), layerId).map(({ slot }) => first.indexOf(slot!) + 1);
const begin = (zone: Zone, time: number, keys = NONE, angle = 0): Drag =>
  beginDrag(current()!, zone, at(time, angle), keys)!;

let slots: Id[] = [];
beforeEach(() => {
  beginAnew();
  // Four drawings on 2s, a cycle of eight frames.
  openDocument(
    cycleOf(made, 4, (i) => stroke(i, 0, i, 9)),
    'Test',
    [],
  );
  slots = runsOf(doc(), layerId).map(({ slot }) => slot!);
});

test('scrubbing goes where the pen is, over the seam into the next turn, and back when it is backed out of', () => {
  setSelection({ frame: 3 });
  const drag = begin({ kind: 'scrub' }, 6.4);
  expect(selection()).toMatchObject({ frame: 6, turn: 0 });
  drag.move(at(7.9));
  drag.move(at(0.2));
  expect(selection()).toMatchObject({ frame: 0, turn: 1 });
  drag.back();
  expect(selection()).toMatchObject({ frame: 3, turn: 0 });
  expect(steps()).toEqual([]);
});

test('a drag over drawings picks them, across the seam too; a tap picks one, and again lets go of it', () => {
  const drag = begin(RING, 5);
  expect(drag.move(at(7.5))).toBe('2 picked');
  expect(drag.move(at(0.5))).toBe('3 picked');
  expect(selection().selectedRuns).toEqual({ layerId, first: 2, count: 3 });
  drag.back();
  expect(selection().selectedRuns).toBeNull();
  begin(RING, 5).up(false);
  expect(selection()).toMatchObject({ selectedRuns: { first: 2, count: 1 }, frame: 4 });
});

test('what is picked is moved between others: one step, taken back whole', () => {
  setSelection({ selectedRuns: { layerId, first: 0, count: 1 } });
  const drag = begin(RING, 1);
  drag.move(at(3));
  expect(drag.move(at(5))).toBe('frames 5–6');
  expect(order(slots)).toEqual([2, 3, 1, 4]);
  drag.up(true);
  expect(steps()).toHaveLength(1);
  undo();
  expect(order(slots)).toEqual([1, 2, 3, 4]);
});

test('backing out of a move leaves nothing of it', () => {
  setSelection({ selectedRuns: { layerId, first: 0, count: 1 }, frame: 1 });
  const drag = begin(RING, 1);
  drag.move(at(5));
  drag.back();
  expect([order(slots), steps(), selection().frame]).toEqual([[1, 2, 3, 4], [], 1]);
  expect(selection().selectedRuns).toEqual({ layerId, first: 0, count: 1 });
});

test('with Ctrl copies are put where the pen lifts', () => {
  setSelection({ selectedRuns: { layerId, first: 0, count: 1 } });
  const drag = begin(RING, 1, { alt: false, ctrl: true });
  expect(drag.move(at(5))).toBe('copies before frame 5');
  expect(steps()).toEqual([]);
  drag.up(true);
  expect(runsOf(doc(), layerId)).toHaveLength(5);
  expect(order(slots).filter((n) => n > 0)).toEqual([1, 2, 3, 4]);
});

test('the end of what is picked stretches it, never under a frame for each', () => {
  setSelection({ selectedRuns: { layerId, first: 1, count: 1 } });
  const drag = begin(RING, 3.9);
  expect(drag.move(at(5.9))).toBe('frames 3–6, 4 f');
  expect(holds()).toEqual([2, 4, 2, 2]);
  expect(drag.move(at(2))).toBe('frame 3, 1 f');
  expect(holds()[1]).toBe(1);
  drag.up(true);
  undo();
  expect(holds()).toEqual([2, 2, 2, 2]);
});

test('its start takes from the one before', () => {
  setSelection({ selectedRuns: { layerId, first: 1, count: 1 } });
  const drag = begin(RING, 2.1);
  expect(drag.move(at(1.1))).toBe('from frame 2');
  expect(holds()).toEqual([1, 3, 2, 2]);
  drag.back();
  expect(holds()).toEqual([2, 2, 2, 2]);
});

test('with Alt the whole ring is shifted in time, and says by how much', () => {
  const drag = begin(RING, 1, { alt: true, ctrl: false });
  expect(drag.move(at(2.6))).toBe('2 frames later');
  expect(drag.move(at(1.1))).toBe('as it was');
  drag.move(at(0));
  drag.up(true);
  expect(steps()).toEqual(['phase']);
  expect(find(doc(), 'runlist', find(doc(), 'layer', layerId)!.runListId)!.offset).not.toBe(0);
});

test('a locked layer is not shifted, and it is said why', () => {
  const layer = find(doc(), 'layer', layerId)!;
  openDocument({ ...doc(), entities: { ...doc().entities, [layerId]: { ...layer, locked: true } } }, 'Test', []);
  expect(beginDrag(current()!, RING, at(1), { alt: true, ctrl: false })).toBeNull();
  expect(useDocument.getState().notice?.text).toMatch(/is locked/);
});

test('a press on another ring makes its layer the active one', () => {
  const added = addLayer(doc(), elementId, 'Other', 'line', null, made.newId);
  openDocument(added.doc, 'Test', []);
  setSelection({ layerId });
  expect(beginDrag(current()!, { ...RING, layerId: added.layerId }, at(1), NONE)).toBeNull();
  expect(selection().layerId).toBe(added.layerId);
});

test('the reach of the onion skin is counted in drawings', () => {
  setShowing({ onion: { ...showing().onion, before: 1, after: 1 } });
  setSelection({ frame: 0 });
  const drag = begin({ kind: 'reach', side: 'after' }, 1);
  expect(drag.move(at(5))).toBe('2 after');
  expect(drag.move(at(0.5))).toBe('0 after');
  drag.back();
  expect(showing().onion).toMatchObject({ before: 1, after: 1 });
});

test('the disc of a cycle turns, and a tap turns it back; what ends does not turn', () => {
  const drag = begin({ kind: 'turn' }, 0, NONE, 0.2);
  drag.move(at(0, 1.2));
  expect(onScreen().wheelTurn).toBeCloseTo(1);
  begin({ kind: 'turn' }, 0).up(false);
  expect(onScreen().wheelTurn).toBe(0);
  openDocument(setElement(doc(), elementId, { time: 'one-shot' }), 'Test', []);
  expect(beginDrag(current()!, { kind: 'turn' }, at(0), NONE)).toBeNull();
});
