/** The strip, tall: the whole shot unrolled, a lane for each plane, nearest first, with the playhead over all of them. */
import { shotOf } from '@tallow/core/document';
import { shotFrameIn } from '@tallow/core/assembly';
import { useMemo, useRef, useState } from 'react';
import { useWidth } from '../parts/use-width.ts';
import { useReady } from '../picture/ready.ts';
import { goToShotFrame, shotTime, useShotTime } from '../playback/shot-time.ts';
import { playback, stopPlaying } from '../playback/playback.ts';
import { useDocument } from '../shot/document.ts';
import { frameOn, levelOf, usePlacing, type Level } from '../tools/place/placing.ts';
import type { InView } from './lane-canvas.tsx';
import { LANE_NAME, LaneRow } from './lane-row.tsx';
import { lanesOf } from './lane.ts';
import { ValueLane } from './value-lane.tsx';
import { SoundLane } from './sound-lane.tsx';
import { useHitFrames } from '../sound/hits.ts';
import { startScrub } from '../parts/dragging.ts';

const RULER = 20;
/** Frames that are at least in view when one looks closely. */
const FEWEST = 12;

const EVERY = [1, 2, 4, 6, 12, 24, 48, 120, 240, 480, 1200, 2400];

function Ruler({
  level,
  view,
  width,
  onFrame,
}: {
  level: Level;
  view: InView;
  width: number;
  onFrame: (frame: number) => void;
}) {
  const every = EVERY.find((n) => n * view.perFrame >= 48) ?? 4800;
  const first = Math.ceil(view.from / every) * every;
  const last = Math.min(level.length, view.from + width / view.perFrame);
  const numbers = Array.from({ length: Math.max(0, Math.ceil((last - first) / every)) }, (_, i) => first + i * every);
  const ready = useReady((s) => s.shotFrames);
  const hits = useHitFrames(level.doc);
  return (
    <div
      className="relative cursor-ew-resize touch-none select-none font-mono text-[10px] text-wax-500"
      style={{ height: RULER }}
      data-testid="shot-ruler"
      onPointerDown={(event) => {
        const { left } = event.currentTarget.getBoundingClientRect();
        const before = frameOn(level, shotTime().frame);
        if (playback().playing) stopPlaying();
        startScrub(
          event,
          ({ clientX }) => {
            onFrame(Math.floor(view.from + (clientX - left) / view.perFrame));
          },
          () => {
            onFrame(before);
          },
        );
      }}
    >
      {numbers.map((at) => (
        <span
          key={at}
          className="pointer-events-none absolute top-0.5 pl-0.5 leading-3"
          style={{ left: (at - view.from) * view.perFrame }}
        >
          {at + 1}
        </span>
      ))}
      {level.holder
        ? null
        : hits.map((hit) => (
            <span
              key={hit}
              className="pointer-events-none absolute bottom-[3px] size-[3px] -translate-x-1/2 rounded-full bg-flame"
              style={{ left: (hit + 0.5 - view.from) * view.perFrame }}
            />
          ))}
      {level.holder
        ? null
        : ready.map((at) => (
            <span
              key={at}
              className="pointer-events-none absolute bottom-0 h-[2px] bg-sound"
              style={{ left: (at - view.from) * view.perFrame, width: Math.max(1, view.perFrame) }}
            />
          ))}
    </div>
  );
}

/** The playhead over all lanes; by itself, as they stay as they are while it goes along. */
function Playhead({ level, view, width }: { level: Level; view: InView; width: number }) {
  const frame = frameOn(
    level,
    useShotTime((s) => s.frame),
  );
  if (frame < view.from || frame >= view.from + width / view.perFrame) return null;
  return (
    <div
      data-testid="shot-playhead"
      className="pointer-events-none absolute bottom-0 left-0 top-4 rounded-sm bg-wax-100/30"
      style={{
        transform: `translateX(${LANE_NAME + (frame - view.from) * view.perFrame}px)`,
        width: Math.max(2, view.perFrame),
      }}
    />
  );
}

