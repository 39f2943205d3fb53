/** Looks on the desk: whose list is shown, and finishes that were copied. */
import type { Finish } from '@tallow/core/document';
import { create } from 'zustand';

export const useFinishes = create<{
  /** Whether the list shown is the layer's or the element's. */
  readonly of: 'layer' | 'element';
  /** The finish whose settings are open. */
  readonly open: string | null;
  readonly copied: readonly Finish[];
}>(() => ({ of: 'layer', open: null, copied: [] }));
export const setFinishes = useFinishes.setState;
