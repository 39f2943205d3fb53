/** The tray near the drawing hand: brushes as the marks they make, the pad, and the palette. */
import { lineSwatchOf, swatchOf, useCurrent } from '../state/current.ts';
import { BRUSH_WORDS } from '../brush/brush-panel.tsx';
import { brushOf } from '../desk/pen-marks.ts';
import { setBrush, setDesk, takeBrush, TOOLS, useDesk, type Tool } from '../state/desk.ts';
import { titleOf } from '../state/keys.ts';
import { BrushMark, ShapeMark } from './brush-mark.tsx';
import { Pad } from './pad.tsx';
import { Palette } from './palette.tsx';
import { HandButtons } from './hand-buttons.tsx';

/** How wide the mark of each brush is shown. */
const SHOWN: Readonly<Record<Tool, number>> = { ink: 8, pencil: 7, grain: 20, haze: 24, shape: 8, rub: 12 };

function ToolButton({ tool }: { tool: Tool }) {
  const inHand = useDesk((s) => s.tool === tool && s.hand === 'draw');
  const brush = useDesk((s) => s.brushes[tool]);
  const brushShown = useDesk((s) => s.brushShown);
  const swatchId = useDesk((s) => s.swatchId);
  const now = useCurrent();
  const shapeLine = useDesk((s) => s.shapeLine);
  const colour = (now && swatchOf(now.doc, swatchId)?.colour) ?? '#f4ecdf';
  const lineColour = (now && lineSwatchOf(now.doc, swatchId)?.colour) ?? colour;
  return (
    <button
      type="button"
      aria-pressed={inHand}
      title={`${titleOf(tool)}${inHand ? ' · press again for its settings' : ''}`}
      onClick={() => {
        if (inHand) setDesk({ brushShown: !brushShown });
        else takeBrush(tool);
      }}
      className={`moves flex h-[68px] w-[53px] shrink-0 flex-col items-center justify-between rounded-[10px] pb-1 pt-1.5 ${inHand ? 'bg-flame-deep text-wax-100' : 'text-wax-500 hover:bg-soot-800'}`}
    >
      {tool === 'shape' ? (
        <ShapeMark colour={colour} opacity={brush.opacity} line={shapeLine === null ? null : lineColour} />
      ) : (
        <BrushMark
          brush={{ ...brushOf(tool, brush), width: SHOWN[tool], taper: [0, 0] }}
          colour={tool === 'rub' ? '#000000' : colour}
          width={48}
          height={38}
          rub={tool === 'rub'}
        />
      )}
      <span className="text-xs">{BRUSH_WORDS[tool]}</span>
    </button>
  );
}

/** The width of the line round shapes when it is first wanted, px. */
const SHAPE_LINE = 8;

function Numbers() {
  const { width, opacity, pressure } = useDesk((s) => s.brushes[s.tool]);
  const tool = useDesk((s) => s.tool);
  const shapeLine = useDesk((s) => s.shapeLine);
  return (
    <div className="flex w-[140px] shrink-0 flex-col justify-between py-0.5 text-xs text-wax-500">
      <div className="flex items-center gap-2">
        <label className="flex items-center gap-1.5">
          {tool === 'shape' ? 'disc' : 'width'}
          <input
            aria-label="Width in px"
            title={tool === 'shape' ? 'How wide a disc is that is made by a tap' : undefined}
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
        {tool === 'shape' ? (
          <label
            className="flex h-8 shrink-0 items-center gap-1.5"
            title="A line of its own round each shape, in the palette’s outline swatch"
          >
            <input
              type="checkbox"
              checked={shapeLine !== null}
              onChange={(e) => {
                setDesk({ shapeLine: e.target.checked ? SHAPE_LINE : null });
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
                  if (next >= 1 && next <= 200) setDesk({ shapeLine: next });
                }}
                className="h-7 w-[34px] rounded-md bg-soot-800 px-1 font-mono text-wax-100"
              />
            )}
          </label>
        ) : (
          <label className="flex h-8 items-center gap-1.5" title="Without pressure the line has one width throughout">
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

export function Tray() {
  return (
    <div
      className="flex h-[84px] shrink-0 items-center gap-2 border-t border-soot-700 bg-soot-950 px-2"
      data-testid="tray"
    >
      <div className="flex gap-1" role="group" aria-label="Brushes">
        {TOOLS.map((tool) => (
          <ToolButton key={tool} tool={tool} />
        ))}
      </div>
      <HandButtons />
      <span className="h-14 w-px shrink-0 bg-soot-700" />
      <Pad />
      <Numbers />
      <Palette />
    </div>
  );
}
