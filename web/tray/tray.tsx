/** The tray near the drawing hand: brushes as the marks they make, the pad, and the palette. */
import { lineSwatchOf, swatchOf, useCurrent } from '../state/current.ts';
import { setBrush, setDesk, useDesk, type Tool } from '../state/desk.ts';
import { titleOf } from '../state/keys.ts';
import { BrushMark, ShapeMark } from './brush-mark.tsx';
import { Pad } from './pad.tsx';
import { Palette } from './palette.tsx';

const TOOLS: readonly { tool: Tool; label: string }[] = [
  { tool: 'ink', label: 'Ink' },
  { tool: 'shape', label: 'Shape' },
  { tool: 'rub', label: 'Rub out' },
];

function ToolButton({ tool, label }: { tool: Tool; label: string }) {
  const inHand = useDesk((s) => s.tool === tool);
  const { opacity, pressure } = useDesk((s) => s.brushes[tool]);
  const swatchId = useDesk((s) => s.swatchId);
  const now = useCurrent();
  const shapeLine = useDesk((s) => s.shapeLine);
  const colour = (now && swatchOf(now.doc, swatchId)?.colour) ?? '#f4ecdf';
  const lineColour = (now && lineSwatchOf(now.doc, swatchId)?.colour) ?? colour;
  return (
    <button
      type="button"
      aria-pressed={inHand}
      title={titleOf(tool)}
      onClick={() => {
        setDesk({ tool });
      }}
      className={`moves flex h-[68px] w-[60px] shrink-0 flex-col items-center justify-between rounded-[10px] pb-1 pt-1.5 ${inHand ? 'bg-flame-deep text-wax-100' : 'text-wax-500 hover:bg-soot-800'}`}
    >
      {tool === 'shape' ? (
        <ShapeMark colour={colour} opacity={opacity} line={shapeLine === null ? null : lineColour} />
      ) : (
        <BrushMark
          brush={{ kind: 'ink', width: tool === 'ink' ? 8 : 12, opacity, pressure }}
          colour={tool === 'ink' ? colour : '#000'}
          width={52}
          height={38}
          rub={tool === 'rub'}
        />
      )}
      <span className="text-xs">{label}</span>
    </button>
  );
}

/** The width of the line round shapes when it is first wanted, px. */
const SHAPE_LINE = 8;

function Numbers() {
  const { width, opacity, pressure, steadying } = useDesk((s) => s.brushes[s.tool]);
  const tool = useDesk((s) => s.tool);
  const shapeLine = useDesk((s) => s.shapeLine);
  return (
    <div className="flex w-[176px] shrink-0 flex-col justify-between py-0.5 text-xs text-wax-500">
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
        <label
          className="flex h-8 min-w-0 flex-1 items-center gap-1.5"
          title={`Steadying ${Math.round(steadying * 100)} %`}
        >
          steady
          <input
            type="range"
            aria-label="Steadying"
            min={0}
            max={100}
            value={Math.round(steadying * 100)}
            onChange={(e) => {
              setBrush({ steadying: Number(e.target.value) / 100 });
            }}
            className="h-8 w-full min-w-0 accent-flame"
          />
        </label>
      </div>
    </div>
  );
}

export function Tray() {
  return (
    <div
      className="flex h-[84px] shrink-0 items-center gap-3 border-t border-soot-700 bg-soot-950 px-3"
      data-testid="tray"
    >
      <div className="flex gap-1" role="group" aria-label="Brushes">
        {TOOLS.map(({ tool, label }) => (
          <ToolButton key={tool} tool={tool} label={label} />
        ))}
      </div>
      <span className="h-14 w-px shrink-0 bg-soot-700" />
      <Pad />
      <Numbers />
      <Palette />
    </div>
  );
}
