import { find, newShotDocument, randomId, shotOf, type Drawing, type Shape, entitiesOf } from '@tallow/core/document';
import { addLayer, addMark, deleteMarks, lineOver, newDrawing, setLayer, setValue } from '@tallow/core/edit';
import { ringBox, seededIds, discRing } from '@tallow/core/geometry';
import { markAt, STILL } from '@tallow/core/marks';
import { poseAt, RECORDED, recordedSamples } from '../../pen/practice.ts';
import { drawingsToEdit, loadedToEdit } from '../../selection/to-edit.ts';
import { setSelection } from '../../selection/selection.ts';
import { setViewed, viewed } from '../../view/viewed.ts';
import { toolState, setBrush, takeBrush } from '../../hand/tool-state.ts';
import { edit, endGesture, openDocument, undo, useDocument } from '../../shot/document.ts';
import { beginAnew } from '../../shot/opening.ts';
import { keepBrush, takeVariant } from '../../brush/own-brushes.ts';
import { forget, useKept } from '../../shelf/kept.ts';
import {
  changeSelected,
  followDesk,
  followDocument,
  clearPick,
  nudgeSelected,
  pick,
  pickBy,
  selectedCount,
  selectedMarks,
  setPick,
  transformSelected,
} from './pick.ts';
import { setReach } from './reach.ts';
import { removeControlPoints } from '../reshape/line-edits.ts';
import {
  selectedControlPoints,
  controlPointsShown,
  pullBy,
  setReshape,
  selectControlPoint,
} from '../reshape/reshape.ts';

const newId = seededIds(90);

/** Two drawings on 2s with a disc each, the second one farther right. */
function open(): void {
  let doc = newShotDocument(
    newId(),
    { name: 'T', width: 640, height: 360, rate: 24, length: 20, background: null },
    newId,
  );
  const element = entitiesOf(doc, 'element')[0]!;
  const layer = element.layers[0]!;
  for (let i = 0; i < 2; i++) {
    if (i > 0) doc = newDrawing(doc, layer, 1, newId).doc;
    const swatch = shotOf(doc).swatches[1]!;
    const rings = [discRing(i * 100, 0, 20)];
    doc = addMark(doc, layer, i * 2, { kind: 'shape', id: newId(), swatch, rings, rule: 'nonzero', opacity: 1 }, newId);
  }
  beginAnew();
  takeBrush('ink');
  openDocument(doc, 'Test', []);
  clearPick();
}
beforeEach(open);

const shown = (): Drawing => loadedToEdit()[0]!;
const box = (drawing: Drawing = shown()) => ringBox((drawing.marks[drawing.order[0]!] as Shape).rings[0]!);
const pickShown = (): void => {
  pickBy((drawing) => drawing.order, 'new');
};

