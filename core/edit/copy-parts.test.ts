import {
  entitiesOf,
  find,
  readEntity,
  encodeEntity,
  referencesOf,
  shotOf,
  type ShotDocument,
} from '../document/index.ts';
import { DERIVED, touchedOf, type DerivedEntity, type DerivedKind } from '../derived/index.ts';
import { cycleOf, fixture, layerOf } from '../fixture.ts';
import { everyKind } from '../testing/every-kind.ts';
import { seededIds } from '../geometry/index.ts';
import { addFolder, addLayer, copyParts, deleteElement, lineOver } from './index.ts';

const made = fixture(71);
const { newId, layerId, elementId, stroke } = made;
const drawn = cycleOf(made, 3, (i) => stroke(i * 10, 0, 40, 40));
const namesIn = (doc: ShotDocument): string[] =>
  find(doc, 'element', elementId)!.layers.map((id) => find(doc, 'layer', id)?.name ?? find(doc, 'folder', id)!.name);

test('a layer is copied right over itself, with drawings of its own and in its own time', () => {
  const { doc, copies } = copyParts(drawn, [layerId], newId);
  expect(namesIn(doc)).toEqual(['Line copy', 'Line']);
  const [copy, before] = [layerOf(doc, copies.get(layerId)!), layerOf(doc, layerId)];
  expect(copy.runListId).not.toBe(before.runListId);
  const marksOf = (layer: typeof copy) =>
    Object.values(layer.slots).map((id) => find(doc, 'drawing', id)!.order.length);
  expect(marksOf(copy)).toEqual([1, 1, 1]);
  expect(Object.values(copy.slots).some((id) => Object.values(before.slots).includes(id))).toBe(false);
  // What it was made from is as it was.
  expect(before).toBe(layerOf(drawn, layerId));
});

test('layers tied together and copied together are tied to each other; copied alone, one stays tied to the other', () => {
  const over = lineOver(drawn, layerId, 'Over', 'line', newId);
  const both = copyParts(over.doc, [layerId, over.layerId], newId);
  const [a, b] = [layerId, over.layerId].map((id) => layerOf(both.doc, both.copies.get(id)!));
  expect(a!.runListId).toBe(b!.runListId);
  expect(a!.runListId).not.toBe(layerOf(both.doc, layerId).runListId);
  const alone = copyParts(over.doc, [over.layerId], newId);
  expect(layerOf(alone.doc, alone.copies.get(over.layerId)!).runListId).toBe(layerOf(over.doc, layerId).runListId);
});

test('a folder is copied with what lies in it', () => {
  const two = addLayer(drawn, elementId, 'Second', 'body', null, newId);
  const { doc: filed, folderId } = addFolder(two.doc, elementId, 'Both', [layerId, two.layerId], newId);
  const { doc, copies } = copyParts(filed, [folderId], newId);
  expect(namesIn(doc)).toEqual(['Both copy', 'Both']);
  const within = find(doc, 'folder', copies.get(folderId)!)!.layers.map((id) => layerOf(doc, id));
  expect(within.map(({ name }) => name)).toEqual(
    find(doc, 'folder', folderId)!.layers.map((id) => layerOf(doc, id).name),
  );
  expect(within.some(({ id }) => id === layerId)).toBe(false);
});

describe('an element of everything there is', () => {
  const world = everyKind(seededIds(72));
  const element = entitiesOf(world, 'element')[0]!;
  const { doc, copies } = copyParts(world, [element.id], newId);
  const copyId = copies.get(element.id)!;
  const fresh = Object.values(doc.entities).filter(({ id }) => !world.entities[id]);

  test('is copied whole: as many of each kind as go when it is deleted, all of them valid, pointing at what is there', () => {
    const gone = deleteElement(doc, copyId);
    const count = (of: ShotDocument) => Object.keys(of.entities).length;
    expect(count(gone)).toBe(count(world));
    for (const entity of fresh) {
      expect(readEntity(encodeEntity(entity))).toHaveProperty('ok');
      for (const { id } of referencesOf(entity)) expect(doc.entities[id]).toBeDefined();
    }
  });

  test('stands in front of it, with a placement of its own', () => {
    expect(shotOf(doc).elements.slice(0, 2)).toEqual([copyId, element.id]);
    const placed = entitiesOf(doc, 'placement').filter((each) => each.elementId === copyId);
    expect(placed.length).toBeGreaterThan(0);
    const listed = entitiesOf(doc, 'plane').flatMap(({ placements }) => placements);
    for (const { id } of placed) expect(listed).toContain(id);
  });

  test('points at nothing of what it was made from', () => {
    const before = new Set(Object.keys(world.entities).filter((id) => !deleteElement(world, element.id).entities[id]));
    for (const entity of fresh) for (const { id } of referencesOf(entity)) expect(before.has(id)).toBe(false);
  });

  test('what was laid and untouched is so in the copy', () => {
    for (const kind of Object.keys(DERIVED) as DerivedKind[]) {
      const touched = (of: ShotDocument, from: (entity: DerivedEntity) => boolean) =>
        entitiesOf(of, kind)
          .filter(from)
          .map((entity) => touchedOf(of, entity).length);
      expect(touched(doc, ({ id }) => !world.entities[id])).toEqual(
        touched(world, ({ elementId: of }) => of === element.id),
      );
    }
  });
});
