/** Filling: regions that lines bound. */
import { PaintBucket } from 'lucide-react';
import { key } from '../../actions/action.ts';
import { makeTool } from '../../hand/held.ts';
import { lookAway } from './fill.ts';
import { beginFill } from './fill-pen.ts';

export const FILL = makeTool({
  name: 'fill',
  begin: beginFill,
  space: 'layer',
  ghosts: 'none',
  hasPanel: true,
  Icon: PaintBucket,
  taking: { name: 'fill', label: 'Fill', group: 'Tools', keys: [key('KeyF')] },
  putDown: lookAway,
});
