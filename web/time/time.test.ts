import { find } from '@tallow/core/document';
import { setElement, slotsOf, addLayer, lineOver } from '@tallow/core/edit';
import { drawingsInOrder, slotNumbers } from '@tallow/core/timing';
import { cycleOf, fixture } from '../../core/fixture.ts';
import { sheetSpan, typed, useSheet, pickFrames, moveSheet, followPlayhead } from '../wheel/sheet-hand.ts';
import { cellAt, computedSlots } from '@tallow/core/edit';
import { current, shownNow } from '../selection/current.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { toolState, setToolState } from '../hand/tool-state.ts';
import { onScreen, setScreen } from '../screen/screen.ts';
import { edit, openDocument, undo, useDocument } from '../shot/document.ts';
import { beginAnew } from '../shot/opening.ts';
import { formOf } from './forms.ts';
import { goOnward, strokeDone } from './going-on.ts';
import { togglePanel } from '../screen/panels.ts';
import { nextPieceName, piecesOf, pieceTicks } from '@tallow/core/between';
import { goTo } from '../playback/playhead.ts';
import { change, copyTo, layersToEdit, readHolds, stretchToEdit } from './stretch-edits.ts';
import { keepThisVariant, show, scopeOf } from './variants.ts';
import { variantsOf } from '@tallow/core/edit';
import { reversedRuns } from '@tallow/core/timing';
import { act } from '../actions/action.ts';
import { TIME_ACTIONS } from './actions.ts';

const made = fixture(44);
const { layerId, elementId, stroke } = made;

function open(drawings = 4, time: 'cycle' | 'one-shot' = 'cycle'): void {
  const doc = cycleOf(made, drawings, (i) => ({ ...stroke(i * 10, 0, i * 10 + 5, 9), piece: i < 2 ? 'lick' : 'drop' }));
  beginAnew();
  setSelection({ clip: null });
  useSheet.setState({ anchor: null, span: null, entry: null, trouble: null });
  openDocument(setElement(doc, elementId, { time }), 'Test', []);
}
const now = () => current()!;
const list = () => now().active!.list;
const holds = () =>
  list()
    .runs.map((run) => (run.slot ? run.length : -run.length))
    .join(' ');
const numbers = () =>
  list()
    .runs.map((run) => (run.slot ? slotNumbers(list()).get(run.slot) : 0))
    .join(' ');
const whyNot = (name: keyof typeof TIME_ACTIONS) => TIME_ACTIONS[name].whyNot?.() ?? null;
const inOrder = () => drawingsInOrder(now().doc, now().active, now().length);
const notice = () => useDocument.getState().notice?.text;
const press = (key: string, more: Partial<KeyboardEvent> = {}) =>
  typed(now(), { key, ctrlKey: false, altKey: false, metaKey: false, shiftKey: false, ...more } as never);

beforeEach(() => {
  open();
});

describe('what is picked in time', () => {
  test('is turned round, swapped, split, made longer with and without pushing, each one step', () => {
    setSelection({ selectedRuns: { layerId, first: 1, count: 3 } });
    act(TIME_ACTIONS.reverse);
    expect(numbers()).toBe('1 4 3 2');
    undo();
    goTo(0);
    act(TIME_ACTIONS.swap);
    expect(numbers()).toBe('2 1 3 4');
    undo();
    goTo(1);
    act(TIME_ACTIONS.split);
    expect(holds()).toBe('1 1 2 2 2');
    act(TIME_ACTIONS.own);
    expect(numbers()).toBe('1 5 2 3 4');
    undo();
    undo();
    goTo(0);
    act(TIME_ACTIONS.longer);
    expect(holds()).toBe('3 2 2 2');
    act(TIME_ACTIONS.rollOn);
    expect(holds()).toBe('4 1 2 2');
    act(TIME_ACTIONS.rollOn);
    expect(holds()).toBe('4 1 2 2');
    act(TIME_ACTIONS.shorter);
    expect(holds()).toBe('3 1 2 2');
  });

  test('each keeps its own length more or less one', () => {
    setSelection({ selectedRuns: { layerId, first: 0, count: 2 } });
    act(TIME_ACTIONS.longer);
    setSelection({ selectedRuns: { layerId, first: 1, count: 2 } });
    act(TIME_ACTIONS.longer);
    expect(holds()).toBe('3 4 3 2');
    expect(selection().selectedRuns).toMatchObject({ first: 1, count: 2 });
  });

  test('is copied before any other', () => {
    copyTo({ first: 0, count: 2 }, 3);
    expect(numbers()).toBe('1 2 3 4 5 6');
    expect(holds()).toBe('2 2 2 2 2 2');
    expect(inOrder()).toHaveLength(6);
  });

  test('can be on all unlocked layers together', () => {
    edit('layer', (doc) => addLayer(doc, elementId, 'Fill', 'body', layerId, made.newId).doc);
    setSelection({ together: true, layerId });
    expect(layersToEdit()).toHaveLength(2);
    expect(stretchToEdit(true)).toMatchObject({ from: 0, length: 8 });
    change('turn round', reversedRuns, true);
    expect(numbers()).toBe('4 3 2 1');
  });

  test('says why it cannot be', () => {
    expect(whyNot('own')).toBe('Nothing else shows this drawing.');
    expect(whyNot('nextBare')).toBe('Every slot of this layer is drawn.');
    expect(whyNot('range')).toMatch(/^Nothing is picked/);
    expect(whyNot('nextVariant')).toMatch(/^There is no other variant/);
    edit('still', (doc) => ({ ...doc, entities: { ...doc.entities, [list().id]: { ...list(), period: 1 } } }));
    act(TIME_ACTIONS.reverse);
    expect(notice()).toMatch(/is still/);
  });

  test.each([
    ['1,1,2', [1, 1, 2]],
    ['3 2 1', [3, 2, 1]],
    ['', null],
    ['1,x', null],
    ['0', null],
    ['1.5', null],
  ])('reads holds from %p', (text, wanted) => {
    expect(readHolds(text, 24)).toEqual(wanted);
  });
});

