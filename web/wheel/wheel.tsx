/** The wheel: a disc on which the active element's time runs round. */
import { shotOf, valueAt } from '@tallow/core/document';
import { exposures, runStart, secondsText, shownOn } from '@tallow/core/timing';
import { arc } from 'd3-shape';
import { useEffect, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { act, goTo, heldFor } from '../state/actions.ts';
import { useCurrent, type Current } from '../state/current.ts';
import { setDesk, useDesk } from '../state/desk.ts';
import { boxAround, miniature, useArrivals } from '../state/miniatures.ts';
import { AFTER_COLOUR, BEFORE_COLOUR, onionReach } from '../state/onion.ts';
import { angleOf, frameAt, pointAt, ringsFor, WHEEL, type Dial } from './dial.ts';

const HALF = WHEEL.size / 2;
const HUB_PICTURE = 70;

/** An arc's path between frames, with a little air at both ends. */
function arcPath(dial: Dial, from: number, to: number, inner: number, outer: number, air = 1.2): string {
  const middle = (inner + outer) / 2;
  const pad = Math.min(air / middle, ((angleOf(dial, to) - angleOf(dial, from)) * 0.4) / 2);
  const path = arc()({
    innerRadius: inner,
    outerRadius: outer,
    startAngle: angleOf(dial, from) + pad,
    endAngle: angleOf(dial, to) - pad,
  });
  return path ?? '';
}

/** Arcs of a layer on the wheel: one for each run, cut in two where it crosses the seam. */
function arcsOf(
  now: Current,
  index: number,
): { from: number; to: number; drawn: boolean; slot: string | null; run: number }[] {
  const timed = now.layers[index]!;
  const { list, layer } = timed;
  const turn = list.period ?? now.length;
  if (list.period === 1)
    return [{ from: 0, to: now.length, drawn: shownOn(timed, 0, now.length) !== null, slot: null, run: 0 }];
  return exposures(list).flatMap(({ run, index: at }) => {
    const start = runStart(list, at, now.length);
    const drawn = run.slot !== null && run.slot in layer.slots;
    const end = start + run.length;
    const base = { drawn, slot: run.slot, run: at };
    return end > turn && now.element.time === 'cycle'
      ? [
          { from: start, to: turn, ...base },
          { from: 0, to: end - turn, ...base },
        ]
      : [{ from: start, to: end, ...base }];
  });
}

function Rings({ now, dial }: { now: Current; dial: Dial }) {
  const frame = useDesk((s) => s.frame);
  const activeIndex = now.layers.findIndex(({ layer }) => layer.id === now.active?.layer.id);
  const rings = ringsFor(now.layers.length, activeIndex);
  return now.layers.map(({ layer }, i) => {
    const ring = rings[i]!;
    const isActive = i === activeIndex;
    return (
      <g key={layer.id} opacity={layer.visible ? 1 : 0.35} data-layer={layer.id}>
        {isActive ? <path d={arcPath(dial, 0, now.length, ring.inner, ring.outer, 0)} fill="#231c17" /> : null}
        {arcsOf(now, i)
          .filter((a) => a.drawn)
          .map((a) => {
            const here = isActive && frame >= a.from && frame < a.to;
            return (
              <path
                key={`${a.run}-${a.from}`}
                d={arcPath(dial, a.from, a.to, ring.inner, ring.outer)}
                fill={here ? '#ffc25c' : isActive ? '#a97d37' : '#6b6055'}
              />
            );
          })}
      </g>
    );
  });
}

function Rim({ now, dial }: { now: Current; dial: Dial }) {
  const frame = useDesk((s) => s.frame);
  const onion = useDesk((s) => s.onion);
  const playing = useDesk((s) => s.playing);
  const activeIndex = now.layers.findIndex(({ layer }) => layer.id === now.active?.layer.id);
  if (activeIndex < 0) return null;
  const reach = playing ? [] : onionReach(now, frame, onion);
  return (
    <>
      {arcsOf(now, activeIndex).map((a) => {
        const here = frame >= a.from && frame < a.to;
        const ghost = reach.find((n) => n.index === a.run);
        return (
          <g key={`${a.run}-${a.from}`}>
            <path
              d={arcPath(dial, a.from, a.to, WHEEL.rimInner, WHEEL.rimOuter)}
              fill={a.drawn ? (here ? '#33291f' : '#211b16') : 'none'}
              stroke={here ? '#ffc25c' : a.drawn ? 'none' : '#332b25'}
              strokeDasharray={a.drawn ? undefined : '2 4'}
              strokeWidth={here ? 2 : 1}
            />
            {ghost ? (
              <path
                d={arcPath(dial, a.from, a.to, WHEEL.reach - 2.4, WHEEL.reach + 0.6, 3)}
                fill={ghost.side === 'before' ? BEFORE_COLOUR : 'none'}
                stroke={ghost.side === 'after' ? AFTER_COLOUR : 'none'}
                strokeWidth={3}
                strokeDasharray={ghost.side === 'after' ? '5 3' : undefined}
                opacity={1 - (ghost.distance - 1) * 0.28}
              />
            ) : null}
          </g>
        );
      })}
    </>
  );
}

function Playhead({ dial }: { dial: Dial }) {
  const frame = useDesk((s) => Math.min(s.frame, dial.length - 1));
  const d =
    arc()({
      innerRadius: WHEEL.hub + 2,
      outerRadius: WHEEL.reach + 2,
      startAngle: angleOf(dial, frame),
      endAngle: angleOf(dial, frame + 1),
    }) ?? '';
  return (
    <path
      d={d}
      fill="#ffc25c"
      fillOpacity={0.13}
      stroke="#ffc25c"
      strokeOpacity={0.55}
      strokeWidth={1}
      pointerEvents="none"
      data-playhead={frame}
    />
  );
}

/** Pictures of the active layer's drawings on the rim, and the loop running in the hub. */
function Pictures({ now, dial }: { now: Current; dial: Dial }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const arrivals = useArrivals((s) => s.count);
  const activeIndex = now.layers.findIndex(({ layer }) => layer.id === now.active?.layer.id);

  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || !now.active) return;
    const pixel = devicePixelRatio;
    context.setTransform(pixel, 0, 0, pixel, HALF * pixel, HALF * pixel);
    context.clearRect(-HALF, -HALF, WHEEL.size, WHEEL.size);
    const timed = now.active;
    const box = boxAround(now.doc, Object.values(timed.layer.slots));
    if (!box) return;
    const middle = (WHEEL.rimInner + WHEEL.rimOuter) / 2;
    for (const a of arcsOf(now, activeIndex)) {
      const drawingId = a.slot ? timed.layer.slots[a.slot] : shownOn(timed, 0, now.length)?.drawingId;
      if (!a.drawn || !drawingId) continue;
      const span = angleOf(dial, a.to) - angleOf(dial, a.from);
      const side = Math.max(9, Math.min(38, 2 * middle * Math.sin(Math.min(Math.PI, span) / 2) * 0.86));
      const bitmap = miniature(
        now.doc,
        [{ drawingId, opacity: 1 }],
        box,
        Math.round(side * pixel),
        Math.round(side * pixel),
      );
      const at = pointAt((angleOf(dial, a.from) + angleOf(dial, a.to)) / 2, middle);
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

/** Frames of the loop as small pictures, still layers left out. */
function hubPictures(now: Current, pixel: number): (ImageBitmap | undefined)[] {
  const moving = now.layers.filter(({ layer, list }) => layer.visible && layer.role !== 'guide' && list.period !== 1);
  const box = boxAround(
    now.doc,
    moving.flatMap(({ layer }) => Object.values(layer.slots)),
  );
  return Array.from({ length: now.length }, (_, frame) => {
    const sheets = [...moving].reverse().flatMap((timed) => {
      const shown = shownOn(timed, frame, now.length);
      return shown ? [{ drawingId: shown.drawingId, opacity: valueAt(timed.layer.opacity, frame) }] : [];
    });
    return box && sheets.length > 0
      ? miniature(now.doc, sheets, box, Math.round(HUB_PICTURE * pixel), Math.round(HUB_PICTURE * pixel))
      : undefined;
  });
}

function Hub({ now }: { now: Current }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const arrivals = useArrivals((s) => s.count);

  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return undefined;
    const pixel = devicePixelRatio;
    const pictures = hubPictures(now, pixel);
    const { rate } = shotOf(now.doc);
    const calm = matchMedia('(prefers-reduced-motion: reduce)').matches;
    let shown: ImageBitmap | undefined | null = null;
    let running = 0;
    const tick = (time: number): void => {
      const { playing, frame } = useDesk.getState();
      const at = playing || calm ? frame : Math.floor((time * rate) / 1000);
      const picture = pictures[at % now.length];
      if (picture !== shown) {
        shown = picture;
        context.clearRect(0, 0, HUB_PICTURE * pixel, HUB_PICTURE * pixel);
        if (picture) context.drawImage(picture, 0, 0);
      }
      running = requestAnimationFrame(tick);
    };
    running = requestAnimationFrame(tick);
    return () => {
      cancelAnimationFrame(running);
    };
  }, [now, arrivals]);

  return (
    <canvas
      ref={canvas}
      width={Math.round(HUB_PICTURE * devicePixelRatio)}
      height={Math.round(HUB_PICTURE * devicePixelRatio)}
      className="pointer-events-none absolute left-1/2 top-1/2 -translate-x-1/2"
      style={{ width: HUB_PICTURE, height: HUB_PICTURE, marginTop: -HUB_PICTURE / 2 - 13 }}
    />
  );
}

