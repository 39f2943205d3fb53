/** The wheel unrolled: frames from left to right, for one-shots and for long or many-layered elements. */
import { isPicked } from '@tallow/core/edit';
import { isVisible } from '@tallow/core/timing';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Current } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';
import { useShowing } from '../picture/showing.ts';
import { useFindings } from '../time/findings.ts';
import { onionReach } from '../picture/onion.ts';
import { arcsOf } from '@tallow/core/timing';
import { apartWithin, BAND, bandShowing, framesSeen, frameWidth, rowsFor, timeAtX, xOf, isIn } from './band.ts';
import { BesidePen } from './beside-pen.tsx';
import { APART, bundled } from './bundles.ts';
import type { Form, Spot, Zone } from './form.ts';
import { useGestures } from './gestures.ts';
import { Loop, WhereText } from './hub.tsx';
import {
  Pictures,
  PICTURES_TOP,
  QuietRow,
  Reach,
  Ready,
  PhaseBands,
  Ruler,
  Scroll,
  StepMarks,
} from './straight-parts.tsx';
import { WHEEL } from './dial.ts';
import { useWheelScale } from './room.ts';
import { useSteps } from './steps.ts';
import { VolumeBand } from './volume-line.tsx';
import { StraightMarks } from './straight-marks.tsx';

/** Below this size the loop is left out and far layers are bundled, so that what stands under the wheel has room. */
const SLIM = 0.9;
/** Height of the line of text that stands in the loop's place, CSS px. */
const SLIM_HEAD = 24;

