/** The swatches that were active lately in the open shot, the last first, and the ways back to them. */
import { find, type Id } from '@tallow/core/document';
import { create } from 'zustand';
import { key, named, of, shift } from '../actions/action.ts';
import { useToolState } from '../hand/tool-state.ts';
import { useDocument } from '../shot/document.ts';
import { takeSwatch } from './swatches.ts';

/** So many are kept. */
const MAX = 12;

export const useRecent = create<{ swatches: readonly Id[] }>(() => ({ swatches: [] }));

function note(id: Id): void {
  useRecent.setState(({ swatches }) => ({ swatches: [id, ...swatches.filter((each) => each !== id)].slice(0, MAX) }));
}
useToolState.subscribe(({ swatchId }, before) => {
  if (swatchId === before.swatchId) return;
  // What was active before anything was taken counts too.
  if (before.swatchId && useRecent.getState().swatches.length === 0) note(before.swatchId);
  if (swatchId) note(swatchId);
});

/** The nth swatch before the active one that is still there. */
function before(nth: number): Id | undefined {
  const { doc } = useDocument.getState();
  const { swatchId } = useToolState.getState();
  return useRecent.getState().swatches.filter((id) => id !== swatchId && doc && find(doc, 'swatch', id))[nth];
}

const whyNot = (nth: number) => (): string | null =>
  before(nth) ? null : 'Fewer swatches than that were in hand in this shot.';
const back = (nth: number) => (): void => {
  const id = before(nth);
  if (id) takeSwatch(id);
};

const tools = of('Tools');
export const SWATCH_ACTIONS = named({
  last: tools('The swatch in hand before', [key('Backslash')], back(0), { whyNot: whyNot(0) }),
  lastButOne: tools('The swatch before that', [shift('Backslash')], back(1), { whyNot: whyNot(1) }),
});

/**
 * Which swatches a place for so many shows: those of the palette in its order, and where it is too small those active
 * lately rather than others, so that few move.
 */
export function shownOf<S extends { readonly id: Id }>(all: readonly S[], recent: readonly Id[], room: number): S[] {
  if (all.length <= room) return [...all];
  const lately = recent.filter((id) => all.some((each) => each.id === id)).slice(0, room);
  const rest = all.filter(({ id }) => !lately.includes(id)).slice(0, room - lately.length);
  const shown = new Set([...lately, ...rest.map(({ id }) => id)]);
  return all.filter(({ id }) => shown.has(id));
}
