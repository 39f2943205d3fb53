/** Filling: regions that lines bound. */
import { key } from '../../actions/action.ts';
import { makeTool } from '../../hand/tool-state.ts';
import { lookAway } from '../../fills/looking.ts';
import { beginFill } from './fill-pen.ts';
import { FillIcon } from '../icons.tsx';

export const FILL = makeTool({
  name: 'fill',
  begin: beginFill,
  space: 'layer',
  ghosts: 'none',
  hasPanel: true,
  Icon: FillIcon,
  taking: { name: 'fill', label: 'Fill', group: 'Tools', keys: [key('KeyF')] },
  putDown: lookAway,
});
