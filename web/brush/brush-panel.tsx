/** Settings of the active brush, in the column: how it answers the pen, how its strokes begin and end, own variants. */
import { tipOf, type StrokeFinish } from '@tallow/core/brush';
import { BRUSH_KINDS, type BrushKind } from '@tallow/core/document';
import { X } from 'lucide-react';
import { useState } from 'react';
import { practise, RECORDED } from '../pen/practice.ts';
import { NameField } from '../parts/name-field.tsx';
import { Words } from '../parts/choice.tsx';
import { Line, SelectRow, Small, Panel } from '../parts/panel.tsx';
import { Slider } from '../parts/slider.tsx';
import { viewed } from '../view/viewed.ts';
import { setBrush, useToolState } from '../hand/tool-state.ts';
import { showPanel } from '../screen/panels.ts';
import { BRUSHES, type BrushName } from '../hand/brushes.ts';
import { brushOf } from '../pen/pen-marks.ts';
import { forget, useKeptOf } from '../shelf/kept.ts';
import { keepBrush, takeVariant } from './own-brushes.ts';
import { ResponseChart } from './response-chart.tsx';
import { TryPad } from './try-pad.tsx';
import { openPen } from '../hand/open-pen.ts';

const FINISH_WORDS: readonly { value: StrokeFinish; label: string; tip: string }[] = [
  { value: 'drawn', label: 'As drawn', tip: 'The stroke stays as the pen drew it' },
  { value: 'angular', label: 'Angular', tip: 'Straight pieces and crisp corners: lightning, shards' },
  { value: 'smooth', label: 'Smooth', tip: 'Round, with as few bends as the tolerance allows: smoke' },
];

/** The practice pen on the picture itself: in the middle, a third of its height. */
function drawOnPicture(): void {
  const { area } = viewed();
  const height = area.height / 3;
  const box = { x: area.width / 2 - height * 0.6, y: area.height / 2 - height / 2, width: height * 1.2, height };
  const pen = openPen();
  if (pen) practise(RECORDED[0]!, box, pen);
}

function Variants({ tool }: { tool: BrushName }) {
  const own = useKeptOf('brush').filter(({ what }) => what.tool === tool);
  const [naming, setNaming] = useState(false);
  return (
    <div className="flex flex-wrap items-center gap-1 py-1">
      {own.map((variant) => (
        <span key={variant.id} className="flex h-8 items-center rounded-lg bg-soot-800 text-[13px] text-wax-300">
          <button
            type="button"
            className="h-8 rounded-l-lg pl-2.5 pr-1 hover:text-wax-100"
            data-tip={`Take ${variant.name} in hand`}
            onClick={() => {
              takeVariant(variant.what);
            }}
          >
            {variant.name}
          </button>
          <button
            type="button"
            aria-label={`Forget ${variant.name}`}
            data-tip="Forget this variant"
            className="grid h-8 w-6 place-items-center text-wax-500 hover:text-wax-100"
            onClick={() => {
              void forget(variant);
            }}
          >
            <X size={12} />
          </button>
        </span>
      ))}
      {naming ? (
        <NameField
          label="Name of the variant"
          value={`My ${BRUSHES[tool].label.toLowerCase()}`}
          onDone={(name) => {
            setNaming(false);
            if (name) void keepBrush(name);
          }}
        />
      ) : (
        <Small
          title="Keep this brush as it is set under a name of your own"
          onClick={() => {
            setNaming(true);
          }}
        >
          Keep as variant
        </Small>
      )}
    </div>
  );
}

export function BrushPanel() {
  const tool = useToolState((s) => s.brushName);
  const brush = useToolState((s) => s.brushes[s.brushName]);
  const soft = tipOf(brushOf(tool, brush)).lays === 'stamps';
  const percent = (label: string, value: number, title: string, set: (share: number) => void) => (
    <Slider
      label={label}
      value={Math.round(value * 100)}
      min={0}
      max={100}
      unit="%"
      title={title}
      onMove={(v) => {
        set(v / 100);
      }}
    />
  );
  const px = (label: string, value: number, max: number, title: string, set: (px: number) => void) => (
    <Slider label={label} value={value} min={0} max={max} unit="px" title={title} onMove={set} />
  );
  return (
    <Panel
      label="Brush"
      testId="brush-panel"
      heading={<>{BRUSHES[tool].label}</>}
      onBack={() => {
        showPanel(null);
      }}
    >
      <div className="flex gap-2">
        <ResponseChart
          response={brush.response}
          onSet={(response) => {
            setBrush({ response });
          }}
        />
        <TryPad key={tool} />
      </div>
      <Line />
      {BRUSHES[tool].tip === null ? (
        <SelectRow
          label="Tip"
          value={brush.tip}
          options={BRUSH_KINDS.map((kind) => ({ value: kind, label: BRUSHES[kind].label.toLowerCase() }))}
          onChoose={(tip) => {
            setBrush({ tip: tip as BrushKind });
          }}
        />
      ) : null}
      {percent('Steadying', brush.steadying, 'Evens out a shaky hand; the line still ends at the pen', (steadying) => {
        setBrush({ steadying });
      })}
      {soft
        ? percent('Flow', brush.flow, 'How much one pass lays; passes build up', (flow) => {
            setBrush({ flow: Math.max(0.01, flow) });
          })
        : null}
      {percent('Tilt', brush.tilt, 'How far a leaning pen broadens the stroke', (tilt) => {
        setBrush({ tilt });
      })}
      {px('Taper in', brush.taper[0], 400, 'Length over which the stroke grows from nothing', (into) => {
        setBrush({ taper: [into, brush.taper[1]] });
      })}
      {px('Taper out', brush.taper[1], 400, 'Length over which it goes back to nothing', (out) => {
        setBrush({ taper: [brush.taper[0], out] });
      })}
      <div className="flex items-center gap-1">
        <span className="w-[66px] shrink-0 text-[13px] text-wax-300">Finish</span>
        <Words
          label="Finish"
          value={brush.finish}
          choices={FINISH_WORDS}
          onChoose={(finish) => {
            setBrush({ finish });
          }}
        />
      </div>
      {brush.finish === 'drawn'
        ? null
        : px('Tolerance', brush.tolerance, 60, 'How far the finished stroke may leave the drawn one', (tolerance) => {
            setBrush({ tolerance: Math.max(0.5, tolerance) });
          })}
      <Line />
      <Variants tool={tool} />
      <div className="pb-1">
        <Small title="A recorded stroke on the picture with this brush; undo takes it away" onClick={drawOnPicture}>
          Practice pen on the picture
        </Small>
      </div>
    </Panel>
  );
}
