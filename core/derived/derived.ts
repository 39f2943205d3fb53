/**
 * Derived content: what was computed from something else and laid as ordinary drawings. An entity keeps its settings, the
 * fingerprint of each thing as it was laid, and the fingerprints of what it was laid from. By these Tallow tells what a hand has
 * touched since, which stays, and what has to be laid again.
 */
import type { Entity, Id, ShotDocument } from '../document/index.ts';

/** A thing that was laid: a drawing, or one mark of a drawing. */
export interface LaidThing {
  readonly slot: Id;
  readonly drawingId: Id;
  readonly markId: Id | null;
  /** Its fingerprint as it was laid. */
  readonly print: string;
}

/** What a part of derived content was laid from. */
export interface Source {
  /** The part that is laid again by itself: a slot, say. */
  readonly part: string;
  /** Its fingerprint when the part was laid, or null where none is kept: then the part is laid again whenever a thing it hangs on was changed. */
  readonly was: string | null;
  readonly now: string;
  /** The things it hangs on. */
  readonly hangsOn: readonly Id[];
}

/** The fingerprint of a thing that was laid, as it is to be from now on. */
export type Renewed = (print: string, drawingId: Id | undefined) => string;

/** What a kind of derived content says of itself. */
export interface Derived<E extends Entity> {
  readonly kind: E['kind'];
  /** Whether it is laid again with the step that changed what it hangs on, or when the user asks. */
  readonly again: 'by itself' | 'when asked';
  /** What it laid and is still there; drawings that are not loaded may be left out. */
  readonly laid: (doc: ShotDocument, entity: E) => LaidThing[];
  /** What its parts were laid from; those that are not loaded, or can not be laid any more, are left out. */
  readonly sources: (doc: ShotDocument, entity: E) => Source[];
  /** The entity with the fingerprint of every drawing renewed: those it laid, and those it was laid from. */
  readonly withPrints: (doc: ShotDocument, entity: E, renewed: Renewed) => E;
}
