/** Attending to one layer: showing it alone, dimming or locking the others, and coming back exactly. */
import { findAll, putEntities, type Id, type Layer, type ShotDocument } from '@tallow/core/document';
import { lockOthers } from '@tallow/core/edit';
import { current } from '../selection/current.ts';
import { setShowing, showing } from '../picture/showing.ts';
import { edit } from '../shot/document.ts';

/** Shows the active layer and nothing else, or everything again. The document stays as it is. */
export function toggleAlone(): void {
  const id = current()?.active?.layer.id ?? null;
  setShowing({ alone: showing().alone === id ? null : id });
}

/** Dims all layers but the active one, whichever that is. The document stays as it is. */
export function toggleDim(): void {
  setShowing({ dimOthers: !showing().dimOthers });
}

/** Those that were locked by locking all others and are locked still: undo may have unlocked them. */
export const lockedStill = (doc: ShotDocument, ids: readonly Id[]): Layer[] =>
  findAll(doc, 'layer', ids).filter(({ locked }) => locked);

/** Locks all layers but the active one; again, unlocks just those it locked. */
export function toggleLockOthers(): void {
  const now = current();
  if (!now?.active) return;
  const { lockedOthers } = showing();
  if (lockedStill(now.doc, lockedOthers).length > 0) {
    edit('unlock the others', (doc) =>
      putEntities(doc, ...lockedStill(doc, lockedOthers).map((layer) => ({ ...layer, locked: false }))),
    );
    setShowing({ lockedOthers: [] });
    return;
  }
  edit('lock all others', (doc) => {
    const { doc: next, locked } = lockOthers(doc, now.element.id, now.active!.layer.id);
    setShowing({ lockedOthers: locked });
    return next;
  });
}
