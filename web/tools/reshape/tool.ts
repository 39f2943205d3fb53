/** Reshaping: points of lines and outlines pulled, redrawn, cut. */
import { key } from '../../actions/action.ts';
import { makeTool } from '../../hand/tool-state.ts';
import { TIME_ACTIONS } from '../../time/actions.ts';
import { removeControlPoints } from './line-edits.ts';
import { reshape, setReshape } from './reshape.ts';
import { beginReshape } from './reshape-pen.ts';
import { ReshapeIcon } from '../icons.tsx';

export const RESHAPE = makeTool({
  name: 'reshape',
  begin: beginReshape,
  space: 'layer',
  ghosts: 'together',
  hasPanel: true,
  Icon: ReshapeIcon,
  taking: { name: 'reshape', label: 'Reshape', group: 'Marks', keys: [key('KeyV')] },
  onKey: (event, preset) => {
    if (event.code === 'Escape' && reshape().controlPoints.length > 0) {
      setReshape({ controlPoints: [] });
      return 'done';
    }
    if (preset !== TIME_ACTIONS.remove) return undefined;
    removeControlPoints();
    return 'done';
  },
});