describe('picking up', () => {
  test('acts on the drawing shown, or on all picked on the wheel', () => {
    expect(drawingsToEdit()).toHaveLength(1);
    const layerId = Object.values(useDocument.getState().doc!.entities).find((e) => e.kind === 'layer')!.id;
    setSelection({ selectedRuns: { layerId, first: 0, count: 2 } });
    expect(drawingsToEdit()).toHaveLength(2);
    pickShown();
    expect(selectedCount()).toBe(2);
    pickBy((drawing) => (markAt(drawing, { x: 0, y: 0 }, 1) ? drawing.order : []), 'take');
    expect(selectedCount()).toBe(1);
    pickBy((drawing) => drawing.order, 'add');
    expect(selectedMarks()).toHaveLength(2);
  });
  test('scaled to next to nothing and back by several edits, it is exactly what it was', () => {
    const before = shown().marks;
    pickShown();
    transformSelected('scale', { ...STILL, scaleX: 1e-3, scaleY: 1e-3 });
    expect(box().right - box().left).toBeLessThan(0.1);
    transformSelected('scale', { ...pick().transform, scaleX: 2, scaleY: 2 });
    transformSelected('scale', STILL);
    expect(shown().marks).toEqual(before);
  });
  test('nudges go by the screen, however the picture is turned or mirrored', () => {
    const from = box();
    pickShown();
    setViewed({ view: { ...viewed().view, angle: Math.PI / 2 } });
    nudgeSelected(10, 0);
    expect(box().top).toBeCloseTo(from.top - 10, 3);
    setViewed({ view: { ...viewed().view, angle: 0, mirrored: true } });
    nudgeSelected(10, 0);
    expect(box().left).toBeCloseTo(from.left - 10, 3);
  });
  test('what undo or others change is taken as it then is; what is gone is let go', () => {
    pickShown();
    transformSelected('move', { ...STILL, x: 50 });
    undo();
    followDocument();
    expect(pick().transform).toEqual(STILL);
    transformSelected('move', { ...STILL, x: 5 });
    expect(box().left).toBeCloseTo(-15, 3);
    const sets = pick().sets;
    edit('delete', (doc) => deleteMarks(doc, sets));
    followDocument();
    expect(selectedCount()).toBe(0);
  });
  test('a change fades to both ends of several drawings if wanted', () => {
    const layerId = Object.values(useDocument.getState().doc!.entities).find((e) => e.kind === 'layer')!.id;
    setSelection({ selectedRuns: { layerId, first: 0, count: 2 } });
    setPick({ spread: 'fades' });
    pickShown();
    transformSelected('move', { ...STILL, y: 100 });
    // Of two drawings both are ends, and take as much.
    const tops = loadedToEdit().map((drawing) => box(drawing).top + 20);
    expect(tops[0]).toBeCloseTo(tops[1]!, 3);
    expect(tops[0]!).toBeLessThan(100);
    setPick({ spread: 'same' });
  });
  test('a change grows from none on the first drawing to all on the last', () => {
    const layerId = Object.values(useDocument.getState().doc!.entities).find((e) => e.kind === 'layer')!.id;
    setSelection({ selectedRuns: { layerId, first: 0, count: 2 } });
    setPick({ spread: 'grows' });
    pickShown();
    transformSelected('move', { ...STILL, y: 100 });
    const tops = loadedToEdit().map((drawing) => box(drawing).top + 20);
    expect(tops.map(Math.round)).toEqual([0, 100]);
    setPick({ spread: 'same' });
  });
  describe('over several layers', () => {
    const layers = () => entitiesOf(useDocument.getState().doc!, 'layer');
    /** A layer over the first one with a disc on its first drawing, tied to it or put 50 px to the right. */
    function second(tied: boolean): void {
      const [first] = layers();
      const swatch = shotOf(useDocument.getState().doc!).swatches[1]!;
      const mark = {
        kind: 'shape',
        id: newId(),
        swatch,
        rings: [discRing(0, 60, 10)],
        rule: 'nonzero',
        opacity: 1,
      } as const;
      edit('second layer', (doc) => {
        const over = tied
          ? lineOver(doc, first!.id, 'Over', 'body', newId)
          : addLayer(doc, first!.elementId, 'Over', 'body', first!.id, newId);
        const drawn = addMark(over.doc, over.layerId, 0, mark, newId);
        return tied ? drawn : setValue(drawn, over.layerId, 'x', 0, 50);
      });
      setSelection({ layerId: first!.id, frame: 0 });
    }
    const over = (): Drawing => {
      const doc = useDocument.getState().doc!;
      const layer = layers().find(({ name }) => name === 'Over')!;
      return find(doc, 'drawing', Object.values(layer.slots)[0])!;
    };
    afterEach(() => {
      setReach({ reach: 'layer', chosen: [] });
    });
    test('what is tied moves along, in one step of undo', () => {
      second(true);
      setReach({ reach: 'tied' });
      pickShown();
      expect(selectedCount()).toBe(2);
      expect(pick().box.bottom).toBeCloseTo(70, 1);
      transformSelected('move', { ...STILL, x: 200 });
      expect([box(shown()).left, box(over()).left].map(Math.round)).toEqual([180, 190]);
      undo();
      expect([box(shown()).left, box(over()).left].map(Math.round)).toEqual([-20, -10]);
    });
    test('locked layers are left alone, ticked ones alone are reached', () => {
      second(false);
      const id = layers().find(({ name }) => name === 'Over')!.id;
      setReach({ reach: 'element' });
      pickShown();
      expect(selectedCount()).toBe(2);
      edit('lock', (doc) => setLayer(doc, id, { locked: true }));
      pickShown();
      expect(selectedCount()).toBe(1);
      edit('unlock', (doc) => setLayer(doc, id, { locked: false }));
      setReach({ reach: 'chosen', chosen: [] });
      pickShown();
      expect(selectedCount()).toBe(1);
      setReach({ chosen: [id] });
      pickShown();
      expect(selectedCount()).toBe(2);
    });
    test('on a layer that is put elsewhere marks turn about the same place of the picture', () => {
      second(false);
      setReach({ reach: 'element' });
      pickShown();
      // Seen 50 px to the right of where it was drawn.
      expect(pick().box.right).toBeCloseTo(60, 1);
      setPick({ pivot: { x: 0, y: 0 } });
      transformSelected('turn', { ...STILL, angle: Math.PI / 2 });
      // Seen at (50, 60) it is at (-60, 50), which is drawn at (-110, 50).
      const { left, top } = box(over());
      expect([left + 10, top + 10].map(Math.round)).toEqual([-110, 50]);
    });
  });
  test('about a pivot of its own it turns, scales and mirrors', () => {
    pickShown();
    setPick({ pivot: { x: 100, y: 0 } });
    transformSelected('mirror', { ...STILL, scaleX: -1 });
    expect([box().left, box().right].map(Math.round)).toEqual([180, 220]);
  });
  test('on a locked layer nothing is changed, and it says why', () => {
    pickShown();
    const layer = Object.values(useDocument.getState().doc!.entities).find((e) => e.kind === 'layer')!.id;
    edit('lock', (doc) => setLayer(doc, layer, { locked: true }));
    const before = shown();
    transformSelected('move', { ...STILL, x: 50 });
    expect(shown()).toBe(before);
    expect(pick().transform).toEqual(STILL);
    expect(useDocument.getState().notice?.text).toContain('locked');
  });
  test('what lies in drawings that are gone by is let go', () => {
    pickShown();
    setSelection({ frame: 2 });
    followDesk();
    expect(selectedCount()).toBe(0);
  });
  test('a drag is one step, worked out anew from where it began', () => {
    const steps = useDocument.getState().done.length;
    pickShown();
    const gesture = randomId();
    for (const y of [10, 20, 30])
      changeSelected('bend', (mark) => ({ ...mark, rings: [discRing(0, y, 20)] }) as Shape, gesture);
    endGesture();
    expect(useDocument.getState().done).toHaveLength(steps + 1);
    expect(box().top).toBeCloseTo(10, 3);
  });
});

