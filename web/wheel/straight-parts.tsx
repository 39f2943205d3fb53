/** What is drawn on the unrolled wheel: ruler, reach, steps, pictures and the bar that scrolls it. */
import { LARGE_STEP } from '@tallow/core/checks';
import { timedPhases } from '@tallow/core/plan';
import { memo, useEffect, useRef } from 'react';
import type { Current } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';
import { useShowing } from '../picture/showing.ts';
import { usePlayback } from '../playback/playback.ts';
import { boxOfLayers, miniature, useArrivals } from '../picture/miniatures.ts';
import { onionColours, onionReach } from '../picture/onion.ts';
import { useReadySpans } from '../picture/ready.ts';
import { phaseColour } from '../time/phases.ts';
import { arcsOf } from '@tallow/core/timing';
import { BAND, framesSeen, isIn, xOf, type Band, type BandRow } from './band.ts';
import { scrollBand } from './band-place.ts';
import type { Steps } from './steps.ts';
import { startScrub } from '../parts/dragging.ts';

export const PICTURES_TOP = BAND.ruler + 2;

/** Ticks far enough apart to be read. */
export function BandRuler({ band }: { band: Band }) {
  const every = [1, 2, 4, 6, 12, 24, 48, 120, 240].find((n) => n * band.perFrame >= 30) ?? 480;
  const first = Math.floor(band.from / every) * every;
  const last = Math.min(band.length, band.from + BAND.width / band.perFrame);
  return Array.from({ length: Math.max(0, Math.ceil((last - first) / every)) }, (_, i) => first + i * every).map(
    (f) => (
      <text key={f} x={xOf(band, f) + 2} y={10} fill="#a89987" fontSize={9} fontFamily="JetBrains Mono Variable">
        {f + 1}
      </text>
    ),
  );
}

/** The frames that are drawn and would play at once: a thin line above the pictures. */
export function BandReady({ now, band }: { now: Current; band: Band }) {
  return useReadySpans(now.element.id).map(([from, to]) => (
    <rect
      key={from}
      x={xOf(band, from)}
      width={(to - from) * band.perFrame}
      y={BAND.ruler - 1}
      height={1.5}
      fill="#a89987"
      data-ready={`${from}-${to}`}
    />
  ));
}

/** The phases of the element: a coloured line with its name above the pictures. */
export function PhaseBands({ now, band }: { now: Current; band: Band }) {
  return timedPhases(now.element.phases).map((phase, i) => {
    const wide = phase.length * band.perFrame;
    return (
      <g key={phase.id} data-phase={phase.name}>
        <rect
          x={xOf(band, phase.from) + 1}
          width={Math.max(2, wide - 2)}
          y={23}
          height={3}
          rx={1.5}
          fill={phaseColour(i)}
        />
        {wide > phase.name.length * 5.6 ? (
          <text x={xOf(band, phase.from) + 2} y={20.5} fontSize={9.5} fontWeight={600} fill={phaseColour(i)}>
            {phase.name}
          </text>
        ) : null}
      </g>
    );
  });
}

export function BandReach({ now, band, height }: { now: Current; band: Band; height: number }) {
  const frame = useSelection((s) => s.frame);
  const onion = useShowing((s) => s.onion);
  const playing = usePlayback((s) => s.playing);
  const index = now.layers.findIndex(({ layer }) => layer.id === now.active?.layer.id);
  if (playing || !onion.on || index < 0) return null;
  const colours = onionColours(now, onion);
  const arcs = arcsOf(now, index);
  return onionReach(now, frame, onion).flatMap(({ side, index: run }) =>
    arcs
      .filter((a) => a.run === run)
      .map((a) => (
        <g key={`${side}-${run}-${a.from}`} data-reach={side}>
          <rect
            x={xOf(band, a.from)}
            width={(a.to - a.from) * band.perFrame}
            y={BAND.ruler - 8}
            height={height - BAND.ruler + 8}
            fill={colours[side]}
            opacity={0.09}
          />
          <line
            x1={xOf(band, a.from)}
            x2={xOf(band, a.to)}
            y1={BAND.ruler - 6}
            y2={BAND.ruler - 6}
            stroke={colours[side]}
            strokeWidth={3}
            strokeDasharray={side === 'after' ? '5 3' : undefined}
          />
        </g>
      )),
  );
}

