/** What is drawn on the disc: rim, rings, reach, line of steps, seam and playhead. */
import { isSelected } from '@tallow/core/edit';
import { timedPhases } from '@tallow/core/plan';
import { isVisible } from '@tallow/core/timing';
import { arc } from 'd3-shape';
import { useEffect, useRef } from 'react';
import type { Current } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';
import { useFindings } from '../time/findings.ts';
import { boxOfLayers, miniature, useArrivals } from '../picture/miniatures.ts';
import { phaseColour } from '../time/phases.ts';
import { arcsOf, arcsWithin } from '@tallow/core/timing';
import { angleOf, pointAt, ringsFor, WHEEL, type Dial } from './dial.ts';

const HALF = WHEEL.size / 2;

/** An arc's path between frames, with a little air at both ends. */
export function arcPath(dial: Dial, from: number, to: number, inner: number, outer: number, air = 1.2): string {
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
  const selected = useSelection((s) => s.selectedRuns);
  const rings = ringsFor(groups.length, active);
  return groups.map((group, g) => {
    const ring = rings[g]!;
    const isActive = g === active;
    const isBundle = group.length > 1;
    const { layer } = now.layers[group[0]!]!;
    const { length: runs } = now.layers[group[0]!]!.list.runs;
    const chosenRun = (run: number) => isActive && selected?.layerId === layer.id && isSelected(selected, run, runs);
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
