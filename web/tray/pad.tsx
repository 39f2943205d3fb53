/** One pad on which width and opacity are set together and seen: across for width, up for opacity. */
import { useRef, type KeyboardEvent } from 'react';
import { swatchOf, useOfCurrent } from '../selection/current.ts';
import { setBrush, useToolState } from '../hand/tool-state.ts';
import { madeBy } from '../hand/brushes.ts';
import { startScrub } from '../parts/dragging.ts';

const MIN = 1;
const MAX = 200;
const SIZE = { width: 112, height: 64 };
/** Room at the edges, so that the dot is seen whole. */
const EDGE = 10;

const toShare = (width: number): number => Math.log(width / MIN) / Math.log(MAX / MIN);
const toWidth = (share: number): number => Math.round(MIN * (MAX / MIN) ** Math.min(1, Math.max(0, share)));

export function Pad() {
  const pad = useRef<HTMLDivElement>(null);
  const { width, opacity } = useToolState((s) => s.brushes[s.brushName]);
  const swatchId = useToolState((s) => s.swatchId);
  const tool = useToolState((s) => s.brushName);
  const colourNow = useOfCurrent(({ doc }) => swatchOf(doc, swatchId)?.colour) ?? '#a89987';
  const colour = madeBy(tool) === 'rub' ? '#5a4c40' : colourNow;
  const set = (event: { clientX: number; clientY: number }): void => {
    const box = pad.current!.getBoundingClientRect();
    const up = 1 - (event.clientY - box.top - EDGE) / (box.height - 2 * EDGE);
    setBrush({
      width: toWidth((event.clientX - box.left - EDGE) / (box.width - 2 * EDGE)),
      opacity: Math.round(Math.min(1, Math.max(0.05, up)) * 100) / 100,
    });
  };
  const onKey = (event: KeyboardEvent): void => {
    const steps: Record<string, () => void> = {
      ArrowLeft: () => {
        setBrush({ width: Math.max(MIN, width - (width > 40 ? 5 : 1)) });
      },
      ArrowRight: () => {
        setBrush({ width: Math.min(MAX, width + (width >= 40 ? 5 : 1)) });
      },
      ArrowUp: () => {
        setBrush({ opacity: Math.min(1, Math.round(opacity * 100 + 5) / 100) });
      },
      ArrowDown: () => {
        setBrush({ opacity: Math.max(0.05, Math.round(opacity * 100 - 5) / 100) });
      },
    };
    const step = steps[event.key];
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    step();
  };
  const x = EDGE + toShare(width) * (SIZE.width - 2 * EDGE);
  const y = EDGE + (1 - opacity) * (SIZE.height - 2 * EDGE);
  const dot = Math.min(56, Math.max(6, width * 0.42));
  return (
    <div
      ref={pad}
      role="slider"
      tabIndex={0}
      data-arrows
      data-testid="pad"
      aria-label="Width and opacity"
      aria-valuetext={`width ${width} px, opacity ${Math.round(opacity * 100)} per cent`}
      aria-valuenow={width}
      aria-valuemin={MIN}
      aria-valuemax={MAX}
      data-tip="Across for width, up for opacity"
      className="relative shrink-0 cursor-crosshair touch-none overflow-hidden rounded-[10px] bg-surround"
      style={SIZE}
      onPointerDown={(event) => {
        startScrub(event, set, () => {
          setBrush({ width, opacity });
        });
      }}
      onKeyDown={onKey}
    >
      <svg className="absolute inset-0" {...SIZE} aria-hidden>
        <path
          d={`M0 ${SIZE.height}L${SIZE.width} ${SIZE.height}L${SIZE.width} ${SIZE.height * 0.35}Z`}
          fill="#343434"
        />
        <path
          d={`M${x} 0V${SIZE.height}M0 ${y}H${SIZE.width}`}
          stroke="#8a8a8a"
          strokeWidth={0.6}
          strokeDasharray="2 3"
        />
        <circle cx={x} cy={y} r={dot / 2} fill={colour} fillOpacity={opacity} stroke="#f4ecdf" strokeWidth={1} />
      </svg>
    </div>
  );
}
