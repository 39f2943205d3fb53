/** The slots of a run list and the drawings of a layer, each once, in the order in which they first show. */
import { find, type Drawing, type Id, type RunList, type ShotDocument } from '../document/index.ts';
import { modulo } from '../geometry/index.ts';
import type { ElementTimeline } from './arcs.ts';
import { shownOn, type TimedLayer } from './element.ts';
import { runStart } from './runs.ts';

/** A slot with the run it first shows in. */
interface SlotAt {
  readonly slot: Id;
  /** Index of the run. */
  readonly index: number;
}

/** The slots of a run list, each once. @param from the run it is begun at; those before it come last, round the seam. */
export function slotsInOrder({ runs }: Pick<RunList, 'runs'>, from = 0): SlotAt[] {
  const seen = new Set<Id>();
  return runs.flatMap((_, i): SlotAt[] => {
    const index = (from + i) % runs.length;
    const { slot } = runs[index]!;
    if (slot === null || seen.has(slot)) return [];
    seen.add(slot);
    return [{ slot, index }];
  });
}

/** A drawing with the element frame it begins on. */
interface DrawingAt {
  readonly frame: number;
  readonly drawing: Drawing;
}

/** The loaded drawings of a layer, each once, with the frames they begin on. @param length the element's, frames. */
export function drawingsInOrder(doc: ShotDocument, timed: TimedLayer | undefined, length: number): DrawingAt[] {
  if (!timed || timed.list.period === 1) return [];
  const seen = new Set<Id>();
  return slotsInOrder(timed.list)
    .flatMap(({ slot, index }) => {
      const drawing = find(doc, 'drawing', timed.layer.slots[slot]);
      // Several slots may show one drawing.
      if (!drawing || seen.has(drawing.id)) return [];
      seen.add(drawing.id);
      return [{ frame: runStart(timed.list, index, length), drawing }];
    })
    .sort((a, b) => a.frame - b.frame);
}

/**
 * The drawings of an element, each once, in the order of how near to a frame they show; round a cycle the short way.
 * Those that are not loaded are among them.
 */
export function drawingsNear({ element, layers, length }: ElementTimeline, frame: number): Id[] {
  const found = new Set<Id>();
  const look = (at: number): void => {
    const own = element.time === 'cycle' ? modulo(at, length) : at;
    if (own < 0 || own >= length) return;
    for (const timed of layers) {
      const shown = shownOn(timed, own, length);
      if (shown) found.add(shown.drawingId);
    }
  };
  for (let far = 0; far < length; far++) {
    look(frame + far);
    look(frame - far);
  }
  return [...found];
}
