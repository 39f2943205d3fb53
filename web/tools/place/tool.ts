/** Placing uses of elements in the shot: what the pen does while it is assembled. */
import { findAll, randomId } from '@tallow/core/document';
import { makeTool } from '../../hand/tool-state.ts';
import { endGesture } from '../../shot/document.ts';
import { PLACE_ACTIONS } from './actions.ts';
import { beginPlace, moveUses } from './place-pen.ts';
import { levelNow, selectUses, placing, setPlacing } from './placing.ts';

/** px of the shot that an arrow moves by, and with Shift. */
const [STEP, FAR_STEP] = [1, 10] as const;
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

export const PLACE = makeTool({
  name: 'place',
  begin: beginPlace,
  space: 'shot',
  ghosts: 'none',
  hasPanel: false,
  onKey: (event) => {
    const level = levelNow();
    const selected = level ? findAll(level.doc, 'placement', placing().selected) : [];
    const arrow = ARROWS[event.code];
    if (event.code === 'Escape' && (placing().corners || selected.length > 0)) {
      if (placing().corners) setPlacing({ corners: false });
      else selectUses([]);
      return 'done';
    }
    if (selected.length === 0) return undefined;
    if (event.code === 'Delete' || event.code === 'Backspace') return PLACE_ACTIONS.takeUseAway;
    if (!arrow || event.ctrlKey || event.altKey) return undefined;
    const by = event.shiftKey ? FAR_STEP : STEP;
    moveUses(placing().selected, { x: arrow[0] * by, y: arrow[1] * by }, `nudge-${randomId()}`, 'nudge');
    endGesture();
    return 'done';
  },
});
