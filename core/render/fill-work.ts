/** Filling: the regions of a drawing are worked out once and kept for the pen that looks among them. */
import type { Drawing, FilledRegion, Id } from '../document/index.ts';
import { EMPTY_BOX, mapBox, union, type Box, type Matrix, type Point } from '../geometry/index.ts';
import {
  Carrier,
  enclosed,
  latticeOver,
  leaksAround,
  OUTSIDE,
  paintableOf,
  paintedBy,
  regionAt,
  regionsWithin,
  ringsOf,
  silhouetteOf,
  wellInside,
  type FilledShape,
  type FillReport,
  type FillRules,
  type Leaks,
  type LeaksAround,
  type Paintable,
} from '../paint/index.ts';
import type { MakeSurface } from '../canvas/index.ts';
import { closingsOf } from '../marks/index.ts';
import { drawBarrier, linesBox } from './barrier.ts';

/** A drawing to be filled: what bounds it, and the rules. */
export interface FillWork {
  readonly bounding: readonly { readonly drawing: Drawing; readonly matrix: Matrix }[];
  readonly colours: Readonly<Record<Id, string>>;
  /** The picture, in the space of the layer that is filled. */
  readonly picture: Box;
  readonly rules: FillRules;
}

/** What lies under the pen. */
export interface FillThere {
  /** The shape it would get; null where it runs out, or nothing bounds. */
  readonly shape: FilledShape | null;
  readonly leaks: Leaks | null;
  /** Whether the picture's edge bounds it too. */
  readonly framed: boolean;
  /** Tells regions of one drawing apart; 0 is none. */
  readonly region: number;
}

/** What came of a drawing that fills were carried to. */
export interface FilledThrough {
  readonly shapes: readonly FilledShape[];
  readonly reports: readonly FillReport[];
  /** Gaps up to this many px were closed in it. */
  readonly gap: number;
}

/** How often a drawing is tried with wider gaps: closing one may show that the next is open. */
const TRIES = 3;
/** Paintables kept. */
const KEPT = 3;
const NOTHING: FillThere = { shape: null, leaks: null, framed: false, region: 0 };

interface Ready {
  readonly work: FillWork;
  readonly plain: Paintable;
  framed: Paintable | null;
  /** What was found for regions that were asked about, and for those that the picture's edge bounds too, by label. */
  readonly found: (FillThere | undefined)[];
  readonly foundFramed: (FillThere | undefined)[];
  /** Where what was asked about last runs out. */
  leaks: LeaksAround | null;
}

/** px by which fills go beyond the edge of the picture. */
const BEYOND = 12;

const boxOf = ({ bounding }: FillWork): Box =>
  bounding.map(({ drawing, matrix }) => mapBox(matrix, linesBox(drawing))).reduce(union, EMPTY_BOX);

const beyond = ({ left, top, right, bottom }: Box): Box => ({
  left: left - BEYOND,
  top: top - BEYOND,
  right: right + BEYOND,
  bottom: bottom + BEYOND,
});

/** @param margin the widest gap that is closed over this lattice, px. */
function paintableFor(
  work: FillWork,
  box: Box,
  frame: Box | null,
  make: MakeSurface,
  margin = work.rules.gap,
): Paintable {
  const lattice = latticeOver(box, margin / 2 + 2);
  const bounding = work.bounding.map((each) => ({ ...each, paintOf: (id: Id) => work.colours[id] ?? '#808080' }));
  const closings = closingsOf(work.bounding, work.rules.gap);
  return paintableOf(drawBarrier(lattice, bounding, make, frame, closings), work.rules);
}

/** Whether lines go to an edge of the picture, or beyond: else its edge bounds nothing with them. */
const reaches = (lines: Box, { left, top, right, bottom }: Box): boolean =>
  lines.left <= left || lines.top <= top || lines.right >= right || lines.bottom >= bottom;

const isDrawn = (box: Box): boolean => box.left < box.right;

const shapeOf = (paintable: Paintable, label: number, swatch = ''): FilledShape => ({
  rings: ringsOf(paintable, [label]),
  seed: wellInside(paintable, label),
  swatch,
});

export class FillWorker {
  /** @param make surfaces to draw the lines on. */
  constructor(private readonly make: MakeSurface) {}

  private readonly kept = new Map<string, Ready>();
  /** What was last asked about: the pen stays over one drawing for many questions. */
  private last: { readonly key: string; readonly ready: Ready } | null = null;

  private keptFor(key: string): Ready | undefined {
    if (this.last?.key === key) return this.last.ready;
    const ready = this.kept.get(key);
    if (ready) this.last = { key, ready };
    return ready;
  }

  /** Makes ready what is asked about under a key, unless it is. @returns whether there is anything that bounds. */
  ready(key: string, work: FillWork): boolean {
    const known = this.kept.get(key);
    if (known) {
      this.kept.delete(key);
      this.kept.set(key, known);
      return true;
    }
    const box = boxOf(work);
    if (!isDrawn(box)) return false;
    this.kept.set(key, {
      work,
      plain: paintableFor(work, box, null, this.make),
      framed: null,
      found: [],
      foundFramed: [],
      leaks: null,
    });
    if (this.kept.size > KEPT) this.giveUpOldest();
    return true;
  }

