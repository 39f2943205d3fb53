/** Fills carried from one drawing to the next: their shapes there, and what needs a look. */
import type { Point } from '../geometry/index.ts';
import { regionAt, ringsOf, wellInside, type Paintable } from './fill.ts';
import { followed, type Followed, type FilledRegions } from './follow.ts';
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

/** What comes of a drawing that fills are carried to. */
export interface CarriedFill {
  readonly shapes: readonly FilledShape[];
  readonly painted: FilledRegions;
  readonly reports: readonly FillReport[];
  /** Paint that has nothing to go on in here, with the drawing it was last found in. */
  readonly waiting: readonly Waiting[];
}

/** Regions that are looked for again in every drawing that follows. */
export interface Waiting {
  readonly from: Paintable;
  readonly painted: FilledRegions;
  /** Those of them that have been told to be lost: they may be gone for good. */
  readonly told: ReadonlySet<number>;
}

/** The widest gap through which a region has leaked, by its own breadth and at least, px: where more is open it is gone. */
const LEAK_BREADTH = 0.6;
const LEAK_LEAST = 24;

/** The regions of a drawing by what is filled in it: regions without a fill are known to be bare. */
export function paintedBy(paintable: Paintable, fills: readonly { seed: Point; swatch: string }[]): FilledRegions {
  const painted = new Map<number, string | null>();
  for (let label = OUTSIDE + 1; label <= paintable.regions.count; label++) painted.set(label, null);
  for (const { seed, swatch } of fills) {
    const label = regionAt(paintable, seed);
    if (label > OUTSIDE) painted.set(label, swatch);
  }
  return painted;
}

/** The shapes of painted regions; regions that are to stay bare have none. */
export const shapesOf = (paintable: Paintable, painted: FilledRegions): FilledShape[] =>
  [...painted].flatMap(([label, swatch]) =>
    swatch === null ? [] : [{ rings: ringsOf(paintable, [label]), seed: wellInside(paintable, label), swatch }],
  );

/** Earlier drawings that are kept for what was last found in them. */
const KEPT = 4;

/** Carries fills from drawing to drawing, all over one lattice. What is not found in one is looked for in those that follow. */
export class Carrier {
  private waiting: readonly Waiting[] = [];

  constructor(
    private from: Paintable,
    private painted: FilledRegions,
  ) {}

  /** What comes of the next drawing; nothing is carried on yet. */
  tried(to: Paintable): CarriedFill {
    const next = followed(this.from, this.painted, to);
    const painted = new Map(next.painted);
    const waiting: Waiting[] = [];
    const reports: FillReport[] = [];
    const wait = (from: Paintable, before: FilledRegions, lost: Followed['lost'], told: ReadonlySet<number>): void => {
      if (lost.length === 0) return;
      const own = new Set(lost.flatMap(({ label }) => (told.has(label) ? [label] : [])));
      for (const { label, at } of lost) {
        const report = reportOf(to, at, Math.sqrt(from.areas[label]!) / from.barrier.scale);
        // What is gone is reported once; where it is back but runs out, that is reported anew.
        if (report.trouble === 'leaked' || !own.has(label)) reports.push(report);
        if (report.trouble === 'lost') own.add(label);
      }
      waiting.push({ from, painted: new Map(lost.map(({ label }) => [label, before.get(label)!])), told: own });
    };
    wait(this.from, this.painted, next.lost, new Set());
    for (const each of this.waiting) {
      const again = followed(each.from, each.painted, to, painted);
      for (const [label, swatch] of again.painted) painted.set(label, swatch);
      wait(each.from, each.painted, again.lost, each.told);
    }
    for (const { label, at } of next.bare) if (!painted.has(label)) reports.push({ ...at, trouble: 'bare', gap: null });
    const shapes = shapesOf(to, painted);
    // What has been reported is reported again where there is nothing else: an empty drawing is never passed over.
    if (shapes.length === 0 && reports.length === 0)
      for (const each of waiting)
        for (const label of each.painted.keys())
          reports.push({ ...wellInside(each.from, label), trouble: 'lost', gap: null });
    return { shapes, painted, reports, waiting: waiting.slice(0, KEPT) };
  }

  /** Goes on from a drawing as it was tried. */
  goOn(to: Paintable, { painted, waiting }: CarriedFill): void {
    [this.from, this.painted, this.waiting] = [to, painted, waiting];
  }
}

/** @param breadth of what was filled before, px. */
function reportOf(to: Paintable, at: Point, breadth: number): FillReport {
  const leaks = regionAt(to, at) === OUTSIDE ? leaksOf(to.barrier, at, to.rules.gap) : null;
  const holds = leaks?.minGap ?? null;
  const leaked = holds !== null && holds <= Math.max(LEAK_LEAST, LEAK_BREADTH * breadth);
  return { ...at, trouble: leaked ? 'leaked' : 'lost', gap: leaked ? holds : null };
}
