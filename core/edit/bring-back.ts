/** An element made as it was in a version, everything else left as it is. */
import {
  dropEntities,
  find,
  findAll,
  pointersOf,
  putEntities,
  shotOf,
  type Entity,
  type Id,
  type ShotDocument,
} from '../document/index.ts';
import { madeOf } from './copy-parts.ts';
import type { PartsClip } from './parts-clip.ts';

/** Whether an entity is about where an element is used: its uses, copies of these, light that they shed. */
const isOfUse = (entity: Entity, elementId: Id): boolean =>
  (entity.kind === 'placement' && entity.elementId === elementId) ||
  entity.kind === 'scatter' ||
  entity.kind === 'light';

/** Everything an element is made of but where it is used. */
function contentOf(doc: ShotDocument, elementId: Id): Set<Id> {
  const own = madeOf(doc, [elementId]);
  for (const { runListId } of findAll(doc, 'layer', [...own])) own.add(runListId);
  return new Set([...own].filter((id) => doc.entities[id] && !isOfUse(doc.entities[id], elementId)));
}

/**
 * Makes an element as it was: its layers, drawings, timing, plan and looks. Where it is used stays as it is now; one that is
 * gone comes back with a use of it. Swatches are those of the palette as it is; ones that are gone come back.
 * @param clip the element taken out of the version, under its own ids.
 */
export function bringBack(doc: ShotDocument, { shotId, roots, entities }: PartsClip): ShotDocument {
  const [elementId] = roots;
  if (elementId === undefined || shotId !== doc.shotId) return doc;
  const isHere = find(doc, 'element', elementId) !== undefined;
  const put = entities.filter((each) =>
    each.kind === 'swatch'
      ? !doc.entities[each.id]
      : !isOfUse(each, elementId) || (!isHere && each.kind === 'placement'),
  );
  const content = new Set(put.map(({ id }) => id));
  const gone = isHere ? [...contentOf(doc, elementId)].filter((id) => !content.has(id)) : [];
  const cleared = dropEntities(doc, gone);
  const shot = shotOf(cleared);
  const [plane] = findAll(cleared, 'plane', shot.planes);
  const idsOf = (kind: Entity['kind']): Id[] => put.flatMap((each) => (each.kind === kind ? [each.id] : []));
  const lists: Entity[] = [
    {
      ...shot,
      elements: isHere ? shot.elements : [elementId, ...shot.elements],
      swatches: [...shot.swatches, ...idsOf('swatch').filter((id) => !shot.swatches.includes(id))],
    },
  ];
  const uses = put.flatMap((each) =>
    each.kind === 'placement' && each.elementId === elementId && each.holderId === null ? [each.id] : [],
  );
  if (!isHere && plane) lists.push({ ...plane, placements: [...uses, ...plane.placements] });
  return withoutLost(putEntities(cleared, ...lists, ...put), put);
}

/** What was put back and belongs to something that is gone by now goes with it. */
function withoutLost(doc: ShotDocument, put: readonly Entity[]): ShotDocument {
  const lost = put.filter((entity) =>
    pointersOf(entity).some(
      ({ id, pointer }) => (pointer.bond === 'owner' || pointer.bond === 'needs') && !doc.entities[id],
    ),
  );
  return dropEntities(
    doc,
    lost.map(({ id }) => id),
  );
}
