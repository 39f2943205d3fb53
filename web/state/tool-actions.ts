/** Taking brushes and tools in hand, and how they draw. */
import { alt, key, of, shift, type Action } from './action.ts';
import { desk, setDesk, takeBrush, type Tool } from './desk.ts';
import { toggleFill } from './fill.ts';
import { togglePanel } from './panels.ts';
import { shotSize } from './viewing.ts';

const tools = of('Tools');

const brush = (label: string, tool: Tool, ...keys: Action['keys']): Action =>
  tools(label, keys, () => {
    takeBrush(tool);
  });

/** Lays the ruler level across the middle of the picture, or takes it away. */
function toggleRuler(): void {
  const { width, height } = shotSize();
  setDesk({ ruler: desk().ruler ? null : { x: width / 2, y: height / 2, angle: 0 } });
}

export const TOOL_ACTIONS = {
  ink: brush('Ink', 'ink', key('Digit1')),
  pencil: brush('Pencil', 'pencil', key('Digit2')),
  grain: brush('Grain', 'grain', key('Digit3')),
  haze: brush('Haze', 'haze', key('Digit4')),
  shape: brush('Shape', 'shape', key('Digit5')),
  rub: brush('Rub out', 'rub', key('Digit6'), key('KeyX')),
  brushSettings: tools('Settings of the brush', [shift('KeyV')], () => {
    setDesk({ brushShown: !desk().brushShown });
  }),
  exact: tools('Level, plumb and every 15 degrees', [shift('KeyL')], () => {
    setDesk({ exact: !desk().exact });
  }),
  closes: tools('Close strokes that nearly close', [shift('KeyC')], () => {
    setDesk({ closes: !desk().closes });
  }),
  behind: tools('Draw behind what is there', [shift('KeyB')], () => {
    setDesk({ behind: !desk().behind });
  }),
  fill: tools('Fill', [key('KeyF')], toggleFill),
  palette: tools('Palette and the swatch in hand', [alt('KeyQ')], () => {
    togglePanel('palette');
  }),
  finishes: tools('Looks of the layer and the element', [alt('KeyE')], () => {
    togglePanel('finishes');
  }),
  tone: tools('Tone: shade and light', [alt('KeyM')], () => {
    togglePanel('tone');
  }),
  dropper: tools('Take a colour from the picture', [shift('KeyF')], () => {
    setDesk({ hand: desk().hand === 'dropper' ? 'draw' : 'dropper' });
  }),
  ruler: tools('Ruler', [shift('KeyX')], toggleRuler),
} as const satisfies Record<string, Action>;
