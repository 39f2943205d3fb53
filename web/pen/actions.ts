/** Actions of the drawing pen: its brushes and how it draws. */
import { named, of, shift, type Action } from '../actions/action.ts';
import { BRUSH_NAMES, BRUSHES, type BrushName } from '../hand/brushes.ts';
import { toolState, setToolState, takeBrush } from '../hand/tool-state.ts';
import { shotSize } from '../view/viewing.ts';

const tools = of('Tools');

/** Lays the ruler level across the middle of the picture, or takes it away. */
function toggleRuler(): void {
  const { width, height } = shotSize();
  setToolState({ ruler: toolState().ruler ? null : { x: width / 2, y: height / 2, angle: 0 } });
}

/** Makes each brush active. */
export const BRUSH_ACTIONS = named(
  Object.fromEntries(
    BRUSH_NAMES.map((name) => [
      name,
      tools(BRUSHES[name].label, BRUSHES[name].keys, () => {
        takeBrush(name);
      }),
    ]),
  ) as Record<BrushName, Omit<Action, 'name'>>,
);

export const PEN_ACTIONS = named({
  exact: tools('Level, plumb and every 15 degrees', [shift('KeyL')], () => {
    setToolState({ exact: !toolState().exact });
  }),
  closes: tools('Close strokes that nearly close', [shift('KeyC')], () => {
    setToolState({ closes: !toolState().closes });
  }),
  behind: tools('Draw behind what is there', [shift('KeyB')], () => {
    setToolState({ behind: !toolState().behind });
  }),
  ruler: tools('Ruler', [shift('KeyX')], toggleRuler),
});
