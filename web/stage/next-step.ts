/** What is said next on the way to a first cycle. */
import type { Current } from '../selection/current.ts';
import { titleOf } from '../actions/key-text.ts';
import { TIME_ACTIONS } from '../time/actions.ts';

/** Drawings after which the way is known. */
const ENOUGH = 8;

/** The next step, or null when there is nothing left to say. */
export function nextStep(now: Current): string | null {
  const active = now.active;
  // Asked after each edit: in a shot with many drawings it is soon answered.
  let all = 0;
  for (const { layer } of now.layers) {
    all += Object.keys(layer.slots).length;
    if (all > ENOUGH) return null;
  }
  const drawn = active?.list.runs.filter((run) => run.slot !== null).length ?? 0;
  if (!active || (now.element.time === 'one-shot' && all > 0)) return null;
  if (drawn === 0) return all === 0 ? 'Draw here. The first stroke makes the first drawing.' : null;
  if (now.element.time === 'cycle')
    return drawn < ENOUGH ? `Closed. ${titleOf(TIME_ACTIONS.play, 'Play')}: it runs round in the wheel.` : null;
  const more = titleOf(TIME_ACTIONS.newDrawing, 'New drawing');
  if (drawn === 1) return `${more}, under the wheel, makes the next one. The teal line is the drawing before.`;
  if (drawn < 6) return `${drawn} drawings. Go on until the last leads back to the first; six are enough.`;
  return 'Close it into a cycle: “open” at the top of the column, on the right.';
}
