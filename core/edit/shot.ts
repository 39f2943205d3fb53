/** Edits of the shot's own settings and its palette. */
import {
  find,
  findAll,
  putEntities,
  shotOf,
  type Id,
  type NewId,
  type Shot,
  type ShotDocument,
  type Swatch,
} from '../document/index.ts';

/** Sets the shot's name, rate, length or background. The drawings and their holds stay as they are. */
export function setShot(
  doc: ShotDocument,
  settings: Partial<Pick<Shot, 'name' | 'rate' | 'length' | 'background'>>,
): ShotDocument {
  return putEntities(doc, { ...shotOf(doc), ...settings });
}

/** Sets the shot's size about its middle: what is drawn keeps its place there, and nothing is cut. */
export function resizeShot(doc: ShotDocument, size: Partial<Pick<Shot, 'width' | 'height'>>): ShotDocument {
  const before = shotOf(doc);
  const shot = { ...before, ...size };
  const [dx, dy] = [(shot.width - before.width) / 2, (shot.height - before.height) / 2];
  const placed = Object.values(doc.entities).flatMap((e) =>
    e.kind === 'placement' || e.kind === 'plate' ? [{ ...e, x: e.x + dx, y: e.y + dy }] : [],
  );
  // Guides of an element move with it.
  const guides = findAll(doc, 'guide', before.guides)
    .filter(({ elementId }) => elementId === null)
    .map((e) => ({ ...e, x: e.x + dx, y: e.y + dy, toX: e.toX + dx, toY: e.toY + dy }));
  return putEntities(doc, shot, ...placed, ...guides);
}

/** Adds a swatch at the end of the palette. */
export function addSwatch(
  doc: ShotDocument,
  { name, role, colour, gradient = null }: Pick<Swatch, 'name' | 'role' | 'colour'> & Partial<Pick<Swatch, 'gradient'>>,
  newId: NewId,
): { doc: ShotDocument; swatchId: Id } {
  const id = newId();
  const shot = shotOf(doc);
  const swatches = [...shot.swatches, id];
  return {
    doc: putEntities(doc, { kind: 'swatch', id, name, role, colour, gradient }, { ...shot, swatches }),
    swatchId: id,
  };
}

/** Changes a swatch; everything drawn with it changes. */
export function setSwatch(
  doc: ShotDocument,
  id: Id,
  settings: Partial<Pick<Swatch, 'name' | 'role' | 'colour' | 'gradient'>>,
): ShotDocument {
  const swatch = find(doc, 'swatch', id);
  return swatch ? putEntities(doc, { ...swatch, ...settings }) : doc;
}