export function StepMarks({ band, steps: { steps } }: { band: Band; steps: Steps }) {
  return (
    <g data-testid="steps">
      {steps.map(({ at, size }) => (
        <line
          key={at}
          x1={xOf(band, at)}
          x2={xOf(band, at)}
          y1={PICTURES_TOP + BAND.pictures}
          y2={PICTURES_TOP + BAND.pictures - Math.min(14, size * 4)}
          stroke={size >= LARGE_STEP ? '#e6b450' : '#a89987'}
          strokeWidth={size >= LARGE_STEP ? 3 : 1}
        >
          <title>{`step ${size.toFixed(1)}× the usual`}</title>
        </line>
      ))}
    </g>
  );
}

export function BandPictures({ now, band, index }: { now: Current; band: Band; index: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const arrivals = useArrivals((s) => s.count);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const pixel = devicePixelRatio;
    context.setTransform(pixel, 0, 0, pixel, 0, 0);
    context.clearRect(0, 0, BAND.width, BAND.pictures);
    if (index < 0 || !now.active) return;
    const box = boxOfLayers(now.doc, [now.active.layer]);
    if (!box) return;
    let free = -Infinity;
    for (const { from, to, drawingId } of arcsOf(now, index).toSorted((a, b) => a.from - b.from)) {
      const x = xOf(band, from);
      const room = Math.max(18, Math.min(BAND.pictures - 6, (to - from) * band.perFrame));
      // Where pictures would lie on one another, one is left out rather than drawn too small.
      if (!drawingId || x < free || x > BAND.width || x + room < 0) continue;
      const whole = Math.round(room * pixel);
      const bitmap = miniature(now.doc, [{ drawingId, opacity: 1 }], box, whole, whole);
      if (bitmap) context.drawImage(bitmap, x, (BAND.pictures - room) / 2, room, room);
      free = x + room * 0.86;
    }
  }, [now, band, index, arrivals]);
  return (
    <canvas
      ref={canvas}
      width={BAND.width * devicePixelRatio}
      height={BAND.pictures * devicePixelRatio}
      className="pointer-events-none absolute left-0"
      style={{ top: PICTURES_TOP, width: BAND.width, height: BAND.pictures }}
    />
  );
}

/** Rounded rectangles as one outline: a row of them is one thing to lay out. @param bars from and to, px. */
const barsPath = (bars: readonly (readonly [number, number])[], top: number, height: number, round: number): string =>
  bars
    .map(([from, to]) => {
      const r = Math.min(round, (to - from) / 2);
      const [w, h] = [to - from - 2 * r, height - 2 * r];
      return `M${from + r} ${top}h${w}a${r} ${r} 0 0 1 ${r} ${r}v${h}a${r} ${r} 0 0 1 ${-r} ${r}h${-w}a${r} ${r} 0 0 1 ${-r} ${-r}v${-h}a${r} ${r} 0 0 1 ${r} ${-r}z`;
    })
    .join('');

/** The drawings of layers that are not drawn on, one behind another where they are bundled. */
export const QuietRow = memo(function QuietRow({
  now,
  band,
  group,
  row: { top, height },
}: {
  now: Current;
  band: Band;
  group: readonly number[];
  row: BandRow;
}) {
  return group.map((i) => (
    <path
      key={i}
      d={barsPath(
        arcsOf(now, i)
          .filter((arc) => arc.drawn && isIn(band)(arc))
          .map(({ from, to }) => [
            xOf(band, from) + 0.5,
            xOf(band, from) + 0.5 + Math.max(1.5, (to - from) * band.perFrame - 1),
          ]),
        top,
        height,
        2.5,
      )}
      fill="#6b6055"
      fillOpacity={group.length > 1 ? 0.45 : 1}
    />
  ));
});

/** Where the part that is seen lies in the whole, dragged to see another. */
export function Scroll({ band }: { band: Band }) {
  const seen = framesSeen(band.length);
  if (seen >= band.length) return null;
  return (
    <div
      className="relative mt-1 touch-none rounded-md bg-soot-800"
      style={{ height: BAND.scroll }}
      data-tip="Drag to see other frames"
      onPointerDown={(event) => {
        const rect = event.currentTarget.getBoundingClientRect();
        startScrub(
          event,
          ({ clientX }) => {
            scrollBand(band.length, ((clientX - rect.left) / rect.width) * band.length - seen / 2);
          },
          () => {
            scrollBand(band.length, band.from);
          },
        );
      }}
    >
      <div
        className="absolute inset-y-1 rounded bg-soot-700"
        style={{ left: `${(100 * band.from) / band.length}%`, width: `${(100 * seen) / band.length}%` }}
      />
    </div>
  );
}
