import fc from 'fast-check';
import { cycleOf, fixture, layerOf, fixtureList, runsOf } from '../fixture.ts';
import {
  applyStep,
  find,
  reversed,
  touchedBetween,
  type Id,
  type ShotDocument,
  entitiesOf,
} from '../document/index.ts';
import {
  elementLength,
  emptied,
  exposures,
  heldAlong,
  heldLonger,
  joinedEqual,
  repeatedRuns,
  reversedRuns,
  shownOn,
  slotNumbers,
  stretchedTo,
  thinned,
  timedLayers,
  totalLength,
} from '../timing/index.ts';
import {
  addLayer,
  breakHold,
  changeStretch,
  copyDrawing,
  cutCycle,
  deleteRuns,
  holdFor,
  insertBlank,
  keepVariant,
  lineOver,
  makeOwn,
  moveSelectedRuns,
  newDrawing,
  newDrawingBefore,
  readEntry,
  resizeTime,
  rollEnd,
  rollStart,
  shiftPhase,
  showVariant,
  splitHere,
  startAt,
  stretchSelectedRuns,
  swapRuns,
  turnRound,
  typeInto,
  variantsOf,
  wholeScope,
  type RunsChange,
} from './index.ts';

const made = fixture(77);
const { newId, layerId, elementId, stroke } = made;
const eight = cycleOf(made, 8, (i) => stroke(i, 0, i, 10));

/** What the layer shows on each frame of one turn: the x of its drawing's mark, or a dot. */
function seen(doc: ShotDocument, layer = layerId): string {
  const element = find(doc, 'element', elementId)!;
  const turn = elementLength(doc, element);
  const timed = timedLayers(doc, element).find((each) => each.layer.id === layer)!;
  return Array.from({ length: turn }, (_, frame) => {
    const drawing = find(doc, 'drawing', shownOn(timed, frame, turn)?.drawingId);
    const mark = drawing?.marks[drawing.order[0] ?? ''];
    return mark?.kind === 'stroke' ? String(mark.samples.x[0]) : '.';
  }).join('');
}
const change = (doc: ShotDocument, from: number, length: number, how: RunsChange, layers: Id[] = [layerId]) =>
  changeStretch(doc, { layerIds: layers, from, length }, how, newId).doc;

it('shows eight drawings on 2s to begin with', () => {
  expect(seen(eight)).toBe('0011223344556677');
});

it.each<[string, number, number, RunsChange, string]>([
  ['reverses', 2, 6, reversedRuns, '0033221144556677'],
  ['reverses across the seam', 14, 4, reversedRuns, '7711223344556600'],
  ['leaves a gap', 4, 4, emptied, '0011....44556677'],
  ['closes up', 4, 4, () => [], '001144556677'],
  ['puts on 1s', 0, 8, (runs) => heldAlong(runs, [1]), '012344556677'],
  ['puts along a list', 0, 12, (runs) => heldAlong(runs, [1, 1, 1, 2, 2, 3]), '01233445556677'],
  ['thins out', 0, 16, (runs) => thinned(runs, 2), '0000222244446666'],
  ['stretches', 0, 4, (runs) => stretchedTo(runs, 6), '000111223344556677'],
  ['repeats', 0, 4, (runs, id) => repeatedRuns(runs, 3, id), '001100110011223344556677'],
  ['holds each longer', 0, 4, (runs) => heldLonger(runs, 1), '000111223344556677'],
  ['cuts holds at the ends and heals them again', 3, 6, (runs) => runs, '0011223344556677'],
])('%s', (_, from, length, how, wanted) => {
  expect(seen(change(eight, from, length, how))).toBe(wanted);
});

it('takes drawings that nothing shows any more with it, and undo brings them back exactly', () => {
  const next = change(eight, 4, 4, () => []);
  const drawings = (doc: ShotDocument) => entitiesOf(doc, 'drawing').length;
  expect([drawings(eight), drawings(next)]).toEqual([8, 6]);
  const step = { name: 'delete', touched: touchedBetween(eight, next) };
  expect(applyStep(next, reversed(step))!.entities).toEqual(eight.entities);
});

it('changes all layers together, each at its own holds', () => {
  const added = addLayer(eight, elementId, 'Fill', 'body', layerId, newId);
  let doc = newDrawing(added.doc, added.layerId, 0, newId).doc;
  doc = holdFor(doc, added.layerId, 0, 16).doc;
  const next = change(doc, 4, 4, () => [], [layerId, added.layerId]);
  expect(seen(next)).toBe('001144556677');
  expect(totalLength(fixtureList(next, added.layerId))).toBe(12);
  expect(runsOf(next, added.layerId)).toHaveLength(1);
});

it('says and parts drawings that several exposures show', () => {
  const twice = change(eight, 0, 2, (runs, id) => repeatedRuns(runs, 2, id));
  const own = makeOwn(twice, layerId, 2, newId).doc;
  expect(seen(own)).toBe(seen(twice));
  const slots = runsOf(own, layerId).map((run) => run.slot);
  expect(new Set(slots).size).toBe(9);
  expect(makeOwn(own, layerId, 2, newId).doc).toBe(own);
});

