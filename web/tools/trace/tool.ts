/** Shift and trace: ghosts are moved, so that a pose is traced in its new place. */
import { shift } from '../../actions/action.ts';
import { makeTool } from '../../hand/tool-state.ts';
import { beginTrace } from './trace-pen.ts';

export const TRACE = makeTool({
  name: 'trace',
  begin: beginTrace,
  space: 'layer',
  ghosts: 'usual',
  hasPanel: false,
  taking: { name: 'trace', label: 'Move ghosts for tracing', group: 'Onion skin', keys: [shift('KeyQ')] },
});
