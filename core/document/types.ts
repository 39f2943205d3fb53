/**
 * A shot's document as plain immutable data: entities of the kinds of `kinds/`, by id.
 *
 * Lengths are px of the shot, time is whole frames counted from 0, coordinates of marks are in
 * element space (origin at the element's anchor, y down). Ids are UUIDs made by the client.
 */
import type { Id } from './id.ts';
import type { Drawing } from './kinds/drawing.ts';
import type { Entity, EntityKind, EntityOf } from './kinds/index.ts';
import type { Shot } from './kinds/shot.ts';
import type { Mark } from './mark-types.ts';

/** Everything of one shot by id. Drawings may be missing while they are still being fetched. */
export interface ShotDocument {
  readonly shotId: Id;
  readonly entities: Readonly<Record<Id, Entity>>;
}

/** The entity of that kind and id, or undefined when it is unknown, deleted or of another kind. */
export function find<K extends EntityKind>(
  doc: ShotDocument,
  kind: K,
  id: Id | null | undefined,
): EntityOf<K> | undefined {
  const entity = id ? doc.entities[id] : undefined;
  return entity?.kind === kind ? (entity as unknown as EntityOf<K>) : undefined;
}

/** The shot's own row. @throws if the document has none. */
export function shotOf(doc: ShotDocument): Shot {
  const shot = find(doc, 'shot', doc.shotId);
  if (!shot) throw new Error(`Shot ${doc.shotId} is not in its own document`);
  return shot;
}

/** The known entities of a list of ids, in its order; unknown ids are passed over. */
export function findAll<K extends EntityKind>(doc: ShotDocument, kind: K, ids: readonly Id[]): EntityOf<K>[] {
  return ids.flatMap((id) => find(doc, kind, id) ?? []);
}

type Grouped = ReadonlyMap<string, readonly Entity[]>;
/** The entities of a document by kind. Documents never change, so it is worked out once for each, when first asked for. */
const grouped = new WeakMap<ShotDocument['entities'], Grouped>();

function groupsOf({ entities }: ShotDocument): Grouped {
  const known = grouped.get(entities);
  if (known) return known;
  const groups = new Map<string, Entity[]>();
  for (const entity of Object.values(entities)) {
    const group = groups.get(entity.kind);
    if (group) group.push(entity);
    else groups.set(entity.kind, [entity]);
  }
  grouped.set(entities, groups);
  return groups;
}

/** All entities of a kind, in the order of the document. */
export const entitiesOf = <K extends EntityKind>(doc: ShotDocument, kind: K): readonly EntityOf<K>[] =>
  (groupsOf(doc).get(kind) ?? []) as unknown as readonly EntityOf<K>[];

/** The document with some entities put in, new or in place of older ones. */
export function putEntities(doc: ShotDocument, ...entities: readonly Entity[]): ShotDocument {
  return {
    ...doc,
    entities: { ...doc.entities, ...Object.fromEntries(entities.map((entity) => [entity.id, entity])) },
  };
}

/** The document without some entities. */
export function dropEntities(doc: ShotDocument, ids: readonly Id[]): ShotDocument {
  const entities = { ...doc.entities };
  for (const id of ids) Reflect.deleteProperty(entities, id);
  return { ...doc, entities };
}

/** The marks of a drawing from the lowest to the topmost. */
export const marksInOrder = ({ marks, order }: Pick<Drawing, 'marks' | 'order'>): Mark[] =>
  order.map((id) => marks[id]!);

/** Those of some marks that a drawing has, from the lowest to the topmost. */
export function marksAmong(drawing: Pick<Drawing, 'marks' | 'order'>, ids: readonly Id[]): Mark[] {
  const wanted = new Set(ids);
  return marksInOrder(drawing).filter(({ id }) => wanted.has(id));
}