describe('straight ahead', () => {
  test('goes on to the next drawing, and makes one past the last, but not on a cycle', () => {
    goTo(6);
    goOnward();
    expect([selection().frame, now().length]).toEqual([0, 8]);
    open(4, 'one-shot');
    goTo(6);
    goOnward();
    expect([selection().frame, now().length]).toEqual([8, 10]);
  });
  test('what grows begins each new drawing with what is there', () => {
    open(4, 'one-shot');
    goTo(6);
    setToolState({ grows: true });
    goOnward();
    setToolState({ grows: false });
    const marks = () => find(now().doc, 'drawing', shownNow(now(), selection().frame)!.drawingId)!.order.length;
    expect([selection().frame, marks()]).toEqual([8, 1]);
    goOnward();
    expect([selection().frame, marks()]).toEqual([10, 0]);
  });
  test('only after a stroke when it is wanted', () => {
    strokeDone();
    expect(selection().frame).toBe(0);
    setToolState({ goesOn: true });
    strokeDone();
    expect(selection().frame).toBe(2);
  });
});

describe('the sheet', () => {
  test('keys type, take back, write and step', () => {
    moveSheet({ layerId, from: 2, length: 1 });
    goTo(2);
    expect([press('4'), press('4'), press('Backspace'), press('Enter')]).toEqual([true, true, true, true]);
    expect(numbers()).toBe('1 4 3 4');
    expect(useSheet.getState().span).toMatchObject({ from: 4 });
    expect(press('z')).toBe(false);
    expect(press('4', { ctrlKey: true })).toBe(false);
    press('9');
    press('Escape');
    expect(useSheet.getState().entry).toBeNull();
    press('-');
    press('-');
    press('Enter');
    expect(useSheet.getState().trouble).toMatch(/is no drawing/);
  });
  test('picks frames that the wheel has picked too, and the other way round', () => {
    pickFrames(now(), { layerId, frame: 3 }, { layerId, frame: 3 });
    pickFrames(now(), null, { layerId, frame: 5 });
    expect(selection().selectedRuns).toMatchObject({ layerId, first: 1, count: 2 });
    expect(sheetSpan(now(), useSheet.getState().span)).toMatchObject({ from: 3, length: 3 });
    setSelection({ selectedRuns: { layerId, first: 0, count: 2 } });
    expect(sheetSpan(now(), useSheet.getState().span)).toMatchObject({ from: 0, length: 4 });
  });
  test('the place to type goes with the playhead', () => {
    moveSheet({ layerId, from: 2, length: 1 });
    followPlayhead(2, 8);
    expect(useSheet.getState().span).not.toBeNull();
    followPlayhead(5, 8);
    expect(useSheet.getState().span).toBeNull();
    moveSheet({ layerId, from: 12, length: 1 });
    followPlayhead(5, 8);
    expect(useSheet.getState().span).not.toBeNull();
  });
  test('a cell says what stands there', () => {
    const none = computedSlots([], new Set());
    const cell = (frame: number) => cellAt(now().active!, frame, now().length, none);
    expect(cell(2)).toMatchObject({ number: 2, bare: false, run: 1, last: false });
    expect(cell(3)).toMatchObject({ number: null, run: 1, last: true });
    expect(cell(8)).toMatchObject({ run: null });
    edit('layer', (doc) => lineOver(doc, layerId, 'Over', 'line', made.newId).doc);
    setSelection({ layerId: now().layers[0]!.layer.id });
    expect(cell(2)).toMatchObject({ number: 2, bare: true, planned: null });
    expect(slotsOf(now().doc, layerId, now().layers[0]!.layer.id, made.newId)).not.toBe(now().doc);
  });
});

test('variants are kept, shown and stepped through', () => {
  expect(scopeOf(false)).toEqual([layerId]);
  keepThisVariant(true);
  change('turn round', reversedRuns, true);
  const [a] = variantsOf(now().doc, elementId);
  show(a!);
  expect(numbers()).toBe('1 2 3 4');
  act(TIME_ACTIONS.nextVariant);
  expect(numbers()).toBe('4 3 2 1');
});

test('pieces are told by name, with where they are and how large', () => {
  expect(piecesOf(inOrder())).toEqual([
    { name: 'drop', drawings: 2 },
    { name: 'lick', drawings: 2 },
  ]);
  expect(pieceTicks(inOrder(), 'drop').map(({ frame }) => frame)).toEqual([4, 6]);
  expect(nextPieceName(inOrder())).toBe('piece 1');
  setScreen({ panel: 'piece' });
  setSelection({ piece: 'drop' });
  setToolState({ goesOn: true });
  togglePanel('piece');
  expect([selection().piece, toolState().goesOn, onScreen().panel]).toEqual([null, false, null]);
});

test('time is seen in three ways, one after another; the choice stays with the element', () => {
  expect(formOf(now())).toBe('disc');
  act(TIME_ACTIONS.form);
  act(TIME_ACTIONS.form);
  expect(find(now().doc, 'element', elementId)!.form).toBe('sheet');
  act(TIME_ACTIONS.form);
  expect(formOf(now())).toBe('disc');
});
