/** An effect that is newer on the shelf than the copy of it in a shot: what would change, and the newer one in its place. */
import { outlinesOf } from '../derived/index.ts';
import {
  documentOf,
  entitiesOf,
  find,
  findAll,
  putEntities,
  shotOf,
  type Drawing,
  type Element,
  type Id,
  type NewId,
  type ShotDocument,
} from '../document/index.ts';
import { deleteEntities, pasteParts } from '../edit/index.ts';
import { elementLength, slotsInOrder, timedLayers } from '../timing/index.ts';
import type { ShelfClip } from './put.ts';

/** What taking the newer effect would change. */
export interface Newer {
  /** Frames of a turn, before and after. */
  readonly length: readonly [number, number];
  /** Names of layers that would come and go. */
  readonly come: readonly string[];
  readonly gone: readonly string[];
  /** Drawings of layers of the same name that are others or are new, and those that would go. */
  readonly drawings: number;
  readonly fewer: number;
  /** Colours that would be others, as `#rrggbb`. */
  readonly colours: readonly string[];
}

/** Drawings of each layer, in the order of its slots. A drawing that is not here counts as unlike any other. */
function drawingsOf(doc: ShotDocument, element: Element): Map<string, (Drawing | undefined)[]> {
  return new Map(
    timedLayers(doc, element).map(({ layer, list }) => [
      layer.name,
      slotsInOrder(list).flatMap(({ slot }) => {
        const id = layer.slots[slot];
        return id === undefined ? [] : [find(doc, 'drawing', id)];
      }),
    ]),
  );
}

const coloursOf = (doc: ShotDocument, element: Element): Set<string> => {
  const used = new Set(
    [...drawingsOf(doc, element).values()]
      .flat()
      .flatMap((drawing) => Object.values(drawing?.marks ?? {}))
      .flatMap((mark) => ('swatch' in mark ? [mark.swatch] : [])),
  );
  return new Set(findAll(doc, 'swatch', [...used]).map(({ colour }) => colour.toLowerCase()));
};

/**
 * What of an element of a shot would change by the effect as the shelf has it now.
 * @returns null where there is no such element.
 */
export function wouldChange(doc: ShotDocument, elementId: Id, clip: ShelfClip): Newer | null {
  const here = find(doc, 'element', elementId);
  const from = documentOf(clip.shotId, clip.entities);
  const there = find(from, 'element', clip.roots[0]);
  if (!here || !there) return null;
  const [mine, theirs] = [drawingsOf(doc, here), drawingsOf(from, there)];
  const shared = [...theirs].flatMap(([name, after]) => {
    const before = mine.get(name);
    return before ? [{ before, after }] : [];
  });
  const isOther = (before: Drawing | undefined, after: Drawing | undefined): boolean =>
    before === undefined || after === undefined || outlinesOf([before]) !== outlinesOf([after]);
  const known = coloursOf(doc, here);
  return {
    length: [elementLength(doc, here), elementLength(from, there)],
    come: [...theirs.keys()].filter((name) => !mine.has(name)),
    gone: [...mine.keys()].filter((name) => !theirs.has(name)),
    drawings: shared.reduce(
      (sum, { before, after }) => sum + after.filter((each, i) => isOther(before[i], each)).length,
      0,
    ),
    fewer: shared.reduce((sum, { before, after }) => sum + Math.max(0, before.length - after.length), 0),
    colours: [...coloursOf(from, there)].filter((colour) => !known.has(colour)),
  };
}

/** What would change, in words; empty where nothing would. */
export function changeWords({ length: [before, after], come, gone, drawings, fewer, colours }: Newer): string[] {
  const quoted = (names: readonly string[]) => names.map((name) => `“${name}”`).join(', ');
  return [
    ...(before === after ? [] : [`${before} frames become ${after}`]),
    ...(come.length > 0 ? [`${quoted(come)} ${come.length === 1 ? 'comes' : 'come'}`] : []),
    ...(gone.length > 0 ? [`${quoted(gone)} ${gone.length === 1 ? 'goes' : 'go'}`] : []),
    ...(drawings > 0 ? [drawings === 1 ? '1 drawing is another' : `${drawings} drawings are others`] : []),
    ...(fewer > 0 ? [fewer === 1 ? '1 drawing goes' : `${fewer} drawings go`] : []),
    ...(colours.length > 0 ? [colours.length === 1 ? '1 new colour' : `${colours.length} new colours`] : []),
  ];
}

/**
 * Puts the newer effect in the place of an element: it stands, begins and is nested where that did, under its name. What was drawn
 * in the old one here is gone with it.
 */
export function takeNewer(
  doc: ShotDocument,
  elementId: Id,
  clip: ShelfClip,
  newId: NewId,
): { doc: ShotDocument; elementId: Id } {
  const old = find(doc, 'element', elementId);
  const [root] = clip.roots;
  if (!old || root === undefined) return { doc, elementId };
  const put = pasteParts(doc, clip, '', newId);
  const madeId = put.copies.get(root)!;
  const made = find(put.doc, 'element', madeId)!;
  const own = entitiesOf(put.doc, 'placement').filter((each) => each.elementId === madeId);
  const uses = entitiesOf(doc, 'placement').filter((each) => each.elementId === elementId);
  const next = deleteEntities(
    put.doc,
    own.map(({ id }) => id),
  );
  const shot = shotOf(next);
  const replaced = putEntities(
    next,
    { ...made, name: old.name, shelf: clip.from },
    // The anchor goes on standing where it stood. Which layers a use showed can no longer be told.
    ...uses.map((use) => ({
      ...use,
      elementId: madeId,
      layers: null,
      x: use.x + old.anchor.x - made.anchor.x,
      y: use.y + old.anchor.y - made.anchor.y,
    })),
    {
      ...shot,
      elements: shot.elements.flatMap((id) => (id === madeId ? [] : id === elementId ? [madeId] : [id])),
    },
  );
  return { doc: deleteEntities(replaced, [elementId]), elementId: madeId };
}

/** Notes that the effect as the shelf has it now was looked at and not wanted. */
export function keepOlder(doc: ShotDocument, elementId: Id, revision: number): ShotDocument {
  const element = find(doc, 'element', elementId);
  return element?.shelf ? putEntities(doc, { ...element, shelf: { ...element.shelf, revision } }) : doc;
}
