/** Edits of the shot's own settings and its palette. */
import {
  find,
  putEntities,
  shotOf,
  type Id,
  type NewId,
  type Shot,
  type ShotDocument,
  type Swatch,
} from '../document/index.ts';

/** Sets the shot's format. The drawings stay as they are. */
export function setShot(
  doc: ShotDocument,
  settings: Partial<Pick<Shot, 'name' | 'rate' | 'length' | 'background' | 'width' | 'height'>>,
): ShotDocument {
  return putEntities(doc, { ...shotOf(doc), ...settings });
}

/** Adds a swatch at the end of the palette. */
export function addSwatch(
  doc: ShotDocument,
  { name, role, colour }: Pick<Swatch, 'name' | 'role' | 'colour'>,
  newId: NewId,
): { doc: ShotDocument; swatchId: Id } {
  const id = newId();
  const shot = shotOf(doc);
  const swatches = [...shot.swatches, id];
  return { doc: putEntities(doc, { kind: 'swatch', id, name, role, colour }, { ...shot, swatches }), swatchId: id };
}

/** Changes a swatch; everything drawn with it changes. */
export function setSwatch(
  doc: ShotDocument,
  id: Id,
  settings: Partial<Pick<Swatch, 'name' | 'role' | 'colour'>>,
): ShotDocument {
  const swatch = find(doc, 'swatch', id);
  return swatch ? putEntities(doc, { ...swatch, ...settings }) : doc;
}
