/** Edits of elements and of where they stand in the shot. */
import {
  find,
  findAll,
  newElement,
  putEntities,
  shotOf,
  type Element,
  type Id,
  type NewId,
  type ShotDocument,
  entitiesOf,
} from '../document/index.ts';
import { deleteEntities } from './remove.ts';

/** Closes an element into a cycle, ends it as a one-shot, or opens it again; names it; sets how its time is seen. */
export function setElement(
  doc: ShotDocument,
  elementId: Id,
  settings: Partial<Pick<Element, 'time' | 'name' | 'form' | 'tip' | 'light' | 'finishes' | 'smearings' | 'meant'>>,
): ShotDocument {
  const element = find(doc, 'element', elementId);
  return element ? putEntities(doc, { ...element, ...settings }) : doc;
}

/** Adds an element of one line layer in front of the others, placed in the middle of the picture from a frame on. */
export function addElement(
  doc: ShotDocument,
  name: string,
  start: number,
  newId: NewId,
): { doc: ShotDocument; elementId: Id } {
  const shot = shotOf(doc);
  const plane = findAll(doc, 'plane', shot.planes)[0];
  if (!plane) throw new Error('The shot has no plane to place an element on');
  const made = newElement(name, { start, x: shot.width / 2, y: shot.height / 2 }, newId);
  return {
    doc: putEntities(
      doc,
      made.element,
      made.layer,
      made.list,
      made.placement,
      { ...plane, placements: [made.placement.id, ...plane.placements] },
      { ...shot, elements: [made.element.id, ...shot.elements] },
    ),
    elementId: made.element.id,
  };
}

/** Deletes an element with its layers, drawings and placements, and what is planned for it. */
export const deleteElement = (doc: ShotDocument, elementId: Id): ShotDocument =>
  find(doc, 'element', elementId) ? deleteEntities(doc, [elementId]) : doc;

/** Moves an element one place to the front (-1) or to the back (1) on its plane. */
export function moveElement(doc: ShotDocument, elementId: Id, by: -1 | 1): ShotDocument {
  const placement = entitiesOf(doc, 'placement').find((e) => e.elementId === elementId);
  const plane = findAll(doc, 'plane', shotOf(doc).planes).find((p) => placement && p.placements.includes(placement.id));
  if (!placement || !plane) return doc;
  const at = plane.placements.indexOf(placement.id);
  const to = at + by;
  if (to < 0 || to >= plane.placements.length) return doc;
  const placements = plane.placements.toSpliced(at, 1).toSpliced(to, 0, placement.id);
  return putEntities(doc, { ...plane, placements });
}

/** Sets the shot frame a placement begins on, at least 0. */
export function setStart(doc: ShotDocument, placementId: Id, start: number): ShotDocument {
  const placement = find(doc, 'placement', placementId);
  return placement ? putEntities(doc, { ...placement, start: Math.max(0, Math.round(start)) }) : doc;
}
