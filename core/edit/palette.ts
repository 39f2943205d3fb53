/** Edits of the palette: where a swatch is used, one in place of another, what is used no more; elements in other swatches. */
import {
  find,
  findAll,
  mapIds,
  pointersTo,
  putEntities,
  same,
  shotOf,
  type Drawing,
  type Id,
  type IdMap,
  type NewId,
  type Recolour,
  type ShotDocument,
  type Swatch,
} from '../document/index.ts';
import { withFingerprintsOf } from '../derived/index.ts';
import { deleteEntities } from './remove.ts';
import { addSwatch, setSwatch } from './shot.ts';

/** Where a swatch is used. */
interface SwatchUse {
  /** Layers with drawings that have marks in it, and how many drawings. */
  readonly layers: readonly { readonly layerId: Id; readonly drawings: number }[];
  /** How many entities use it for something else, by what for: a tint, a look, a gradient that it is an end of. */
  readonly others: Readonly<Record<string, number>>;
}

/** Drawings never change: what each is painted with is looked up once. */
const painted = new WeakMap<Drawing, ReadonlySet<Id>>();

/** The swatches a drawing is painted with. */
export function swatchesOf(drawing: Drawing): ReadonlySet<Id> {
  const found = painted.get(drawing) ?? new Set(pointersTo(drawing, 'swatch').map(({ id }) => id));
  painted.set(drawing, found);
  return found;
}

/** Where a swatch is used; drawings that are not loaded are not looked at. */
export function usesOf(doc: ShotDocument, swatch: Id): SwatchUse {
  const drawings = new Set<Id>();
  const others: Record<string, number> = {};
  for (const entity of Object.values(doc.entities)) {
    if (entity.kind === 'drawing') {
      if (swatchesOf(entity).has(swatch)) drawings.add(entity.id);
      continue;
    }
    const uses = pointersTo(entity, 'swatch').filter(({ id }) => id === swatch);
    for (const use of new Set(uses.flatMap(({ pointer }) => pointer.use ?? []))) others[use] = (others[use] ?? 0) + 1;
  }
  const layers = Object.values(doc.entities).flatMap((entity) => {
    if (entity.kind !== 'layer') return [];
    const count = new Set(Object.values(entity.slots).filter((id) => drawings.has(id))).size;
    return count > 0 ? [{ layerId: entity.id, drawings: count }] : [];
  });
  return { layers, others };
}

/** Whether anything is painted with a swatch, or would be. */
export function isUsed(doc: ShotDocument, swatch: Id): boolean {
  const { layers, others } = usesOf(doc, swatch);
  return layers.length > 0 || Object.keys(others).length > 0;
}

/**
 * Puts one swatch in the place of another everywhere; what was computed and not touched by hand goes on counting as
 * such. Needs all drawings loaded.
 */
export function replaceSwatch(doc: ShotDocument, swatch: Id, by: Id): ShotDocument {
  // The palette itself goes on listing both.
  const of: IdMap = (id, { to, bond }) => (to === 'swatch' && bond !== 'lists' && id === swatch ? by : id);
  const changed = Object.values(doc.entities).flatMap((entity) => {
    const next = mapIds(
      withFingerprintsOf(doc, entity, (drawing) => mapIds(drawing, of)),
      of,
    );
    return same(entity, next) ? [] : [next];
  });
  return putEntities(doc, ...changed);
}

/** Takes swatches out of the palette. Marks painted with one of them would show grey: replace it first. */
export const removeSwatches = (doc: ShotDocument, ids: readonly Id[]): ShotDocument => deleteEntities(doc, ids);

/** Joins a swatch into another: all that was painted with it is painted with the other, and it is gone. */
export const mergeSwatch = (doc: ShotDocument, swatch: Id, into: Id): ShotDocument =>
  swatch === into ? doc : removeSwatches(replaceSwatch(doc, swatch, into), [swatch]);

/** Swatches that nothing is painted with. Needs all drawings loaded. */
export function unusedSwatches(doc: ShotDocument): Id[] {
  return shotOf(doc).swatches.filter((id) => find(doc, 'swatch', id) && !isUsed(doc, id));
}

/** Moves a swatch to another place of the palette. */
export function moveSwatch(doc: ShotDocument, id: Id, index: number): ShotDocument {
  const shot = shotOf(doc);
  const rest = shot.swatches.filter((each) => each !== id);
  return putEntities(doc, { ...shot, swatches: rest.toSpliced(index, 0, id) });
}

