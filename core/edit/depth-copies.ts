/** Copies of a use into depth: one on each plane that lies farther, slower as it is seen smaller, out of step. */
import { find, findAll, shotOf, type Id, type NewId, type ShotDocument } from '../document/index.ts';
import { depthScale, focalOf, planeOf } from '../assembly/index.ts';
import { modulo } from '../geometry/index.ts';
import { elementLength } from '../timing/index.ts';
import { copyPlacement, movePlacement } from './placements.ts';
import { rational } from './scatter.ts';

/** Share of a turn, and frames of a one-shot, that each is behind the one before: the golden section never comes back into step. */
const BEHIND = 0.382;
const LATER = 7;

/** Why a use cannot be copied into depth, or null. */
export function whyNotIntoDepth(doc: ShotDocument, placementId: Id): string | null {
  const plane = planeOf(doc, placementId);
  if (!plane) return 'It lies inside an element: planes are of the shot.';
  return shotOf(doc).planes.at(-1) === plane.id ? 'No plane lies farther: add one, or drag this one nearer.' : null;
}

/** Puts a copy on each plane that lies farther than a use's own. The edit says which ids the copies got, nearest first. */
export function copyIntoDepth(doc: ShotDocument, placementId: Id, newId: NewId): { doc: ShotDocument; copies: Id[] } {
  const own = planeOf(doc, placementId);
  const source = find(doc, 'placement', placementId);
  const element = find(doc, 'element', source?.elementId);
  const shot = shotOf(doc);
  if (!own || !source || !element) return { doc, copies: [] };
  const farther = findAll(doc, 'plane', shot.planes).slice(shot.planes.indexOf(own.id) + 1);
  const focal = focalOf(shot);
  const length = elementLength(doc, element);
  const copies: Id[] = [];
  const next = farther.reduce((now, { id, depth }, i) => {
    const smaller = depthScale(focal, depth) / depthScale(focal, own.depth);
    const behind =
      element.time === 'cycle'
        ? { phase: modulo(source.phase + Math.max(1, Math.round((i + 1) * BEHIND * length)), length) }
        : { start: source.start + (i + 1) * LATER };
    const speed = rational((source.speed.over / source.speed.of) * smaller);
    const made = copyPlacement(now, placementId, { ...behind, speed }, newId);
    if (!made.placementId) return now;
    copies.push(made.placementId);
    return movePlacement(made.doc, made.placementId, { planeId: id });
  }, doc);
  return { doc: next, copies };
}
