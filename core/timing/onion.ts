/** Which neighbours the onion skin shows: counted in drawings, not frames, and round the seam of a cycle. */
import { modulo } from '../geometry/index.ts';
import type { Id } from '../document/index.ts';
import { exposures, listFrame } from './runs.ts';
import type { TimedLayer } from './element.ts';

export interface Neighbour {
  readonly drawingId: Id;
  readonly side: 'before' | 'after';
  /** 1 is the nearest drawing. */
  readonly distance: number;
  /** Index of the run it is shown by. */
  readonly index: number;
  /** Frames from the frame asked about to the first one it is held for: below 0 before it, over the seam too. */
  readonly away: number;
}

/**
 * The drawings before and after the one shown on a frame. The shown drawing itself is never its own
 * neighbour, and in a short cycle no drawing appears twice: the nearer side has it.
 * @param before how many drawings back, 0 to 5; `after` likewise forward.
 */
export function neighbours(
  timed: TimedLayer,
  frame: number,
  turn: number,
  wraps: boolean,
  before: number,
  after: number,
): Neighbour[] {
  const { layer, list } = timed;
  const local = listFrame(list, frame, turn);
  const drawn = exposures(list).filter((e) => e.run.slot !== null && layer.slots[e.run.slot]);
  const here = drawn.findIndex((e) => local >= e.start && local < e.start + e.run.length);
  const drawingAt = (position: number) => layer.slots[drawn[position]!.run.slot!]!;
  const found: Neighbour[] = [];
  const seen = new Set<Id>(here >= 0 ? [drawingAt(here)] : []);
  const firstBefore = here >= 0 ? here - 1 : drawn.findLastIndex((e) => e.start <= local);
  const firstAfter = here >= 0 ? here + 1 : firstBefore + 1;
  const look = (side: Neighbour['side'], distance: number, position: number) => {
    const inside = position >= 0 && position < drawn.length;
    if (drawn.length === 0 || (!inside && !wraps)) return;
    const wrapped = modulo(position, drawn.length);
    const drawingId = drawingAt(wrapped);
    if (seen.has(drawingId)) return;
    seen.add(drawingId);
    const { start, index } = drawn[wrapped]!;
    const turns = Math.floor(position / drawn.length);
    found.push({ drawingId, side, distance, index, away: start + turns * (list.period ?? turn) - local });
  };
  for (let distance = 1; distance <= Math.max(before, after); distance++) {
    if (distance <= before) look('before', distance, firstBefore - distance + 1);
    if (distance <= after) look('after', distance, firstAfter + distance - 1);
  }
  return found;
}
