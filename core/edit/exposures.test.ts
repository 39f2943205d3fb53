import fc from 'fast-check';
import { seededIds } from '../geometry/index.ts';
import {
  documentOf,
  find,
  newShotDocument,
  shotOf,
  type Run,
  type RunList,
  type ShotDocument,
  type Stroke,
  entitiesOf,
} from '../document/index.ts';
import {
  placedElements,
  elementLength,
  exposureAt,
  isLocked,
  isVisible,
  timedLayers,
  turnsIn,
  totalLength,
  placementsOf,
} from '../timing/index.ts';
import {
  addElement,
  addFolder,
  addLayer,
  addMark,
  breakHold,
  clipOf,
  deleteElement,
  deleteRuns,
  indicesOf,
  isSelected,
  dissolveFolder,
  layerOn,
  moveToNewDrawing,
  lockOthers,
  raisePlacement,
  moveLayer,
  moveSelectedRuns,
  newDrawing,
  pasteClip,
  rollStart,
  setElement,
  setFolder,
  setLayer,
  setStart,
  setStill,
  shiftPhase,
  stretchSelectedRuns,
  whyNotDrawable,
} from './index.ts';

const newId = seededIds(40);
const base = newShotDocument(
  newId(),
  { name: 'Test', width: 640, height: 360, rate: 24, length: 72, background: null },
  newId,
);
const element = entitiesOf(base, 'element')[0]!;
const layerId = element.layers[0]!;
const one = Float32Array.of(1);
const stroke = (): Stroke => ({
  kind: 'stroke',
  id: newId(),
  swatch: shotOf(base).swatches[0]!,
  brush: { kind: 'ink', width: 4, opacity: 1, pressure: false },
  seed: 0,
  samples: { x: one, y: one, pressure: one, altitude: one, azimuth: one },
});
const runsOf = (doc: ShotDocument, layer = layerId): readonly Run[] => listOf(doc, layer).runs;
const listOf = (doc: ShotDocument, layer = layerId): RunList =>
  find(doc, 'runlist', find(doc, 'layer', layer)!.runListId)!;
const holds = (doc: ShotDocument, layer = layerId): string =>
  runsOf(doc, layer)
    .map((r) => (r.slot ? r.length : -r.length))
    .join(' ');
const marksOn = (doc: ShotDocument): number[] =>
  runsOf(doc).map((run) => {
    const drawing = run.slot ? find(doc, 'drawing', find(doc, 'layer', layerId)!.slots[run.slot]) : undefined;
    return drawing?.order.length ?? -1;
  });

/** Drawings with 1, 2, 3 ... marks on 2s, closed into a cycle. */
function cycleOf(count: number): ShotDocument {
  let doc = base;
  for (let i = 0; i < count; i++) {
    if (i > 0) doc = newDrawing(doc, layerId, i * 2 - 1, newId).doc;
    for (let k = 0; k <= i; k++) doc = addMark(doc, layerId, i * 2, stroke(), newId);
  }
  return setElement(doc, element.id, { time: 'cycle' });
}
const five = cycleOf(5);

describe('forgotten the new drawing', () => {
  test('lifting takes the last strokes to a new drawing after this one, and only those', () => {
    const { doc, frame } = moveToNewDrawing(five, layerId, 5, 2, newId);
    expect(marksOn(doc)).toEqual([1, 2, 1, 2, 4, 5]);
    expect(frame).toBe(6);
    const [kept, lifted] = [2, 3].map((i) =>
      find(doc, 'drawing', find(doc, 'layer', layerId)!.slots[runsOf(doc)[i]!.slot!])!,
    );
    const before = find(five, 'drawing', kept!.id)!;
    expect([...kept!.order, ...lifted!.order]).toEqual(before.order);
  });
  test('lifting more than there are takes all of them', () => {
    expect(marksOn(moveToNewDrawing(five, layerId, 0, 9, newId).doc)).toEqual([0, 1, 2, 3, 4, 5]);
  });
  test('a hold breaks where the playhead stands, and its first frame gets a drawing after it', () => {
    const broken = breakHold(five, layerId, 3, newId);
    expect([holds(broken.doc), broken.frame]).toEqual(['2 1 1 2 2 2', 3]);
    expect(holds(breakHold(five, layerId, 2, newId).doc)).toBe('2 2 2 2 2 2');
  });
});

