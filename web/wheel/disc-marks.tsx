/** What belongs to time on the disc beside drawings: slots still to be drawn, computed in-betweens, values set, the range played, own repeats. */
import { betweensOf, keyedFrames as framesKeyed, touchedSlots } from '@tallow/core/edit';
import { arc } from 'd3-shape';
import type { Current } from '../selection/current.ts';
import { usePlayback } from '../playback/playback.ts';
import { arcsOf, arcsWithin } from '@tallow/core/timing';
import { computedSlots } from '@tallow/core/edit';
import { angleOf, pointAt, ringsFor, WHEEL, type Dial } from './dial.ts';

/** Runs of the active layer whose in-betweens are as they were computed. */
export function computedRuns({ doc, element, active }: Current): ReadonlySet<number> {
  if (!active) return new Set();
  const betweens = betweensOf(doc, element.id).filter(({ layerId }) => layerId === active.layer.id);
  if (betweens.length === 0) return new Set();
  const slots = computedSlots(betweens, touchedSlots(doc, betweens));
  return new Set(active.list.runs.flatMap(({ slot }, index) => (slot && slots.has(slot) ? [index] : [])));
}

/** What is computed has this colour. */
export const COMPUTED = '#8fb8e8';

/** Frames on which a value of the active layer is set. */
export const keyMarkFrames = ({ active, element }: Current): number[] =>
  active ? [...framesKeyed(active.layer, active.folder, element)] : [];

export function DiscMarks({
  now,
  dial,
  groups,
  active,
}: {
  now: Current;
  dial: Dial;
  groups: number[][];
  active: number;
}) {
  const range = usePlayback((s) => s.range);
  const ring = ringsFor(groups.length, active)[active];
  const index = now.layers.findIndex(({ layer }) => layer.id === now.active?.layer.id);
  if (!ring || index < 0) return null;
  const computed = computedRuns(now);
  const period = now.active?.list.period ?? null;
  const turns = period !== null && period > 1 ? Math.ceil(now.length / period) : 0;
  const shape = (from: number, to: number, inner: number, outer: number) =>
    arc()({ innerRadius: inner, outerRadius: outer, startAngle: angleOf(dial, from), endAngle: angleOf(dial, to) }) ??
    '';
  return (
    <g pointerEvents="none">
      {arcsWithin(arcsOf(now, index), dial)
        .filter(({ bare }) => bare)
        .map(({ from, to, run }) => (
          <path
            key={`${run}-${from}`}
            d={shape(from + 0.08, to - 0.08, ring.inner + 1.5, ring.outer - 1.5)}
            fill="none"
            stroke="#cdbfae"
            strokeWidth={1.2}
            strokeDasharray="3 3"
            data-bare
          />
        ))}
      {arcsWithin(arcsOf(now, index), dial)
        .filter(({ run }) => computed.has(run))
        .map(({ from, to, run }) => (
          <path
            key={`computed-${run}-${from}`}
            d={shape(from + 0.1, to - 0.1, ring.inner, ring.inner + 2.5)}
            fill={COMPUTED}
            data-computed-arc
          />
        ))}
      {keyMarkFrames(now).map((frame) => {
        const { x, y } = pointAt(angleOf(dial, frame + 0.5), ring.outer + 1);
        return <circle key={frame} cx={x} cy={y} r={3} fill="#9fc3a4" stroke="#14110f" data-key={frame} />;
      })}
      {Array.from({ length: turns }, (_, turn) => turn * period! + (now.active?.list.offset ?? 0)).map((frame) => {
        const [a, b] = [pointAt(angleOf(dial, frame), ring.inner - 3), pointAt(angleOf(dial, frame), ring.outer + 3)];
        return <line key={frame} x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="#f4ecdf" strokeWidth={2} data-repeat />;
      })}
      {range ? (
        <path
          d={shape(
            range.from,
            Math.min(now.length, range.from + range.length),
            WHEEL.ringsInner - 5,
            WHEEL.ringsInner - 2,
          )}
          fill="#ffc25c"
          data-testid="range"
        />
      ) : null}
    </g>
  );
}
