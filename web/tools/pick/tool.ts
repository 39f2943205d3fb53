/** Picking up: marks selected by lasso or box, and moved. */
import { key, type Action } from '../../actions/action.ts';
import { makeTool } from '../../hand/tool-state.ts';
import { TIME_ACTIONS } from '../../time/actions.ts';
import { hasMarkClip, PICK_ACTIONS } from './actions.ts';
import { nudgeSelected, selectedCount } from './pick.ts';
import { beginPick } from './pick-pen.ts';
import { PickIcon } from '../icons.tsx';

/** Arrows in screen directions. */
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** What keys for drawings do to marks while marks are picked up. */
const ON_MARKS = new Map<Action, Action>([
  [TIME_ACTIONS.remove, PICK_ACTIONS.deleteMarks],
  [TIME_ACTIONS.copyDrawings, PICK_ACTIONS.copyMarks],
  [TIME_ACTIONS.cutDrawings, PICK_ACTIONS.cutMarks],
  [TIME_ACTIONS.pickNone, PICK_ACTIONS.letGo],
]);

/** Arrows nudge what is picked up: 1 px, with Shift 10. */
function nudged(event: KeyboardEvent): boolean {
  const arrow = ARROWS[event.code];
  if (!arrow || selectedCount() === 0 || event.ctrlKey || event.altKey) return false;
  const far = event.shiftKey ? 10 : 1;
  nudgeSelected(arrow[0] * far, arrow[1] * far);
  return true;
}

export const PICK = makeTool({
  name: 'pick',
  begin: beginPick,
  space: 'layer',
  ghosts: 'together',
  hasPanel: true,
  Icon: PickIcon,
  taking: { name: 'pickUp', label: 'Pick up', group: 'Marks', keys: [key('KeyC')] },
  onKey: (event, preset) => {
    if (nudged(event)) return 'done';
    if (preset === TIME_ACTIONS.paste) return hasMarkClip() ? PICK_ACTIONS.pasteMarks : preset;
    return preset && selectedCount() > 0 ? ON_MARKS.get(preset) : undefined;
  },
});
