/** Where an axis nobody has set begins: on what is drawn of the element at the playhead. */
import { find, type ShotDocument } from '@tallow/core/document';
import { fitAxis } from '@tallow/core/edit';
import { EMPTY_BOX, union } from '@tallow/core/geometry';
import { drawingBox } from '@tallow/core/render';
import { shownOn } from '@tallow/core/timing';
import { current } from '../selection/current.ts';
import { selection } from '../selection/selection.ts';

/** Leads the axis of the element that is worked on along what is drawn of it, if neither of its ends has been set. */
export function fittedAxis(doc: ShotDocument): ShotDocument {
  const now = current();
  if (!now) return doc;
  const { frame } = selection();
  const drawn = now.layers
    .filter(({ layer }) => layer.role !== 'guide' && layer.visible)
    .flatMap((timed) => find(doc, 'drawing', shownOn(timed, frame, now.length)?.drawingId) ?? [])
    .map(drawingBox)
    .reduce(union, EMPTY_BOX);
  return fitAxis(doc, now.element.id, drawn);
}
