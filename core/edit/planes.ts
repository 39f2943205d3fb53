/** Edits of planes: added, named, put at a depth, ordered, taken away when nothing stands on them. */
import {
  DEPTH_LIMITS,
  find,
  findAll,
  newPlane,
  putEntities,
  shotOf,
  type Id,
  type NewId,
  type Plane,
  type ShotDocument,
} from '../document/index.ts';
import { clamp } from '../geometry/index.ts';
import { deleteEntities } from './remove.ts';

/** Adds an empty plane right in front of another one, or in front of all. The edit says which id it got. */
export function addPlane(
  doc: ShotDocument,
  name: string,
  beforeId: Id | null,
  newId: NewId,
): { doc: ShotDocument; planeId: Id } {
  const shot = shotOf(doc);
  const at = Math.max(0, beforeId === null ? 0 : shot.planes.indexOf(beforeId));
  const depth = find(doc, 'plane', shot.planes[at])?.depth ?? 0;
  const plane = newPlane(name, depth, newId);
  return {
    doc: putEntities(doc, plane, { ...shot, planes: shot.planes.toSpliced(at, 0, plane.id) }),
    planeId: plane.id,
  };
}

export const setPlane = (
  doc: ShotDocument,
  planeId: Id,
  settings: Partial<Pick<Plane, 'name' | 'visible' | 'locked' | 'finishes'>>,
): ShotDocument => {
  const plane = find(doc, 'plane', planeId);
  return plane ? putEntities(doc, { ...plane, ...settings }) : doc;
};

/** The planes of a shot in the order of their depths, nearest first; those of one depth keep their order. */
const byDepth = (doc: ShotDocument, planes: readonly Id[]): Id[] =>
  planes.toSorted((a, b) => (find(doc, 'plane', a)?.depth ?? 0) - (find(doc, 'plane', b)?.depth ?? 0));

/** Puts a plane at a depth, px, kept within its limits; it takes its place in the order of the planes. */
export function setPlaneDepth(doc: ShotDocument, planeId: Id, depth: number): ShotDocument {
  const plane = find(doc, 'plane', planeId);
  if (!plane) return doc;
  const kept = clamp(depth, DEPTH_LIMITS.min, DEPTH_LIMITS.max);
  const moved = putEntities(doc, { ...plane, depth: kept });
  const shot = shotOf(moved);
  return putEntities(moved, { ...shot, planes: byDepth(moved, shot.planes) });
}

/** Moves a plane one place nearer (-1) or farther (1); it comes as near or as far as the one it passes. */
export function movePlane(doc: ShotDocument, planeId: Id, by: -1 | 1): ShotDocument {
  const shot = shotOf(doc);
  const at = shot.planes.indexOf(planeId);
  const to = at + by;
  const plane = find(doc, 'plane', planeId);
  const passed = find(doc, 'plane', shot.planes[to]);
  if (at < 0 || !plane || !passed) return doc;
  const depth = by < 0 ? Math.min(plane.depth, passed.depth) : Math.max(plane.depth, passed.depth);
  const planes = shot.planes.toSpliced(at, 1).toSpliced(to, 0, planeId);
  return putEntities(doc, { ...plane, depth }, { ...shot, planes });
}

/** Why a plane cannot be taken away, or null. */
export function whyNotRemovePlane(doc: ShotDocument, planeId: Id): string | null {
  const planes = findAll(doc, 'plane', shotOf(doc).planes);
  if (planes.length < 2) return 'A shot has one plane at least.';
  const plane = planes.find(({ id }) => id === planeId);
  return plane && plane.placements.length > 0
    ? `Something stands on “${plane.name}”: move it to another plane first.`
    : null;
}

export const removePlane = (doc: ShotDocument, planeId: Id): ShotDocument =>
  find(doc, 'plane', planeId) && !whyNotRemovePlane(doc, planeId) ? deleteEntities(doc, [planeId]) : doc;
