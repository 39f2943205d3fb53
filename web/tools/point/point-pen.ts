/** The pen that follows a point: one tap on each drawing, or on each frame of a plate. */
import { randomId } from '@tallow/core/document';
import { putTracePoint } from '@tallow/core/edit';
import { apply, type Matrix } from '@tallow/core/geometry';
import { exposureAt } from '@tallow/core/timing';
import { current } from '../../selection/current.ts';
import { selection, setSelection } from '../../selection/selection.ts';
import { edit, say } from '../../shot/document.ts';
import { stepDrawing } from '../../playback/playhead.ts';
import type { PenDoing, PenSample } from '../../hand/pen-doing.ts';

/**
 * Sets the point on the drawing shown, and goes on to the next.
 * @param inward CSS px of the canvas to the active layer's space.
 */
export function beginPoint(inward: Matrix, first: PenSample): PenDoing | null {
  const at = apply(inward, first);
  const now = current();
  const slot = now?.active && exposureAt(now.active.list, selection().frame, now.length)?.run.slot;
  if (!now?.active || !slot) {
    say('There is no drawing here to follow a point on. On a plate: press “On a plate” first.');
    return null;
  }
  const layerId = now.active.layer.id;
  const known = now.element.traces.find(({ id, layerId: own }) => id === selection().traceId && own === layerId);
  const traceId = known?.id ?? randomId();
  return {
    move: () => undefined,
    up: () => {
      edit('follow point', (doc) => putTracePoint(doc, layerId, traceId, slot, at, false));
      setSelection({ traceId });
      stepDrawing(1);
      return true;
    },
    drop: () => undefined,
  };
}
