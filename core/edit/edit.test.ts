import { seededIds } from '../geometry/index.ts';
import {
  find,
  newShotDocument,
  readEntity,
  encodeEntity,
  referencesOf,
  shotOf,
  type Drawing,
  type RunList,
  type ShotDocument,
  type Stroke,
  entitiesOf,
} from '../document/index.ts';
import { elementLength, shownOn, timedLayers } from '../timing/index.ts';
import {
  addLayer,
  addMark,
  addSwatch,
  copyDrawing,
  deleteExposure,
  deleteLayer,
  duplicateShot,
  holdFor,
  insertBlank,
  keepBoth,
  layerOn,
  moveLayer,
  newDrawing,
  rescueDrawing,
  setElement,
  whyNotDrawable,
} from './index.ts';

const newId = seededIds(4);
const base = newShotDocument(
  newId(),
  { name: 'Test', width: 640, height: 360, rate: 24, length: 24, background: null },
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
const holds = (doc: ShotDocument, layer = layerId): string =>
  find(doc, 'runlist', find(doc, 'layer', layer)!.runListId)!
    .runs.map((r) => (r.slot ? r.length : -r.length))
    .join(' ');
const length = (doc: ShotDocument): number => elementLength(doc, find(doc, 'element', element.id)!);
const drawings = (doc: ShotDocument): readonly Drawing[] => entitiesOf(doc, 'drawing');

/** Three drawings on 2s. */
const three = [0, 0, 2].reduce(
  (doc, frame, i) => (i === 0 ? addMark(doc, layerId, 0, stroke(), newId) : newDrawing(doc, layerId, frame, newId).doc),
  base,
);

describe('drawings in an open element', () => {
  test('the first stroke makes the first drawing, new drawings follow and the element grows', () => {
    expect(holds(three)).toBe('2 2 2');
    expect(length(three)).toBe(6);
  });
  test('a new drawing in the middle moves later ones, and the playhead goes to it', () => {
    const { doc, frame } = newDrawing(three, layerId, 1, newId);
    expect(holds(doc)).toBe('2 2 2 2');
    expect(frame).toBe(2);
  });
  test('a copy holds the same marks in a drawing of its own', () => {
    const { doc, frame } = copyDrawing(three, layerId, 0, newId);
    const layer = timedLayers(doc, element)[0]!;
    const [first, copy] = [0, frame].map((f) => find(doc, 'drawing', shownOn(layer, f, 8)!.drawingId)!);
    expect(copy!.marks).toBe(first!.marks);
    expect(copy!.id).not.toBe(first!.id);
  });
  test('a blank ends what is shown; drawing on it makes a drawing there', () => {
    const blank = insertBlank(three, layerId, 5, newId);
    expect(holds(blank.doc)).toBe('2 2 2 -2');
    expect(holds(addMark(blank.doc, layerId, blank.frame, stroke(), newId))).toBe('2 2 2 2');
  });
  test('deleting closes up and takes the drawing along unless another slot shows it', () => {
    const { doc } = deleteExposure(three, layerId, 2);
    expect(holds(doc)).toBe('2 2');
    expect(drawings(doc)).toHaveLength(2);
  });
  test('holds and whole-layer timing move what follows', () => {
    expect(holds(holdFor(three, layerId, 0, 5).doc)).toBe('5 2 2');
    const on = layerOn(three, layerId, 4, 3);
    expect(holds(on.doc)).toBe('3 3 3');
    expect(on.frame).toBe(6);
  });
});

describe('a cycle of several layers', () => {
  const closed = setElement(three, element.id, { time: 'cycle' });
  const added = addLayer(closed, element.id, 'Fill', 'body', layerId, newId);
  const both = [0, 0, 2].reduce(
    (doc, frame, i) =>
      i === 0 ? addMark(doc, added.layerId, 0, stroke(), newId) : newDrawing(doc, added.layerId, frame, newId).doc,
    added.doc,
  );

  test('a longer layer makes a longer cycle, and full layers hold their last drawing to its end', () => {
    const { doc } = newDrawing(both, layerId, 5, newId);
    expect([holds(doc), holds(doc, added.layerId), length(doc)]).toEqual(['2 2 2 2', '2 2 4', 8]);
  });
  test('a shorter hold leaves no flash at the seam', () => {
    expect(holds(holdFor(both, layerId, 0, 1).doc)).toBe('1 2 3');
  });
  test('a single layer shortens its cycle', () => {
    expect(length(holdFor(closed, layerId, 0, 1).doc)).toBe(5);
  });
});

describe('layers', () => {
  test('are added above the active one, moved and deleted with what only they use', () => {
    const { doc, layerId: made } = addLayer(three, element.id, 'Top', 'line', layerId, newId);
    expect(find(doc, 'element', element.id)!.layers).toEqual([made, layerId]);
    expect(find(moveLayer(doc, made, element.id, 1), 'element', element.id)!.layers).toEqual([layerId, made]);
    const gone = deleteLayer(doc, layerId);
    expect(drawings(gone)).toHaveLength(0);
    expect(entitiesOf(gone, 'runlist')).toHaveLength(1);
  });
  test('say why they cannot be drawn on', () => {
    const timed = timedLayers(base, element)[0]!;
    expect(whyNotDrawable(timed)).toBeNull();
    expect(whyNotDrawable({ ...timed, layer: { ...timed.layer, locked: true } })).toMatch(/locked/);
    expect(whyNotDrawable({ ...timed, layer: { ...timed.layer, visible: false } })).toMatch(/hidden/);
    expect(whyNotDrawable(undefined)).toMatch(/no layer/);
  });
});

test('a duplicated shot points only at its own, and all of it can be kept', () => {
  const copy = duplicateShot(three, newId(), newId);
  const original = new Set(Object.keys(three.entities));
  for (const entity of Object.values(copy.entities)) {
    expect(original.has(entity.id)).toBe(false);
    for (const { id } of referencesOf(entity)) expect(copy.entities).toHaveProperty(id);
    expect(readEntity(encodeEntity(entity))).toHaveProperty('ok');
  }
  expect(shotOf(copy).name).toBe('Test copy');
  expect(Object.keys(copy.entities)).toHaveLength(original.size);
});

describe('when two people changed the same thing', () => {
  test('both colours are kept', () => {
    const { doc, swatchId } = addSwatch(base, { name: 'glow', role: 'light', colour: '#111111' }, newId);
    const kept = keepBoth(
      doc,
      { kind: 'swatch', id: swatchId, name: 'glow', role: 'light', colour: '#222222', gradient: null },
      ['colour'],
    ).doc;
    expect(shotOf(kept).swatches.map((id) => find(kept, 'swatch', id)!.colour)).toEqual(
      expect.arrayContaining(['#111111', '#222222']),
    );
  });
  test('both timings are kept, the second on a copy of the layer', () => {
    const list = find(three, 'runlist', find(three, 'layer', layerId)!.runListId)!;
    const mine: RunList = { ...list, runs: list.runs.map((run) => ({ ...run, length: 4 })) };
    const kept = keepBoth(three, mine, ['runs']).doc;
    const layers = find(kept, 'element', element.id)!.layers;
    expect(layers.map((id) => holds(kept, id))).toEqual(['4 4 4', '2 2 2']);
    expect(find(kept, 'layer', layers[0])!.name).toBe('Line (yours)');
  });
  test('a drawing deleted under the pen gets a layer of its own', () => {
    const lost: Drawing = { kind: 'drawing', id: newId(), marks: {}, order: [] };
    const kept = rescueDrawing({ ...base, entities: { ...base.entities, [lost.id]: lost } }, lost);
    const layer = entitiesOf(kept, 'layer').find((e) => e.name === 'Kept drawing')!;
    expect(Object.values(layer.slots)).toEqual([lost.id]);
    expect(rescueDrawing(kept, lost)).toBe(kept);
  });
});
