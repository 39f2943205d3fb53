/** What is marked on the disc: frames that are ready, how far the onion skin reaches, steps, the seam and the playhead. */
import { LARGE_STEP } from '@tallow/core/checks';
import { arc, curveCatmullRom, curveCatmullRomClosed, lineRadial } from 'd3-shape';
import { useMemo } from 'react';
import type { Current } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';
import { useShowing } from '../picture/showing.ts';
import { usePlayback } from '../playback/playback.ts';
import { onionColours, onionReach } from '../picture/onion.ts';
import { useReadySpans } from '../picture/ready.ts';
import { arcsOf, type Arc } from '@tallow/core/timing';
import { angleOf, pointAt, WHEEL, type Dial } from './dial.ts';
import type { Steps } from './steps.ts';
import { arcPath } from './disc-parts.tsx';

/** The frames that are drawn and would play at once. */
export function DiscReady({ now, dial }: { now: Current; dial: Dial }) {
  const spans = useReadySpans(now.element.id);
  return spans.flatMap(([from, to]) => {
    const [first, last] = [Math.max(from, dial.from), Math.min(to, dial.from + dial.length)];
    if (last <= first) return [];
    const path = arcPath(dial, first, last, WHEEL.rimOuter + 0.5, WHEEL.rimOuter + 2, 0);
    return [<path key={`${first}-${last}`} d={path} fill="#a89987" data-ready={`${first}-${last}`} />];
  });
}

/** The ends of the onion skin's reach, in frames: where its wedges stop. */
export function useOnionReach(now: Current): { before: number; after: number; here: Arc | null } | null {
  const frame = useSelection((s) => s.frame);
  const onion = useShowing((s) => s.onion);
  const playing = usePlayback((s) => s.playing);
  const activeIndex = now.layers.findIndex(({ layer }) => layer.id === now.active?.layer.id);
  return useMemo(() => {
    if (playing || !onion.on || activeIndex < 0 || now.active?.list.period === 1 || !now.active?.layer.onion)
      return null;
    const arcs = arcsOf(now, activeIndex);
    if (!arcs.some((a) => a.drawn)) return null;
    const here = arcs.find((a) => frame >= a.from && frame < a.to) ?? null;
    const ends = { before: here?.from ?? frame, after: here?.to ?? frame + 1, here };
    for (const { side, index } of onionReach(now, frame, onion)) {
      const own = arcs.filter((a) => a.run === index);
      if (side === 'before') {
        const from = Math.min(...own.map((a) => a.from));
        ends.before = Math.min(ends.before, from > frame ? from - now.length : from);
      } else {
        const to = Math.max(...own.map((a) => a.to));
        ends.after = Math.max(ends.after, to <= frame ? to + now.length : to);
      }
    }
    return ends;
  }, [now, frame, onion, playing, activeIndex]);
}

export function DiscReach({ now, dial }: { now: Current; dial: Dial }) {
  const onion = useShowing((s) => s.onion);
  const frame = useSelection((s) => s.frame);
  const reach = useOnionReach(now);
  if (!reach) return null;
  const colours = onionColours(now, onion);
  const sides = [
    { side: 'before' as const, from: reach.before, to: reach.here?.from ?? frame, end: reach.before },
    { side: 'after' as const, from: reach.here?.to ?? frame + 1, to: reach.after, end: reach.after },
  ];
  return sides.map(({ side, from, to, end }) => {
    const dot = pointAt(angleOf(dial, end), WHEEL.reach);
    return (
      <g key={side} data-reach={side}>
        {to > from ? (
          <>
            <path d={arcPath(dial, from, to, WHEEL.ringsInner, WHEEL.rimOuter, 0)} fill={colours[side]} opacity={0.1} />
            <path
              d={arcPath(dial, from, to, WHEEL.reach - 0.1, WHEEL.reach + 0.1, 0)}
              fill="none"
              stroke={colours[side]}
              strokeWidth={3}
              strokeDasharray={side === 'after' ? '5 3' : undefined}
            />
          </>
        ) : null}
        <circle cx={dot.x} cy={dot.y} r={5} fill="#1a1613" stroke={colours[side]} strokeWidth={2.5} />
      </g>
    );
  });
}

/** The line round the outside: a step larger than usual stands out as a bump. */
export function StepLine({ dial, steps: { steps, seam } }: { dial: Dial; steps: Steps }) {
  if (steps.length < 3) return null;
  const lift = (size: number) => Math.max(-2, Math.min(7, (size - 1) * 5));
  const points = steps.flatMap(({ at, size }, i): [number, number][] => {
    const next = steps[(i + 1) % steps.length]!.at;
    const middle = at + (((next - at) % dial.length) + dial.length) / 2;
    return [
      [angleOf(dial, at), WHEEL.steps + lift(size)],
      [angleOf(dial, middle % dial.length), WHEEL.steps],
    ];
  });
  const round = [...points].sort((a, b) => a[0] - b[0]);
  const d = lineRadial().curve(dial.closed ? curveCatmullRomClosed : curveCatmullRom)(round) ?? '';
  return (
    <g data-testid="steps" pointerEvents="none">
      <path d={d} fill="none" stroke="#a89987" strokeOpacity={0.55} strokeWidth={1} />
      {steps
        .filter(({ size, at }) => size >= LARGE_STEP && !(at === 0 && seam !== null))
        .map(({ at, size }) => {
          const dot = pointAt(angleOf(dial, at), WHEEL.steps + lift(size));
          return (
            <circle key={at} cx={dot.x} cy={dot.y} r={2.6} fill="#e6b450">
              <title>{`step ${size.toFixed(1)}× the usual`}</title>
            </circle>
          );
        })}
    </g>
  );
}

export function DiscSeam({ dial, seam }: { dial: Dial; seam: number | null }) {
  const large = seam !== null && seam >= LARGE_STEP;
  const [inner, outer] = [pointAt(angleOf(dial, 0), WHEEL.ringsInner), pointAt(angleOf(dial, 0), WHEEL.band)];
  const dot = pointAt(angleOf(dial, 0), WHEEL.steps);
  return (
    <g data-testid="seam">
      <line
        x1={inner.x}
        y1={inner.y}
        x2={outer.x}
        y2={outer.y}
        stroke="#f4ecdf"
        strokeWidth={1}
        strokeDasharray="1 3"
        pointerEvents="none"
      />
      <circle cx={dot.x} cy={dot.y} r={large ? 4.5 : 3.6} fill={large ? '#e6b450' : '#ffc25c'}>
        <title>The seam: the last drawing leads to the first. Drag outside the rim to turn the disc.</title>
      </circle>
    </g>
  );
}

export function Playhead({ dial }: { dial: Dial }) {
  const frame = useSelection((s) => Math.min(s.frame, dial.from + dial.length - 1));
  if (frame < dial.from) return null;
  const d =
    arc()({
      innerRadius: WHEEL.hub + 2,
      outerRadius: WHEEL.band,
      startAngle: angleOf(dial, frame),
      endAngle: angleOf(dial, frame + 1),
    }) ?? '';
  return (
    <path
      d={d}
      fill="#ffc25c"
      fillOpacity={dial.length > 3 ? 0.13 : 0.04}
      stroke="#ffc25c"
      strokeOpacity={0.55}
      strokeWidth={1}
      pointerEvents="none"
      data-playhead={frame}
    />
  );
}
