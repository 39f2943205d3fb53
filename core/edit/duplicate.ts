/** Copies of whole shots. */
import {
  documentOf,
  holdsNothing,
  mapIds,
  pointersOf,
  type Drawing,
  type Entity,
  type Id,
  type NewId,
  type ShotDocument,
} from '../document/index.ts';
import { reprinted } from '../derived/index.ts';

/** The longest name a copy is made from; what is longer is cut so that the copy's name still fits. */
const ROOM = 190;

/** A copy of a shot in which every entity has a new id and points only at the copy's own. */
export function duplicateShot(doc: ShotDocument, shotId: Id, newId: NewId): ShotDocument {
  const ids = new Map(Object.keys(doc.entities).map((id) => [id, id === doc.shotId ? shotId : newId()]));
  // What lies inside a body, such as the run lists of a kept variant, need not have a row of its own.
  for (const entity of Object.values(doc.entities))
    if (!holdsNothing(entity))
      for (const { id, pointer } of pointersOf(entity))
        if (pointer.bond === 'holds' && !ids.has(id)) ids.set(id, newId());
  const withIds = <E extends Entity>(entity: E): E => ({
    ...mapIds(entity, (id) => ids.get(id) ?? null),
    id: ids.get(entity.id) ?? entity.id,
  });
  // Prints tell swatches apart, and a copy has its own: what was as it was laid is so in the copy.
  const copied = (entity: Entity): Entity => {
    const copy = withIds(reprinted(doc, entity, (drawing): Drawing => withIds(drawing)));
    return copy.kind === 'shot' ? { ...copy, name: `${copy.name.slice(0, ROOM).toWellFormed()} copy` } : copy;
  };
  return documentOf(shotId, Object.values(doc.entities).map(copied));
}
