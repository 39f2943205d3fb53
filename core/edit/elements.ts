/** Edits of elements and of where they stand in the shot. */
import {
  AT_HOME,
  entitiesOf,
  find,
  findAll,
  newElement,
  putEntities,
  same,
  shotOf,
  type Element,
  type Id,
  type NewId,
  type Shift,
  type ShotDocument,
} from '../document/index.ts';
import { isEmpty, type Box } from '../geometry/index.ts';
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

/** Whether nothing stands on an element's anchor, or is scaled or turned about it: then it can go elsewhere and nothing is seen of that. */
function hangsOnNoAnchor(doc: ShotDocument, { id }: Element): boolean {
  const isHome = ({ shift }: { readonly shift: Shift }) => same(shift, AT_HOME);
  const layers = entitiesOf(doc, 'layer').filter(({ elementId }) => elementId === id);
  const uses = entitiesOf(doc, 'placement').filter(({ elementId }) => elementId === id);
  const used = new Set(uses.map((use) => use.id));
  // A light may stand on the anchor.
  if (entitiesOf(doc, 'light').some(({ sourceId }) => sourceId !== null && used.has(sourceId))) return false;
  return (
    layers.every(isHome) &&
    uses.every((use) => isHome(use) && use.skew === 0 && !use.mirror && !use.corners && !use.way && !use.seat)
  );
}

/**
 * Leads an element's axis from the middle of the foot of what is drawn to the middle of its head, where neither of its ends has
 * been set and nothing is seen of that but what runs along it.
 * @param drawn box around what is drawn, element space; empty changes nothing.
 */
export function fitAxis(doc: ShotDocument, elementId: Id, drawn: Box): ShotDocument {
  const element = find(doc, 'element', elementId);
  if (!element || isEmpty(drawn) || element.tip || element.anchor.x !== 0 || element.anchor.y !== 0) return doc;
  if (!hangsOnNoAnchor(doc, element)) return doc;
  const x = (drawn.left + drawn.right) / 2;
  return putEntities(doc, { ...element, anchor: { x, y: drawn.bottom }, tip: { x, y: drawn.top } });
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
