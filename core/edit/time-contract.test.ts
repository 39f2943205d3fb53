/** What every edit of time promises: it is pure, undo brings back the very same, and keys and phases keep to their drawings. */
import {
  AT_HOME,
  applyStep,
  constant,
  find,
  keysIn,
  putEntities,
  reversed,
  touchedBetween,
  valueAt,
  type AppliedLook,
  type Id,
  type ShotDocument,
  type Value,
} from '../document/index.ts';
import { cycleOf, fixture, layerOf, fixtureList } from '../fixture.ts';
import { timedPhases } from '../plan/index.ts';
import { elementLength, exposureAt, repeatedRuns, runStart } from '../timing/index.ts';
import {
  breakHold,
  changeStretch,
  copyDrawing,
  cutCycle,
  deleteRuns,
  holdFor,
  insertBlank,
  layBoil,
  layerOn,
  moveToNewDrawing,
  makeOwn,
  moveSelectedRuns,
  newDrawing,
  newDrawingBefore,
  prepareSlots,
  readEntry,
  resizeTime,
  rollEnd,
  rollStart,
  setElement,
  shiftPhase,
  splitHere,
  startAt,
  stretchSelectedRuns,
  swapRuns,
  turnRound,
  typeInto,
} from './index.ts';

const made = fixture(9);
const { elementId, layerId, newId, stroke } = made;
const COUNT = 6;
const keyed = (start: number): Value => ({
  keys: Array.from({ length: COUNT }, (_, i) => ({ frame: i * 2, value: start + i, ease: 'hold' as const })),
});
const look = (id: Id): AppliedLook => ({
  id,
  kind: 'blur',
  on: true,
  numbers: { radius: keyed(1), angle: constant(0) },
  choices: { along: 'even' },
  swatch: null,
  seed: 1,
});

/** Six drawings on 2s; every value of the layer, the element and its folder has a key on each; a phase begins on every other. */
function world(time: 'cycle' | 'one-shot'): ShotDocument {
  const doc = setElement(
    cycleOf(made, COUNT, (i) => stroke(i, 0, i, 9)),
    elementId,
    { time },
  );
  const layer = layerOf(doc, layerId);
  const element = find(doc, 'element', elementId)!;
  const share = { keys: keysIn(keyed(0)).map((key) => ({ ...key, value: key.value / 10 })) };
  const phases = [0, 1, 2].map((i) => ({ id: newId(), name: `Phase ${i}`, length: 4, hold: 2 }));
  const folder = {
    kind: 'folder' as const,
    shift: AT_HOME,
    finishes: [],
    id: newId(),
    elementId,
    name: 'Folder',
    visible: true,
    locked: false,
    opacity: share,
    layers: [layerId],
  };
  return putEntities(
    doc,
    { ...layer, opacity: share, shift: { ...layer.shift, x: keyed(0), angle: keyed(0) }, finishes: [look(newId())] },
    { ...element, layers: [folder.id], light: keyed(0), finishes: [look(newId())], phases },
    folder,
  );
}

/** All values of a document with how much their first key counts. */
function valuesIn(doc: ShotDocument): [string, Value, number, number][] {
  const layer = layerOf(doc, layerId);
  const element = find(doc, 'element', elementId)!;
  const folder = find(doc, 'folder', element.layers[0])!;
  return [
    ['opacity', layer.opacity, 0, 0.1],
    ['x', layer.shift.x, 0, 1],
    ['angle', layer.shift.angle, 0, 1],
    ['look of the layer', layer.finishes[0]!.numbers['radius']!, 1, 1],
    ['light', element.light, 0, 1],
    ['look of the element', element.finishes[0]!.numbers['radius']!, 1, 1],
    ['opacity of the folder', folder.opacity, 0, 0.1],
  ];
}

const numberOf = (doc: ShotDocument, slots: readonly (Id | null)[], frame: number): number => {
  const turn = elementLength(doc, find(doc, 'element', elementId)!);
  return slots.indexOf(exposureAt(fixtureList(doc, layerId), frame, turn)?.run.slot ?? 'nothing');
};