describe('picked drawings', () => {
  test('moving keeps every drawing and every hold, whatever goes where', () => {
    fc.assert(
      fc.property(fc.nat(4), fc.nat(4), fc.nat(5), (a, b, to) => {
        const first = Math.min(a, b);
        const count = Math.abs(a - b) + 1;
        const { doc } = moveSelectedRuns(five, layerId, { first, count }, to);
        expect([...marksOn(doc)].sort()).toEqual([1, 2, 3, 4, 5]);
        expect(totalLength(listOf(doc))).toBe(10);
      }),
    );
    expect(marksOn(moveSelectedRuns(five, layerId, { first: 1, count: 2 }, 5).doc)).toEqual([1, 4, 5, 2, 3]);
    expect(marksOn(moveSelectedRuns(five, layerId, { first: 3, count: 2 }, 0).doc)).toEqual([4, 5, 1, 2, 3]);
  });
  test('stretching gives the length asked for, shared out, and never less than a frame each', () => {
    fc.assert(
      fc.property(fc.nat(4), fc.integer({ min: 1, max: 5 }), fc.integer({ min: -3, max: 60 }), (first, n, length) => {
        const count = Math.min(n, 5 - first);
        const runs = runsOf(stretchSelectedRuns(five, layerId, { first, count }, length).doc).slice(
          first,
          first + count,
        );
        expect(runs.every((run) => run.length >= 1)).toBe(true);
        const sum = runs.reduce((total, run) => total + run.length, 0);
        if (length >= count && first + count < 5) expect(sum).toBe(length);
      }),
    );
    expect(holds(stretchSelectedRuns(five, layerId, { first: 1, count: 2 }, 9).doc)).toBe('2 5 4 2 2');
  });
  test('a start rolls against the drawing before, across the seam too, and the turn stays as long', () => {
    expect(holds(rollStart(five, layerId, 2, 1).doc)).toBe('2 3 1 2 2');
    const seam = rollStart(five, layerId, 0, -1).doc;
    expect([holds(seam), listOf(seam).offset]).toEqual(['3 2 2 2 1', 9]);
    expect(exposureAt(listOf(seam), 9, 10)!.index).toBe(0);
    expect(holds(rollStart(five, layerId, 2, -9).doc)).toBe('2 1 3 2 2');
  });
  test('what is picked across the seam is held, stretched, moved and copied like anything else', () => {
    const over = { first: 4, count: 2 };
    expect(holds(layerOn(five, layerId, 0, 3, over).doc)).toBe('3 2 2 2 3');
    const stretched = stretchSelectedRuns(five, layerId, over, 7);
    // Told from the fifth drawing on: it still begins on frame 8, and the first has grown with it.
    expect([holds(stretched.doc), listOf(stretched.doc).offset, stretched.frame]).toEqual(['4 3 2 2 2', 8, 8]);
    const moved = moveSelectedRuns(five, layerId, over, 3).doc;
    expect(marksOn(moved)).toEqual([2, 3, 5, 1, 4]);
    expect(pasteClip(five, layerId, 0, clipOf(five, layerId, indicesOf(over, 5)), newId).doc).toBeDefined();
    expect(indicesOf(over, 5)).toEqual([4, 0]);
    expect([4, 0, 1].map((index) => isSelected(over, index, 5))).toEqual([true, true, false]);
  });
  test('holds can be set on picked drawings alone', () => {
    expect(holds(layerOn(five, layerId, 0, 3, { first: 1, count: 2 }).doc)).toBe('2 3 3 2 2');
  });
  test('copied drawings are drawings of their own after this one', () => {
    const { doc } = pasteClip(five, layerId, 0, clipOf(five, layerId, [3, 4]), newId);
    expect(marksOn(doc)).toEqual([1, 4, 5, 2, 3, 4, 5]);
    expect(entitiesOf(doc, 'drawing')).toHaveLength(7);
  });
  test('deleting closes up, or holds the drawing before', () => {
    expect(holds(deleteRuns(five, layerId, [1, 2], 'close up').doc)).toBe('2 2 2');
    const held = deleteRuns(five, layerId, [1, 2], 'hold before').doc;
    expect([holds(held), marksOn(held)]).toEqual(['6 2 2', [1, 4, 5]]);
    expect(holds(deleteRuns(five, layerId, [0], 'hold before').doc)).toBe('4 2 2 2');
  });
});