describe('reshaping', () => {
  test('a taken point is pulled with its reach, and removed', () => {
    const controlPoints = controlPointsShown();
    expect(controlPoints).toHaveLength(4);
    setReshape({ radius: 1, fall: 'soft', along: 'line' });
    selectControlPoint(controlPoints[0]!, false);
    pullBy(selectedControlPoints(), { x: 30, y: 0 });
    endGesture();
    expect(box().right).toBeGreaterThan(40);
    expect(selectedControlPoints()[0]!.x).toBeCloseTo(50, 3);
    removeControlPoints();
    expect(controlPointsShown()).toHaveLength(3);
    expect(selectedControlPoints()).toHaveLength(0);
  });
});

describe('brushes in hand', () => {
  test('variants are kept under their name, taken in hand again, and forgotten; what the server refuses is not there', async () => {
    const asked: [string, string][] = [];
    let refuses = false;
    globalThis.fetch = (path, init) => {
      asked.push([init!.method!, path as string]);
      const json = { headers: { 'content-type': 'application/json' } };
      return Promise.resolve(
        refuses ? new Response('{"title":"No room"}', { status: 422, ...json }) : new Response('{}', json),
      );
    };
    takeBrush('pencil');
    setBrush({ width: 21 });
    expect(await keepBrush('Broad')).toBe(true);
    setBrush({ width: 3 });
    const [variant] = useKept.getState().items;
    expect(variant).toMatchObject({ kind: 'brush', name: 'Broad', what: { tool: 'pencil' } });
    takeVariant(variant!.what as Parameters<typeof takeVariant>[0]);
    expect(toolState().brushes.pencil.width).toBe(21);
    setBrush({ width: 40 });
    await keepBrush('Broad');
    expect(useKept.getState().items).toMatchObject([{ what: { brush: { width: 40 } } }]);
    refuses = true;
    expect(await keepBrush('Too many')).toBe(false);
    expect(useKept.getState().items).toHaveLength(1);
    expect(useDocument.getState().notice?.text).toContain('No room');
    refuses = false;
    await forget(useKept.getState().items[0]!);
    expect(useKept.getState().items).toHaveLength(0);
    expect(asked.map(([method]) => method)).toEqual(['PUT', 'PUT', 'PUT', 'DELETE']);
  });
  test('the practice pen plays its poses in time, within the box, pressed from 0 to 1', () => {
    for (const recorded of RECORDED) {
      recorded.poses.forEach((pose) => {
        expect(poseAt(recorded, pose[0]).slice(1, 3)).toEqual([expect.closeTo(pose[1], 6), expect.closeTo(pose[2], 6)]);
      });
      const samples = recordedSamples(recorded, { x: 100, y: 0, width: 200, height: 100 });
      samples.slice(1).forEach(({ ms }, i) => {
        expect(ms).toBeGreaterThan(samples[i]!.ms);
      });
      for (const { sample } of samples) {
        expect(sample.pressure).toBeGreaterThanOrEqual(0);
        expect(sample.pressure).toBeLessThanOrEqual(1);
        expect(sample.x).toBeGreaterThan(80);
        expect(sample.x).toBeLessThan(320);
      }
    }
  });
});
test('the drawing shown is found by its id', () => {
  expect(find(useDocument.getState().doc!, 'drawing', drawingsToEdit()[0])).toBe(shown());
});
