/** What is drawn on the disc: rim, rings, reach, line of steps, seam and playhead. */
import { LARGE_STEP } from '@tallow/core/checks';
import { isPicked } from '@tallow/core/edit';
import { timedPhases } from '@tallow/core/plan';
import { isVisible } from '@tallow/core/timing';
import { arc, curveCatmullRom, curveCatmullRomClosed, lineRadial } from 'd3-shape';
import { useEffect, useMemo, useRef } from 'react';
import type { Current } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';
import { useShowing } from '../picture/showing.ts';
import { usePlayback } from '../playback/playback.ts';
import { useFindings } from '../time/findings.ts';
import { boxOfLayers, miniature, useArrivals } from '../picture/miniatures.ts';
import { onionColours, onionReach } from '../picture/onion.ts';
import { useReadySpans } from '../picture/ready.ts';
import { phaseColour } from '../time/phases.ts';
import { arcsOf, arcsWithin, type Arc } from '@tallow/core/timing';
import { angleOf, pointAt, ringsFor, WHEEL, type Dial } from './dial.ts';
import type { Steps } from './steps.ts';

const HALF = WHEEL.size / 2;

/** An arc's path between frames, with a little air at both ends. */
function arcPath(dial: Dial, from: number, to: number, inner: number, outer: number, air = 1.2): string {
  const middle = (inner + outer) / 2;
  const pad = Math.min(air / middle, ((angleOf(dial, to) - angleOf(dial, from)) * 0.4) / 2);
  return (
    arc()({
      innerRadius: inner,
      outerRadius: outer,
      startAngle: angleOf(dial, from) + pad,
      endAngle: angleOf(dial, to) - pad,
    }) ?? ''
  );
}

export function Rings({ now, dial, groups, active }: { now: Current; dial: Dial; groups: number[][]; active: number }) {
  const frame = useSelection((s) => s.frame);
  const picked = useSelection((s) => s.selectedRuns);
  const rings = ringsFor(groups.length, active);
  return groups.map((group, g) => {
    const ring = rings[g]!;
    const isActive = g === active;
    const isBundle = group.length > 1;
    const { layer } = now.layers[group[0]!]!;
    const { length: runs } = now.layers[group[0]!]!.list.runs;
    const chosenRun = (run: number) => isActive && picked?.layerId === layer.id && isPicked(picked, run, runs);
    return (
      <g key={isBundle ? `bundle-${g}` : layer.id} opacity={isBundle || isVisible(now.layers[group[0]!]!) ? 1 : 0.35}>
        {isActive ? (
          <path d={arcPath(dial, dial.from, dial.from + dial.length, ring.inner, ring.outer, 0)} fill="#231c17" />
        ) : null}
        {group.flatMap((i) =>
          arcsWithin(arcsOf(now, i), dial)
            .filter((a) => a.drawn)
            .map((a) => {
              const here = isActive && frame >= a.from && frame < a.to;
              const chosen = chosenRun(a.run);
              return (
                <path
                  key={`${i}-${a.run}-${a.from}`}
                  d={arcPath(dial, a.from, a.to, ring.inner, ring.outer)}
                  fill={chosen ? '#ffe2b0' : here ? '#ffc25c' : isActive ? '#a97d37' : '#6b6055'}
                  fillOpacity={isBundle ? 0.45 : 1}
                  stroke={chosen ? '#ffc25c' : 'none'}
                  strokeWidth={chosen ? 2 : 0}
                  data-picked={chosen || undefined}
                />
              );
            }),
        )}
      </g>
    );
  });
}

