/** The drawings of a layer in the order of time. */
import { find, type Drawing, type Id, type ShotDocument } from '../document/index.ts';
import type { TimedLayer } from './element.ts';
import { exposures, runStart } from './runs.ts';

/** A drawing with the element frame it begins on. */
export interface DrawingAt {
  readonly frame: number;
  readonly drawing: Drawing;
}

/** The loaded drawings of a layer, each once, with the frames they begin on. @param length the element's, frames. */
export function drawingsInOrder(doc: ShotDocument, timed: TimedLayer | undefined, length: number): DrawingAt[] {
  if (!timed || timed.list.period === 1) return [];
  const seen = new Set<Id>();
  return exposures(timed.list)
    .flatMap(({ run, index }) => {
      const drawing = find(doc, 'drawing', run.slot ? timed.layer.slots[run.slot] : null);
      if (!drawing || seen.has(drawing.id)) return [];
      seen.add(drawing.id);
      return [{ frame: runStart(timed.list, index, length), drawing }];
    })
    .sort((a, b) => a.frame - b.frame);
}
