import { cycleOf, fixture, layerOf } from '../fixture.ts';
import { factsOf, findingsOf } from '../checks/index.ts';
import { staleOf, touchedOf } from '../derived/index.ts';
import { find, putEntities, shotOf, type Id, type Shape, type ShotDocument, type Tone } from '../document/index.ts';
import { distance, shifted } from '../colour/index.ts';
import { doubleAreaOf, polygonRing, ringPoints } from '../geometry/index.ts';
import { placeOf } from '../timing/index.ts';
import {
  addLayer,
  addMark,
  addSwatch,
  deleteLayer,
  isByTone,
  layTone,
  newDrawing,
  newTone,
  nextBare,
  setLayer,
  setSwatch,
  toneAbout,
  toneSlots,
  type CutTone,
} from './index.ts';

const made = fixture(12);
const { newId, layerId, elementId, swatch } = made;
const ring = (left: number): Float32Array =>
  polygonRing([
    [left, 0],
    [left + 60, 0],
    [left + 60, 60],
    [left, 60],
  ]);
const shape = (left: number): Shape => ({
  kind: 'shape',
  id: newId(),
  swatch,
  rings: [ring(left)],
  rule: 'evenodd',
  opacity: 1,
});
/** Two drawings of a body, a line above it and a rough above that. */
const drawn = ((): ShotDocument => {
  const body = setSwatch(
    cycleOf(made, 2, (i) => shape(i * 10)),
    swatch,
    { colour: '#c05020', name: 'Flame' },
  );
  const line = addLayer(body, elementId, 'Line', 'line', layerId, newId).doc;
  return addLayer(line, elementId, 'Rough', 'rough', null, newId).doc;
})();
const fresh = newTone(layerOf(drawn, layerId), newId);
const cutsOf = (doc: ShotDocument, tone: Tone, keys: readonly (keyof CutTone['shapes'])[], left = 5): CutTone[] =>
  toneSlots(doc, tone).map(({ slot, print }) => ({
    slot,
    print,
    shapes: Object.fromEntries(keys.map((key) => [key, [ring(left)]])),
  }));
const lay = (doc: ShotDocument, keys: readonly (keyof CutTone['shapes'])[], left = 5): ShotDocument => {
  const tone = find(doc, 'tone', fresh.id) ?? fresh;
  return layTone(doc, tone, cutsOf(doc, tone, keys, left), newId);
};
const toneIn = (doc: ShotDocument): Tone => find(doc, 'tone', fresh.id)!;
const namesOf = (doc: ShotDocument): string[] =>
  find(doc, 'element', elementId)!.layers.map((id) => find(doc, 'layer', id)!.name);
const shown = (doc: ShotDocument, key: 'shade' | 'light', i: number) => {
  const layer = find(doc, 'layer', toneIn(doc).layers[key])!;
  return find(doc, 'drawing', layer.slots[Object.keys(toneIn(doc).hangsOn)[i]!])!;
};

test('shade lies right over the body, deep shade over shade, light right under the line; all in the time of the body', () => {
  const laid = lay(drawn, ['shade', 'deep', 'light']);
  const body = layerOf(laid, layerId);
  expect(namesOf(laid)).toEqual([
    'Rough',
    'Line',
    `${body.name} light`,
    `${body.name} deep shade`,
    `${body.name} shade`,
    body.name,
  ]);
  for (const id of Object.values(toneIn(laid).layers))
    expect(layerOf(laid, id)).toMatchObject({ runListId: body.runListId, role: 'tone' });
});

test('a tone that is nowhere gets no layer', () => {
  expect(Object.keys(toneIn(lay(drawn, ['shade'])).layers)).toEqual(['shade']);
});

test('new swatches are the body’s colour darker and lighter, named after it', () => {
  const laid = lay(drawn, ['shade', 'light']);
  const { shade, light } = toneIn(laid).swatches;
  const [dark, bright] = [find(laid, 'swatch', shade)!, find(laid, 'swatch', light)!];
  expect([dark.name, dark.role, bright.name, bright.role]).toEqual(['Flame shade', 'shade', 'Flame light', 'light']);
  expect(distance(dark.colour, shifted('#c05020', { hue: 0, chroma: 1, lightness: -0.15 }))).toBeLessThan(0.01);
  expect(distance(bright.colour, shifted('#c05020', { hue: 0, chroma: 1, lightness: 0.14 }))).toBeLessThan(0.01);
});

test('a swatch of the palette that is about right is taken, whatever its name', () => {
  const own = shotOf(drawn).swatches.find((id) => id !== swatch)!;
  const colour = shifted('#c05020', { hue: 0, chroma: 1, lightness: -0.14 });
  const ready = setSwatch(drawn, own, { role: 'shade', colour, name: 'Embers' });
  expect(toneIn(lay(ready, ['shade'])).swatches.shade).toBe(own);
});