type TimeEdit = (doc: ShotDocument) => ShotDocument;
const selected = { first: 1, count: 2 };
const stretch = { layerIds: [layerId], from: 4, length: 4 };
const EDITS: Readonly<Record<string, TimeEdit>> = {
  'new drawing': (doc) => newDrawing(doc, layerId, 5, newId).doc,
  'new drawing before': (doc) => newDrawingBefore(doc, layerId, 2, newId).doc,
  'copy of a drawing': (doc) => copyDrawing(doc, layerId, 2, newId).doc,
  blank: (doc) => insertBlank(doc, layerId, 0, newId).doc,
  'hold longer': (doc) => holdFor(doc, layerId, 2, 5).doc,
  'hold shorter': (doc) => holdFor(doc, layerId, 4, 1).doc,
  'on 1s': (doc) => layerOn(doc, layerId, 0, 1).doc,
  'on 3s': (doc) => layerOn(doc, layerId, 0, 3).doc,
  'some on 4s': (doc) => layerOn(doc, layerId, 0, 4, selected).doc,
  move: (doc) => moveSelectedRuns(doc, layerId, selected, 5).doc,
  stretched: (doc) => stretchSelectedRuns(doc, layerId, selected, 9).doc,
  'begin later': (doc) => rollStart(doc, layerId, 3, 1).doc,
  'first begins later': (doc) => rollStart(doc, layerId, 0, 1).doc,
  'end later': (doc) => rollEnd(doc, layerId, 2, 1).doc,
  'hold broken': (doc) => breakHold(doc, layerId, 3, newId).doc,
  'strokes lifted': (doc) => moveToNewDrawing(doc, layerId, 2, 1, newId).doc,
  deleted: (doc) => deleteRuns(doc, layerId, [1], 'close up').doc,
  'deleted, held on': (doc) => deleteRuns(doc, layerId, [2], 'hold before').doc,
  'stretch repeated': (doc) => changeStretch(doc, stretch, (runs) => repeatedRuns(runs, 2, newId), newId).doc,
  'cut here': (doc) => splitHere(doc, layerId, 3, newId).doc,
  swapped: (doc) => swapRuns(doc, layerId, 1, 4).doc,
  'made its own': (doc) => makeOwn(doc, layerId, 2, newId).doc,
  typed: (doc) => typeInto(doc, layerId, 4, 2, readEntry('1')!, newId).doc,
  boil: (doc) => layBoil(doc, layerId, 4, [{ marks: {}, order: [] }], 1, newId).doc,
  'slots prepared': (doc) => prepareSlots(doc, layerId, 4, 2, newId),
  'later against the others': (doc) => shiftPhase(doc, layerId, 3, newId),
  'begun elsewhere': (doc) => startAt(doc, elementId, 4),
  'turned round': (doc) => turnRound(doc, elementId),
  'made longer': (doc) => resizeTime(doc, elementId, 24),
  'cut to a part': (doc) => cutCycle(doc, elementId, 4, 6, newId),
};

/** Edits after which values of the element as a whole stay: one layer is moved against the others. */
const ONE_LAYER = new Set(['later against the others']);
/** Edits after which drawings lie in another order, so that a phase is no row of drawings any more. */
const REORDERED = new Set(['move', 'swapped', 'turned round', 'later against the others']);

describe.each(['cycle', 'one-shot'] as const)('in a %s', (time) => {
  test.each(Object.entries(EDITS))('%s', (name, edit) => {
    const doc = world(time);
    const copy = structuredClone(doc);
    const after = edit(doc);
    // Pure: nothing of what was given has changed.
    expect(doc).toEqual(copy);
    // Undo brings back the very same objects.
    const step = { name, touched: touchedBetween(doc, after) };
    const back = applyStep(after, reversed(step))!;
    expect(Object.keys(back.entities).sort()).toEqual(Object.keys(doc.entities).sort());
    for (const id of Object.keys(doc.entities)) expect(back.entities[id]).toBe(doc.entities[id]);
    // Keys keep to their drawings: on a frame that shows drawing i every value is what its key on drawing i says.
    const slots = fixtureList(doc, layerId).runs.map((run) => run.slot);
    const turn = elementLength(after, find(after, 'element', elementId)!);
    const list = fixtureList(after, layerId);
    for (const [what, value, first, step_] of valuesIn(after)) {
      if (ONE_LAYER.has(name) && time === 'cycle' && /light|element|folder/.test(what)) continue;
      for (const key of keysIn(value)) {
        const i = Math.round((key.value - first) / step_);
        if (!list.runs.some((run) => run.slot === slots[i])) continue;
        expect([what, i, numberOf(after, slots, key.frame)]).toEqual([what, i, i]);
        expect(valueAt(value, key.frame, turn)).toBeCloseTo(first + i * step_);
      }
    }
    // Phases keep to theirs: each begins with the drawing it began with, while that is there and in its row.
    if (REORDERED.has(name)) return;
    for (const { name: phase, from } of timedPhases(find(after, 'element', elementId)!.phases)) {
      const begins = slots[Number(/\d/.exec(phase)?.[0]) * 2] ?? null;
      const index = list.runs.findIndex((run) => run.slot === begins);
      if (index < 0 || from === 0) continue;
      expect([phase, from]).toEqual([phase, runStart(list, index, turn)]);
    }
  });
});

test('phases planned ahead of what is drawn stay where they are while it is drawn', () => {
  const element = find(made.base, 'element', elementId)!;
  const phases = [8, 8, 8].map((length, i) => ({ id: newId(), name: `${i}`, length, hold: 2 }));
  let doc = putEntities(made.base, { ...element, phases });
  for (let i = 0; i < 9; i++) doc = newDrawing(doc, layerId, Math.max(0, i * 2 - 1), newId).doc;
  expect(find(doc, 'element', elementId)!.phases).toEqual(phases);
});

test('a stretch of no phase that comes to lie between phases gets a name of its own', () => {
  const doc = world('cycle');
  const element = find(doc, 'element', elementId)!;
  const short = putEntities(doc, { ...element, phases: element.phases.slice(0, 2) });
  const begun = find(startAt(short, elementId, 2), 'element', elementId)!;
  expect(begun.phases.map(({ name, length }) => [name, length])).toEqual([
    ['Phase 0', 2],
    ['Phase 1', 4],
    ['Rest', 4],
    ['Phase 0', 2],
  ]);
  expect(new Set(begun.phases.map(({ id }) => id)).size).toBe(4);
});
