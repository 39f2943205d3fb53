/** What a use of an element is called. */
import { entitiesOf, find, type Id, type Placement, type ShotDocument } from '../document/index.ts';

/** All uses of an element in the shot, on planes and inside others, in the order of the document. */
export const placementsOf = (doc: ShotDocument, elementId: Id): Placement[] =>
  entitiesOf(doc, 'placement').filter((placement) => placement.elementId === elementId);

/** Its own name, else that of its element; empty where the element is gone. */
export const nameOfUse = (doc: ShotDocument, placement: Pick<Placement, 'name' | 'elementId'>): string =>
  placement.name ?? find(doc, 'element', placement.elementId)?.name ?? '';

/** The same, with which of several it is where it has no name of its own: for lists to choose from, in which no two may look alike. */
export function labelOfUse(doc: ShotDocument, placement: Placement): string {
  const uses = placementsOf(doc, placement.elementId);
  const name = nameOfUse(doc, placement);
  if (placement.name !== null || uses.length < 2) return name;
  return `${name} · ${uses.findIndex(({ id }) => id === placement.id) + 1} of ${uses.length}`;
}
