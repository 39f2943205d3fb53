/** Looks on the desk: whose list is shown, and finishes that were copied. */
import type { Finish } from '@tallow/core/document';
import { create } from 'zustand';

export const useFinishes = create<{
  /** Whose list is shown: the layer's, that of the folder it lies in, or the element's. */
  readonly of: 'layer' | 'folder' | 'element';
  /** The finish whose settings are open. */
  readonly open: string | null;
  readonly copied: readonly Finish[];
}>(() => ({ of: 'layer', open: null, copied: [] }));
export const setFinishes = useFinishes.setState;