export function TallStrip() {
  const doc = useDocument((s) => s.doc);
  const { inside, selected } = usePlacing();
  const host = useRef<HTMLDivElement>(null);
  const rows = useRef<HTMLDivElement>(null);
  const width = useWidth(host);
  /** How many frames are in view, and from where; null is all of it. */
  const [span, setSpan] = useState<{ from: number; count: number } | null>(null);
  const level = useMemo(() => doc && levelOf(doc, inside), [doc, inside]);
  const lanes = useMemo(() => (level ? lanesOf(level) : []), [level]);
  const length = level?.length ?? 1;
  const view = useMemo<InView>(() => {
    const count = Math.min(length, span?.count ?? length);
    const from = Math.max(0, Math.min(length - count, span?.from ?? 0));
    return { from, perFrame: width / Math.max(1, count) };
  }, [length, span, width]);
  if (!level) return null;
  const go = (to: number): void => {
    const at = Math.max(0, Math.min(length - 1, to));
    const last = level.path.at(-1);
    if (!level.holder || !last) goToShotFrame(at);
    else goToShotFrame(shotFrameIn(level.doc, level.path, at, Math.max(0, Math.floor(at / length))));
  };
  const laneAt = (clientY: number): string | null => {
    const all = [...(rows.current?.querySelectorAll<HTMLElement>('[data-lane]') ?? [])];
    const under = all.find((each) => {
      const box = each.getBoundingClientRect();
      return clientY >= box.top && clientY < box.bottom;
    });
    return under?.dataset['lane'] ?? null;
  };
  return (
    <div
      className="relative flex max-h-[44%] shrink-0 flex-col border-t border-soot-700 bg-soot-950 pb-1.5 pr-4 pt-1"
      data-testid="tall-strip"
      data-time
      onWheel={(event) => {
        if (!event.ctrlKey && !event.shiftKey) return;
        const at = view.from + (event.clientX - (host.current?.getBoundingClientRect().left ?? 0)) / view.perFrame;
        const now = width / view.perFrame;
        const count = event.ctrlKey ? Math.max(FEWEST, Math.min(length, now * Math.exp(event.deltaY / 400))) : now;
        const from = event.ctrlKey
          ? at - ((at - view.from) * count) / now
          : view.from + (event.deltaY + event.deltaX) / view.perFrame;
        setSpan(count >= length ? null : { from, count });
      }}
    >
      <div className="flex shrink-0">
        <div
          className="flex shrink-0 items-center pl-2 text-[11px] text-wax-500"
          style={{ width: LANE_NAME, height: RULER }}
        >
          {span ? (
            <button
              type="button"
              className="moves underline underline-offset-2 hover:text-wax-100"
              onClick={() => {
                setSpan(null);
              }}
            >
              whole {level.holder ? 'element' : 'shot'}
            </button>
          ) : (
            <span data-tip="Ctrl and the mouse wheel: closer; Shift and the wheel: along">
              {level.holder ? 'frames of the element' : `${shotOf(level.doc).length} frames`}
            </span>
          )}
        </div>
        <div ref={host} className="min-w-0 flex-1">
          <Ruler level={level} view={view} width={width} onFrame={go} />
        </div>
      </div>
      <div ref={rows} className="min-h-0 space-y-1 overflow-y-auto">
        {lanes.map((lane) => (
          <LaneRow
            key={lane.id}
            level={level}
            lanes={lanes}
            lane={lane}
            view={view}
            width={width}
            selected={selected}
            laneAt={laneAt}
          />
        ))}
      </div>
      {level.holder ? null : <ValueLane doc={level.doc} view={view} width={width} />}
      {level.holder ? null : <SoundLane doc={level.doc} lanes={lanes} view={view} width={width} />}
      <Playhead level={level} view={view} width={width} />
    </div>
  );
}
