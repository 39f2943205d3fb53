/** Actions of layers. */
import { key, named, of } from '../actions/action.ts';
import { current } from '../selection/current.ts';
import { setActiveStill } from '../time/time-edits.ts';
import { toggleAlone, toggleDim, toggleLockOthers } from './one-layer.ts';

const layers = of('Layers');

export const LAYER_ACTIONS = named({
  alone: layers('Show this layer alone', [key('KeyI')], toggleAlone),
  dim: layers('Dim all others', [key('KeyO')], toggleDim),
  lockOthers: layers('Lock all others', [key('KeyU')], toggleLockOthers),
  still: layers(
    'Still layer: one drawing throughout',
    [],
    () => {
      setActiveStill(current()?.active?.list.period !== 1);
    },
    { whyNot: () => (current()?.active?.layer.locked ? 'The layer is locked. Unlock it first.' : null) },
  ),
});