test('laid again it changes its drawings in place; one that a hand changed stays', () => {
  const laid = lay(drawn, ['shade']);
  const byHand = shown(laid, 'shade', 0);
  const mark = byHand.marks[byHand.order[0]!] as Shape;
  const touched = putEntities(laid, { ...byHand, marks: { [mark.id]: { ...mark, rings: [ring(300)] } } });
  expect(touchedOf(touched, toneIn(touched))).toHaveLength(1);
  const again = lay(touched, ['shade'], 25);
  expect(shown(again, 'shade', 0)).toBe(find(touched, 'drawing', byHand.id));
  const other = shown(again, 'shade', 1);
  expect(other.id).toBe(shown(laid, 'shade', 1).id);
  expect((other.marks[other.order[0]!] as Shape).rings).toEqual([ring(25)]);
});

test('a tone layer that was deleted stays deleted', () => {
  const laid = lay(drawn, ['shade', 'light']);
  const without = deleteLayer(laid, toneIn(laid).layers.light!);
  const again = lay(without, ['shade', 'light'], 9);
  expect(namesOf(again)).toEqual(namesOf(without));
});

test('is found from its body and from each of its layers', () => {
  const laid = lay(drawn, ['shade']);
  const about = (id: Id) => toneAbout(laid, id)?.id;
  expect([about(layerId), about(toneIn(laid).layers.shade!)]).toEqual([fresh.id, fresh.id]);
  expect(about(find(laid, 'element', elementId)!.layers[0]!)).toBeUndefined();
});

describe('new drawings of the body', () => {
  const laid = lay(drawn, ['shade']);
  const everywhere = putEntities(laid, { ...toneIn(laid), everywhere: true });
  const stale = (doc: ShotDocument) =>
    staleOf(doc, elementId, 'by itself').flatMap(({ entity, sources }) =>
      entity.kind === 'tone' ? sources.map(({ part }) => part) : [],
    );
  const withNew = (doc: ShotDocument, ...marks: Shape[]) => {
    const added = newDrawing(doc, layerId, 2, newId);
    return marks.reduce((next, mark) => addMark(next, layerId, added.frame, mark, newId), added.doc);
  };

  test('get their tone by themselves where tone is everywhere, and not where it was laid on some only', () => {
    expect(stale(everywhere)).toEqual([]);
    expect(stale(withNew(everywhere, shape(30)))).toHaveLength(1);
    expect(stale(withNew(laid, shape(30)))).toEqual([]);
  });

  test('wait until there is something to cut it from', () => {
    expect(stale(withNew(everywhere))).toEqual([]);
  });
});

test('what tone leaves empty is nobody’s to draw, and no accident', () => {
  const laid = layTone(
    drawn,
    fresh,
    toneSlots(drawn, fresh).map(({ slot, print }, i) => ({ slot, print, shapes: i === 0 ? { shade: [ring(5)] } : {} })),
    newId,
  );
  const shade = toneIn(laid).layers.shade!;
  expect(isByTone(laid, shade)).toBe(true);
  expect(isByTone(laid, layerId)).toBe(false);
  const { timed, turn } = placeOf(laid, shade);
  const seen = { left: -500, top: -500, right: 500, bottom: 500 };
  const factsFor = (id: Id) => factsOf(find(laid, 'drawing', id)!);
  expect(findingsOf(timed, turn, true, seen, factsFor, false).map(({ kind }) => kind)).toEqual(['empty']);
  expect(findingsOf(timed, turn, true, seen, factsFor, true)).toEqual([]);
  // A slot it was not laid on is not to be drawn either.
  const bare = setLayer(laid, shade, {});
  const slots = Object.fromEntries(Object.entries(layerOf(bare, shade).slots).slice(0, 1));
  expect(nextBare(putEntities(bare, { ...layerOf(bare, shade), slots }), shade, 0)).toBeNull();
});

test('what a hole cuts out of a body has no tone; painted over it is there again', () => {
  const hole = addSwatch(drawn, { name: 'hole', role: 'hole', colour: '#000000' }, newId);
  const inner = polygonRing([
    [20, 20],
    [40, 20],
    [40, 40],
    [20, 40],
  ]);
  const cut: Shape = { ...shape(0), id: newId(), swatch: hole.swatchId, rings: [inner] };
  const area = (doc: ShotDocument) =>
    Math.abs(toneSlots(doc, fresh)[0]!.work.rings.reduce((sum, r) => sum + doubleAreaOf(ringPoints(r, 8)), 0)) / 2;
  const before = area(hole.doc);
  const cutOut = addMark(hole.doc, layerId, 0, cut, newId);
  expect(area(cutOut)).toBeCloseTo(before - 400, -1);
  expect(area(addMark(cutOut, layerId, 0, { ...cut, id: newId(), swatch }, newId))).toBeCloseTo(before, -1);
});
