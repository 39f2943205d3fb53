/** What is worked on: element, layer, frame, and what of time is picked. Never saved with the shot. */
import type { Id } from '@tallow/core/document';
import type { ClipPart, RunSelection } from '@tallow/core/edit';
import { create } from 'zustand';
import { atOpening } from '../shot/opening.ts';

/** Runs of one layer that are picked on the wheel. */
export interface SelectedRuns extends RunSelection {
  readonly layerId: Id;
  /** Other layers picked with it, on the same frames. */
  readonly also?: readonly Id[];
}

export interface Selection {
  readonly elementId: Id | null;
  /** Which use of the element one stands in: the placements it lies in, from the shot inwards, joined by `/`; null for its first. */
  readonly place: string | null;
  readonly layerId: Id | null;
  /** Frame of the active element. */
  readonly frame: number;
  /** Turn of the active element's cycle in the shot, from 0. */
  readonly turn: number;
  readonly selectedRuns: SelectedRuns | null;
  readonly clip: { readonly shotId: Id; readonly parts: readonly ClipPart[] } | null;
  /** Whether edits of time are for all layers of the element. */
  readonly together: boolean;
  /** The selected traced point. */
  readonly traceId: Id | null;
  /** The piece that is drawn right round, or null for whole drawings. */
  readonly piece: string | null;
  /** A phase that fills the wheel, by its id. */
  readonly phaseId: Id | null;
}

/** As it is when a shot opens. */
const FRESH = {
  elementId: null,
  place: null,
  layerId: null,
  frame: 0,
  turn: 0,
  selectedRuns: null,
  together: false,
  traceId: null,
  piece: null,
  phaseId: null,
} as const satisfies Partial<Selection>;

export const useSelection = create<Selection>(() => ({
  ...FRESH,
  clip: null,
}));
export const selection = useSelection.getState;
export const setSelection = useSelection.setState;

atOpening(() => {
  setSelection(FRESH);
});
