/** Boil as the desk lays it. */
import { boiled, type Boil } from '@tallow/core/between';
import { find, randomId } from '@tallow/core/document';
import { boilRoom, layBoil } from '@tallow/core/edit';
import { isLocked } from '@tallow/core/timing';
import { current, shownNow } from '../selection/current.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { edit, say } from '../shot/document.ts';
import { goTo } from '../playback/playhead.ts';
import { withDrawings } from '../saving/drawings.ts';

/** Why the drawing shown cannot boil, or null. @param hold frames each variant is to show. */
export function whyNotBoil(hold: number): string | null {
  const now = current();
  if (!now?.active) return 'There is no layer. Add one first.';
  if (isLocked(now.active)) return 'The layer is locked. Unlock it first.';
  if (!shownNow(now, selection().frame)) return 'There is no drawing here to boil.';
  if (boilRoom(now.doc, now.active.layer.id, selection().frame, hold) >= 1) return null;
  return `This drawing is not held for longer than ${hold === 1 ? '1 frame' : `${hold} frames`}: a variant would never show. Hold it longer${hold === 1 ? '' : ', or each variant for less'}.`;
}

/** Lets the drawing shown boil. @param variants besides itself. @param hold frames each shows. */
export function boilHere(boil: Boil, variants: number, hold: number): void {
  const now = current();
  const shown = now && shownNow(now, selection().frame);
  if (!now?.active || !shown || whyNotBoil(hold)) return;
  const layerId = now.active.layer.id;
  withDrawings([shown.drawingId], () => {
    const { frame } = selection();
    const room = boilRoom(current()!.doc, layerId, frame, hold);
    setSelection({ selectedRuns: null });
    edit('boil', (doc) => {
      const drawing = find(doc, 'drawing', shown.drawingId);
      if (!drawing) return doc;
      const breaths = Array.from({ length: variants }, (_, turn) => boiled(drawing, turn, boil, randomId));
      return layBoil(doc, layerId, frame, breaths, hold, randomId).doc;
    });
    goTo(frame);
    if (room < variants)
      say(
        `There is time for ${room === 1 ? '1 variant' : `${room} variants`} of ${variants} while this drawing is held.`,
      );
  });
}
