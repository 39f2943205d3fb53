/** Fills carried from one drawing to the next: their shapes there, and what needs a look. */
import type { Point } from '../geometry/index.ts';
import { regionAt, ringsOf, wellInside, type Paintable } from './fill.ts';
import { followed, type Painted } from './follow.ts';
import { leaksOf } from './leaks.ts';
import { OUTSIDE } from './regions.ts';

/** A filled region as a shape. */
export interface FilledShape {
  readonly rings: readonly Float32Array[];
  /** A point well inside it. */
  readonly seed: Point;
  readonly swatch: string;
}

export type FillTrouble = 'lost' | 'leaked' | 'bare';

/** A place that needs a look after fills were carried on. */
export interface FillReport extends Point {
  readonly trouble: FillTrouble;
  /** The least gap that would hold what leaked, px. */
  readonly gap: number | null;
}

export interface Carried {
  readonly shapes: readonly FilledShape[];
  readonly painted: Painted;
  readonly reports: readonly FillReport[];
}

/** How much wider than the gaps that are closed a gap can be for what is gone through it to have leaked. */
const LEAK_FACTOR = 5;
const LEAK_LEAST = 24;

/** The regions of a drawing by what is filled in it: regions without a fill are known to be bare. */
export function paintedBy(paintable: Paintable, fills: readonly { seed: Point; swatch: string }[]): Painted {
  const painted = new Map<number, string | null>();
  for (let label = OUTSIDE + 1; label <= paintable.regions.count; label++) painted.set(label, null);
  for (const { seed, swatch } of fills) {
    const label = regionAt(paintable, seed);
    if (label > OUTSIDE) painted.set(label, swatch);
  }
  return painted;
}

/** The shapes of painted regions; regions that are to stay bare have none. */
export const shapesOf = (paintable: Paintable, painted: Painted): FilledShape[] =>
  [...painted].flatMap(([label, swatch]) =>
    swatch === null ? [] : [{ rings: ringsOf(paintable, [label]), seed: wellInside(paintable, label), swatch }],
  );

/** Carries what is painted in one drawing on to the next, over one lattice. */
export function carriedOn(from: Paintable, painted: Painted, to: Paintable): Carried {
  const next = followed(from, painted, to);
  const { gap } = to.rules;
  const reports = [
    ...next.lost.map((at): FillReport => {
      const leaks = regionAt(to, at) === OUTSIDE ? leaksOf(to.barrier, at, gap) : null;
      const holds = leaks?.leastGap ?? null;
      const leaked = holds !== null && holds <= Math.max(LEAK_LEAST, LEAK_FACTOR * gap);
      return { ...at, trouble: leaked ? 'leaked' : 'lost', gap: leaked ? holds : null };
    }),
    ...next.bare.map(({ at }): FillReport => ({ ...at, trouble: 'bare', gap: null })),
  ];
  return { shapes: shapesOf(to, next.painted), painted: next.painted, reports };
}
