/** Accidents in the active element, found anew when it changes. */
import { findingsOf, type Finding } from '@tallow/core/checks';
import { shotOf } from '@tallow/core/document';
import { useMemo } from 'react';
import type { Current } from '../selection/current.ts';

const known = new WeakMap<Current['doc'], Map<string, Finding[]>>();

/** What is worth a look on the active element's layers. */
export function findings(now: Current): Finding[] {
  const ofDoc = known.get(now.doc) ?? new Map<string, Finding[]>();
  known.set(now.doc, ofDoc);
  const kept = ofDoc.get(now.element.id);
  if (kept) return kept;
  const { width, height } = shotOf(now.doc);
  const { x, y } = now.placement ?? { x: 0, y: 0 };
  const seen = { left: -x, top: -y, right: width - x, bottom: height - y };
  const found = now.layers.flatMap((timed) =>
    findingsOf(now.doc, timed, now.length, now.element.time === 'cycle', seen),
  );
  ofDoc.set(now.element.id, found);
  return found;
}

export const useFindings = (now: Current): Finding[] => useMemo(() => findings(now), [now]);
