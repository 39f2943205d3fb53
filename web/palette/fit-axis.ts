/** Where an axis nobody has set begins: on what is drawn of the element at the playhead. */
import { find, type AppliedLook, type Id, type ShotDocument } from '@tallow/core/document';
import { fitAxis } from '@tallow/core/edit';
import { EMPTY_BOX, union } from '@tallow/core/geometry';
import { LOOKS } from '@tallow/core/looks';
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

/** The same for a look that runs along the axis. @param ownerId whose look it is; uses and planes are of other elements. */
export function fittedForLook(
  doc: ShotDocument,
  ownerId: Id,
  { kind, choices }: Pick<AppliedLook, 'kind' | 'choices'>,
): ShotDocument {
  const now = current();
  const isOwn =
    now?.element.id === ownerId ||
    now?.layers.some(({ layer, folder }) => layer.id === ownerId || folder?.id === ownerId);
  return isOwn && LOOKS[kind].runsAlongAxis?.(choices) ? fittedAxis(doc) : doc;
}
