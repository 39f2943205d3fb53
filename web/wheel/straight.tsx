/** The wheel unrolled: frames from left to right, for one-shots and for long or many-layered elements. */
import { memo, useMemo, useRef } from 'react';
import type { Current } from '../selection/current.ts';
import { selection } from '../selection/selection.ts';
import { useShowing } from '../picture/showing.ts';
import { onionReach } from '../picture/onion.ts';
import { arcsOf } from '@tallow/core/timing';
import { apartWithin, BAND, rowsFor, timeAtX, xOf } from './band.ts';
import { useBand } from './band-place.ts';
import { BesidePen } from './beside-pen.tsx';
import { APART, bundled } from './bundles.ts';
import type { WheelForm, WheelSpot, Zone } from './form.ts';
import { useGestures } from './gestures.ts';
import { Loop, WhereText } from './hub.tsx';
import {
  BandPictures,
  PICTURES_TOP,
  BandReach,
  BandReady,
  PhaseBands,
  BandRuler,
  Scroll,
  StepMarks,
} from './straight-parts.tsx';
import { Cells, FrameBar, BandRows } from './straight-rows.tsx';
import { WHEEL } from './dial.ts';
import { useWheelScale } from './room.ts';
import { useSteps } from './steps.ts';
import { VolumeBand } from './volume-line.tsx';
import { StraightMarks } from './straight-marks.tsx';

/** Below this size the loop is left out and far layers are bundled, so that what stands under the wheel has room. */
const SLIM = 0.9;
/** Height of the line of text that stands in the loop's place, CSS px. */
const SLIM_HEAD = 24;

export const Straight = memo(function Straight({ now }: { now: Current }) {
  const box = useRef<HTMLDivElement>(null);
  const steps = useSteps(now);
  const band = useBand(now.length);
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

  const form: WheelForm = {
    spotOf: ({ clientX, clientY }): WheelSpot => {
      const rect = box.current!.getBoundingClientRect();
      return { x: clientX - rect.left, y: clientY - rect.top, time: timeAtX(band, clientX - rect.left), angle: 0 };
    },
    zoneOf: ({ x, y }): Zone | null => {
      if (y >= BAND.ruler - 14 && y < BAND.ruler) {
        const arcs = index >= 0 ? arcsOf(now, index) : [];
        const frame = Math.min(selection().frame, now.length - 1);
        const reached = onionReach(now, frame, useShowing.getState().onion);
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
          <BandRuler band={band} />
          <PhaseBands now={now} band={band} />
          <Cells now={now} band={band} index={index} />
          <BandRows now={now} band={band} groups={groups} rows={rows} active={active} />
          <StraightMarks now={now} band={band} index={index} row={rows[active]} />
          <BandReach now={now} band={band} height={height} />
          <BandReady now={now} band={band} />
          <FrameBar now={now} band={band} height={height} />
        </svg>
        <BandPictures now={now} band={band} index={index} />
        <svg width={BAND.width} height={height} className="pointer-events-none absolute inset-0">
          <StepMarks band={band} steps={steps} />
          <VolumeBand now={now} band={band} base={PICTURES_TOP + BAND.pictures} />
        </svg>
        {beside ? <BesidePen {...beside} /> : null}
      </div>
      <Scroll band={band} />
    </div>
  );
});
