/** How far the active layer goes from drawing to drawing, measured by the painter a moment after the last change. */
import { seamRatio, stepSizes } from '@tallow/core/checks';
import { find, type Drawing } from '@tallow/core/document';
import type { Box } from '@tallow/core/geometry';
import { useEffect, useMemo, useState } from 'react';
import type { Current } from '../state/current.ts';
import { boxAround } from '../state/miniatures.ts';
import { painter } from '../workers/painter-client.ts';
import { arcsOf } from './arcs.ts';

const CELLS = 72;
const WAIT_MS = 200;
/** Drawings measured at once, so that the painter is free for the picture in between. */
const AT_ONCE = 8;
/** The part of element space that is looked at grows in steps this large, px, so that it rarely changes. */
const ROOM = 128;

/** What each drawing covers, by the part that was looked at: a drawing never changes, its next version is another. */
const covered = new WeakMap<Drawing, { key: string; mask: Uint8Array }>();

const roomy = ({ left, top, right, bottom }: Box): Box => ({
  left: Math.floor(left / ROOM) * ROOM,
  top: Math.floor(top / ROOM) * ROOM,
  right: Math.ceil(right / ROOM) * ROOM,
  bottom: Math.ceil(bottom / ROOM) * ROOM,
});

/** Coverage of drawings within a box; only those not known yet are asked of the painter. Null when it is no longer wanted. */
async function coverageOf(drawings: readonly Drawing[], box: Box, isLeft: () => boolean): Promise<Uint8Array[] | null> {
  const key = Object.values(box).join();
  const unknown = [...new Set(drawings)].filter((drawing) => covered.get(drawing)?.key !== key);
  for (let i = 0; i < unknown.length; i += AT_ONCE) {
    const part = unknown.slice(i, i + AT_ONCE);
    const masks = await painter().coverage(
      part.map(({ id }) => id),
      box,
      CELLS,
    );
    if (isLeft()) return null;
    part.forEach((drawing, k) => covered.set(drawing, { key, mask: masks[k]! }));
  }
  return drawings.map((drawing) => covered.get(drawing)!.mask);
}

export interface Step {
  /** Element frame at which it happens: the start of the drawing it leads to. */
  readonly at: number;
  /** Against the usual step; 1 is usual. */
  readonly size: number;
}

export interface Steps {
  readonly steps: readonly Step[];
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
      const box = boxAround(
        now.doc,
        shown.map(({ drawingId }) => drawingId),
      );
      const drawings = shown.flatMap(({ drawingId }) => find(now.doc, 'drawing', drawingId) ?? []);
      if (!box || drawings.length < shown.length) return;
      void coverageOf(drawings, roomy(box), () => left).then((masks) => {
        if (left || !masks) return;
        const sizes = stepSizes(masks, closed);
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
