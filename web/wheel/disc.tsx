/** The wheel as a disc: the active element's time runs round. */
import { LARGE_STEP } from '@tallow/core/checks';
import { timedPhases } from '@tallow/core/plan';
import { memo, useMemo, useRef } from 'react';
import type { Current } from '../selection/current.ts';
import { useScreen } from '../screen/screen.ts';
import { setSelection, useSelection } from '../selection/selection.ts';
import { BesidePen } from './beside-pen.tsx';
import { APART, bundled } from './bundles.ts';
import { angleOf, ringsFor, timeAt, WHEEL, type Dial } from './dial.ts';
import { PhaseArcs, DiscPictures, Rim, Rings } from './disc-parts.tsx';
import { Playhead, DiscReach, DiscReady, DiscSeam, StepLine, useOnionReach } from './disc-reach.tsx';
import type { WheelForm, WheelSpot, Zone } from './form.ts';
import { DiscMarks } from './disc-marks.tsx';
import { useGestures } from './gestures.ts';
import { Loop, WhereText } from './hub.tsx';
import { useSteps } from './steps.ts';
import { VolumeRim } from './volume-line.tsx';
import { useWheelScale } from './room.ts';

const HALF = WHEEL.size / 2;

export const Disc = memo(function Disc({ now }: { now: Current }) {
  const box = useRef<HTMLDivElement>(null);
  const scale = useWheelScale();
  const turned = useScreen((s) => s.wheelTurn);
  const phaseId = useSelection((s) => s.phaseId);
  const opened = timedPhases(now.element.phases).find((phase) => phase.id === phaseId);
  const closed = now.element.time === 'cycle' && !opened;
  const [from, length] = [opened?.from ?? 0, opened?.length ?? now.length];
  const dial = useMemo((): Dial => ({ from, length, closed, turned }), [from, length, closed, turned]);
  const whole = useOnionReach(now);
  const reach = opened ? null : whole;
  const steps = useSteps(now);
  const activeIndex = now.layers.findIndex(({ layer }) => layer.id === now.active?.layer.id);
  const groups = bundled(now.layers.length, Math.max(0, activeIndex), APART.disc);
  const active = groups.findIndex((group) => group.length === 1 && group[0] === activeIndex);
  const rings = ringsFor(groups.length, active);

  const form: WheelForm = {
    spotOf: ({ clientX, clientY }): WheelSpot => {
      const rect = box.current!.getBoundingClientRect();
      const scale = rect.width / WHEEL.size;
      const [x, y] = [(clientX - rect.left) / scale, (clientY - rect.top) / scale];
      return { x, y, time: timeAt(dial, x - HALF, y - HALF), angle: Math.atan2(x - HALF, HALF - y) };
    },
    zoneOf: ({ x, y, angle }): Zone | null => {
      const radius = Math.hypot(x - HALF, y - HALF);
      if (radius > HALF + 6) return null;
      if (radius > WHEEL.band - 2) {
        for (const side of reach ? (['before', 'after'] as const) : []) {
          const away = Math.abs(Math.sin((angle - angleOf(dial, reach![side])) / 2)) * 2 * radius;
          if (away < 13) return { kind: 'reach', side };
        }
        if (radius > WHEEL.band + 2) return closed ? { kind: 'turn' } : null;
      }
      if (radius > WHEEL.ringsOuter + 2 || radius < WHEEL.ringsInner - 2) return { kind: 'scrub' };
      const at = rings.findIndex((ring) => radius <= ring.outer + 1.5 && radius >= ring.inner - 1.5);
      const group = groups[at];
      if (!group) return { kind: 'scrub' };
      // A bundle gives its nearest layer, and with it opens.
      const index = at < active ? group.at(-1)! : group[0]!;
      const { layer } = now.layers[index]!;
      return { kind: 'ring', layerId: layer.id, pxPerFrame: (2 * Math.PI * radius) / dial.length };
    },
  };
  const { beside, ...listeners } = useGestures(form);
  const large = steps.seam !== null && steps.seam >= LARGE_STEP;

  return (
    <div className="mx-auto" style={{ width: WHEEL.size * scale, height: WHEEL.size * scale }}>
      <div
        ref={box}
        className="relative origin-top-left"
        style={{ width: WHEEL.size, height: WHEEL.size, transform: scale === 1 ? undefined : `scale(${scale})` }}
        {...listeners}
      >
        <svg
          width={WHEEL.size}
          height={WHEEL.size}
          viewBox={`${-HALF} ${-HALF} ${WHEEL.size} ${WHEEL.size}`}
          className="absolute inset-0"
        >
          <circle r={WHEEL.hub} fill="#0f0c0a" />
          <Rim now={now} dial={dial} />
          <Rings now={now} dial={dial} groups={groups} active={active} />
          <VolumeRim now={now} dial={dial} />
          <DiscMarks now={now} dial={dial} groups={groups} active={active} />
          {opened ? null : <DiscReach now={now} dial={dial} />}
          {opened ? null : <StepLine dial={dial} steps={steps} />}
          <DiscReady now={now} dial={dial} />
          <PhaseArcs now={now} dial={dial} />
          {closed ? <DiscSeam dial={dial} seam={steps.seam} /> : null}
          <Playhead dial={dial} />
        </svg>
        <DiscPictures now={now} dial={dial} />
        <div className="pointer-events-none absolute left-1/2 -translate-x-1/2" style={{ top: HALF - 50 }}>
          <Loop now={now} size={60} />
        </div>
        <div className="pointer-events-none absolute inset-x-0 text-center" style={{ top: HALF + 12 }}>
          <WhereText now={now} brief={scale < 1} />
        </div>
        {opened ? (
          <button
            type="button"
            data-tip="The whole element on the wheel again"
            className="moves absolute left-0 top-0 h-7 rounded-md bg-soot-800 px-2 text-xs text-wax-300 hover:text-wax-100"
            onClick={() => {
              setSelection({ phaseId: null });
            }}
          >
            {opened.name} · close
          </button>
        ) : null}
        {large ? (
          <span data-testid="seam-step" className="pointer-events-none absolute right-0 top-0 text-[11px] text-warn">
            seam step {steps.seam.toFixed(1)}×
          </span>
        ) : null}
        {beside ? <BesidePen {...beside} /> : null}
      </div>
    </div>
  );
});
