/** Edits of plates. */
import {
  find,
  findAll,
  putEntities,
  shotOf,
  type Id,
  type NewId,
  type Plate,
  type ShotDocument,
} from '../document/index.ts';
import { isConvex, type Quad } from '../geometry/index.ts';
import { deleteEntities } from './remove.ts';

/** Puts a plate into the middle of the shot, as large as fits it whole, behind the others. The edit says which id it got. */
export function addPlate(
  doc: ShotDocument,
  { name, assets, width, height }: Pick<Plate, 'name' | 'assets' | 'width' | 'height'>,
  newId: NewId,
): { doc: ShotDocument; plateId: Id } {
  const shot = shotOf(doc);
  const plate: Plate = {
    kind: 'plate',
    id: newId(),
    name,
    assets,
    width,
    height,
    x: shot.width / 2,
    y: shot.height / 2,
    scale: Math.min(shot.width / width, shot.height / height),
    angle: 0,
    corners: null,
    opacity: 1,
    guide: true,
    beside: false,
    visible: true,
    locked: false,
    cut: null,
    span: null,
  };
  return { doc: putEntities(doc, plate, { ...shot, plates: [...shot.plates, plate.id] }), plateId: plate.id };
}

export type PlateSettings = Partial<
  Pick<
    Plate,
    'name' | 'x' | 'y' | 'scale' | 'angle' | 'opacity' | 'guide' | 'beside' | 'visible' | 'locked' | 'span' | 'cut'
  >
>;

export function setPlate(doc: ShotDocument, plateId: Id, settings: PlateSettings): ShotDocument {
  const plate = find(doc, 'plate', plateId);
  return plate ? putEntities(doc, { ...plate, ...settings }) : doc;
}

export const deletePlate = (doc: ShotDocument, plateId: Id): ShotDocument =>
  find(doc, 'plate', plateId) ? deleteEntities(doc, [plateId]) : doc;

/** Lays a plate behind all planes for null, else on a plane: in front of what stands there, or behind it. */
export function layPlate(
  doc: ShotDocument,
  plateId: Id,
  on: { readonly planeId: Id; readonly end: 'front' | 'back' } | null,
): ShotDocument {
  if (!find(doc, 'plate', plateId)) return doc;
  const planes = findAll(doc, 'plane', shotOf(doc).planes).map((plane) => {
    const others = plane.placements.filter((id) => id !== plateId);
    if (plane.id !== on?.planeId) return { ...plane, placements: others };
    return { ...plane, placements: on.end === 'front' ? [plateId, ...others] : [...others, plateId] };
  });
  return putEntities(doc, ...planes);
}

/**
 * Lays a plate on a tilted plane: where the corners of its picture lie, px of it; null lays it flat again. Corners that are no
 * rectangle seen in perspective change nothing.
 */
export function setPlateCorners(doc: ShotDocument, plateId: Id, corners: Quad | null): ShotDocument {
  const plate = find(doc, 'plate', plateId);
  if (!plate || (corners && !isConvex(corners))) return doc;
  return putEntities(doc, { ...plate, corners });
}
