import {
  find,
  newShotDocument,
  shotOf,
  type Drawing,
  type Layer,
  type ShotDocument,
  type Starter,
  entitiesOf,
} from '../document/index.ts';
import { seededIds } from '../geometry/index.ts';
import { layAll, newStarter, sceneOf, starterOf } from '../starters/index.ts';
import { timedLayers, totalLength } from '../timing/index.ts';
import { deleteRuns, newDrawing } from './drawings.ts';
import { deleteLayer } from './layers.ts';
import { isAsLaid, fingerprintOf, touchedOf } from '../derived/index.ts';
import { deleteStarter, layStarter, releaseStarter, startersOf } from './starters.ts';

const newId = seededIds(9);
const blank = newShotDocument(
  newId(),
  { name: 'Shot', width: 1920, height: 1080, rate: 24, length: 48, background: null },
  newId,
);
const element = entitiesOf(blank, 'element')[0]!;
const kind = starterOf('fire');
// Small, so that laying it is quick.
const small = { ...kind.presets[0]!, settings: { width: 60, height: 140, tongues: 2 } };
const first = { ...newStarter(element, 'fire', small, 3, newId), length: 12, hold: 2 };

const lay = (doc: ShotDocument, starter: Starter, byHand?: 'keep' | 'lay over') =>
  layStarter(doc, starter, layAll(starterOf(starter.effect), sceneOf(doc, starter))!, newId, byHand);
const starterIn = (doc: ShotDocument) => find(doc, 'starter', first.id)!;
const layerOf = (doc: ShotDocument, key: string): Layer => find(doc, 'layer', starterIn(doc).layers[key])!;
const drawingAt = (doc: ShotDocument, key: string, i: number): Drawing =>
  find(doc, 'drawing', starterIn(doc).laid[key]![i]!.drawingId)!;
/** The same drawing with its topmost mark taken away, as a hand might. */
const touch = (doc: ShotDocument, drawing: Drawing): ShotDocument => ({
  ...doc,
  entities: { ...doc.entities, [drawing.id]: { ...drawing, order: [], marks: {} } },
});

const laid = lay(blank, first);

test('the first time, layers are made in a folder, top down, with a drawing each, and the element becomes a cycle', () => {
  const now = find(laid, 'element', element.id)!;
  expect(now.time).toBe('cycle');
  const folder = find(laid, 'folder', now.layers[0])!;
  expect(folder.layers.map((id) => find(laid, 'layer', id)!.name)).toEqual([
    'Fire balls',
    'Fire line',
    'Fire core',
    'Fire body',
  ]);
  expect(layerOf(laid, 'balls')).toMatchObject({ role: 'guide', visible: false, starterId: first.id });
  for (const { layer, list } of timedLayers(laid, now).slice(0, 4)) {
    expect(totalLength(list)).toBe(12);
    expect(Object.keys(layer.slots)).toHaveLength(6);
  }
  expect(startersOf(laid, element.id)).toEqual([starterIn(laid)]);
});

test('its swatches come from the palette by name and role; only what is missing is added', () => {
  const before = shotOf(blank).swatches;
  expect(shotOf(laid).swatches.slice(0, before.length)).toEqual(before);
  expect(shotOf(laid).swatches).toHaveLength(before.length + 1);
  expect(Object.values(starterIn(laid).paints)).toContain(before[0]);
});

test('laid again with other settings it changes its drawings in place', () => {
  const higher = lay(laid, { ...starterIn(laid), settings: { ...first.settings, height: 240 } });
  expect(drawingAt(higher, 'body', 2).id).toBe(drawingAt(laid, 'body', 2).id);
  expect(fingerprintOf(drawingAt(higher, 'body', 2))).not.toBe(fingerprintOf(drawingAt(laid, 'body', 2)));
  expect(find(higher, 'runlist', layerOf(higher, 'body').runListId)).toBe(
    find(laid, 'runlist', layerOf(laid, 'body').runListId),
  );
});

