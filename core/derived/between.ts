/** In-betweens: drawings computed from the two they lie between, perhaps along a path. */
import { find, type Between, type Drawing, type Id, type ShotDocument } from '../document/index.ts';
import type { Derived, Source } from './derived.ts';
import { fingerprintOf, wayFingerprint } from './fingerprint.ts';

const slotsOf = (doc: ShotDocument, layerId: Id): Readonly<Record<Id, Id>> => find(doc, 'layer', layerId)?.slots ?? {};

/** The two drawings in-betweens hang on, or null while one is not there or not loaded. */
export function endsOf(
  doc: ShotDocument,
  { layerId, from, to }: Pick<Between, 'layerId' | 'from' | 'to'>,
): [Drawing, Drawing] | null {
  const slots = slotsOf(doc, layerId);
  const [a, b] = [find(doc, 'drawing', slots[from]), find(doc, 'drawing', slots[to])];
  return a && b ? [a, b] : null;
}

export const between: Derived<Between> = {
  kind: 'between',
  again: 'by itself',
  laid: (doc, { layerId, laid }) => {
    const slots = slotsOf(doc, layerId);
    return Object.entries(laid).flatMap(([slot, print]) =>
      slots[slot] ? [{ slot, drawingId: slots[slot], markId: null, print }] : [],
    );
  },
  sources: (doc, entity) => {
    const ends = endsOf(doc, entity);
    if (!ends) return [];
    const path = entity.way === 'path' ? find(doc, 'path', entity.pathId) : undefined;
    const drawn: Source = {
      part: 'ends',
      was: entity.hangsOn.join(),
      now: ends.map(fingerprintOf).join(),
      hangsOn: ends.map(({ id }) => id),
    };
    return path ? [drawn, { part: 'path', was: entity.along, now: wayFingerprint(path), hangsOn: [path.id] }] : [drawn];
  },
  withPrints: (doc, entity, renewed) => {
    const slots = slotsOf(doc, entity.layerId);
    const [from, to] = entity.hangsOn;
    return {
      ...entity,
      laid: Object.fromEntries(Object.entries(entity.laid).map(([slot, print]) => [slot, renewed(print, slots[slot])])),
      hangsOn: [renewed(from, slots[entity.from]), renewed(to, slots[entity.to])],
    };
  },
};
