/** Actions of layers. */
import { key, named, of } from '../actions/action.ts';
import { current } from '../selection/current.ts';
import { copyLayer, copyPart, duplicateElement, pasteLayers, whyNotPasteLayers } from './duplicate.ts';
import { setActiveStill } from '../time/time-edits.ts';
import { toggleAlone, toggleDim, toggleLockOthers } from './one-layer.ts';

const layers = of('Layers');

const whyNoLayer = (): string | null => (current()?.active ? null : 'There is no layer. Add one first.');

export const LAYER_ACTIONS = named({
  copyLayer: layers(
    'Copy this layer',
    [],
    () => {
      const layer = current()?.active?.layer;
      if (layer) copyLayer(layer.id, false);
    },
    { whyNot: whyNoLayer },
  ),
  copyTied: layers(
    'Copy this layer with what is tied to it',
    [],
    () => {
      const layer = current()?.active?.layer;
      if (layer) copyLayer(layer.id, true);
    },
    { whyNot: whyNoLayer },
  ),
  copyElement: layers('Copy the element', [], () => {
    const element = current()?.element;
    if (element) copyPart(element.id);
  }),
  duplicateElement: layers('Duplicate the element', [{ code: 'KeyD', alt: true, shift: true }], () => {
    const element = current()?.element;
    if (element) duplicateElement(element.id);
  }),
  pasteLayers: layers('Paste what was copied', [], pasteLayers, { whyNot: whyNotPasteLayers }),
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
