/** What the seam of the active layer is like, worked out in the compute worker a moment after the last change. */
import type { Join, SeamReport } from '@tallow/core/checks';
import type { Drawing } from '@tallow/core/document';
import { spanOf } from '@tallow/core/edit';
import { drawingsInOrder } from '@tallow/core/timing';
import { useEffect, useMemo, useState } from 'react';
import { compute } from '../workers/compute-client.ts';
import { currentOf, type Current } from '../selection/current.ts';
import { coverageOf } from '../picture/coverage.ts';
import { useSelection } from '../selection/selection.ts';
import { useDocument } from '../shot/document.ts';

export interface SeamNow {
  /** Frames on which the drawings begin, as they follow each other. */
  readonly frames: readonly number[];
  readonly drawings: readonly Drawing[];
  readonly report: SeamReport;
  readonly joins: readonly Join[];
  /** Whether the drawings have changed since, and it is being worked out anew. */
  readonly stale: boolean;
}

const WAIT_MS = 150;

/** Null while there is too little to compare, or it is being worked out. */
export function useSeam(now: Current | null): SeamNow | null {
  const selected = useSelection((s) => s.selectedRuns);
  const [seam, setSeam] = useState<{ of: unknown; found: Omit<SeamNow, 'stale'> } | null>(null);
  const [doc, elementId, layerId] = [now?.doc, now?.element.id, now?.active?.layer.id];
  // Looked at anew when the document or the layer is another one, not whenever something else moves.
  const shown = useMemo(() => {
    const own = doc && elementId && layerId ? currentOf(doc, { elementId, layerId }) : null;
    return own ? drawingsInOrder(own.doc, own.active, own.length) : [];
  }, [doc, elementId, layerId]);
  // Where drawings are picked, it is cut among those.
  const span = now && selected ? now.active && spanOf(now.active.list, selected, now.length) : null;
  const inside = span ? shown.filter(({ frame }) => frame >= span.from && frame < span.from + span.length) : [];
  const first = inside.length > 3 ? shown.indexOf(inside[0]!) : 0;
  const last = inside.length > 3 ? shown.indexOf(inside.at(-1)!) : shown.length - 1;
  useEffect(() => {
    if (shown.length < 3) {
      setSeam(null);
      return undefined;
    }
    let left = false;
    const timer = setTimeout(() => {
      const drawings = shown.map(({ drawing }) => drawing);
      const { doc: latest } = useDocument.getState();
      if (!latest) return;
      const ids = drawings.map(({ id }) => id);
      void coverageOf(latest, ids, () => left).then(async (coverage) => {
        if (left || !coverage) return;
        const { report, joins } = await compute().seam(coverage.covers, coverage.cell, [first, last]);
        const frames = shown.map(({ frame }) => frame);
        if (!left) setSeam({ of: shown, found: { frames, drawings, report, joins } });
      });
    }, WAIT_MS);
    return () => {
      left = true;
      clearTimeout(timer);
    };
  }, [shown, first, last]);
  return useMemo(() => seam && { ...seam.found, stale: seam.of !== shown }, [seam, shown]);
}