test('drawings changed by hand are counted and kept, unless told otherwise', () => {
  const touched = touch(laid, drawingAt(laid, 'line', 1));
  expect(touchedOf(touched, starterIn(touched)).length).toBe(1);
  expect(isAsLaid(touched, { ...starterIn(touched).laid['line']![0]!, markId: null })).toBe(true);
  const again = { ...starterIn(touched), settings: { ...first.settings, height: 200 } };
  expect(drawingAt(lay(touched, again), 'line', 1).order).toEqual([]);
  expect(drawingAt(lay(touched, again, 'lay over'), 'line', 1).order.length).toBeGreaterThan(0);
});

test('laid on other holds, what was drawn by hand keeps its number or goes onto a layer of its own', () => {
  const touched = touch(touch(laid, drawingAt(laid, 'line', 1)), drawingAt(laid, 'body', 5));
  const longer = lay(touched, { ...starterIn(touched), hold: 4 });
  expect(totalLength(find(longer, 'runlist', layerOf(longer, 'line').runListId)!)).toBe(12);
  expect(Object.keys(layerOf(longer, 'line').slots)).toHaveLength(3);
  expect(drawingAt(longer, 'line', 1).order).toEqual([]);
  const kept = entitiesOf(longer, 'layer').find((e) => e.name === 'Fire body, kept')!;
  expect(Object.values(kept.slots)).toEqual([drawingAt(laid, 'body', 5).id]);
  // It shows where it showed before.
  expect(find(longer, 'runlist', kept.runListId)!.runs.map((r) => [r.slot !== null, r.length])).toEqual([
    [false, 10],
    [true, 2],
  ]);
});

test('a drawing put in by hand is kept when its layer is laid on other holds', () => {
  const layer = layerOf(laid, 'body');
  const added = newDrawing(laid, layer.id, 0, newId).doc;
  const own = Object.values(layerOf(added, 'body').slots).find((id) => !Object.values(layer.slots).includes(id))!;
  const drawn = { ...added, entities: { ...added.entities, [own]: { ...drawingAt(laid, 'line', 0), id: own } } };
  const longer = lay(drawn, { ...starterIn(drawn), hold: 3 });
  expect(find(longer, 'drawing', own)).toBeDefined();
});

test('on a cycle the shorter goes round by itself: a starter under a longer one, and what was there under a longer starter', () => {
  const periodOf = (doc: ShotDocument, layer: Layer) => find(doc, 'runlist', layer.runListId)!.period;
  const second = { ...newStarter(element, 'fire', small, 4, newId), length: 24, hold: 4 };
  const both = lay(laid, second);
  expect(periodOf(both, layerOf(both, 'body'))).toBe(12);
  const short = { ...newStarter(element, 'fire', small, 5, newId), length: 6, hold: 3 };
  const shorter = lay(laid, short);
  const own = find(shorter, 'layer', find(shorter, 'starter', short.id)!.layers['body'])!;
  expect(periodOf(shorter, own)).toBe(6);
  expect(periodOf(shorter, layerOf(shorter, 'body'))).toBeNull();
});

test('layers and drawings that were deleted stay deleted', () => {
  const without = deleteLayer(laid, layerOf(laid, 'core').id);
  const again = lay(without, { ...starterIn(without), settings: { ...first.settings, height: 300 } });
  expect(layerOf(again, 'core')).toBeUndefined();
  const fewer = deleteRuns(laid, layerOf(laid, 'line').id, [3], 'close up').doc;
  const later = lay(fewer, { ...starterIn(fewer), settings: { ...first.settings, height: 300 } });
  expect(Object.keys(layerOf(later, 'line').slots)).toHaveLength(5);
});

test('it can be deleted with all it laid, or let go so that its layers are ordinary ones', () => {
  const gone = deleteStarter(laid, first.id);
  expect(Object.values(gone.entities).filter((e) => e.kind === 'drawing' || e.kind === 'folder')).toEqual([]);
  expect(find(gone, 'element', element.id)!.layers).toEqual(element.layers);
  const free = releaseStarter(laid, first.id);
  expect(startersOf(free, element.id)).toEqual([]);
  expect(entitiesOf(free, 'layer')).toHaveLength(5);
});
