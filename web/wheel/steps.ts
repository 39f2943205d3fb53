/** How far the active layer goes from drawing to drawing, measured by the painter a moment after the last change. */
import { seamRatio, stepSizes } from '@tallow/core/checks';
import { useEffect, useMemo, useState } from 'react';
import type { Current } from '../selection/current.ts';
import { coverageOf } from '../picture/coverage.ts';
import { arcsOf } from '@tallow/core/timing';

const WAIT_MS = 200;
export interface WheelStep {
  /** Element frame at which it happens: the start of the drawing it leads to. */
  readonly at: number;
  /** Against the usual step; 1 is usual. */
  readonly size: number;
}

export interface Steps {
  readonly steps: readonly WheelStep[];
  /** The seam's step against the mean of the others, where the layer closes. */
  readonly seam: number | null;
}

const NONE: Steps = { steps: [], seam: null };

/** The drawings of the active layer in the order they show, with the frames they begin on. */
function shownInOrder(now: Current): { at: number; drawingId: string }[] {
  const index = now.layers.findIndex(({ layer }) => layer.id === now.active?.layer.id);
  if (index < 0 || now.active?.list.period === 1) return [];
  const firsts = new Map<number, { at: number; drawingId: string }>();
  for (const { run, from, drawingId, drawn } of arcsOf(now, index))
    if (drawn && drawingId && !firsts.has(run)) firsts.set(run, { at: from, drawingId });
  return [...firsts.values()].sort((a, b) => a.at - b.at);
}

export function useSteps(now: Current): Steps {
  const [steps, setSteps] = useState<Steps>(NONE);
  const shown = useMemo(() => shownInOrder(now), [now]);
  const covers = now.active && shown.length > 2;
  // Where the layer leaves gaps there is no seam to speak of.
  const closed = now.element.time === 'cycle' && now.active?.list.runs.every((run) => run.slot !== null) === true;
  useEffect(() => {
    if (!covers) {
      setSteps(NONE);
      return undefined;
    }
    let left = false;
    const timer = setTimeout(() => {
      const ids = shown.map(({ drawingId }) => drawingId);
      void coverageOf(now.doc, ids, () => left).then((coverage) => {
        if (left || !coverage) return;
        const sizes = stepSizes(coverage.covers, closed);
        setSteps({
          steps: sizes.map((size, i) => ({ at: shown[(i + 1) % shown.length]!.at, size })),
          seam: closed ? seamRatio(sizes) : null,
        });
      });
    }, WAIT_MS);
    return () => {
      left = true;
      clearTimeout(timer);
    };
  }, [now.doc, shown, closed, covers]);
  return steps;
}
