import { find, newShotDocument, entitiesOf, putEntities } from '../document/index.ts';
import { seededIds } from '../geometry/index.ts';
import { addLayer, fillPlace, newTone, setLayer, withFillLayer } from './index.ts';

const newId = seededIds(83);
const doc = newShotDocument(
  newId(),
  { name: 'T', width: 100, height: 50, rate: 24, length: 12, background: null },
  newId,
);
const element = entitiesOf(doc, 'element')[0]!;
const line = element.layers[0]!;
const made = withFillLayer(doc, line, newId);
const layerIds = (d: typeof doc) => find(d, 'element', element.id)!.layers;

test('a fill layer is made right under its lines, on their exposures, and leaves no run list of its own behind', () => {
  expect(layerIds(made.doc)).toEqual([line, made.layerId]);
  expect(find(made.doc, 'layer', made.layerId)!.runListId).toBe(find(doc, 'layer', line)!.runListId);
  const lists = entitiesOf(made.doc, 'runlist');
  expect(lists).toHaveLength(entitiesOf(doc, 'runlist').length);
});

test('where there is a fill layer it is taken, from the lines and from itself, and the lines bound both times', () => {
  expect(withFillLayer(made.doc, line, newId)).toEqual(made);
  const at = { boundIds: [line], fillLayerId: made.layerId };
  expect(fillPlace(made.doc, line, 'this')).toEqual(at);
  expect(fillPlace(made.doc, made.layerId, 'this')).toEqual(at);
});

test('what tone has laid between the lines and their fill is never filled; a body comes before other layers', () => {
  const runListId = find(doc, 'layer', line)!.runListId;
  const between = (now: typeof doc, name: string, role: 'tone' | 'texture') => {
    const added = addLayer(now, element.id, name, role, made.layerId, newId);
    return { ...added, doc: putEntities(added.doc, { ...find(added.doc, 'layer', added.layerId)!, runListId }) };
  };
  const light = between(made.doc, 'Light', 'tone');
  const tone = { ...newTone(find(made.doc, 'layer', made.layerId)!, newId), layers: { light: light.layerId } };
  const toned = putEntities(light.doc, tone);
  expect(layerIds(toned)).toEqual([line, light.layerId, made.layerId]);
  expect(fillPlace(toned, line, 'this').fillLayerId).toBe(made.layerId);
  const grained = between(toned, 'Grain', 'texture');
  expect(fillPlace(grained.doc, line, 'this').fillLayerId).toBe(made.layerId);
  // Where fills went before, they go again.
  const fill = {
    kind: 'fill',
    id: newId(),
    elementId: element.id,
    layerId: grained.layerId,
    bounds: [line],
    gap: 6,
    under: null,
    slots: {},
  } as const;
  expect(fillPlace(putEntities(grained.doc, fill), line, 'this').fillLayerId).toBe(grained.layerId);
});

test('guides and hidden layers never bound', () => {
  const guide = addLayer(made.doc, element.id, 'Guide', 'guide', line, newId);
  const rough = addLayer(guide.doc, element.id, 'Rough', 'rough', line, newId);
  const bounds = (d: typeof doc) => fillPlace(d, line, 'above').boundIds;
  expect(new Set(bounds(rough.doc))).toEqual(new Set([rough.layerId, line]));
  expect(bounds(setLayer(rough.doc, rough.layerId, { visible: false }))).toEqual([line]);
});