  private giveUpOldest(): void {
    const [oldest] = this.kept.keys();
    if (oldest === undefined) return;
    this.kept.delete(oldest);
    if (this.last?.key === oldest) this.last = null;
  }

  private framed(ready: Ready): Paintable {
    const frame = beyond(ready.work.picture);
    ready.framed ??= paintableFor(ready.work, union(boxOf(ready.work), frame), frame, this.make);
    return ready.framed;
  }

  /** What a press at a place would fill. */
  at(key: string, at: Point): FillThere {
    const ready = this.keptFor(key);
    if (!ready) return NOTHING;
    const label = regionAt(ready.plain, at);
    const known = ready.found[label];
    if (known) return known;
    if (label > OUTSIDE) {
      const there = { shape: shapeOf(ready.plain, label), leaks: null, framed: false, region: label };
      ready.found[label] = there;
      return there;
    }
    // Lines that go beyond the picture on both sides bound with its edge; all of the picture is no region.
    const framed = reaches(boxOf(ready.work), ready.work.picture) ? this.framed(ready) : null;
    const own = framed ? regionAt(framed, at) : OUTSIDE;
    if (label === OUTSIDE && !ready.leaks?.holds(at))
      ready.leaks = leaksAround(ready.plain.barrier, at, ready.work.rules.gap);
    const leaks = label === OUTSIDE ? ready.leaks!.leaks : null;
    const { left, top, right, bottom } = ready.work.picture;
    const all = framed ? (right - left) * (bottom - top) * framed.barrier.scale ** 2 : 0;
    const encloses = own > OUTSIDE && (leaks === null || leaks.minGap === null);
    if (framed && encloses && framed.areas[own]! < 0.9 * all)
      return (ready.foundFramed[own] ??= { shape: shapeOf(framed, own), leaks: null, framed: true, region: -own });
    return { ...NOTHING, leaks };
  }

  /** Several regions at once. @param lasso a closed way round those that are meant. */
  many(key: string, which: 'all' | 'silhouette' | 'lasso', lasso: readonly Point[]): FilledShape[] {
    const ready = this.kept.get(key);
    if (!ready) return [];
    const { plain } = ready;
    if (which === 'silhouette') {
      const rings = silhouetteOf(plain);
      const [largest] = enclosed(plain);
      return rings.length > 0 && largest ? [{ rings, seed: wellInside(plain, largest), swatch: '' }] : [];
    }
    const labels = which === 'all' ? enclosed(plain) : regionsWithin(plain, lasso);
    return labels.map((label) => shapeOf(plain, label));
  }

  /** Regions that are enclosed now and were outside before. */
  closed(before: string, now: string): FilledShape[] {
    const [a, b] = [this.kept.get(before), this.kept.get(now)];
    if (!b) return [];
    return enclosed(b.plain)
      .filter((label) => !a || regionAt(a.plain, wellInside(b.plain, label)) <= OUTSIDE)
      .map((label) => shapeOf(b.plain, label));
  }

  /** Fills some regions of changed lines again: null for one that runs out or is gone. */
  again(work: FillWork, regions: readonly FilledRegion[]): (FilledShape | null)[] {
    const box = boxOf(work);
    if (!isDrawn(box)) return regions.map(() => null);
    const paintable = paintableFor(work, box, null, this.make);
    return regions.map(({ x, y, swatch }) => {
      const label = regionAt(paintable, { x, y });
      return label > OUTSIDE ? shapeOf(paintable, label, swatch) : null;
    });
  }

  /**
   * Carries the fills of a first drawing through others.
   * @param max the widest gap that may be closed where a drawing needs more than its rules say, px.
   * @param onStep told how many are done; says whether to go on.
   * @returns what came of each but the first, or null when stopped.
   */
  async through(
    works: readonly FillWork[],
    fills: readonly { seed: Point; swatch: Id }[],
    max: number,
    onStep: (done: number, of: number) => Promise<boolean>,
  ): Promise<FilledThrough[] | null> {
    const box = works.map(boxOf).reduce(union, EMPTY_BOX);
    if (!isDrawn(box)) return [];
    const margin = Math.max(max, ...works.map(({ rules }) => rules.gap));
    const over = (work: FillWork) => paintableFor(work, box, null, this.make, margin);
    const results: FilledThrough[] = [];
    const first = over(works[0]!);
    const carrier = new Carrier(first, paintedBy(first, fills));
    for (let i = 1; i < works.length; i++) {
      let work = works[i]!;
      let to = over(work);
      let carried = carrier.tried(to);
      for (let tries = 0; tries < TRIES; tries++) {
        const { gap } = work.rules;
        const needed = carried.reports.flatMap((report) =>
          report.gap !== null && report.gap <= max ? report.gap : [],
        );
        const wider = Math.max(gap, ...needed);
        if (wider === gap) break;
        const next = { ...work, rules: { ...work.rules, gap: wider } };
        const closed = over(next);
        const better = carrier.tried(closed);
        // A wider gap is taken only where more goes on for it: it closes corners too.
        if (better.shapes.length <= carried.shapes.length) break;
        [work, to, carried] = [next, closed, better];
      }
      carrier.goOn(to, carried);
      results.push({ shapes: [...carried.shapes], reports: [...carried.reports], gap: work.rules.gap });
      if (!(await onStep(i, works.length - 1))) return null;
    }
    return results;
  }
}
