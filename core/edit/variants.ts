/** Variants of timing and drawings, kept side by side so that trying one never costs the other. */
import {
  dropEntities,
  find,
  putEntities,
  type Entity,
  type HeldTake,
  type Id,
  type NewId,
  type ShotDocument,
  type Variant,
  entitiesOf,
} from '../document/index.ts';
import { timedLayers, elementOf } from '../timing/index.ts';
import { deleteEntities } from './remove.ts';
import { tiedTo } from './sweep.ts';

/** All variants of an element, in the order of their names. */
export const variantsOf = (doc: ShotDocument, elementId: Id): Variant[] =>
  entitiesOf(doc, 'variant')
    .filter((e) => e.elementId === elementId)
    .sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));

const sameScope = (a: readonly Id[], b: readonly Id[]): boolean => [...a].sort().join() === [...b].sort().join();

/** The variants of exactly these layers. */
export const variantsAbout = (doc: ShotDocument, elementId: Id, scope: readonly Id[]): Variant[] =>
  variantsOf(doc, elementId).filter((variant) => sameScope(variant.scope, scope));

/** All layers of an element. */
export const wholeScope = (doc: ShotDocument, elementId: Id): Id[] =>
  timedLayers(doc, elementOf(doc, elementId).element).map(({ layer }) => layer.id);

/** A layer and those tied to it: their time can only change together. */
export function layerScope(doc: ShotDocument, layerId: Id): Id[] {
  const layer = find(doc, 'layer', layerId);
  return layer ? tiedTo(doc, layer.runListId).map(({ id }) => id) : [];
}

/** What some layers show now, as a variant holds it. */
function taken(doc: ShotDocument, scope: readonly Id[]): HeldTake {
  const layers = scope.flatMap((id) => find(doc, 'layer', id) ?? []);
  const lists = [...new Set(layers.map(({ runListId }) => runListId))].flatMap((id) => find(doc, 'runlist', id) ?? []);
  return { lists, layers: layers.map(({ id, runListId, slots }) => ({ layerId: id, runListId, slots })) };
}

/** The letter after the last used: A, B, … Z, AA. */
function nextName(used: readonly string[]): string {
  for (let i = 0; ; i++) {
    const letter = String.fromCharCode(65 + (i % 26));
    const name = letter.repeat(Math.floor(i / 26) + 1);
    if (!used.includes(name)) return name;
  }
}

/** Drawings a variant would keep; they must be loaded to be copied. */
export const drawingsOfScope = (doc: ShotDocument, scope: readonly Id[]): Id[] =>
  scope.flatMap((id) => Object.values(find(doc, 'layer', id)?.slots ?? {}));

/**
 * Keeps timing and drawings of some layers as they are; what is done from now on is the next variant.
 * What is kept has copies of the drawings, so that drawing on changes nothing there. Needs them loaded.
 */
export function keepVariant(doc: ShotDocument, elementId: Id, scope: readonly Id[], newId: NewId): ShotDocument {
  const known = variantsAbout(doc, elementId, scope);
  const now = known.find(({ held }) => held === null);
  const names = known.map(({ name }) => name);
  const live = now ?? { kind: 'variant', id: newId(), elementId, name: nextName(names), scope: [...scope], held: null };
  const copies: Entity[] = [];
  const { lists, layers } = taken(doc, scope);
  const held: HeldTake = {
    lists,
    layers: layers.map((take) => ({
      ...take,
      slots: Object.fromEntries(
        Object.entries(take.slots).map(([slot, id]) => {
          const drawing = find(doc, 'drawing', id);
          if (!drawing) throw new Error(`Drawing ${id} is not loaded`);
          const copy = { ...drawing, id: newId() };
          copies.push(copy);
          return [slot, copy.id];
        }),
      ),
    })),
  };
  const next: Variant = {
    kind: 'variant',
    id: newId(),
    elementId,
    name: nextName([...names, live.name]),
    scope: [...scope],
    held: null,
  };
  return putEntities(doc, ...copies, { ...live, held }, next);
}

/** Shows a kept variant; what the layers showed until now is kept in its place. */
export function showVariant(doc: ShotDocument, variantId: Id): ShotDocument {
  const wanted = find(doc, 'variant', variantId);
  if (!wanted?.held) return doc;
  const live = variantsAbout(doc, wanted.elementId, wanted.scope).find(({ held }) => held === null);
  if (!live) return doc;
  const { lists, layers } = wanted.held;
  const shown = layers.flatMap(({ layerId, runListId, slots }) => {
    const layer = find(doc, 'layer', layerId);
    return layer ? [{ ...layer, runListId, slots }] : [];
  });
  const before = taken(doc, wanted.scope);
  const next = putEntities(doc, ...lists, ...shown, { ...live, held: before }, { ...wanted, held: null });
  // A run list that was tied or untied since may have nobody left who shows it.
  const unused = before.lists.filter((list) => tiedTo(next, list.id).length === 0);
  return dropEntities(
    next,
    unused.map(({ id }) => id),
  );
}

/** Lets a variant go, with the drawings only it kept. The one shown now cannot be let go. */
export function dropVariant(doc: ShotDocument, variantId: Id): ShotDocument {
  const variant = find(doc, 'variant', variantId);
  if (!variant?.held) return doc;
  const without = deleteEntities(doc, [variantId]);
  const rest = variantsAbout(without, variant.elementId, variant.scope);
  // The one shown now needs no name when there is nothing to tell it from.
  return rest.length === 1 ? dropEntities(without, [rest[0]!.id]) : without;
}

/** Names a variant. */
export function nameVariant(doc: ShotDocument, variantId: Id, name: string): ShotDocument {
  const variant = find(doc, 'variant', variantId);
  return variant ? putEntities(doc, { ...variant, name }) : doc;
}
