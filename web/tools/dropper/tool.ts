/** Taking a colour from the picture. */
import { shift } from '../../actions/action.ts';
import { makeTool } from '../../hand/tool-state.ts';
import { beginDropper } from './dropper-pen.ts';

export const DROPPER = makeTool({
  name: 'dropper',
  begin: beginDropper,
  space: 'layer',
  ghosts: 'together',
  hasPanel: false,
  taking: { name: 'dropper', label: 'Take a colour from the picture', group: 'Tools', keys: [shift('KeyF')] },
});
