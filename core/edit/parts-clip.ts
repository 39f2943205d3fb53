/** Layers, folders and elements taken out of a shot to be put into the same or another one. */
import {
  documentOf,
  find,
  findAll,
  pointersOf,
  putEntities,
  shotOf,
  type Entity,
  type Id,
  type NewId,
  type ShotDocument,
  type Swatch,
} from '../document/index.ts';
import { madeOf } from './copy-parts.ts';
import { listOf } from './layers.ts';
import { copierOf, copyName } from './new-ids.ts';

/** Parts of a shot with all that they need to stand elsewhere. */
export interface PartsClip {
  readonly shotId: Id;
  /** What was taken: layers and folders, or elements. */
  readonly roots: readonly Id[];
  /** The parts, their drawings and timing, and the swatches that they are painted with. */
  readonly entities: readonly Entity[];
}

/** The swatches that some entities point at, and those that the gradients of these are made of. */
function swatchesOf(doc: ShotDocument, entities: readonly Entity[]): Swatch[] {
  const found = new Map<Id, Swatch>();
  const look = (list: readonly Entity[]): void => {
    for (const { id, pointer } of list.flatMap((each) => [...pointersOf(each)])) {
      const swatch = pointer.to === 'swatch' ? find(doc, 'swatch', id) : undefined;
      if (!swatch || found.has(id)) continue;
      found.set(id, swatch);
      look([swatch]);
    }
  };
  look(entities);
  return [...found.values()];
}

/** Takes parts of a shot as they are now. Their drawings must be loaded. @param roots layers and folders of one element, or elements; unknown ids are passed over. */
export function takeParts(doc: ShotDocument, roots: readonly Id[]): PartsClip {
  const there = roots.filter((id) => doc.entities[id]);
  const own = madeOf(doc, there);
  for (const { runListId } of findAll(doc, 'layer', [...own])) own.add(runListId);
  const entities = [...own].flatMap((id) => doc.entities[id] ?? []);
  return { shotId: doc.shotId, roots: there, entities: [...entities, ...swatchesOf(doc, entities)] };
}

/** The swatch of a palette that is a given one: itself, one of the same name and colour, or one of the same colour. */
function likeIn(doc: ShotDocument, swatch: Swatch): Swatch | undefined {
  const known = find(doc, 'swatch', swatch.id);
  if (known) return known;
  if (swatch.gradient) return undefined;
  const alike = findAll(doc, 'swatch', shotOf(doc).swatches).filter(
    ({ colour, gradient }) => gradient === null && colour.toLowerCase() === swatch.colour.toLowerCase(),
  );
  return alike.find(({ name }) => name === swatch.name) ?? alike[0];
}

/**
 * Puts parts into a shot: elements in front of the others, layers and folders right over a layer. Swatches become those of
 * the palette that are alike; the others come along.
 * @param overId the layer that layers and folders lie over. @returns the document and what each of the roots has become.
 */
export function pasteParts(
  doc: ShotDocument,
  clip: PartsClip,
  overId: Id,
  newId: NewId,
): { doc: ShotDocument; copies: ReadonlyMap<Id, Id>; broughtSwatches: number } {
  const shot = shotOf(doc);
  const over = find(doc, 'layer', overId);
  const from = documentOf(clip.shotId, clip.entities);
  const swatches = clip.entities.filter((each) => each.kind === 'swatch');
  const ids = new Map<Id, Id>();
  for (const swatch of swatches) {
    const alike = likeIn(doc, swatch);
    if (alike) ids.set(swatch.id, alike.id);
  }
  const brought = swatches.filter(({ id }) => !ids.has(id));
  const parts = clip.entities.filter(({ kind }) => kind !== 'swatch');
  for (const { id } of [...brought, ...parts]) ids.set(id, newId());
  const elements = new Set(
    parts.flatMap((each) =>
      'elementId' in each && each.elementId && !ids.has(each.elementId) ? [each.elementId] : [],
    ),
  );
  const copied = copierOf(from, [...brought, ...parts], ids, newId, (id) =>
    elements.has(id) ? (over?.elementId ?? null) : null,
  );
  const taken = namesBeside(doc, over?.elementId, clip);
  const made = [...brought, ...parts].map((entity): Entity => {
    const copy = copied(entity);
    const isTaken = clip.roots.includes(entity.id) && 'name' in copy && copy.name !== null && taken.has(copy.name);
    return isTaken ? { ...copy, name: copyName(copy.name) } : copy;
  });
  const copies = new Map(clip.roots.map((id) => [id, ids.get(id)!]));
  const rootIds = [...copies.values()];
  const placements = made.flatMap((each) => (each.kind === 'placement' && each.holderId === null ? [each.id] : []));
  const isElement = made.some((each) => each.kind === 'element');
  const [plane] = findAll(doc, 'plane', shot.planes);
  const lists: Entity[] = [
    {
      ...shot,
      swatches: [...shot.swatches, ...brought.map(({ id }) => ids.get(id)!)],
      elements: isElement ? [...rootIds, ...shot.elements] : shot.elements,
    },
  ];
  if (isElement && plane) lists.push({ ...plane, placements: [...placements, ...plane.placements] });
  if (!isElement && over) lists.push(...intoLayers(doc, over.id, rootIds, made));
  return { doc: putEntities(doc, ...lists, ...made), copies, broughtSwatches: brought.length };
}

/** Names that stand already where parts are put. */
function namesBeside(doc: ShotDocument, elementId: Id | undefined, { entities, roots }: PartsClip): Set<string> {
  const isElement = entities.some(({ kind, id }) => kind === 'element' && roots.includes(id));
  const beside = isElement
    ? findAll(doc, 'element', shotOf(doc).elements)
    : Object.values(doc.entities).filter(
        (each) => (each.kind === 'layer' || each.kind === 'folder') && each.elementId === elementId,
      );
  return new Set(beside.flatMap((each) => ('name' in each && each.name !== null ? [each.name] : [])));
}

/** The list of layers with new ones right over one of it; where a folder is among them, over the folder that one lies in. */
function intoLayers(doc: ShotDocument, overId: Id, rootIds: readonly Id[], made: readonly Entity[]): Entity[] {
  const own = listOf(doc, overId);
  const element = find(doc, 'element', find(doc, 'layer', overId)?.elementId);
  if (!own || !element) return [];
  const hasFolder = made.some((each) => each.kind === 'folder' && rootIds.includes(each.id));
  const [into, beside] = hasFolder && own.kind === 'folder' ? [element, own.id] : [own, overId];
  return [{ ...into, layers: into.layers.toSpliced(into.layers.indexOf(beside), 0, ...rootIds) }];
}