/** A swatch of elsewhere; ends of its gradient are named by ids in the same list. */
export type LooseSwatch = Pick<Swatch, 'name' | 'role' | 'colour'> & Partial<Pick<Swatch, 'id' | 'gradient'>>;

/**
 * Adds swatches at the end of the palette, but for those it has by the same name and colour. Gradients run between the
 * swatches that their ends have become.
 */
export function addSwatches(doc: ShotDocument, swatches: readonly LooseSwatch[], newId: NewId): ShotDocument {
  const has = findAll(doc, 'swatch', shotOf(doc).swatches);
  const become = new Map<Id, Id>();
  let next = doc;
  const graded: { id: Id; gradient: NonNullable<Swatch['gradient']> }[] = [];
  for (const { id, name, role, colour, gradient } of swatches) {
    const own = has.find((each) => each.name === name && each.colour === colour);
    const made = own ? null : addSwatch(next, { name, role, colour }, newId);
    if (made) next = made.doc;
    const now = own?.id ?? made!.swatchId;
    if (id) become.set(id, now);
    if (gradient && made) graded.push({ id: now, gradient });
  }
  for (const { id, gradient } of graded) {
    const stops = gradient.stops.flatMap((stop) => {
      const swatch = become.get(stop.swatch);
      return swatch ? [{ ...stop, swatch }] : [];
    });
    if (stops.length >= 2) next = setSwatch(next, id, { gradient: { ...gradient, stops } });
  }
  return next;
}

/** The swatches an element's marks are painted with, in the order of the palette. Needs its drawings loaded. */
export function swatchesOn(doc: ShotDocument, elementId: Id): Swatch[] {
  const used = new Set<Id>();
  for (const e of Object.values(doc.entities)) {
    if (e.kind !== 'layer' || e.elementId !== elementId) continue;
    if (e.tint) used.add(e.tint);
    for (const drawing of findAll(doc, 'drawing', Object.values(e.slots)))
      for (const mark of Object.values(drawing.marks)) if (mark.kind !== 'rub') used.add(mark.swatch);
  }
  return findAll(
    doc,
    'swatch',
    shotOf(doc).swatches.filter((id) => used.has(id)),
  );
}

/** Keeps an element in other swatches as a variant of its colour, and shows it so. The edit says which id it got. */
export function addRecolour(
  doc: ShotDocument,
  elementId: Id,
  name: string,
  map: Readonly<Record<Id, Id>>,
  newId: NewId,
): { doc: ShotDocument; recolourId: Id } {
  const element = find(doc, 'element', elementId);
  const recolour: Recolour = { id: newId(), name, map };
  if (!element) return { doc, recolourId: recolour.id };
  const recolours = [...element.recolours, recolour];
  return { doc: putEntities(doc, { ...element, recolours, recolour: recolour.id }), recolourId: recolour.id };
}

/** Sets the swatch one is seen in for another, or (with the same one) that it is seen as itself. */
export function setRecolour(
  doc: ShotDocument,
  elementId: Id,
  recolourId: Id,
  settings: { name?: string; from?: Id; to?: Id },
): ShotDocument {
  const element = find(doc, 'element', elementId);
  if (!element) return doc;
  const { name, from, to } = settings;
  const recolours = element.recolours.map((each) => {
    if (each.id !== recolourId) return each;
    const map = { ...each.map };
    if (from && to && from !== to) map[from] = to;
    else if (from) Reflect.deleteProperty(map, from);
    return { ...each, name: name ?? each.name, map };
  });
  return putEntities(doc, { ...element, recolours });
}

/** Shows an element in a recolouring, or in its own swatches. */
export function seeRecolour(doc: ShotDocument, elementId: Id, recolour: Id | null): ShotDocument {
  const element = find(doc, 'element', elementId);
  return element && element.recolour !== recolour ? putEntities(doc, { ...element, recolour }) : doc;
}

export function dropRecolour(doc: ShotDocument, elementId: Id, recolourId: Id): ShotDocument {
  const element = find(doc, 'element', elementId);
  if (!element) return doc;
  return putEntities(doc, {
    ...element,
    recolours: element.recolours.filter(({ id }) => id !== recolourId),
    recolour: element.recolour === recolourId ? null : element.recolour,
  });
}
