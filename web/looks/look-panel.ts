/** Looks on the desk: whose list is shown, and looks that were copied. */
import type { AppliedLook } from '@tallow/core/document';
import { create } from 'zustand';

export const useLooks = create<{
  /** Whose list is shown: the layer's, that of the folder it lies in, or the element's. */
  readonly of: 'layer' | 'folder' | 'element';
  /** The look whose settings are open. */
  readonly open: string | null;
  readonly copied: readonly AppliedLook[];
}>(() => ({ of: 'layer', open: null, copied: [] }));
export const setLooks = useLooks.setState;
