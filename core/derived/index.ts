/** Every kind of derived content, and what is asked of all of them alike. */
import { find, type Drawing, type Entity, type Id, type ShotDocument } from '../document/index.ts';
import { between } from './between.ts';
import type { Derived, LaidThing, Source } from './derived.ts';
import { fill } from './fill.ts';
import { outlineOf, fingerprintOf } from './fingerprint.ts';
import { ride } from './ride.ts';
import { smear } from './smear.ts';
import { starter } from './starter.ts';
import { tone } from './tone.ts';

export { endsOf } from './between.ts';
export { boundDrawings, boundsFingerprint } from './fill.ts';
export { ridden, rideFingerprint, usesOfBoth } from './ride.ts';
export { smearFingerprint } from './smear.ts';
export { hasShape, litSlots } from './tone.ts';
export {
  outlineOf,
  outlinesOf,
  pathFingerprint,
  fingerprintOf,
  textFingerprint,
  wayFingerprint,
} from './fingerprint.ts';

/** All of them, each by its kind of entity. */
export const DERIVED = { starter, between, fill, tone, smear, ride } as const;

export type DerivedKind = keyof typeof DERIVED;
export type DerivedEntity = Extract<Entity, { kind: DerivedKind }>;

const isDerived = (entity: Entity): entity is DerivedEntity => entity.kind in DERIVED;

/** Its descriptor; the compiler can not know that each list entry takes the kind it stands under. */
const derivedOf = (entity: DerivedEntity): Derived<DerivedEntity> =>
  DERIVED[entity.kind] as unknown as Derived<DerivedEntity>;

/** Whether a laid thing is still as it was laid. One that is gone, or not loaded, is not. */
export function isAsLaid(doc: ShotDocument, { drawingId, markId, print }: Omit<LaidThing, 'slot'>): boolean {
  const drawing = find(doc, 'drawing', drawingId);
  if (!drawing) return false;
  if (markId === null) return fingerprintOf(drawing) === print;
  const mark = drawing.marks[markId];
  return mark !== undefined && outlineOf(mark) === print;
}

/** What an entity laid and a hand has changed since. Drawings that are not loaded count as untouched. */
export const touchedOf = (doc: ShotDocument, entity: DerivedEntity): LaidThing[] =>
  derivedOf(entity)
    .laid(doc, entity)
    .filter((thing) => find(doc, 'drawing', thing.drawingId) && !isAsLaid(doc, thing));

/** Derived content of which parts have to be laid again. */
export interface Stale<E extends DerivedEntity = DerivedEntity> {
  readonly entity: E;
  /** The sources that have changed, one for each part. */
  readonly sources: readonly Source[];
}

/** All that is looked at when derived content is laid again: what its stale parts hang on, and what it laid. */
export const behindStale = (doc: ShotDocument, { entity, sources }: Stale): Id[] => [
  ...sources.flatMap(({ hangsOn }) => hangsOn),
  ...derivedOf(entity)
    .laid(doc, entity)
    .map(({ drawingId }) => drawingId),
];

/**
 * The derived content of an element that has to be laid again.
 * @param again of the kinds that are laid again so.
 * @param changed what was changed since it was last asked: tells of sources that no fingerprint is kept of.
 */
export function staleOf(
  doc: ShotDocument,
  elementId: Id,
  again: Derived<DerivedEntity>['again'],
  changed: ReadonlySet<Id> = new Set(),
): Stale[] {
  return Object.values(doc.entities).flatMap((entity): Stale[] => {
    if (!isDerived(entity) || entity.elementId !== elementId || derivedOf(entity).again !== again) return [];
    const sources = derivedOf(entity)
      .sources(doc, entity)
      .filter(({ was, now, hangsOn }) => (was === null ? hangsOn.some((id) => changed.has(id)) : was !== now));
    return sources.length > 0 ? [{ entity, sources }] : [];
  });
}

/**
 * An entity whose fingerprints are those of what its drawings have become, for changes that no hand made: other paint, other
 * ids. A fingerprint that was not that of its drawing before stays as it is: that drawing still counts as touched.
 * @param doc before the change. @param become what a drawing has become.
 */
export function withFingerprintsOf(doc: ShotDocument, entity: Entity, become: (drawing: Drawing) => Drawing): Entity {
  if (!isDerived(entity)) return entity;
  return derivedOf(entity).withPrints(doc, entity, (print, drawingId) => {
    const drawing = find(doc, 'drawing', drawingId);
    return drawing && fingerprintOf(drawing) === print ? fingerprintOf(become(drawing)) : print;
  });
}
