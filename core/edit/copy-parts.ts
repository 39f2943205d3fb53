/** Copies of layers, folders and elements with all that belongs to them, laid over what they were made from. */
import {
  entitiesOf,
  findAll,
  holdsNothing,
  pointersOf,
  putEntities,
  type Entity,
  type Id,
  type NewId,
  type ShotDocument,
} from '../document/index.ts';
import { placedElements } from '../timing/index.ts';
import { copierOf, copyName } from './new-ids.ts';
import { deleteEntities } from './remove.ts';

/**
 * Everything that some layers, folders or elements are made of: what would be deleted with them, the layers that lie in a
 * folder, and the drawings they show, whoever else shows these too.
 */
export function madeOf(doc: ShotDocument, roots: readonly Id[]): Set<Id> {
  const within = findAll(doc, 'folder', roots).flatMap(({ layers }) => layers);
  const left = deleteEntities(doc, [...roots, ...within]);
  const own = new Set(Object.keys(doc.entities).filter((id) => !left.entities[id]));
  // One use of it is made with it, not all there are.
  const uses = (id: Id) => entitiesOf(doc, 'placement').filter(({ elementId }) => elementId === id);
  for (const { id } of findAll(doc, 'element', roots)) {
    const onPlanes = placedElements(doc).find(({ element }) => element.id === id)?.placement;
    for (const use of uses(id)) if (use.id !== (onPlanes ?? uses(id)[0])?.id) own.delete(use.id);
  }
  for (const { id, sourceId } of entitiesOf(doc, 'scatter')) if (!own.has(sourceId)) own.delete(id);
  for (const { id, sourceId } of entitiesOf(doc, 'light')) if (!sourceId || !own.has(sourceId)) own.delete(id);
  for (const layer of findAll(doc, 'layer', [...own])) for (const id of Object.values(layer.slots)) own.add(id);
  return own;
}

/** A list of ids with the copies right before what they were made from. */
const withCopies = (list: readonly Id[], copies: ReadonlyMap<Id, Id>): Id[] =>
  list.flatMap((id) => {
    const copy = copies.get(id);
    return copy ? [copy, id] : [id];
  });

/**
 * Copies layers, folders or whole elements. Each copy lies right over what it was made from; what is tied together in time
 * and copied together is tied to each other, what is copied alone stays tied to what it was tied to. Drawings that are not
 * loaded must not be among them.
 * @returns the document and what each of the roots has become. Unknown ids are passed over.
 */
export function copyParts(
  doc: ShotDocument,
  roots: readonly Id[],
  newId: NewId,
): { doc: ShotDocument; copies: ReadonlyMap<Id, Id> } {
  const there = roots.filter((id) => doc.entities[id]);
  const own = madeOf(doc, there);
  const ids = new Map([...own].map((id) => [id, newId()]));
  const entities = [...own].flatMap((id) => doc.entities[id] ?? []);
  const copier = copierOf(doc, entities, ids, newId, (id) => id);
  const copied = (entity: Entity): Entity => {
    const copy = copier(entity);
    const named =
      there.includes(entity.id) && 'name' in copy && copy.name !== null ? { name: copyName(copy.name) } : {};
    // A layer without its starter is laid by nobody: laying again would change the one it was made from.
    const alone = entity.kind === 'layer' && entity.starterId && !own.has(entity.starterId) ? { starterId: null } : {};
    return { ...copy, ...named, ...alone };
  };
  const lists = Object.values(doc.entities).flatMap((entity) => {
    if (own.has(entity.id) || holdsNothing(entity)) return [];
    const next = listsOf(entity, (list) => withCopies(list, ids));
    return next ? [next] : [];
  });
  return {
    doc: putEntities(doc, ...lists, ...entities.map(copied)),
    copies: new Map(there.map((id) => [id, ids.get(id)!])),
  };
}

/** An entity with its lists of ids changed, or null where none changes. */
function listsOf(entity: Entity, change: (list: readonly Id[]) => Id[]): Entity | null {
  const listed = new Set(pointersOf(entity).flatMap(({ id, pointer }) => (pointer.bond === 'lists' ? [id] : [])));
  if (listed.size === 0) return null;
  const changed = Object.entries(entity).flatMap(([field, value]) => {
    if (!Array.isArray(value) || !value.some((id) => listed.has(id as Id))) return [];
    const next = change(value as Id[]);
    return next.length > value.length ? [[field, next] as const] : [];
  });
  return changed.length > 0 ? { ...entity, ...Object.fromEntries(changed) } : null;
}
