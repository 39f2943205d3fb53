/** Edits that must not change silently what they were not asked to. */
import {
  dropEntities,
  find,
  newGuide,
  putEntities,
  shotOf,
  type Between,
  type Drawing,
  type Id,
  type Plate,
  type ShotDocument,
  type Tone,
  entitiesOf,
} from '../document/index.ts';
import { cycleOf, fixture, layerOf } from '../fixture.ts';
import { fingerprintOf } from '../derived/index.ts';
import {
  addMarks,
  boilRoom,
  duplicateShot,
  holdFor,
  landMarks,
  layBoil,
  newDrawing,
  newTone,
  replaceSwatch,
  resizeShot,
} from './index.ts';

const made = fixture(31);
const { base, elementId, layerId, newId, swatch, stroke } = made;

test('a shot made larger about its middle takes plates and its own guides along; those of elements go with these', () => {
  const at = { x: 10, y: 20, toX: 30, toY: 40 };
  const ofShot = newGuide(null, 'line', 'Shot', at, newId);
  const ofElement = newGuide(elementId, 'line', 'Element', at, newId);
  const plate: Plate = {
    kind: 'plate',
    id: newId(),
    name: 'Wall',
    assets: ['a'.repeat(64)],
    width: 10,
    height: 10,
    x: 5,
    y: 6,
    scale: 1,
    angle: 0,
    corners: null,
    opacity: 1,
    guide: true,
    beside: false,
    visible: true,
    locked: false,
    cut: null,
    span: null,
  };
  const shot = { ...shotOf(base), guides: [ofShot.id, ofElement.id], plates: [plate.id] };
  const doc = resizeShot(putEntities(base, shot, ofShot, ofElement, plate), {
    width: shot.width + 100,
    height: shot.height + 40,
  });
  expect(find(doc, 'guide', ofShot.id)).toMatchObject({ x: 60, y: 40, toX: 80, toY: 60 });
  expect(find(doc, 'guide', ofElement.id)).toEqual(ofElement);
  expect(find(doc, 'plate', plate.id)).toMatchObject({ x: 55, y: 26 });
});

describe('boil', () => {
  const doc = addMarks(base, layerId, 0, [stroke(0, 0, 9, 9)], newId);
  const breath = { marks: {}, order: [] };
  const drawings = (d: ShotDocument) => entitiesOf(d, 'drawing').length;
  test('makes only variants that there is time to see', () => {
    const held = holdFor(doc, layerId, 0, 6).doc;
    expect(boilRoom(held, layerId, 0, 2)).toBe(2);
    expect(drawings(layBoil(held, layerId, 0, [breath, breath, breath, breath], 2, newId).doc)).toBe(3);
    expect(boilRoom(held, layerId, 0, 6)).toBe(0);
    expect(layBoil(held, layerId, 0, [breath], 6, newId).doc).toBe(held);
  });
});

describe('what was computed and not touched by hand', () => {
  const other = shotOf(base).swatches[1]!;
  const doc = cycleOf(made, 3, (i) => stroke(i, 0, i, 9));
  const { slots } = layerOf(doc, layerId);
  const [a, b, c] = Object.keys(slots) as [Id, Id, Id];
  const drawingOf = (d: ShotDocument, slot: Id): Drawing => find(d, 'drawing', layerOf(d, layerId).slots[slot])!;
  const print = (slot: Id) => fingerprintOf(drawingOf(doc, slot));
  const between: Between = {
    kind: 'between',
    id: newId(),
    elementId,
    layerId,
    from: a,
    to: c,
    slots: [b],
    shares: [0.5],
    way: 'arc',
    pathId: null,
    ties: [],
    laid: { [b]: print(b) },
    hangsOn: [print(a), print(c)],
    along: null,
  };
  const tone: Tone = {
    ...newTone(layerOf(doc, layerId), newId),
    layers: { shade: layerId },
    laid: { [layerId]: { [a]: print(a), [b]: 'touched by hand' } },
  };
  const laid = putEntities(doc, between, tone);

  test('still counts as such in other swatches, and what was touched as touched', () => {
    const next = replaceSwatch(laid, swatch, other);
    const now = (slot: Id) => fingerprintOf(drawingOf(next, slot));
    expect(now(b)).not.toBe(print(b));
    expect(find(next, 'between', between.id)).toMatchObject({ laid: { [b]: now(b) }, hangsOn: [now(a), now(c)] });
    expect(find(next, 'tone', tone.id)!.laid).toEqual({ [layerId]: { [a]: now(a), [b]: 'touched by hand' } });
  });
  test('still counts as such in a duplicate of the shot', () => {
    const copy = duplicateShot(laid, newId(), newId);
    const of = <T>(kind: string) => Object.values(copy.entities).find((e) => e.kind === kind) as T;
    const layer = entitiesOf(copy, 'layer')[0]!;
    const copied = (slot: Id) => fingerprintOf(find(copy, 'drawing', layer.slots[slot])!);
    expect(of<Between>('between').laid).toEqual({ [b]: copied(b) });
    expect(of<Tone>('tone').laid).toEqual({ [layer.id]: { [a]: copied(a), [b]: 'touched by hand' } });
  });
});

describe('where a stroke lands', () => {
  const doc = cycleOf(made, 2, (i) => stroke(i, 0, i, 9));
  const { slots } = layerOf(doc, layerId);
  const [first] = Object.values(slots) as [Id];
  const mark = stroke(5, 5, 6, 6);
  const holder = (d: ShotDocument): Drawing => entitiesOf(d, 'drawing').find((e) => mark.id in e.marks)!;

  test('on the drawing that was under the pen, whatever was put in before it', () => {
    const moved = newDrawing(doc, layerId, 0, newId).doc;
    const landed = landMarks(moved, { layerId, drawingId: first, frame: 2 }, [mark], newId);
    expect(holder(landed).id).toBe(first);
  });
  test('on a drawing of its own where that is gone, or where another has come to be', () => {
    const gone = putEntities(dropEntities(doc, [first]), { ...layerOf(doc, layerId), slots: {} });
    const landed = landMarks(gone, { layerId, drawingId: first, frame: 0 }, [mark], newId);
    expect(holder(landed).order).toEqual([mark.id]);
    const taken = landMarks(doc, { layerId, drawingId: null, frame: 1 }, [mark], newId);
    expect(holder(taken).order).toEqual([mark.id]);
    expect(Object.values(layerOf(taken, layerId).slots)).toContain(holder(taken).id);
  });
  test('on a layer of its own where the layer is gone', () => {
    const landed = landMarks(dropEntities(doc, [layerId]), { layerId, drawingId: newId(), frame: 0 }, [mark], newId);
    const layers = entitiesOf(landed, 'layer');
    expect(layers.some((layer) => Object.values(layer.slots).includes(holder(landed).id))).toBe(true);
  });
});