it('keeps numbers through changes of order, and gives new ones the next free', () => {
  const back = change(eight, 0, 16, reversedRuns);
  expect([...slotNumbers(fixtureList(back, layerId)).values()]).toEqual([8, 7, 6, 5, 4, 3, 2, 1]);
  const more = newDrawingBefore(back, layerId, 0, newId).doc;
  expect([...slotNumbers(fixtureList(more, layerId)).values()][0]).toBe(9);
});

it('types drawings, ranges, blanks and repeats into a sheet', () => {
  const type = (doc: ShotDocument, frame: number, length: number | null, text: string) =>
    typeInto(doc, layerId, frame, length, readEntry(text)!, newId).doc;
  expect(seen(type(eight, 4, null, '1'))).toBe('0011003344556677');
  expect(seen(type(eight, 5, null, '1'))).toBe('0011203344556677');
  expect(seen(type(eight, 4, 4, 'x'))).toBe('0011....44556677');
  expect(seen(type(eight, 4, null, '-'))).toBe('0011113344556677');
  expect(seen(type(eight, 0, 16, '4-1x4'))).toBe('3333222211110000');
  expect(seen(type(eight, 4, 8, '1-4'))).toBe('0011001122336677');
  const bare = type(eight, 4, null, '20');
  expect(seen(bare)).toBe('0011..3344556677');
  expect(slotNumbers(fixtureList(bare, layerId)).get(runsOf(bare, layerId)[2]!.slot!)).toBe(20);
});

it.each(['', 'a', '3-', 'x2', '0x2', '1x0', '12345', '-3'])('reads nothing from %p', (text) => {
  expect(readEntry(text)).toBeNull();
});

it('ties a line to its rough: a slot made, held or removed on one is so on both', () => {
  const { doc, layerId: line } = lineOver(eight, layerId, 'Line', 'line', newId);
  expect(layerOf(doc, line).runListId).toBe(layerOf(doc, layerId).runListId);
  expect(seen(doc, line)).toBe('................');
  const held = holdFor(doc, layerId, 2, 4).doc;
  expect(totalLength(fixtureList(held, line))).toBe(18);
  const fewer = deleteRuns(held, line, [0], 'close up').doc;
  expect(seen(fewer)).toBe('1111223344556677');
});

it('keeps variants: trying one never costs the other', () => {
  const scope = wholeScope(eight, elementId);
  const kept = keepVariant(eight, elementId, scope, newId);
  const tried = change(kept, 0, 16, (runs) => heldAlong(runs, [1]));
  const [a, b] = variantsOf(tried, elementId);
  const shownA = showVariant(tried, a!.id);
  expect(seen(shownA)).toBe('0011223344556677');
  const shownB = showVariant(shownA, b!.id);
  expect(seen(shownB)).toBe('01234567');
  expect(variantsOf(shownB, elementId).map(({ name, held }) => [name, held === null])).toEqual([
    ['A', false],
    ['B', true],
  ]);
});

