/** An element kept by itself: a small shot that holds nothing else, as long as the element. */
import {
  documentOf,
  find,
  findAll,
  newPlane,
  putEntities,
  shotOf,
  SHOT_LIMITS,
  type Id,
  type NewId,
  type Placement,
  type ShotDocument,
} from '../document/index.ts';
import { pasteParts, takeParts } from '../edit/index.ts';
import { elementLength, placedElements } from '../timing/index.ts';

/**
 * The shot in which an element is kept: of the same size and rate, with the element where it is used first and its swatches.
 * All its drawings must be loaded.
 * @returns null where there is no such element.
 */
export function keptAlone(
  doc: ShotDocument,
  elementId: Id,
  { id, name }: { readonly id: Id; readonly name: string },
  newId: NewId,
): ShotDocument | null {
  const element = find(doc, 'element', elementId);
  if (!element) return null;
  const shot = shotOf(doc);
  const plane = newPlane('Picture plane', 0, newId);
  const length = Math.min(SHOT_LIMITS.length.max, Math.max(SHOT_LIMITS.length.min, elementLength(doc, element)));
  const alone = {
    ...shot,
    ...{ id, name, length, planes: [plane.id], elements: [], swatches: [] },
    ...{ guides: [], plates: [], lights: [], sounds: [] },
  };
  const base = documentOf(id, [alone, plane]);
  const put = pasteParts(base, takeParts(doc, [elementId]), '', newId);
  const kept = put.copies.get(elementId)!;
  const used = placedElements(doc).find((each) => each.element.id === elementId)?.placement;
  const [first, ...others] = placedElements(put.doc)
    .filter((each) => each.element.id === kept)
    .map(({ placement }) => placement);
  const standing: Pick<Placement, 'start' | 'repeats' | 'lasts' | 'phase' | 'x' | 'y'> = {
    ...{ start: 0, repeats: null, lasts: null, phase: 0 },
    x: used?.x ?? shot.width / 2,
    y: used?.y ?? shot.height / 2,
  };
  if (!first) return put.doc;
  const entities = { ...put.doc.entities };
  for (const { id: other } of others) Reflect.deleteProperty(entities, other);
  return putEntities(
    { ...put.doc, entities },
    { ...first, ...standing },
    { ...find(put.doc, 'plane', plane.id)!, placements: [first.id] },
    { ...find(put.doc, 'element', kept)!, name },
  );
}

/** What the shelf says of a kept element. */
export function shelfFacts(doc: ShotDocument) {
  const [placed] = placedElements(doc);
  const shot = shotOf(doc);
  return {
    time: placed?.element.time ?? 'open',
    colours: [...new Set(findAll(doc, 'swatch', shot.swatches).map(({ colour }) => colour.toLowerCase()))],
  };
}
