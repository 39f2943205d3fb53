/** Copies of whole shots. */
import { documentOf, type Id, type NewId, type ShotDocument } from '../document/index.ts';
import { copierOf, copyName } from './new-ids.ts';

/** A copy of a shot in which every entity has a new id and points only at the copy's own. */
export function duplicateShot(doc: ShotDocument, shotId: Id, newId: NewId): ShotDocument {
  const entities = Object.values(doc.entities);
  const ids = new Map(entities.map(({ id }) => [id, id === doc.shotId ? shotId : newId()]));
  const copied = copierOf(doc, entities, ids, newId, () => null);
  return documentOf(
    shotId,
    entities.map((entity) => {
      const copy = copied(entity);
      return copy.kind === 'shot' ? { ...copy, name: copyName(copy.name) } : copy;
    }),
  );
}
