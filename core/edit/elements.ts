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
} from '../document/index.ts';
import { planeOf } from '../assembly/index.ts';
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

/** Moves a use one place to the front (-1) or to the back (1) of what lies on its plane, or in its element. */
export function raisePlacement(doc: ShotDocument, placementId: Id, by: -1 | 1): ShotDocument {
  const plane = planeOf(doc, placementId);
  const holder = find(doc, 'element', find(doc, 'placement', placementId)?.holderId);
  const list = plane?.placements ?? holder?.layers ?? [];
  const at = list.indexOf(placementId);
  const to = at + by;
  if (at < 0 || to < 0 || to >= list.length) return doc;
  const next = list.toSpliced(at, 1).toSpliced(to, 0, placementId);
  return plane ? putEntities(doc, { ...plane, placements: next }) : putEntities(doc, { ...holder!, layers: next });
}

/** Sets the shot frame a placement begins on, at least 0. */
export function setStart(doc: ShotDocument, placementId: Id, start: number): ShotDocument {
  const placement = find(doc, 'placement', placementId);
  return placement ? putEntities(doc, { ...placement, start: Math.max(0, Math.round(start)) }) : doc;
}