describe('phase and still layers', () => {
  test('shifting there and back is nothing', () => {
    fc.assert(
      fc.property(fc.integer({ min: -50, max: 50 }), (by) => {
        const shifted = shiftPhase(five, layerId, by, newId);
        expect(exposureAt(listOf(shifted), (((0 + by) % 10) + 10) % 10, 10)!.index).toBe(0);
        expect(listOf(shiftPhase(shifted, layerId, -by, newId))).toEqual(listOf(five));
      }),
    );
  });
  test('a still layer shows the drawing it was made still on, and does not count for the length', () => {
    const still = setStill(five, layerId, true, 5);
    expect(exposureAt(listOf(still), 7, 10)!.index).toBe(0);
    expect(marksOn(still)[0]).toBe(3);
    expect(elementLength(still, element)).toBe(1);
    expect(elementLength(setStill(still, layerId, false, 0), element)).toBe(10);
  });
});

describe('folders', () => {
  const { doc: two, layerId: upper } = addLayer(five, element.id, 'Upper', 'body', layerId, newId);
  const { doc: put, folderId } = addFolder(two, element.id, 'Parts', [upper, layerId], newId);
  const timed = (doc: ShotDocument) => timedLayers(doc, find(doc, 'element', element.id)!);

  test('keep the order of their layers, and go away without them', () => {
    expect(timed(put).map(({ layer }) => layer.id)).toEqual([upper, layerId]);
    expect(find(put, 'element', element.id)!.layers).toEqual([folderId]);
    expect(find(dissolveFolder(put, folderId), 'element', element.id)!.layers).toEqual([upper, layerId]);
  });
  test('hide and lock what lies in them, and say so', () => {
    const hidden = timed(setFolder(put, folderId, { visible: false }))[0]!;
    expect([isVisible(hidden), hidden.layer.visible]).toEqual([false, true]);
    expect(whyNotDrawable(hidden)).toBe('“Upper” is hidden by its folder “Parts”. Show the folder to draw on it.');
    const locked = timed(setFolder(put, folderId, { locked: true }))[0]!;
    expect(isLocked(locked)).toBe(true);
    expect(whyNotDrawable(locked)).toMatch(/locked folder/);
  });
  test('take layers in and let them out; a folder never goes into a folder', () => {
    const out = moveLayer(put, layerId, element.id, 0);
    expect(timed(out).map(({ folder }) => folder?.name)).toEqual([undefined, 'Parts']);
    expect(moveLayer(put, folderId, folderId, 0)).toBe(put);
    expect(timed(moveLayer(out, layerId, folderId, 0)).map(({ layer }) => layer.id)).toEqual([layerId, upper]);
  });
  test('locking all others names those it locked', () => {
    const { doc, locked } = lockOthers(put, element.id, layerId);
    expect(locked).toEqual([upper]);
    expect(find(doc, 'layer', layerId)!.locked).toBe(false);
    expect(lockOthers(setLayer(put, upper, { locked: true }), element.id, layerId).locked).toEqual([]);
  });
});

describe('elements', () => {
  const { doc: both, elementId } = addElement(five, 'Smoke', 12, newId);
  const useOf = (id: string) => placementsOf(both, id)[0]!.id;
  test('are added in front, started anywhere, moved, and deleted with all that is theirs', () => {
    expect(placedElements(both).map((e) => [e.element.name, e.placement.start])).toEqual([
      ['Smoke', 12],
      ['Element 1', 0],
    ]);
    expect(placedElements(raisePlacement(both, useOf(elementId), 1)).map((e) => e.element.name)).toEqual([
      'Element 1',
      'Smoke',
    ]);
    expect(raisePlacement(both, useOf(elementId), -1)).toBe(both);
    expect(placedElements(setStart(both, placedElements(both)[0]!.placement.id, -4))[0]!.placement.start).toBe(0);
    const gone = deleteElement(both, elementId);
    expect(Object.keys(gone.entities).sort()).toEqual(Object.keys(five.entities).sort());
    expect(documentOf(gone.shotId, Object.values(gone.entities)).entities).toHaveProperty(layerId);
  });
  test('turns that begin before the shot ends are counted', () => {
    const { placement } = placedElements(five)[0]!;
    const cycle = find(five, 'element', element.id)!;
    expect(turnsIn(placement, cycle, 10, 72)).toBe(8);
    expect(turnsIn({ ...placement, start: 70 }, cycle, 10, 72)).toBe(1);
    expect(turnsIn({ ...placement, repeats: 3 }, cycle, 10, 72)).toBe(3);
    expect(turnsIn(placement, { ...cycle, time: 'one-shot' }, 10, 72)).toBe(1);
  });
});
