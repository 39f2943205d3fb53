/** Picking all: drawings where the wheel, the sheet or the strip has the focus, marks where the picture has it. */
import { ctrl, named, of } from '../../actions/action.ts';
import { toolState, takeTool } from '../../hand/tool-state.ts';
import { current } from '../../selection/current.ts';
import { selection } from '../../selection/selection.ts';
import { say } from '../../shot/document.ts';
import { selectAll, whyNotTime } from '../../time/time-edits.ts';
import { pick, pickBy, selectedCount } from './pick.ts';
import { PICK } from './tool.ts';

/** Whether the focus is where time is: such places are marked. */
const isOnTime = (): boolean => document.activeElement?.closest('[data-time]') != null;

function allDrawings(): void {
  const trouble = whyNotTime();
  if (trouble) {
    say(trouble);
    return;
  }
  selectAll();
  const count = selection().selectedRuns?.count ?? 0;
  say(
    `All ${count} drawings of “${current()?.active?.layer.name}” are picked. In the picture the same key picks up marks.`,
  );
}

function allMarks(): void {
  if (toolState().activeTool !== PICK) takeTool(PICK);
  pickBy((drawing) => drawing.order, 'new');
  const [count, drawings] = [selectedCount(), Object.keys(pick().sets).length];
  const where = drawings > 1 ? ` in ${drawings} drawings` : '';
  say(
    count === 0
      ? 'Nothing is drawn here. On the wheel the same key picks drawings.'
      : `${count} ${count === 1 ? 'mark is' : 'marks are'} picked up${where}. On the wheel the same key picks drawings.`,
  );
}

export const ALL_ACTIONS = named({
  all: of('Marks')('Pick all: marks in the picture, drawings on the wheel', [ctrl('KeyA')], () => {
    if (isOnTime()) allDrawings();
    else allMarks();
  }),
});
