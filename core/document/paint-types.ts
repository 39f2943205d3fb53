/** The words of ink and paint: fills and tone that were computed, with what is needed to lay them again. */
import type { Id } from './types.ts';

/** One filled region of a drawing. */
export interface FilledRegion {
  readonly markId: Id;
  /** A point well inside it, element space, px. */
  readonly x: number;
  readonly y: number;
  readonly swatch: Id;
  /** The shape's print as it was filled: another one was changed by hand. */
  readonly print: string;
}

/** The filled regions of one slot, and the print of the lines they were filled from. */
export interface FilledSlot {
  readonly hangsOn: string;
  readonly regions: readonly FilledRegion[];
}

/** What was filled on a layer. */
export interface Fill {
  readonly kind: 'fill';
  readonly id: Id;
  readonly elementId: Id;
  /** The layer the shapes lie on. */
  readonly layerId: Id;
  /** Layers whose lines bound the regions. */
  readonly bounds: readonly Id[];
  /** Gaps up to this many px are closed. */
  readonly gap: number;
  /** px that fills reach under the line, or null for its middle. */
  readonly under: number | null;
  readonly slots: Readonly<Record<Id, FilledSlot>>;
}

/** The tone shapes a layer can get, in the order in which they lie on the body. */
export const TONE_KEYS = ['shade', 'deep', 'light'] as const;
export type ToneKey = (typeof TONE_KEYS)[number];

/** Shade and light cut from a body by the element's light. */
export interface Tone {
  readonly kind: 'tone';
  readonly id: Id;
  readonly elementId: Id;
  readonly bodyId: Id;
  /** Layers whose lines crease the body. */
  readonly details: readonly Id[];
  /** How far in from the outline it is round, px. */
  readonly depth: number;
  /** How much of what faces away is in shade, and of what faces the light lit, 0 to 1. */
  readonly shade: number;
  readonly light: number;
  /** Hard, or the shade stepped in two. */
  readonly steps: 1 | 2;
  /** px kept off the outline. */
  readonly rim: number;
  readonly layers: Readonly<Partial<Record<ToneKey, Id>>>;
  readonly swatches: Readonly<Partial<Record<ToneKey, Id>>>;
  /** Prints of laid drawings, by layer and slot. */
  readonly laid: Readonly<Record<Id, Readonly<Record<Id, string>>>>;
  /** Prints of what each slot was laid from. */
  readonly hangsOn: Readonly<Record<Id, string>>;
}
