/** Following a point from drawing to drawing. */
import { makeTool } from '../../hand/tool-state.ts';
import { beginPoint } from './point-pen.ts';

export const POINT = makeTool({
  name: 'point',
  begin: beginPoint,
  space: 'layer',
  ghosts: 'together',
  hasPanel: false,
});
