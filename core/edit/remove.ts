/** Deleting: what goes with what is deleted, and what no longer has anything to keep it, as the kinds say. */
import {
  descriptorOf,
  dropEntities,
  holdsNothing,
  mapIds,
  pointersOf,
  putEntities,
  type Entity,
  type Id,
  type ShotDocument,
} from '../document/index.ts';

/** Some ids and all entities that belong to them, directly or through others. */
function withBelongings(entities: readonly Entity[], ids: readonly Id[]): Set<Id> {
  const gone = new Set(ids);
  const owners = entities.map((entity) => ({
    id: entity.id,
    of: pointersOf(entity).flatMap(({ id, pointer }) =>
      pointer.bond === 'owner' || pointer.bond === 'follows' ? [id] : [],
    ),
  }));
  for (let before = -1; before !== gone.size;) {
    before = gone.size;
    for (const { id, of } of owners) if (of.some((owner) => gone.has(owner))) gone.add(id);
  }
  return gone;
}

/** Ids that an entity keeps from being deleted. */
const keptBy = (entity: Entity): Id[] =>
  holdsNothing(entity) ? [] : pointersOf(entity).flatMap(({ id, pointer }) => (pointer.keeps ? [id] : []));

/** Drops those of some entities that nothing keeps any more: drawings that no layer shows and no variant holds. */
export function dropUnkept(doc: ShotDocument, ids: readonly Id[]): ShotDocument {
  const kept = new Set(Object.values(doc.entities).flatMap(keptBy));
  return dropEntities(
    doc,
    ids.filter((id) => !kept.has(id)),
  );
}

/**
 * Deletes entities with all that belongs to them; they are gone from every list, and what only they kept is gone too.
 * What merely looks them up stays and remembers them.
 */
export function deleteEntities(doc: ShotDocument, ids: readonly Id[]): ShotDocument {
  const there = ids.filter((id) => doc.entities[id]);
  if (there.length === 0) return doc;
  const holders = Object.values(doc.entities).filter((entity) => !holdsNothing(entity));
  const gone = withBelongings(holders, there);
  const kinds = new Set([...gone].flatMap((id) => doc.entities[id]?.kind ?? []));
  const changed = holders.flatMap((entity) => {
    if (gone.has(entity.id)) return [];
    // A list of layers names folders too, one of placements plates.
    const { points } = descriptorOf(entity);
    if (
      !points.some((kind) => kinds.has(kind as Entity['kind'])) &&
      !points.includes('layer') &&
      !points.includes('placement')
    )
      return [];
    const next = mapIds(entity, (id, { bond }) =>
      gone.has(id) && (bond === 'lists' || bond === 'entry' || bond === 'needs') ? null : id,
    );
    return next === entity ? [] : [next];
  });
  const loosened = holders.flatMap((entity) => (gone.has(entity.id) ? keptBy(entity) : []));
  return dropUnkept(dropEntities(putEntities(doc, ...changed), [...gone]), loosened);
}
