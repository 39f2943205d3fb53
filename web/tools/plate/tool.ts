/** Placing a picture to draw to. */
import { makeTool } from '../../hand/tool-state.ts';
import { beginPlate } from './plate-pen.ts';

export const PLATE = makeTool({
  name: 'plate',
  begin: beginPlate,
  space: 'element',
  ghosts: 'together',
  hasPanel: true,
});
