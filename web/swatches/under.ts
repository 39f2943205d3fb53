/** The swatch of what is seen at a place. */
import { find } from '@tallow/core/document';
import { apply, invert, multiply, scaleOf, type Matrix, type Point } from '@tallow/core/geometry';
import { markAt } from '@tallow/core/marks';
import { isVisible, shownOn } from '@tallow/core/timing';
import { current, layerMatrix } from '../selection/current.ts';
import { selection } from '../selection/selection.ts';

/** How near a mark must be, CSS px. */
const REACH = 3;

/** The swatch of the topmost mark that is seen at a place. @param inward CSS px of the canvas to the active layer's space. */
export function swatchUnder(inward: Matrix, at: Point): string | null {
  const now = current();
  if (!now) return null;
  const toShot = multiply(layerMatrix(now, selection().frame), inward);
  for (const timed of now.layers.filter(isVisible)) {
    const drawing = find(now.doc, 'drawing', shownOn(timed, selection().frame, now.length)?.drawingId);
    if (!drawing) continue;
    const own = multiply(invert(layerMatrix({ ...now, active: timed }, selection().frame)), toShot);
    const mark = drawing.marks[markAt(drawing, apply(own, at), REACH * scaleOf(own)) ?? ''];
    if (mark && mark.kind !== 'rub') return mark.swatch;
  }
  return null;
}
