/** Copies of entities under ids of their own. */
import {
  holdsNothing,
  mapIds,
  pointersOf,
  type Drawing,
  type Entity,
  type Id,
  type NewId,
  type ShotDocument,
} from '../document/index.ts';
import { withFingerprintsOf } from '../derived/index.ts';

/** The longest name a copy is made from; what is longer is cut so that the copy's name still fits. */
const ROOM = 190;

/** The name of a copy. */
export const copyName = (name: string): string => `${name.slice(0, ROOM).toWellFormed()} copy`;

/**
 * How entities are copied. What was as it was laid is so in the copy.
 * @param ids what ids become; those of what lies inside the entities are added.
 * @param other what an id becomes that is none of them.
 */
export function copierOf(
  doc: ShotDocument,
  entities: readonly Entity[],
  ids: Map<Id, Id>,
  newId: NewId,
  other: (id: Id) => Id | null,
): (entity: Entity) => Entity {
  // What lies inside a body, such as the run lists of a kept variant, need not have a row of its own.
  for (const entity of entities)
    if (!holdsNothing(entity))
      for (const { id, pointer } of pointersOf(entity))
        if (pointer.bond === 'holds' && !ids.has(id)) ids.set(id, newId());
  const withIds = <E extends Entity>(entity: E): E => ({
    ...mapIds(entity, (id) => ids.get(id) ?? other(id)),
    id: ids.get(entity.id) ?? entity.id,
  });
  // Prints tell swatches apart, and a copy may have its own.
  return (entity) => withIds(withFingerprintsOf(doc, entity, (drawing): Drawing => withIds(drawing)));
}
