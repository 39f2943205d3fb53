/** Boil as the desk lays it. */
import { boiled, type Boil } from '@tallow/core/between';
import { find, randomId } from '@tallow/core/document';
import { layBoil } from '@tallow/core/edit';
import { isLocked } from '@tallow/core/timing';
import { current, shownNow } from './current.ts';
import { desk, setDesk } from './desk.ts';
import { edit } from './document.ts';
import { goTo } from './playhead.ts';
import { withDrawings } from './time-edits.ts';

export function whyNotBoil(): string | null {
  const now = current();
  if (!now?.active) return 'There is no layer. Add one first.';
  if (isLocked(now.active)) return 'The layer is locked. Unlock it first.';
  return shownNow(now, desk().frame) ? null : 'There is no drawing here to boil.';
}

/** Lets the drawing shown boil. @param variants besides itself. @param hold frames each shows. */
export function boilHere(boil: Boil, variants: number, hold: number): void {
  const now = current();
  const shown = now && shownNow(now, desk().frame);
  if (!now?.active || !shown || whyNotBoil()) return;
  const layerId = now.active.layer.id;
  withDrawings([shown.drawingId], () => {
    const { frame } = desk();
    setDesk({ picked: null });
    edit('boil', (doc) => {
      const drawing = find(doc, 'drawing', shown.drawingId);
      if (!drawing) return doc;
      const breaths = Array.from({ length: variants }, (_, turn) => boiled(drawing, turn, boil, randomId));
      return layBoil(doc, layerId, frame, breaths, hold, randomId).doc;
    });
    goTo(frame);
  });
}
