/** Attending to one layer: showing it alone, dimming or locking the others, and coming back exactly. */
import { putEntities, findAll } from '@tallow/core/document';
import { lockOthers } from '@tallow/core/edit';
import { current } from './current.ts';
import { desk, setDesk } from './desk.ts';
import { edit } from './document.ts';

/** Shows the active layer and nothing else, or everything again. The document stays as it is. */
export function toggleAlone(): void {
  const id = current()?.active?.layer.id ?? null;
  setDesk({ alone: desk().alone === id ? null : id });
}

/** Dims all layers but the active one, whichever that is. The document stays as it is. */
export function toggleDim(): void {
  setDesk({ dimOthers: !desk().dimOthers });
}

/** Locks all layers but the active one; again, unlocks just those it locked. */
export function toggleLockOthers(): void {
  const now = current();
  if (!now?.active) return;
  const { lockedOthers } = desk();
  if (lockedOthers.length > 0) {
    edit('unlock the others', (doc) =>
      putEntities(doc, ...findAll(doc, 'layer', lockedOthers).map((layer) => ({ ...layer, locked: false }))),
    );
    setDesk({ lockedOthers: [] });
    return;
  }
  edit('lock all others', (doc) => {
    const { doc: next, locked } = lockOthers(doc, now.element.id, now.active!.layer.id);
    setDesk({ lockedOthers: locked });
    return next;
  });
}
