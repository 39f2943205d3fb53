/** The drawings of a frame: what has to be there before it can be drawn. */
import type { Id, ShotDocument } from '../document/index.ts';
import { shownOn, timedLayers } from '../timing/index.ts';
import { allOccurrences } from './occurrences.ts';

/** The drawings that layers of placed elements show on a frame of the shot, seen or not, each once. */
export const drawingsOn = (doc: ShotDocument, shotFrame: number): Id[] => [
  ...new Set(
    allOccurrences(doc, shotFrame).flatMap(({ element, moment, length }) =>
      timedLayers(doc, element).flatMap((timed) => shownOn(timed, moment.frame, length)?.drawingId ?? []),
    ),
  ),
];
