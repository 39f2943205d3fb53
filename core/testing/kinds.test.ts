/** What every kind of entity promises. A kind that is new in the list is held to all of it. */
import {
  descriptorOf,
  encodeEntity,
  entityKinds,
  mapIds,
  mergeEntity,
  pointersOf,
  readEntity,
  referencesOf,
  shotOf,
  withValues,
  type Entity,
  type Id,
  type ShotDocument,
} from '../document/index.ts';
import { deleteEntities, duplicateShot, mergeSwatch, replaceSwatch } from '../edit/index.ts';
import { seededIds } from '../geometry/index.ts';
import { everyKind } from './every-kind.ts';

const doc = everyKind(seededIds(1));
const all = Object.values(doc.entities);
const rows = new Set(Object.keys(doc.entities));

/** Every text and every key in a body, however deep. */
function textsIn(value: unknown): string[] {
  if (typeof value === 'string') return [value];
  if (value instanceof Float32Array || typeof value !== 'object' || value === null) return [];
  if (Array.isArray(value)) return value.flatMap(textsIn);
  return Object.entries(value).flatMap(([key, each]) => [key, ...textsIn(each)]);
}
/** Every value over time in a body, however deep. */
function valuesIn(value: unknown): unknown[] {
  if (value instanceof Float32Array || typeof value !== 'object' || value === null) return [];
  if (!Array.isArray(value) && ('constant' in value || 'keys' in value)) return [value];
  return Object.values(value).flatMap(valuesIn);
}
const read = (body: unknown): Entity => {
  const result = readEntity(body);
  if ('problems' in result) throw new Error(`${result.problems[0]?.field} ${result.problems[0]?.message}`);
  return result.ok;
};
const dangling = (of: ShotDocument): string[] =>
  Object.values(of.entities).flatMap((e) =>
    referencesOf(e).flatMap(({ field, id }) => (of.entities[id] ? [] : [`${e.kind}.${field}`])),
  );

test('the document has an entity of every kind, and all that they need', () => {
  expect(new Set(all.map(({ kind }) => kind))).toEqual(new Set(entityKinds()));
  expect(dangling(doc)).toEqual([]);
});

