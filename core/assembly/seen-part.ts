/** The part of an element's space that the shot's frame shows. */
import { shotOf, type Element, type ShotDocument } from '../document/index.ts';
import { invert, mapBox, multiply, type Box } from '../geometry/index.ts';
import { onlyUse, staysPut } from './only-use.ts';
import { isAtRest, planeMatrix } from './planes.ts';
import { placementMatrix } from './space.ts';

const EVERYWHERE: Box = { left: -Infinity, top: -Infinity, right: Infinity, bottom: Infinity };

/** What the frame shows of an element that is used once and stays there; of others all may come into it. */
export function seenPart(doc: ShotDocument, element: Element): Box {
  const only = onlyUse(doc, element.id);
  if (!only || only.holderId !== null || !staysPut(only)) return EVERYWHERE;
  const shot = shotOf(doc);
  // What a moving camera shows may be anything.
  if (!isAtRest(shot)) return EVERYWHERE;
  const { width, height } = shot;
  const matrix = multiply(planeMatrix(doc, only.id, 0), placementMatrix(doc, only, element, { since: 0, turn: 0 }));
  return mapBox(invert(matrix), { left: 0, top: 0, right: width, bottom: height });
}
