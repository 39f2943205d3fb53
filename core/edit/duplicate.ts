/** Copies of whole shots. */
import { documentOf, type Entity, type Id, type NewId, type ShotDocument } from '../document/index.ts';
import { copierOf, copyName } from './new-ids.ts';

/**
 * A copy of a shot in which every entity has a new id and points only at the copy's own, one entity after the other: in a
 * large shot that takes seconds, and whoever copies may do other things in between.
 */
export function* copiesOfShot(doc: ShotDocument, shotId: Id, newId: NewId): Generator<Entity> {
  const entities = Object.values(doc.entities);
  const ids = new Map(entities.map(({ id }) => [id, id === doc.shotId ? shotId : newId()]));
  const copied = copierOf(doc, entities, ids, newId, () => null);
  for (const entity of entities) {
    const copy = copied(entity);
    yield copy.kind === 'shot' ? { ...copy, name: copyName(copy.name) } : copy;
  }
}

/** The same copy as a whole. */
export const duplicateShot = (doc: ShotDocument, shotId: Id, newId: NewId): ShotDocument =>
  documentOf(shotId, [...copiesOfShot(doc, shotId, newId)]);