export function Rim({ now, dial }: { now: Current; dial: Dial }) {
  const frame = useSelection((s) => s.frame);
  const findings = useFindings(now);
  const activeIndex = now.layers.findIndex(({ layer }) => layer.id === now.active?.layer.id);
  if (activeIndex < 0) return null;
  return arcsWithin(arcsOf(now, activeIndex), dial).map((a) => {
    const here = frame >= a.from && frame < a.to;
    const odd = findings.find((f) => f.index === a.run && f.layerId === now.active?.layer.id);
    const spot = pointAt(angleOf(dial, a.from) + 5 / WHEEL.rimOuter + 0.02, WHEEL.rimOuter - 7);
    return (
      <g key={`${a.run}-${a.from}`}>
        <path
          d={arcPath(dial, a.from, a.to, WHEEL.rimInner, WHEEL.rimOuter)}
          fill={a.drawn ? (here ? '#33291f' : '#211b16') : 'none'}
          stroke={here ? '#ffc25c' : a.drawn ? 'none' : '#332b25'}
          strokeDasharray={a.drawn ? undefined : '2 4'}
          strokeWidth={here ? 2 : 1}
        />
        {odd ? (
          <circle cx={spot.x} cy={spot.y} r={3} fill="#e6b450">
            <title>{odd.text}</title>
          </circle>
        ) : null}
      </g>
    );
  });
}

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

/** Pictures of the active layer's drawings on the rim. */
export function DiscPictures({ now, dial }: { now: Current; dial: Dial }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const arrivals = useArrivals((s) => s.count);
  const activeIndex = now.layers.findIndex(({ layer }) => layer.id === now.active?.layer.id);

  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const pixel = devicePixelRatio;
    context.setTransform(pixel, 0, 0, pixel, HALF * pixel, HALF * pixel);
    context.clearRect(-HALF, -HALF, WHEEL.size, WHEEL.size);
    if (activeIndex < 0 || !now.active) return;
    const box = boxOfLayers(now.doc, [now.active.layer]);
    if (!box) return;
    const middle = (WHEEL.rimInner + WHEEL.rimOuter) / 2;
    for (const { from, to, drawingId } of arcsWithin(arcsOf(now, activeIndex), dial)) {
      if (!drawingId) continue;
      const span = angleOf(dial, to) - angleOf(dial, from);
      const side = Math.max(9, Math.min(36, 2 * middle * Math.sin(Math.min(Math.PI, span) / 2) * 0.86));
      const whole = Math.round(side * pixel);
      const bitmap = miniature(now.doc, [{ drawingId, opacity: 1 }], box, whole, whole);
      const at = pointAt((angleOf(dial, from) + angleOf(dial, to)) / 2, middle);
      if (bitmap) context.drawImage(bitmap, at.x - side / 2, at.y - side / 2, side, side);
    }
  }, [now, dial, activeIndex, arrivals]);

  return (
    <canvas
      ref={canvas}
      width={WHEEL.size * devicePixelRatio}
      height={WHEEL.size * devicePixelRatio}
      className="pointer-events-none absolute inset-0 size-full"
    />
  );
}

/** The phases of the element, named round the outside; the one that fills the disc is named alone. */
export function PhaseArcs({ now, dial }: { now: Current; dial: Dial }) {
  const timed = timedPhases(now.element.phases);
  return timed.map((phase, i) => {
    const from = Math.max(dial.from, phase.from);
    const to = Math.min(dial.from + dial.length, phase.from + phase.length);
    if (from >= to) return null;
    const [a, b] = [angleOf(dial, from) + 0.015, angleOf(dial, to) - 0.015];
    const radius = WHEEL.steps - 1;
    const [p, q] = [pointAt(a, radius), pointAt(b, radius)];
    const id = `phase-${phase.id}`;
    return (
      <g key={phase.id} data-phase={phase.name} pointerEvents="none">
        <path d={arcPath(dial, from, to, WHEEL.rimOuter + 1, WHEEL.rimOuter + 4)} fill={phaseColour(i)} />
        <path
          id={id}
          d={`M${p.x} ${p.y}A${radius} ${radius} 0 ${b - a > Math.PI ? 1 : 0} 1 ${q.x} ${q.y}`}
          fill="none"
        />
        {(b - a) * radius > phase.name.length * 6.4 ? (
          <text className="text-[10.5px] font-semibold" fill={phaseColour(i)}>
            <textPath href={`#${id}`} startOffset="50%" textAnchor="middle">
              {phase.name}
            </textPath>
          </text>
        ) : null}
      </g>
    );
  });
}
