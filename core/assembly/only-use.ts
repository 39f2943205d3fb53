/** Elements that are used once: what moves that use moves all that is drawn. */
import { entitiesOf, keysIn, type Id, type Placement, type ShotDocument } from '../document/index.ts';

/** Whether a placement stays where it is put. */
export const staysPut = ({ shift, way, seat, drift, corners }: Placement): boolean =>
  !way &&
  !seat &&
  !corners &&
  drift.x === 0 &&
  drift.y === 0 &&
  [shift.x, shift.y, shift.scale, shift.angle].every((value) => keysIn(value).length === 0);

/** The one use of an element; null where there are none or several. */
export function onlyUse(doc: ShotDocument, elementId: Id): Placement | null {
  const uses = entitiesOf(doc, 'placement').filter((each) => each.elementId === elementId);
  return uses.length === 1 ? uses[0]! : null;
}
