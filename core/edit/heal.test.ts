import {
  encodeEntity,
  entitiesOf,
  find,
  newShotDocument,
  putEntities,
  readEntity,
  referencesOf,
  shotOf,
  type ShotDocument,
} from '../document/index.ts';
import { elementLength, timedLayers } from '../timing/index.ts';
import { seededIds } from '../geometry/index.ts';
import { everyKind } from '../testing/every-kind.ts';
import { newDrawing } from './drawings.ts';
import { heal } from './heal.ts';

const FORMAT = { name: 'S', width: 64, height: 48, rate: 24, length: 8, background: null };
const fresh = () => newShotDocument(seededIds(1)(), FORMAT, seededIds(2));

/** Everything in it can be stored and names only what is there. */
function expectWhole(doc: ShotDocument): void {
  for (const entity of Object.values(doc.entities)) {
    expect(readEntity(encodeEntity(entity))).toHaveProperty('ok');
    for (const { id } of referencesOf(entity)) expect(doc.entities).toHaveProperty(id);
  }
}

test('a document that can be drawn on stays the very same', () => {
  const world = everyKind(seededIds(3));
  expect(heal(world)).toEqual({ doc: world, told: [] });
  expect(heal(fresh()).doc).toEqual(fresh());
});

test('a shot without swatches, or without an element, can be drawn on again, and that is told', () => {
  const doc = fresh();
  const bare = putEntities(doc, { ...shotOf(doc), swatches: [], elements: [], planes: [] });
  const { doc: healed, told } = heal(bare);
  expect(told).toHaveLength(2);
  const { swatches, elements, planes } = shotOf(healed);
  expect(swatches.length).toBeGreaterThan(0);
  expect(timedLayers(healed, find(healed, 'element', elements[0])!)).toHaveLength(1);
  expect(find(healed, 'plane', planes[0])!.placements).toHaveLength(1);
  expectWhole(healed);
  // Whoever opens it beside puts in the same; once put in, nothing is missing.
  expect(heal(bare).doc).toEqual(healed);
  expect(heal(healed).told).toEqual([]);
});

test('a layer whose run list is gone shows all of its drawings again', () => {
  let doc = fresh();
  const layer = entitiesOf(doc, 'layer')[0]!;
  const newId = seededIds(9);
  for (const frame of [0, 1, 2]) ({ doc } = newDrawing(doc, layer.id, frame, newId));
  const entities = { ...doc.entities };
  Reflect.deleteProperty(entities, layer.runListId);
  const { doc: healed, told } = heal({ ...doc, entities });
  expect(told).toEqual([expect.stringContaining(layer.name)]);
  const element = entitiesOf(healed, 'element')[0]!;
  const [timed] = timedLayers(healed, element);
  expect(timed!.list.runs.map(({ slot }) => slot)).toEqual(Object.keys(timed!.layer.slots));
  expect(timed!.list.runs.length).toBeGreaterThan(1);
  expect(elementLength(healed, element)).toBe(timed!.list.runs.length);
  expectWhole(healed);
});
