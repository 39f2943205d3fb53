/** What a use of an element is called. */
import { entitiesOf, find, findAll, shotOf, type Id, type Placement, type ShotDocument } from '../document/index.ts';

/**
 * All uses of an element in the shot: those on planes from the topmost down, then those inside others. Never in the order of the
 * entities, which is that of their last change where a shot is loaded: a use would be the first of two today and the second tomorrow.
 */
export function placementsOf(doc: ShotDocument, elementId: Id): Placement[] {
  const lying = findAll(doc, 'plane', shotOf(doc).planes).flatMap(({ placements }) => placements);
  const placeOf = ({ id }: Placement): number => (lying.includes(id) ? lying.indexOf(id) : lying.length);
  return entitiesOf(doc, 'placement')
    .filter((placement) => placement.elementId === elementId)
    .sort((a, b) => placeOf(a) - placeOf(b) || (a.id < b.id ? -1 : 1));
}

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
