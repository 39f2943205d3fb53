/** Edits of plates. */
import { find, putEntities, shotOf, type Id, type NewId, type Plate, type ShotDocument } from '../document/index.ts';
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
    opacity: 1,
    guide: true,
    beside: false,
    visible: true,
    locked: false,
    span: null,
  };
  return { doc: putEntities(doc, plate, { ...shot, plates: [...shot.plates, plate.id] }), plateId: plate.id };
}

export type PlateSettings = Partial<
  Pick<Plate, 'name' | 'x' | 'y' | 'scale' | 'angle' | 'opacity' | 'guide' | 'beside' | 'visible' | 'locked' | 'span'>
>;

export function setPlate(doc: ShotDocument, plateId: Id, settings: PlateSettings): ShotDocument {
  const plate = find(doc, 'plate', plateId);
  return plate ? putEntities(doc, { ...plate, ...settings }) : doc;
}

export const deletePlate = (doc: ShotDocument, plateId: Id): ShotDocument =>
  find(doc, 'plate', plateId) ? deleteEntities(doc, [plateId]) : doc;
