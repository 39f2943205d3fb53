/** Actions of the whole desk: undo, what the column shows, and what of the interface is on the screen. */
import { alt, ctrl, key, named, of, shift } from '../actions/action.ts';
import { toolState, setToolState } from '../hand/tool-state.ts';
import { redo, undo, useDocument } from '../shot/document.ts';
import { togglePanel } from './panels.ts';
import { onScreen, setScreen } from './screen.ts';

const picture = of('Picture');
const tools = of('Tools');
const general = of('General');

const historyWhyNot = (which: 'done' | 'undone') => () =>
  useDocument.getState()[which].length > 0 ? null : `There is nothing to ${which === 'done' ? 'undo' : 'redo'}.`;

export const SCREEN_ACTIONS = named({
  panels: picture('Hide or show column, strip and tray', [key('Backquote')], () => {
    setScreen({ panels: !onScreen().panels });
  }),
  brushSettings: tools('Settings of the brush', [shift('KeyV')], () => {
    setToolState({ brushShown: !toolState().brushShown });
  }),
  palette: tools('Palette and the swatch in hand', [alt('KeyQ')], () => {
    togglePanel('palette');
  }),
  finishes: tools('Looks of the layer and the element', [alt('KeyE')], () => {
    togglePanel('looks');
  }),
  tone: tools('Tone: shade and light', [alt('KeyM')], () => {
    togglePanel('tone');
  }),
  otherHand: general('Buttons for the other hand', [key('Digit9')], () => {
    const { otherHand } = onScreen();
    setScreen({ otherHand: { ...otherHand, shown: !otherHand.shown } });
  }),
  undo: general('Undo', [ctrl('KeyZ')], undo, { whyNot: historyWhyNot('done') }),
  redo: general('Redo', [key('KeyZ', { ctrl: true, shift: true }), ctrl('KeyY')], redo, {
    whyNot: historyWhyNot('undone'),
  }),
  keys: general('Show the keys', [shift('Slash')], () => {
    setScreen({ keysShown: !onScreen().keysShown });
  }),
});
