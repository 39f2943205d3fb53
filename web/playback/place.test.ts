import {
  dropEntities,
  find,
  newShotDocument,
  putEntities,
  shotOf,
  type Entity,
  type ShotDocument,
  entitiesOf,
} from '@tallow/core/document';
import { addLayer, addMark, newDrawing, setElement, setLayer } from '@tallow/core/edit';
import { fixture } from '../../core/fixture.ts';
import { seededIds } from '@tallow/core/geometry';
import { current, shownNow } from '../selection/current.ts';
import { selection, setSelection, useSelection } from '../selection/selection.ts';
import { playback, setPlayback } from './playback.ts';
import { edit, openDocument, receive, redo, undo, useDocument } from '../shot/document.ts';
import { beginAnew } from '../shot/opening.ts';
import { frameFrom } from './place.ts';

const newId = seededIds(80);
const { stroke } = fixture(80);
const doc = () => useDocument.getState().doc!;
const layerId = () => current()!.active!.layer.id;
const shown = () => shownNow(current()!, selection().frame)?.drawingId;

/** A cycle of four drawings on 2s. */
function open(): void {
  let made = newShotDocument(
    newId(),
    { name: 'T', width: 640, height: 360, rate: 24, length: 48, background: null },
    newId,
  );
  const element = entitiesOf(made, 'element')[0]!;
  for (let i = 0; i < 4; i++) {
    if (i > 0) made = newDrawing(made, element.layers[0]!, i * 2 - 1, newId).doc;
    const mark = { ...stroke(i, 0, i, 9), id: newId(), swatch: shotOf(made).swatches[0]! };
    made = addMark(made, element.layers[0]!, i * 2, mark, newId);
  }
  beginAnew();
  openDocument(setElement(made, element.id, { time: 'cycle' }), 'Test', []);
}
/** Somebody else's edit arrives. */
function elsewhere(change: (d: ShotDocument) => ShotDocument): void {
  const next = change(doc());
  const ids = [...new Set([...Object.keys(next.entities), ...Object.keys(doc().entities)])];
  const changed = ids.filter((id) => next.entities[id] !== doc().entities[id]);
  receive(new Map(changed.map((id): [string, Entity | null] => [id, next.entities[id] ?? null])));
}
beforeEach(open);

test('a drawing put in before it elsewhere moves the playhead with its drawing, and what is picked and played too', () => {
  setSelection({ frame: 5, selectedRuns: { layerId: layerId(), first: 2, count: 2 } });
  setPlayback({ range: { from: 2, length: 4 } });
  const before = shown();
  elsewhere((d) => newDrawing(d, layerId(), 0, newId).doc);
  expect(selection().frame).toBe(7);
  expect(shown()).toBe(before);
  expect(playback().range).toEqual({ from: 4, length: 4 });
  expect(selection().selectedRuns).toMatchObject({ first: 3, count: 2 });
});

test('what is picked elsewhere taken away is picked no more', () => {
  setSelection({ selectedRuns: { layerId: layerId(), first: 1, count: 1 } });
  elsewhere((d) => {
    const list = current()!.active!.list;
    return { ...d, entities: { ...d.entities, [list.id]: { ...list, runs: list.runs.toSpliced(1, 1) } } };
  });
  expect(selection().selectedRuns).toBeNull();
});

test('a layer added elsewhere does not become the one that is drawn on, though none was chosen', () => {
  const own = layerId();
  expect(selection().layerId).toBeNull();
  elsewhere((d) => {
    const added = addLayer(d, current()!.element.id, 'Body', 'body', own, newId);
    return addMark(added.doc, added.layerId, 0, stroke(0, 0, 5, 5), newId);
  });
  expect(layerId()).toBe(own);
  expect(selection().layerId).toBe(own);
});

test('drawings that were awaited leave the place as it is, and nobody who looks at it is told', () => {
  const drawings = entitiesOf(doc(), 'drawing');
  openDocument(
    doc(),
    'Test',
    drawings.map(({ id }) => id),
  );
  let told = 0;
  const unlisten = useSelection.subscribe(() => (told += 1));
  receive(new Map(drawings.slice(0, 2).map((drawing) => [drawing.id, drawing])));
  unlisten();
  expect([told, useDocument.getState().missing.size]).toEqual([0, 2]);
});

test('a layer deleted elsewhere gives way to another', () => {
  const own = layerId();
  const added = addLayer(doc(), current()!.element.id, 'Other', 'line', own, newId);
  elsewhere(() => added.doc);
  setSelection({ layerId: added.layerId });
  elsewhere((d) => {
    const element = find(d, 'element', current()!.element.id)!;
    return putEntities(dropEntities(d, [added.layerId]), { ...element, layers: [own] });
  });
  expect(layerId()).toBe(own);
});

test('a frame asked of some time ago is found where its drawing is now', () => {
  const was = current()!;
  elsewhere((d) => newDrawing(d, layerId(), 0, newId).doc);
  expect([0, 2, 3, 6].map((frame) => frameFrom(was, frame))).toEqual([0, 4, 5, 8]);
});

test('undo and redo go to where the step was made, with its drawing', () => {
  setSelection({ frame: 4 });
  edit('stroke', (d) => addMark(d, layerId(), 4, stroke(1, 1, 2, 2), newId));
  const drawing = shown();
  setSelection({ frame: 0 });
  elsewhere((d) => newDrawing(d, layerId(), 0, newId).doc);
  undo();
  expect(shown()).toBe(drawing);
  expect(selection().frame).toBe(6);
  setSelection({ frame: 1 });
  redo();
  expect(selection().frame).toBe(6);
});

test('undo of a step made on another layer goes there', () => {
  const own = layerId();
  const added = addLayer(doc(), current()!.element.id, 'Other', 'line', own, newId);
  elsewhere(() => added.doc);
  setSelection({ layerId: added.layerId, frame: 2 });
  edit('name', (d) => setLayer(d, added.layerId, { name: 'Named' }));
  setSelection({ layerId: own, frame: 6 });
  undo();
  expect([selection().layerId, selection().frame]).toEqual([added.layerId, 2]);
});