function HubText({ now }: { now: Current }) {
  const frame = useDesk((s) => s.frame);
  const { playing, reached } = useDesk();
  const { rate } = shotOf(now.doc);
  const held = heldFor(now, frame);
  const under = playing
    ? `${reached === null ? '…' : reached.toFixed(1)} of ${rate}`
    : held
      ? `${held} f · ${secondsText(held, rate)}`
      : 'empty';
  return (
    <div className="pointer-events-none absolute inset-x-0 text-center" style={{ top: HALF + 23 }}>
      <div className="font-mono text-xs leading-none text-wax-100" data-testid="frame-of">
        {Math.min(frame, now.length - 1) + 1} <span className="text-wax-500">/ {now.length}</span>
      </div>
      <div className="mt-1 font-mono text-[10px] leading-none text-wax-500" data-testid="hub-under">
        {under}
      </div>
    </div>
  );
}

export function Wheel() {
  const now = useCurrent();
  const box = useRef<HTMLDivElement>(null);
  if (!now) return null;
  const dial: Dial = { length: now.length, closed: now.element.time === 'cycle' };

  const scrub = (event: PointerEvent): void => {
    const rect = box.current!.getBoundingClientRect();
    goTo(frameAt(dial, event.clientX - rect.left - HALF, event.clientY - rect.top - HALF));
  };
  const onDown = (event: PointerEvent<HTMLDivElement>): void => {
    event.currentTarget.setPointerCapture(event.pointerId);
    const layer = (event.target as Element).closest('[data-layer]')?.getAttribute('data-layer');
    if (layer) setDesk({ layerId: layer });
    scrub(event);
  };
  const onKey = (event: KeyboardEvent): void => {
    const step = {
      ArrowLeft: 'previousFrame',
      ArrowRight: 'nextFrame',
      ArrowUp: 'previous',
      ArrowDown: 'next',
    } as const;
    const name = step[event.key as keyof typeof step] as (typeof step)[keyof typeof step] | undefined;
    if (!name) return;
    event.preventDefault();
    event.stopPropagation();
    act(name);
  };

  return (
    <div
      ref={box}
      role="slider"
      tabIndex={0}
      aria-label={`Wheel of ${now.element.name}`}
      aria-valuemin={1}
      aria-valuemax={now.length}
      aria-valuenow={useDesk.getState().frame + 1}
      className="relative mx-auto touch-none select-none rounded-full"
      style={{ width: WHEEL.size, height: WHEEL.size }}
      onPointerDown={onDown}
      onPointerMove={(event) => {
        if (event.buttons & 1) scrub(event);
      }}
      onKeyDown={onKey}
      data-testid="wheel"
    >
      <svg
        width={WHEEL.size}
        height={WHEEL.size}
        viewBox={`${-HALF} ${-HALF} ${WHEEL.size} ${WHEEL.size}`}
        className="absolute inset-0"
      >
        <circle r={WHEEL.hub} fill="#0f0c0a" />
        <Rim now={now} dial={dial} />
        <Rings now={now} dial={dial} />
        {dial.closed ? (
          <g data-testid="seam">
            <line y1={-WHEEL.ringsInner} y2={-WHEEL.reach - 3} stroke="#f4ecdf" strokeWidth={1} strokeDasharray="1 3" />
            <circle cy={-WHEEL.reach - 1} r={3.2} fill="#ffc25c" />
          </g>
        ) : null}
        <Playhead dial={dial} />
      </svg>
      <Pictures now={now} dial={dial} />
      <Hub now={now} />
      <HubText now={now} />
    </div>
  );
}
