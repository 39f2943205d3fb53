import { find, newShotDocument, entitiesOf } from '../document/index.ts';
import { seededIds } from '../geometry/index.ts';
import { addLayer, fillPlace, setLayer, withFillLayer } from './index.ts';

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

test('guides and hidden layers never bound', () => {
  const guide = addLayer(made.doc, element.id, 'Guide', 'guide', line, newId);
  const rough = addLayer(guide.doc, element.id, 'Rough', 'rough', line, newId);
  const bounds = (d: typeof doc) => fillPlace(d, line, 'above').boundIds;
  expect(new Set(bounds(rough.doc))).toEqual(new Set([rough.layerId, line]));
  expect(bounds(setLayer(rough.doc, rough.layerId, { visible: false }))).toEqual([line]);
});
