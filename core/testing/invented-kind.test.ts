/** A kind that nobody has heard of, put into the list at run time: everything that goes over kinds takes it along. */
import { z } from 'zod';
import {
  applyStep,
  encodeEntity,
  KINDS,
  mergeEntity,
  putEntities,
  readEntity,
  referencesOf,
  reversed,
  shotOf,
  touchedBetween,
  withValues,
  constant,
  type Entity,
  type Id,
  type Value,
} from '../document/index.ts';
import { deleteEntities, duplicateShot, replaceSwatch, usesOf } from '../edit/index.ts';
import { seededIds } from '../geometry/index.ts';
import { kindOf, list, one, OF_ELEMENT, withFields } from '../document/kinds/kind.ts';
import { everyKind } from './every-kind.ts';

interface Ember {
  readonly kind: 'ember';
  readonly id: Id;
  readonly elementId: Id;
  readonly heat: Value;
  readonly glows: readonly Id[];
  readonly name: string;
}
const GLOWS = { field: 'glows', to: 'swatch', bond: 'needs', use: 'ember' } as const;
const ember = kindOf<Ember>({
  kind: 'ember',
  version: 2,
  upgrades: [(body) => ({ ...body, name: 'unnamed' })],
  schema: () =>
    z.strictObject({
      kind: z.literal('ember'),
      id: z.string(),
      elementId: z.string(),
      heat: z.strictObject({ constant: z.number() }),
      glows: z.array(z.string()),
      name: z.string(),
    }),
  merge: { heat: 'value', glows: 'order' },
  points: ['element', 'swatch'],
  mapIds: (entity, of) =>
    withFields(entity, { elementId: one(entity.elementId, of, OF_ELEMENT), glows: list(entity.glows, of, GLOWS) }),
  mapValues: (entity, change) => ({ ...entity, heat: change(entity.heat) }),
});

const kinds = KINDS as unknown as Record<string, unknown>;
beforeAll(() => {
  kinds['ember'] = ember;
});
afterAll(() => {
  Reflect.deleteProperty(kinds, 'ember');
});

const newId = seededIds(8);
const doc = everyKind(newId);
const [first, second] = shotOf(doc).swatches as [Id, Id, ...Id[]];
const elementId = shotOf(doc).elements[0]!;
const made: Ember = { kind: 'ember', id: newId(), elementId, heat: constant(1), glows: [first], name: 'A' };
const entity = made as unknown as Entity;
const withEmber = putEntities(doc, entity);
const emberOf = (of: typeof doc): Ember | undefined =>
  Object.values(of.entities).find((e) => (e.kind as string) === 'ember') as Ember | undefined;

test('it is saved and read, also as its first version stored it', () => {
  const body = encodeEntity(entity);
  expect(body).toMatchObject({ bodyVersion: 2 });
  expect(readEntity(body)).toEqual({ ok: entity });
  const older = Object.fromEntries(Object.entries(body).filter(([key]) => key !== 'name' && key !== 'bodyVersion'));
  expect(readEntity(older)).toEqual({ ok: { ...made, name: 'unnamed' } });
  expect(referencesOf(entity).map(({ field }) => field)).toEqual(['elementId', 'glows']);
});

test('it is merged by its own rules, undone and done again', () => {
  const ours = { ...made, glows: [first, second] } as unknown as Entity;
  const theirs = { ...made, name: 'B' } as unknown as Entity;
  expect(mergeEntity(entity, ours, theirs).merged).toEqual({ ...made, glows: [first, second], name: 'B' });
  const step = { name: 'ember', touched: touchedBetween(doc, withEmber) };
  expect(applyStep(withEmber, reversed(step))!.entities).toEqual(doc.entities);
  expect(applyStep(doc, step)!.entities).toEqual(withEmber.entities);
});

test('it is copied, repainted, deleted with its element; its values are found, and where it uses a swatch', () => {
  const copy = emberOf(duplicateShot(withEmber, newId(), newId))!;
  expect(copy).toMatchObject({ heat: made.heat, name: 'A' });
  expect([copy.id, copy.elementId, ...copy.glows]).not.toContain(elementId);
  expect(copy.glows).not.toContain(first);
  expect(emberOf(replaceSwatch(withEmber, first, second))!.glows).toEqual([second]);
  expect(usesOf(withEmber, first).others).toMatchObject({ ember: 1 });
  expect(withValues(entity, () => constant(5))).toMatchObject({ heat: constant(5) });
  expect(emberOf(deleteEntities(withEmber, [elementId]))).toBeUndefined();
  expect(emberOf(deleteEntities(withEmber, [first]))!.glows).toEqual([]);
});
