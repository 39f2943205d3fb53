/** The tray near the drawing hand: brushes as the marks they make, the pad, and the palette. */
import { lineSwatchOf, swatchOf, useOfCurrent } from '../selection/current.ts';
import { brushOf } from '../pen/pen-marks.ts';
import { setBrush, setToolState, takeBrush, useToolState } from '../hand/tool-state.ts';
import { BRUSH_NAMES, type BrushName, madeBy, BRUSHES } from '../hand/brushes.ts';
import { BrushMark, ShapeMark } from './brush-mark.tsx';
import { Pad } from './pad.tsx';
import { Palette } from './palette.tsx';
import { HandButtons } from './hand-buttons.tsx';
import { titleOf } from '../actions/key-text.ts';
import { BRUSH_ACTIONS } from '../pen/actions.ts';

function ToolButton({ tool }: { tool: BrushName }) {
  const makes = madeBy(tool);
  const isActive = useToolState((s) => s.brushName === tool && s.activeTool === null);
  const brush = useToolState((s) => s.brushes[tool]);
  const brushShown = useToolState((s) => s.brushShown);
  const swatchId = useToolState((s) => s.swatchId);
  const shapeLine = useToolState((s) => s.shapeLine);
  const colour = useOfCurrent(({ doc }) => swatchOf(doc, swatchId)?.colour) ?? '#f4ecdf';
  const lineColour = useOfCurrent(({ doc }) => lineSwatchOf(doc, swatchId)?.colour) ?? colour;
  return (
    <button
      type="button"
      aria-pressed={isActive}
      data-tip={`${titleOf(BRUSH_ACTIONS[tool])}${isActive ? ' · press again for its settings' : ''}`}
      onClick={() => {
        if (isActive) setToolState({ brushShown: !brushShown });
        else takeBrush(tool);
      }}
      className={`moves flex h-[68px] w-[48px] shrink-0 flex-col items-center justify-between rounded-[10px] pb-1 pt-1.5 ${isActive ? 'bg-flame-deep text-wax-100' : 'text-wax-500 hover:bg-soot-800'}`}
    >
      {makes === 'shape' ? (
        <ShapeMark colour={colour} opacity={brush.opacity} line={shapeLine === null ? null : lineColour} />
      ) : (
        <BrushMark
          brush={{ ...brushOf(tool, brush), width: BRUSHES[tool].sample, taper: [0, 0] }}
          colour={makes === 'rub' ? '#000000' : colour}
          width={44}
          height={38}
          rub={makes === 'rub'}
        />
      )}
      <span className="text-xs">{BRUSHES[tool].label}</span>
    </button>
  );
}

/** The width of the line round shapes when it is first wanted, px. */
const SHAPE_LINE = 8;

function Numbers() {
  const makes = useToolState((s) => madeBy(s.brushName));
  const { width, opacity, pressure } = useToolState((s) => s.brushes[s.brushName]);
  const shapeLine = useToolState((s) => s.shapeLine);
  return (
    <div className="flex w-[140px] shrink-0 flex-col justify-between py-0.5 text-xs text-wax-500">
      <div className="flex items-center gap-2">
        <label className="flex items-center gap-1.5">
          {makes === 'shape' ? 'disc' : 'width'}
          <input
            aria-label="Width in px"
            data-tip={makes === 'shape' ? 'How wide a disc is that is made by a tap' : undefined}
            type="number"
            min={1}
            max={400}
            value={width}
            onChange={(e) => {
              const next = Number(e.target.value);
              if (next >= 1 && next <= 400) setBrush({ width: next });
            }}
            className="h-7 w-[42px] rounded-md bg-soot-800 px-1.5 font-mono text-wax-100"
          />
        </label>
        <label className="flex items-center gap-1.5">
          <input
            aria-label="Opacity in per cent"
            type="number"
            min={5}
            max={100}
            value={Math.round(opacity * 100)}
            onChange={(e) => {
              const next = Number(e.target.value);
              if (next >= 5 && next <= 100) setBrush({ opacity: next / 100 });
            }}
            className="h-7 w-[42px] rounded-md bg-soot-800 px-1.5 font-mono text-wax-100"
          />
          %
        </label>
      </div>
      <div className="flex items-center gap-2">
        {makes === 'shape' ? (
          <label
            className="flex h-8 shrink-0 items-center gap-1.5"
            data-tip="A line of its own round each shape, in the palette’s outline swatch"
          >
            <input
              type="checkbox"
              checked={shapeLine !== null}
              onChange={(e) => {
                setToolState({ shapeLine: e.target.checked ? SHAPE_LINE : null });
              }}
              className="accent-flame"
            />
            line
            {shapeLine === null ? null : (
              <input
                aria-label="Width of the line in px"
                type="number"
                min={1}
                max={200}
                value={shapeLine}
                onChange={(e) => {
                  const next = Number(e.target.value);
                  if (next >= 1 && next <= 200) setToolState({ shapeLine: next });
                }}
                className="h-7 w-[34px] rounded-md bg-soot-800 px-1 font-mono text-wax-100"
              />
            )}
          </label>
        ) : (
          <label
            className="flex h-8 items-center gap-1.5"
            data-tip="Without pressure the line has one width throughout"
          >
            <input
              type="checkbox"
              checked={pressure}
              onChange={(e) => {
                setBrush({ pressure: e.target.checked });
              }}
              className="accent-flame"
            />
            pressure
          </label>
        )}
      </div>
    </div>
  );
}

/** @param isUp whether what lies in it is put up; else it only keeps its room. */
export function Tray({ isUp }: { isUp: boolean }) {
  return (
    <div
      className="flex h-[84px] shrink-0 items-center gap-2 border-t border-soot-700 bg-soot-950 px-2"
      data-testid="tray"
    >
      {isUp ? (
        <>
          <div className="flex gap-1" role="group" aria-label="Brushes">
            {BRUSH_NAMES.map((tool) => (
              <ToolButton key={tool} tool={tool} />
            ))}
          </div>
          <HandButtons />
          <span className="h-14 w-px shrink-0 bg-soot-700" />
          <Pad />
          <Numbers />
          <Palette />
        </>
      ) : null}
    </div>
  );
}
