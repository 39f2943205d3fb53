/** The same on the unrolled wheel: slots still to be drawn, values set, the range played, own repeats. */
import type { Current } from '../selection/current.ts';
import { usePlayback } from '../playback/playback.ts';
import { arcsOf } from '@tallow/core/timing';
import { BAND, xOf, type Band } from './band.ts';
import { COMPUTED, computedRuns, keyMarkFrames } from './disc-marks.tsx';

export function StraightMarks({
  now,
  band,
  index,
  row,
}: {
  now: Current;
  band: Band;
  index: number;
  row: { top: number; height: number } | undefined;
}) {
  const range = usePlayback((s) => s.range);
  if (!row || index < 0) return null;
  const computed = computedRuns(now);
  const period = now.active?.list.period ?? null;
  const turns = period !== null && period > 1 ? Math.ceil(now.length / period) : 0;
  return (
    <g pointerEvents="none">
      {arcsOf(now, index)
        .filter(({ bare }) => bare)
        .map(({ from, to, run }) => (
          <rect
            key={`${run}-${from}`}
            x={xOf(band, from) + 1.5}
            width={Math.max(2, (to - from) * band.perFrame - 3)}
            y={row.top + 1.5}
            height={row.height - 3}
            rx={2.5}
            fill="none"
            stroke="#cdbfae"
            strokeDasharray="3 3"
            data-bare
          />
        ))}
      {arcsOf(now, index)
        .filter(({ run }) => computed.has(run))
        .map(({ from, to, run }) => (
          <rect
            key={`computed-${run}-${from}`}
            x={xOf(band, from) + 1}
            width={Math.max(2, (to - from) * band.perFrame - 2)}
            y={row.top + row.height - 3}
            height={2.5}
            rx={1}
            fill={COMPUTED}
          />
        ))}
      {keyMarkFrames(now).map((frame) => (
        <circle
          key={frame}
          cx={xOf(band, frame + 0.5)}
          cy={row.top + 1}
          r={3}
          fill="#9fc3a4"
          stroke="#14110f"
          data-key={frame}
        />
      ))}
      {Array.from({ length: turns }, (_, turn) => turn * period! + (now.active?.list.offset ?? 0)).map((frame) => (
        <line
          key={frame}
          x1={xOf(band, frame)}
          x2={xOf(band, frame)}
          y1={row.top - 3}
          y2={row.top + row.height + 3}
          stroke="#f4ecdf"
          strokeWidth={2}
        />
      ))}
      {range ? (
        <rect
          x={xOf(band, range.from)}
          width={range.length * band.perFrame}
          y={BAND.ruler - 2}
          height={3}
          rx={1.5}
          fill="#ffc25c"
          data-testid="range"
        />
      ) : null}
    </g>
  );
}
