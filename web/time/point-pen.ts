/** The pen that follows a point: one tap on each drawing. */
import { randomId } from '@tallow/core/document';
import { putTracePoint } from '@tallow/core/edit';
import type { Point } from '@tallow/core/geometry';
import { current, shownNow } from '../state/current.ts';
import { desk, setDesk } from '../state/desk.ts';
import { edit, say } from '../state/document.ts';
import { stepDrawing } from '../state/playhead.ts';
import type { PenDoing } from '../desk/pen-hand.ts';

/** Sets the point on the drawing shown, and goes on to the next. @param at element space. */
export function placePoint(at: Point): PenDoing | null {
  const now = current();
  const shown = now && shownNow(now, desk().frame);
  if (!now?.active || !shown) {
    say('There is no drawing here to follow a point on.');
    return null;
  }
  const layerId = now.active.layer.id;
  const known = now.element.traces.find(({ id, layerId: own }) => id === desk().traceId && own === layerId);
  const traceId = known?.id ?? randomId();
  return {
    move: () => undefined,
    up: () => {
      edit('follow point', (doc) => putTracePoint(doc, layerId, traceId, shown.slot, at, false));
      setDesk({ traceId });
      stepDrawing(1);
      return true;
    },
    drop: () => undefined,
  };
}