describe.each(entityKinds())('%s', (kind) => {
  const own = all.filter((entity) => entity.kind === kind);
  // The one that has most in it.
  const entity = own.toSorted((a, b) => pointersOf(a).length - pointersOf(b).length).at(-1)!;
  const descriptor = descriptorOf(entity);

  test('goes into JSON and back as it was', () => {
    expect(descriptor.kind).toBe(kind);
    for (const each of own) expect(read(JSON.parse(JSON.stringify(encodeEntity(each))))).toEqual(each);
  });

  test('refuses a field it does not know, and a version that is not there yet', () => {
    const body = encodeEntity(entity);
    expect(readEntity({ ...body, surprise: 1 })).toHaveProperty('problems');
    expect(readEntity({ ...body, bodyVersion: descriptor.version + 1 })).toMatchObject({
      problems: [{ field: 'bodyVersion' }],
    });
    expect(readEntity({ ...body, bodyVersion: descriptor.version })).toEqual({ ok: entity });
    expect(descriptor.upgrades ?? []).toHaveLength(descriptor.version - 1);
  });

  test('points at nothing but what it says, and all of it can be renamed', () => {
    const pointers = pointersOf(entity);
    expect(new Set(pointers.map(({ pointer }) => pointer.to))).toEqual(new Set(descriptor.points));
    for (const { pointer } of pointers) expect(entityKinds()).toContain(pointer.to);
    const fresh = seededIds(2);
    const names = new Map<Id, Id>();
    const renamed = mapIds(entity, (id) => names.get(id) ?? names.set(id, fresh()).get(id)!);
    // No id of another row is left anywhere in it.
    expect(textsIn(renamed).filter((text) => rows.has(text) && text !== entity.id)).toEqual([]);
    expect(pointersOf(renamed).map(({ id }) => id)).toEqual(pointers.map(({ id }) => names.get(id)));
    read(encodeEntity(renamed));
  });

  test('is the same object where nothing is renamed, and valid where all that may go is gone', () => {
    expect(mapIds(entity, (id) => id)).toBe(entity);
    read(encodeEntity(mapIds(entity, () => null)));
  });

  test('lets all its values over time be changed', () => {
    const values = valuesIn(entity);
    const changed = withValues(entity, (value) => ('keys' in value ? { keys: value.keys.slice(0, 1) } : value));
    const after = valuesIn(changed);
    expect(after).toHaveLength(values.length);
    for (const value of after)
      if (typeof value === 'object' && value && 'keys' in value) expect(value.keys).toHaveLength(1);
  });

  test('merges with itself, and takes each field that only one side changed', () => {
    const other = read(encodeEntity(entity));
    expect(mergeEntity(entity, entity, other)).toEqual({ merged: entity, clashes: [] });
    expect(mergeEntity(undefined, entity, other).merged).toEqual(entity);
    for (const [field, value] of Object.entries(entity)) {
      if (field === 'id' || field === 'kind') continue;
      // Emptied, or another text or number: what counts is who changed it.
      const next: unknown = Array.isArray(value)
        ? []
        : typeof value === 'number'
          ? value + 1
          : typeof value === 'boolean'
            ? !value
            : typeof value === 'string'
              ? `${value}x`
              : null;
      if (next === null) continue;
      const changed = { ...entity, [field]: next } as Entity;
      if (kind === 'drawing') continue;
      expect(mergeEntity(entity, changed, other).merged).toEqual(changed);
      expect(mergeEntity(entity, other, changed).merged).toEqual(changed);
    }
  });

  test('leaves nothing dangling once it is deleted', () => {
    if (kind === 'shot') return;
    for (const each of own) {
      const ready = kind === 'swatch' ? replaceSwatch(doc, each.id, otherSwatch(each.id)) : doc;
      const left = deleteEntities(ready, [each.id]);
      expect(left.entities).not.toHaveProperty(each.id);
      expect(dangling(left).filter((field) => (kind !== 'plane' && kind !== 'runlist' ? true : field === ''))).toEqual(
        [],
      );
      for (const entity of Object.values(left.entities)) read(encodeEntity(entity));
    }
  });
});

const otherSwatch = (id: Id): Id => shotOf(doc).swatches.find((each) => each !== id)!;

test('a copy of the shot points at nothing of the shot', () => {
  const copy = duplicateShot(doc, seededIds(3)(), seededIds(4));
  expect(Object.keys(copy.entities)).toHaveLength(rows.size);
  expect(
    Object.values(copy.entities)
      .flatMap(textsIn)
      .filter((text) => rows.has(text)),
  ).toEqual([]);
  expect(dangling(copy)).toEqual([]);
});

test('a swatch replaced is named nowhere but in the palette, and can then go', () => {
  for (const swatch of shotOf(doc).swatches) {
    const replaced = replaceSwatch(doc, swatch, otherSwatch(swatch));
    const left = Object.values(replaced.entities).filter((e) => e.kind !== 'shot' && e.id !== swatch);
    expect(left.flatMap(textsIn)).not.toContain(swatch);
    const merged = mergeSwatch(doc, swatch, otherSwatch(swatch));
    expect(Object.values(merged.entities).flatMap(textsIn)).not.toContain(swatch);
  }
});

test('deleting an element takes all that belongs to it, and nothing else', () => {
  const element = all.find(({ kind }) => kind === 'element')!;
  const left = Object.values(deleteEntities(doc, [element.id]).entities);
  expect([...new Set(left.map(({ kind }) => kind))].sort()).toEqual([
    'guide',
    'plane',
    'plate',
    'shot',
    'sound',
    'swatch',
  ]);
  expect(left.filter(({ kind }) => kind === 'guide')).toHaveLength(1);
});
