import { entitiesOf, find, pointersOf, shotOf, type ShotDocument } from '../document/index.ts';
import { seededIds } from '../geometry/index.ts';
import { everyKind } from '../testing/every-kind.ts';
import { bringBack } from './bring-back.ts';
import { addLayer, deleteLayer, setLayer } from './layers.ts';
import { deleteElement, setElement } from './elements.ts';
import { newDrawing } from './drawings.ts';
import { takeParts } from './parts-clip.ts';
import { setPlacements } from './placements.ts';

const newId = seededIds(21);
const then = everyKind(newId);
const element = entitiesOf(then, 'element').find(({ layers }) => layers.length > 1) ?? entitiesOf(then, 'element')[0]!;
const clip = takeParts(then, [element.id]);
const contents = (doc: ShotDocument) => {
  const now = find(doc, 'element', element.id)!;
  return { now, layers: now.layers.map((id) => doc.entities[id]) };
};
const dangling = (doc: ShotDocument): string[] =>
  Object.values(doc.entities).flatMap((each) =>
    pointersOf(each).flatMap(({ id, pointer }) =>
      ['owner', 'needs', 'lists'].includes(pointer.bond) && !doc.entities[id] ? [`${each.kind}.${pointer.field}`] : [],
    ),
  );

test('an element becomes as it was: layers, drawings and timing; uses and everything else stay', () => {
  const layer = element.layers.map((id) => find(then, 'layer', id)).find((each) => each)!;
  let now = addLayer(then, element.id, 'Since', 'body', null, newId).doc;
  now = setLayer(now, layer.id, { name: 'Renamed since' });
  now = newDrawing(now, layer.id, 0, newId).doc;
  const use = entitiesOf(now, 'placement').find(({ elementId }) => elementId === element.id)!;
  now = setPlacements(now, [use.id], { start: 7 });
  const back = bringBack(now, clip);
  expect(contents(back)).toEqual(contents(then));
  expect(find(back, 'runlist', layer.runListId)).toEqual(find(then, 'runlist', layer.runListId));
  expect(find(back, 'placement', use.id)).toMatchObject({ start: 7 });
  expect(dangling(back)).toEqual(dangling(then));
  expect(entitiesOf(back, 'layer').some(({ name }) => name === 'Since')).toBe(false);
});

test('a layer that is gone since comes back, a swatch with it; one that is there keeps its colour of now', () => {
  const layer = find(
    then,
    'layer',
    element.layers.find((id) => find(then, 'layer', id)),
  )!;
  const now = deleteLayer(then, layer.id);
  expect(contents(bringBack(now, clip)).layers).toEqual(contents(then).layers);
  const [swatch] = entitiesOf(then, 'swatch');
  const repainted = { ...now, entities: { ...now.entities, [swatch!.id]: { ...swatch!, colour: '#00ff88' } } };
  expect(find(bringBack(repainted, clip), 'swatch', swatch!.id)).toMatchObject({ colour: '#00ff88' });
});

test('an element that is gone comes back with a use of it', () => {
  const now = deleteElement(then, element.id);
  const back = bringBack(now, clip);
  expect(shotOf(back).elements).toContain(element.id);
  expect(entitiesOf(back, 'placement').some(({ elementId }) => elementId === element.id)).toBe(true);
  expect(contents(back).layers).toEqual(contents(then).layers);
  expect(dangling(back)).toEqual([]);
});

test('of another shot, or of nothing, nothing changes', () => {
  expect(bringBack(then, { ...clip, shotId: newId() })).toBe(then);
  expect(bringBack(then, { ...clip, roots: [] })).toBe(then);
  const renamed = setElement(then, element.id, { name: 'Now' });
  expect(contents(bringBack(renamed, clip)).now.name).toBe(element.name);
});
