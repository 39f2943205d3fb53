import { find, newShotDocument, shotOf, type Drawing, type Mark, type Shape, entitiesOf } from '../document/index.ts';
import { polygonRing, seededIds } from '../geometry/index.ts';
import { drawListOf } from '../render/index.ts';
import {
  addLook,
  addLayer,
  addMark,
  holdFor,
  joinDrawing,
  joinLayers,
  joinSeen,
  newDrawing,
  newLook,
  setLayer,
} from './index.ts';

const newId = seededIds(71);
const NONE = { upper: false, lower: false };
const BOTH = { upper: true, lower: true };
const empty = newShotDocument(
  newId(),
  { name: 'T', width: 100, height: 50, rate: 24, length: 12, background: null },
  newId,
);
const square = (): Shape => ({
  kind: 'shape',
  id: newId(),
  swatch: shotOf(empty).swatches[0]!,
  rule: 'evenodd',
  opacity: 1,
  rings: [
    polygonRing([
      [0, 0],
      [10, 0],
      [10, 10],
    ]),
  ],
});
const element = entitiesOf(empty, 'element')[0]!;
const lower = element.layers[0]!;
const top = addLayer(empty, element.id, 'Top', 'body', lower, newId);
/** The lower layer has drawings on frames 1 and 3, the upper one on frame 1, held throughout. */
const doc = [
  (d: typeof empty) => addMark(d, lower, 0, square(), newId),
  (d: typeof empty) => newDrawing(d, lower, 0, newId).doc,
  (d: typeof empty) => addMark(d, lower, 2, square(), newId),
  (d: typeof empty) => addMark(d, top.layerId, 0, square(), newId),
  (d: typeof empty) => holdFor(d, top.layerId, 0, 4).doc,
].reduce((d, step) => step(d), top.doc);

const shapesOn = (d: typeof doc, frame: number): number =>
  drawListOf(d, frame, { guides: true }).reduce((sum, item) => sum + item.drawing.order.length, 0);

test('joined layers show on every frame the marks both showed, on one layer, and each mark once', () => {
  const { doc: joined, layerId } = joinLayers(doc, top.layerId, lower, NONE, newId);
  for (let frame = 0; frame < 4; frame++) expect(shapesOn(joined, frame)).toBe(shapesOn(doc, frame));
  expect(find(joined, 'element', element.id)!.layers).toEqual([layerId]);
  expect(find(joined, 'layer', top.layerId)).toBeUndefined();
});

test('unjoined copies stay, hidden', () => {
  const { doc: joined } = joinLayers(doc, top.layerId, lower, BOTH, newId);
  expect([lower, top.layerId].map((id) => find(joined, 'layer', id)!.visible)).toEqual([false, false]);
  expect(shapesOn(joined, 0)).toBe(shapesOn(doc, 0));
});

test('what would look different on one layer is refused, saying why', () => {
  const screened = setLayer(doc, top.layerId, { blend: 'screen' });
  expect(() => joinLayers(screened, top.layerId, lower, NONE, newId)).toThrow('Top is blended');
  const samples = { x: [0], y: [0], pressure: [1], altitude: [1], azimuth: [0] };
  const rub: Mark = {
    kind: 'rub',
    id: newId(),
    seed: 0,
    brush: { kind: 'ink', width: 4, opacity: 1, pressure: false },
    samples: Object.fromEntries(Object.entries(samples).map(([k, v]) => [k, Float32Array.from(v)])) as never,
  };
  expect(() => joinLayers(addMark(doc, top.layerId, 0, rub, newId), top.layerId, lower, NONE, newId)).toThrow(
    'rubbed-out',
  );
});

test('one drawing is joined where both are held alike, else it says so', () => {
  expect(joinDrawing(doc, top.layerId, lower, 0, newId)).toContain('not held for the same frames');
  const alike = addMark(addMark(top.doc, lower, 0, square(), newId), top.layerId, 0, square(), newId);
  const joined = joinDrawing(alike, top.layerId, lower, 0, newId);
  if (typeof joined === 'string') throw new Error(joined);
  const marks = Object.values(joined.entities).flatMap((e) =>
    e.kind === 'drawing' ? [(e as Drawing).order.length] : [],
  );
  expect(marks.sort()).toEqual([0, 2]);
  expect(joinDrawing(joined, top.layerId, newId(), 0, newId)).toContain('not in this shot');
});

test('a layer that clips shows within the one below it, nothing where that shows nothing', () => {
  const clipped = setLayer(doc, top.layerId, { clip: true });
  const [, over] = drawListOf(clipped, 0, { guides: true });
  expect(over!.within?.drawing.order).toHaveLength(1);
  const hidden = setLayer(clipped, lower, { visible: false });
  expect(drawListOf(hidden, 0, { guides: true })).toEqual([]);
  // Shown alone, it is seen whole.
  expect(drawListOf(clipped, 0, { guides: true, alone: top.layerId })[0]!.within).toBeNull();
});

test.each([
  ['looks', (d: typeof doc) => addLook(d, top.layerId, newLook(d, 'glow', newId)), 'has looks'],
  ['being a matte', (d: typeof doc) => setLayer(d, top.layerId, { role: 'matte' }), 'is a matte'],
  ['being hidden', (d: typeof doc) => setLayer(d, lower, { visible: false }), 'is hidden and Top is not'],
  ['being for work only', (d: typeof doc) => setLayer(d, top.layerId, { forWork: true }), 'for work only'],
])('nothing is lost silently: %s stands in the way', (_, change, trouble) => {
  expect(() => joinLayers(change(doc), top.layerId, lower, NONE, newId)).toThrow(trouble);
});

describe('joining all that is seen', () => {
  const third = addLayer(doc, element.id, 'Third', 'body', top.layerId, newId);
  const three = addMark(third.doc, third.layerId, 0, square(), newId);
  const names = (d: typeof doc) => find(d, 'element', element.id)!.layers.map((id) => find(d, 'layer', id)!.name);

  test('makes one layer that shows the same on every frame', () => {
    const { doc: joined, joined: count, trouble } = joinSeen(three, element.id, false, newId);
    expect([count, trouble]).toEqual([3, null]);
    expect(find(joined, 'element', element.id)!.layers).toHaveLength(1);
    for (let frame = 0; frame < 4; frame++) expect(shapesOn(joined, frame)).toBe(shapesOn(three, frame));
  });
  test('leaves what is hidden alone, and keeps unjoined copies of the user’s own layers only', () => {
    const hidden = setLayer(three, top.layerId, { visible: false });
    const { doc: joined, joined: count, layerId } = joinSeen(hidden, element.id, true, newId);
    expect(count).toBe(2);
    for (let frame = 0; frame < 4; frame++) expect(shapesOn(joined, frame)).toBe(shapesOn(hidden, frame));
    expect(find(joined, 'layer', top.layerId)).toEqual(find(hidden, 'layer', top.layerId));
    expect(names(joined).sort()).toEqual(['Line', 'Line', 'Third', 'Top']);
    expect(find(joined, 'layer', layerId)!.visible).toBe(true);
    const all = joinSeen(three, element.id, true, newId).doc;
    expect(names(all).sort()).toEqual(['Line', 'Line', 'Third', 'Top']);
  });
  test('stops where it would change the picture, and says why', () => {
    const screened = setLayer(three, lower, { blend: 'screen' });
    const { joined, trouble, doc: done } = joinSeen(screened, element.id, false, newId);
    expect(joined).toBe(2);
    expect(trouble).toContain('blended');
    expect(find(done, 'element', element.id)!.layers).toContain(lower);
  });
});