const frame = fc.integer({ min: 0, max: 40 });
const few = fc.integer({ min: 1, max: 5 });
type Edit = (doc: ShotDocument) => ShotDocument;
const runs = (doc: ShotDocument) => runsOf(doc, layerId).length;
const edits: fc.Arbitrary<Edit> = fc.oneof(
  fc
    .tuple(
      frame,
      few,
      fc.constantFrom<RunsChange>(reversedRuns, joinedEqual, emptied, (r) => thinned(r, 2)),
    )
    .map(
      ([from, length, how]): Edit =>
        (doc) =>
          change(doc, from % Math.max(1, totalLength(fixtureList(doc, layerId))), length, how),
    ),
  fc.tuple(frame, few, few).map(
    ([from, length, n]): Edit =>
      (doc) =>
        change(doc, from, length, (r, id) => repeatedRuns(r, n % 3, id)),
  ),
  fc.tuple(frame, few, few).map(
    ([from, length, n]): Edit =>
      (doc) =>
        change(doc, from, length, (r) => stretchedTo(r, n)),
  ),
  fc.tuple(frame, few).map(
    ([at, n]): Edit =>
      (doc) =>
        holdFor(doc, layerId, at, n).doc,
  ),
  frame.map(
    (at): Edit =>
      (doc) =>
        newDrawing(doc, layerId, at, newId).doc,
  ),
  frame.map(
    (at): Edit =>
      (doc) =>
        insertBlank(doc, layerId, at, newId).doc,
  ),
  frame.map(
    (at): Edit =>
      (doc) =>
        breakHold(doc, layerId, at, newId).doc,
  ),
  frame.map(
    (at): Edit =>
      (doc) =>
        splitHere(doc, layerId, at, newId).doc,
  ),
  frame.map(
    (at): Edit =>
      (doc) =>
        makeOwn(doc, layerId, at, newId).doc,
  ),
  frame.map((at): Edit => (doc) => {
    const element = find(doc, 'element', elementId)!;
    const turn = elementLength(doc, element);
    const shown = shownOn(timedLayers(doc, element)[0]!, at % turn, turn);
    return shown ? copyDrawing(doc, layerId, at % turn, newId).doc : doc;
  }),
  fc.tuple(frame, frame).map(
    ([a, b]): Edit =>
      (doc) =>
        swapRuns(doc, layerId, a % runs(doc), b % runs(doc)).doc,
  ),
  fc.tuple(frame, fc.integer({ min: -4, max: 4 })).map(
    ([a, n]): Edit =>
      (doc) =>
        rollEnd(doc, layerId, a % runs(doc), n).doc,
  ),
  fc.tuple(frame, fc.integer({ min: -4, max: 4 })).map(
    ([a, n]): Edit =>
      (doc) =>
        rollStart(doc, layerId, a % runs(doc), n).doc,
  ),
  fc.tuple(frame, few).map(
    ([a, n]): Edit =>
      (doc) =>
        stretchSelectedRuns(doc, layerId, { first: a % runs(doc), count: 1 }, n).doc,
  ),
  fc.tuple(frame, frame).map(
    ([a, b]): Edit =>
      (doc) =>
        moveSelectedRuns(doc, layerId, { first: a % runs(doc), count: 1 }, b % runs(doc)).doc,
  ),
  fc.tuple(frame, fc.constantFrom('1', '3', '12', 'x', '-', '2-5')).map(
    ([at, text]): Edit =>
      (doc) =>
        typeInto(doc, layerId, at, null, readEntry(text)!, newId).doc,
  ),
  frame.map(
    (n): Edit =>
      (doc) =>
        shiftPhase(doc, layerId, n, newId),
  ),
  frame.map(
    (n): Edit =>
      (doc) =>
        startAt(doc, elementId, n),
  ),
  fc.constant<Edit>((doc) => turnRound(doc, elementId)),
  frame.map(
    (n): Edit =>
      (doc) =>
        resizeTime(doc, elementId, n + 1),
  ),
);

it('holds together through any 200 edits, and undo restores every one exactly', () => {
  fc.assert(
    fc.property(fc.array(edits, { minLength: 200, maxLength: 200 }), (sequence) => {
      let doc = eight;
      const steps = [];
      for (const step of sequence) {
        if (runs(doc) === 0) doc = eight;
        const next = step(doc);
        const list = fixtureList(next, layerId);
        const layer = layerOf(next, layerId);
        // Runs follow each other without overlap, none is empty of frames, lengths add up.
        expect(list.runs.every((run) => run.length >= 1 && Number.isInteger(run.length))).toBe(true);
        expect(new Set(list.runs.map((run) => run.id)).size).toBe(list.runs.length);
        expect(exposures(list).reduce((end, e) => (e.start === end ? end + e.run.length : NaN), 0)).toBe(
          totalLength(list),
        );
        // Every slot the layer draws is shown by a run, and its drawing is there; no drawing is left behind.
        const shown = new Set(list.runs.flatMap((run) => run.slot ?? []));
        expect(Object.keys(layer.slots).every((slot) => shown.has(slot))).toBe(true);
        const kept = new Set(Object.values(layer.slots));
        const all = entitiesOf(next, 'drawing');
        expect(all.map(({ id }) => id).every((id) => kept.has(id))).toBe(true);
        expect(all).toHaveLength(kept.size);
        // Numbers tell drawings apart.
        const numbers = [...slotNumbers(list).values()];
        expect(new Set(numbers).size).toBe(numbers.length);
        steps.push({ before: doc, step: { name: 'edit', touched: touchedBetween(doc, next) } });
        doc = next;
      }
      for (const { before, step } of steps.reverse()) {
        doc = applyStep(doc, reversed(step))!;
        expect(doc.entities).toEqual(before.entities);
        doc = before;
      }
    }),
    { numRuns: 6 },
  );
});

it('comes home after being begun elsewhere all the way round', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 15 }), (n) => {
      const there = startAt(eight, elementId, n);
      expect(seen(there)).toBe(seen(eight).slice(n) + seen(eight).slice(0, n));
      expect(seen(startAt(there, elementId, 16 - n))).toBe(seen(eight));
    }),
  );
});

it('runs backwards, and forwards again when turned twice', () => {
  const back = turnRound(eight, elementId);
  expect(seen(back)).toBe([...seen(eight)].reverse().join(''));
  expect(seen(turnRound(back, elementId))).toBe(seen(eight));
});

it('makes a cycle longer and shorter with the same first and last drawing', () => {
  expect(seen(resizeTime(eight, elementId, 24))).toBe('000111222333444555666777');
  expect(seen(resizeTime(eight, elementId, 3))).toBe('01234567');
});

it.each([
  [4, 6, '223344'],
  [3, 4, '1223'],
  [12, 8, '66770011'],
])('cuts a cycle from frame %i to %i frames', (from, length, wanted) => {
  expect(seen(cutCycle(eight, elementId, from, length, newId))).toBe(wanted);
});
