/** What the time of a light is counted in. */
import { find, findAll, shotOf, type Id, type Light, type ShotDocument } from '../document/index.ts';
import { roundOf } from '../timing/index.ts';
import { standing } from './occurrences.ts';

/** The lights whose time is that of an element: they shine from uses of it. */
export const lightsOfElement = (doc: ShotDocument, elementId: Id): Light[] =>
  findAll(doc, 'light', shotOf(doc).lights).filter(
    ({ sourceId }) => find(doc, 'placement', sourceId)?.elementId === elementId,
  );

/** A light of a use goes by the frames of its element, round a cycle; one on a plane by those of the shot. */
export function lightTime(
  doc: ShotDocument,
  { sourceId }: Light,
  shotFrame: number,
): { readonly frame: number; readonly round: number | null } {
  const placement = find(doc, 'placement', sourceId);
  const use = placement ? standing(doc, [placement], shotFrame) : null;
  return use ? { frame: use.moment.frame, round: roundOf(use.element, use.length) } : { frame: shotFrame, round: null };
}