export function Straight({ now }: { now: Current }) {
  const box = useRef<HTMLDivElement>(null);
  const frame = useSelection((s) => Math.min(s.frame, now.length - 1));
  const picked = useSelection((s) => s.picked);
  const onion = useShowing((s) => s.onion);
  const findings = useFindings(now);
  const steps = useSteps(now);
  const [scrolled, setScrolled] = useState({ from: 0, frame: -1 });
  // The band follows the playhead, and stays where it was dragged to while the playhead rests.
  const from = scrolled.from;
  const band = useMemo(
    () =>
      scrolled.frame === frame
        ? { length: now.length, perFrame: frameWidth(now.length), from }
        : bandShowing(now.length, from, frame),
    [now.length, from, frame, scrolled.frame],
  );
  useEffect(() => {
    if (band.from !== from) setScrolled((s) => ({ ...s, from: band.from }));
  }, [band.from, from]);

  const index = now.layers.findIndex(({ layer }) => layer.id === now.active?.layer.id);
  const scale = useWheelScale();
  const isSlim = scale < SLIM;
  const apart = isSlim ? apartWithin(WHEEL.size * scale - SLIM_HEAD - BAND.scroll) : APART.band;
  const groups = useMemo(
    () => bundled(now.layers.length, Math.max(0, index), apart),
    [now.layers.length, index, apart],
  );
  const active = groups.findIndex((group) => group.length === 1 && group[0] === index);
  const rows = useMemo(() => rowsFor(groups.length, active), [groups.length, active]);
  const last = rows.at(-1);
  const height = (last ? last.top + last.height : BAND.ruler + BAND.pictures) + 4;
  const reached = onionReach(now, frame, onion);
  const arcs = index >= 0 ? arcsOf(now, index) : [];

  const form: Form = {
    spotOf: ({ clientX, clientY }): Spot => {
      const rect = box.current!.getBoundingClientRect();
      return { x: clientX - rect.left, y: clientY - rect.top, time: timeAtX(band, clientX - rect.left), angle: 0 };
    },
    zoneOf: ({ x, y }): Zone | null => {
      if (y >= BAND.ruler - 14 && y < BAND.ruler) {
        for (const side of ['before', 'after'] as const) {
          const runs = reached.filter((n) => n.side === side).map((n) => n.index);
          const own = arcs.filter((a) => runs.includes(a.run));
          const here = arcs.find((a) => frame >= a.from && frame < a.to);
          const ends = own.map((a) => (side === 'before' ? a.from : a.to));
          const end =
            ends.length > 0
              ? side === 'before'
                ? Math.min(...ends)
                : Math.max(...ends)
              : side === 'before'
                ? here?.from
                : here?.to;
          if (end !== undefined && Math.abs(x - xOf(band, end)) < 12) return { kind: 'reach', side };
        }
      }
      const at = rows.findIndex((row) => y >= row.top - 1.5 && y < row.top + row.height + 1.5);
      const group = groups[at];
      if (!group) return { kind: 'scrub' };
      const nearest = at < active ? group.at(-1)! : group[0]!;
      return { kind: 'ring', layerId: now.layers[nearest]!.layer.id, pxPerFrame: band.perFrame };
    },
  };
  const { beside, ...listeners } = useGestures(form);

  return (
    <div className="mx-auto" style={{ width: BAND.width }}>
      {isSlim ? (
        <div className="mb-1 flex items-baseline gap-4 [&>div]:!mt-0 [&>div]:!text-[13px] [&>div]:!leading-5">
          <WhereText now={now} />
        </div>
      ) : (
        <div className="mb-2 flex items-center gap-4">
          <div className="rounded-[10px] bg-[#0f0c0a] p-1">
            <Loop now={now} size={76} />
          </div>
          <div className="[&>div:first-child]:text-base [&>div]:!text-[13px] [&>div]:!leading-5">
            <WhereText now={now} />
          </div>
        </div>
      )}
      <div ref={box} className="relative overflow-hidden" style={{ height }} {...listeners}>
        <svg width={BAND.width} height={height} className="absolute inset-0">
          <Ruler band={band} />
          <PhaseBands now={now} band={band} />
          {arcs.filter(isIn(band)).map((a) => {
            const here = frame >= a.from && frame < a.to;
            const odd = findings.find((f) => f.index === a.run && f.layerId === now.active?.layer.id);
            return (
              <g key={`${a.run}-${a.from}`}>
                <rect
                  x={xOf(band, a.from) + 0.5}
                  width={Math.max(2, (a.to - a.from) * band.perFrame - 1)}
                  y={PICTURES_TOP}
                  height={BAND.pictures}
                  rx={3}
                  fill={a.drawn ? (here ? '#33291f' : '#211b16') : 'none'}
                  stroke={here ? '#ffc25c' : a.drawn ? 'none' : '#332b25'}
                  strokeDasharray={a.drawn ? undefined : '2 4'}
                  strokeWidth={here ? 1.5 : 1}
                />
                {odd ? (
                  <circle cx={xOf(band, a.from) + 6} cy={PICTURES_TOP + 6} r={3} fill="#e6b450">
                    <title>{odd.text}</title>
                  </circle>
                ) : null}
              </g>
            );
          })}
          {groups.map((group, g) => {
            const row = rows[g]!;
            const isActive = g === active;
            return (
              <g
                key={now.layers[group[0]!]!.layer.id}
                opacity={group.length > 1 || isVisible(now.layers[group[0]!]!) ? 1 : 0.35}
              >
                {isActive ? (
                  <rect
                    x={xOf(band, 0)}
                    width={now.length * band.perFrame}
                    y={row.top}
                    height={row.height}
                    rx={4}
                    fill="#231c17"
                  />
                ) : null}
                {isActive ? (
                  arcs
                    .filter((a) => a.drawn && isIn(band)(a))
                    .map((a) => {
                      const chosen =
                        picked?.layerId === now.active?.layer.id &&
                        isPicked(picked!, a.run, now.layers[index]!.list.runs.length);
                      const here = frame >= a.from && frame < a.to;
                      return (
                        <rect
                          key={`${a.run}-${a.from}`}
                          x={xOf(band, a.from) + 0.5}
                          width={Math.max(1.5, (a.to - a.from) * band.perFrame - 1)}
                          y={row.top}
                          height={row.height}
                          rx={2.5}
                          fill={chosen ? '#ffe2b0' : here ? '#ffc25c' : '#a97d37'}
                          stroke={chosen ? '#ffc25c' : 'none'}
                          strokeWidth={2}
                          data-picked={chosen || undefined}
                        />
                      );
                    })
                ) : (
                  <QuietRow now={now} band={band} group={group} row={row} />
                )}
              </g>
            );
          })}
          <StraightMarks now={now} band={band} index={index} row={rows[active]} />
          <Reach now={now} band={band} height={height} />
          <Ready now={now} band={band} />
          <rect
            x={xOf(band, frame)}
            width={band.perFrame}
            y={BAND.ruler - 10}
            height={height - BAND.ruler + 10}
            fill="#ffc25c"
            fillOpacity={0.14}
            stroke="#ffc25c"
            strokeOpacity={0.6}
            pointerEvents="none"
            data-playhead={frame}
          />
        </svg>
        <Pictures now={now} band={band} index={index} />
        <svg width={BAND.width} height={height} className="pointer-events-none absolute inset-0">
          <StepMarks band={band} steps={steps} />
          <VolumeBand now={now} band={band} base={PICTURES_TOP + BAND.pictures} />
        </svg>
        {beside ? <BesidePen {...beside} /> : null}
      </div>
      <Scroll
        band={band}
        onScroll={(to) => {
          const most = now.length - framesSeen(now.length);
          setScrolled({ from: Math.min(Math.max(0, to), most), frame });
        }}
      />
    </div>
  );
}
