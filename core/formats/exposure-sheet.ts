/** The exposure sheet: which drawing of which layer shows on which frame of the shot. */
import { shotOf, type ShotDocument } from '../document/index.ts';

import {
  placedElements,
  elementLength,
  placementFrame,
  shownOn,
  slotNumbers,
  timedLayers,
  labelOfUse,
} from '../timing/index.ts';

interface ExposureSheet {
  /** `Frame`, then one column per layer as `Element / Layer`, frontmost first. Guides are left out. */
  readonly head: readonly string[];
  /** One row per frame, counted from 1: the number of the drawing shown, or nothing. */
  readonly rows: readonly (readonly string[])[];
}

/** The sheet of a range of frames. @param from first frame, from 0. @param to one past the last. */
export function exposureSheet(doc: ShotDocument, from = 0, to = shotOf(doc).length): ExposureSheet {
  const columns = placedElements(doc).flatMap(({ element, placement }) => {
    const turn = elementLength(doc, element);
    return timedLayers(doc, element)
      .filter(({ layer }) => layer.role !== 'guide')
      .map((timed) => {
        const numbers = slotNumbers(timed.list);
        const cell = (shotFrame: number): string => {
          const frame = placementFrame(placement, element, turn, shotFrame);
          const shown = frame === null ? null : shownOn(timed, frame, turn);
          return shown ? String(numbers.get(shown.slot)) : '';
        };
        return { name: `${labelOfUse(doc, placement)} / ${timed.layer.name}`, cell };
      });
  });
  return {
    head: ['Frame', ...columns.map(({ name }) => name)],
    rows: Array.from({ length: Math.max(0, to - from) }, (_, i) => [
      String(from + i + 1),
      ...columns.map(({ cell }) => cell(from + i)),
    ]),
  };
}
