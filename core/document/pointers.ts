/** What entities point at, and what follows from it. */
import type { Id } from './id.ts';
import { descriptorOf, type Entity, type EntityKind } from './kinds/index.ts';
import type { Bond, IdMap, Pointer } from './kinds/kind.ts';

/** An entity with every id it points at put through a map, but its own; itself where none changes. */
export const mapIds = <E extends Entity>(entity: E, of: IdMap): E => descriptorOf(entity).mapIds(entity, of);

/** All that an entity points at, in the order of its fields. */
export function pointersOf(entity: Entity): { readonly id: Id; readonly pointer: Pointer }[] {
  const found: { id: Id; pointer: Pointer }[] = [];
  mapIds(entity, (id, pointer) => {
    found.push({ id, pointer });
    return id;
  });
  return found;
}

/** What an entity points at of one kind. */
export const pointersTo = (entity: Entity, kind: EntityKind): ReturnType<typeof pointersOf> =>
  descriptorOf(entity).points.includes(kind) ? pointersOf(entity).filter(({ pointer }) => pointer.to === kind) : [];

const MUST_BE: ReadonlySet<Bond> = new Set<Bond>(['owner', 'lists', 'needs']);

/** Ids of other entities that must be there for a body to stand, with the field that says so. */
export const referencesOf = (entity: Entity): { field: string; id: Id }[] =>
  pointersOf(entity).flatMap(({ id, pointer }) => (MUST_BE.has(pointer.bond) ? [{ field: pointer.field, id }] : []));

/** Whether an entity points at swatches alone, as drawings do, which are many: it belongs to nothing and holds nothing. */
export const holdsNothing = (entity: Entity): boolean => descriptorOf(entity).points.every((kind) => kind === 'swatch');

/** The contents from outside that an entity shows or plays, by their SHA-256. */
export const assetsOf = (entity: Entity): readonly string[] => descriptorOf(entity).assets?.(entity) ?? [];
