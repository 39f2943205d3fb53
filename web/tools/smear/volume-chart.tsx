/** Area and length of each drawing, with the subject's own area: where a smear grows is seen at once. */
import { TOO_LARGE } from '@tallow/core/smears';
import { scaleBand, scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { goTo } from '../../playback/playhead.ts';
import type { Current } from '../../selection/current.ts';
import { useSelection } from '../../selection/selection.ts';
import { useVolume } from '../../smears/volume.ts';

const SIZE = { width: 332, height: 96, top: 14, bottom: 16 };

export function VolumeChart({ now }: { now: Current }) {
  const { drawings, default: preset, lost } = useVolume();
  const frame = useSelection((s) => s.frame);
  if (drawings.length < 2)
    return <p className="py-1 text-[13px] text-wax-500">Two drawings at least are told apart here.</p>;
  const x = scaleBand(
    drawings.map(({ slot }) => slot),
    [24, SIZE.width - 6],
  ).padding(0.15);
  const y = scaleLinear(
    [0, Math.max(preset * 1.2, ...drawings.map(({ area }) => area))],
    [SIZE.height - SIZE.bottom, SIZE.top],
  );
  const long = scaleLinear(
    [0, Math.max(1, ...drawings.map(({ length }) => length))],
    [SIZE.height - SIZE.bottom, SIZE.top],
  );
  const middle = x.bandwidth() / 2;
  const lengths = line<(typeof drawings)[number]>(
    ({ slot }) => x(slot)! + middle,
    ({ length }) => long(length),
  )(drawings);
  const every = Math.ceil(drawings.length / 12);
  return (
    <figure>
      <svg
        width={SIZE.width}
        height={SIZE.height}
        className="mx-auto my-1 block shrink-0 select-none rounded-lg bg-soot-950"
        role="img"
        aria-label={`Area of ${drawings.length} drawings`}
        data-testid="volume-chart"
      >
        {drawings.map(({ slot, area, frame: at }, i) => {
          const isHere =
            now.active?.list.runs.some((run) => run.slot === slot) && frame >= at && frame < at + drawings[i]!.hold;
          const isLarge = area > preset * TOO_LARGE;
          return (
            <g key={slot}>
              <rect
                x={x(slot)}
                width={x.bandwidth()}
                y={y(area)}
                height={SIZE.height - SIZE.bottom - y(area)}
                rx={2}
                fill={isLarge ? '#e6b450' : isHere ? '#ffc25c' : '#6b6055'}
                className="cursor-pointer"
                onClick={() => {
                  goTo(at);
                }}
              >
                <title>{`${Math.round(area)} px², ${(area / Math.max(1, preset)).toFixed(2)} times its own`}</title>
              </rect>
              {i % every === 0 ? (
                <text
                  x={x(slot)! + middle}
                  y={SIZE.height - 4}
                  textAnchor="middle"
                  className="fill-wax-500 font-mono text-[9px]"
                >
                  {at + 1}
                </text>
              ) : null}
              {lost.some(({ toSlot }) => toSlot === slot) ? (
                <circle cx={x(slot)! + middle} cy={8} r={3} fill="#e6b450" />
              ) : null}
            </g>
          );
        })}
        <path d={lengths ?? ''} fill="none" stroke="#8fd0ff" strokeWidth={1.5} pointerEvents="none" />
        <line
          x1={24}
          x2={SIZE.width - 6}
          y1={y(preset)}
          y2={y(preset)}
          stroke="#f4ecdf"
          strokeDasharray="3 3"
          pointerEvents="none"
        />
        <text x={3} y={y(preset) + 3} className="fill-wax-300 font-mono text-[9px]">
          own
        </text>
      </svg>
      <figcaption className="text-xs text-wax-500">
        Bars: area. Blue: length. A dot: the eye loses it on the way there.
      </figcaption>
    </figure>
  );
}
