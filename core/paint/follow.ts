/**
 * Regions followed from one drawing to the next, over one lattice: by how far they overlap, by place, by size and
 * by the colour of the lines round them. What splits goes on in all its parts, what joins in the largest share.
 */
import type { Point } from '../geometry/index.ts';
import { enclosed, lineColourOf, wellInside, type Paintable } from './fill.ts';

/** What is filled of a drawing: a swatch by region, or null for one that is known to stay bare. */
export type FilledRegions = ReadonlyMap<number, string | null>;

export interface Followed {
  readonly painted: FilledRegions;
  /** Painted regions with nothing to go on in, and where they were. */
  readonly lost: readonly { readonly label: number; readonly at: Point }[];
  /** Regions that come from none before. */
  readonly bare: readonly { readonly label: number; readonly at: Point }[];
}

const NONE: FilledRegions = new Map();

interface Region {
  readonly label: number;
  readonly area: number;
  readonly middle: Point;
  readonly line: [number, number, number] | null;
}

/** Weights of what speaks for one region being another; they sum to 1. */
const [BY_OVERLAP, BY_SIZE, BY_LINE] = [0.6, 0.25, 0.15];
/** What must speak for it at least, and how far a region may go without overlapping, in its own breadths. */
const MIN = 0.2;
const FARTHEST = 1.6;
/** How alike in size and in the colour of its lines what has leapt farther must be. */
const [LEAP_SIZE, LEAP_LINE] = [0.5, 0.8];
/** The share of a region that must lie in one of its own paint to have run into it. */
const JOINED = 0.1;
/** Pixels from one looked at to the next, each way. */
const STEP = 2;
/** px² under which a region that is lost or new is not worth telling. */
const TELLING = 40;

function regionsIn(paintable: Paintable, labels: readonly number[]): Region[] {
  const { extents, areas } = paintable;
  return labels.map((label) => {
    const { left, top, right, bottom } = extents[label]!;
    return {
      label,
      area: areas[label]!,
      middle: { x: (left + right) / 2, y: (top + bottom) / 2 },
      line: lineColourOf(paintable, label),
    };
  });
}

function overlaps(from: Paintable, to: Paintable): Map<number, Map<number, number>> {
  const { width, height } = from.barrier;
  const [a, b] = [from.carried, to.carried];
  const found = new Map<number, Map<number, number>>();
  for (let y = 0; y < height; y += STEP)
    for (let x = 0, i = y * width; x < width; x += STEP, i += STEP) {
      if (a[i]! <= 1 || b[i]! <= 1) continue;
      const row = found.get(b[i]!) ?? new Map<number, number>();
      if (row.size === 0) found.set(b[i]!, row);
      row.set(a[i]!, (row.get(a[i]!) ?? 0) + STEP * STEP);
    }
  return found;
}

const ratio = (a: number, b: number): number => Math.min(a, b) / Math.max(a, b, 1);

function likeness(a: Region['line'], b: Region['line']): number {
  if (!a || !b) return 1;
  return 1 - Math.min(1, Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) / 160);
}

/**
 * Carries paint on to the next drawing.
 * @param from and @param to of the same lattice. @param painted regions of `from`. @param taken regions of `to` in which
 * other paint goes on.
 */
export function followed(
  from: Paintable,
  painted: FilledRegions,
  to: Paintable,
  taken: FilledRegions = NONE,
): Followed {
  const before = regionsIn(
    from,
    enclosed(from).filter((label) => painted.has(label)),
  );
  const after = regionsIn(
    to,
    enclosed(to).filter((label) => !taken.has(label)),
  );
  const shared = overlaps(from, to);
  const result = new Map<number, string | null>();
  const goesOn = new Set<number>();
  const left: Region[] = [];
  for (const region of after) {
    let best: { label: number; score: number } | null = null;
    for (const old of before) {
      const overlap = (shared.get(region.label)?.get(old.label) ?? 0) / Math.max(1, Math.min(old.area, region.area));
      if (overlap <= 0) continue;
      const score =
        BY_OVERLAP * Math.min(1, overlap) +
        BY_SIZE * ratio(old.area, region.area) +
        BY_LINE * likeness(old.line, region.line);
      if (!best || score > best.score) best = { label: old.label, score };
    }
    if (best && best.score >= MIN) {
      result.set(region.label, painted.get(best.label)!);
      goesOn.add(best.label);
    } else left.push(region);
  }
  // What has moved on farther than it is wide: the nearest of about its size that nothing else goes on from.
  for (const region of left) {
    let best: { label: number; far: number } | null = null;
    for (const old of before) {
      if (goesOn.has(old.label) || ratio(old.area, region.area) < 0.25) continue;
      const far = Math.hypot(old.middle.x - region.middle.x, old.middle.y - region.middle.y);
      const breadth = Math.sqrt(Math.max(old.area, region.area));
      if (far < FARTHEST * breadth + 8 && (!best || far < best.far)) best = { label: old.label, far };
    }
    if (!best) continue;
    result.set(region.label, painted.get(best.label)!);
    goesOn.add(best.label);
  }
  // What has leapt anywhere: the only two left over that are like each other.
  const alike = (old: Region, region: Region) =>
    ratio(old.area, region.area) >= LEAP_SIZE && likeness(old.line, region.line) >= LEAP_LINE;
  for (const region of left) {
    if (result.has(region.label)) continue;
    const from = before.filter((old) => !goesOn.has(old.label) && alike(old, region));
    const others = left.filter((other) => !result.has(other.label) && from[0] && alike(from[0], other));
    if (from.length !== 1 || others.length !== 1) continue;
    result.set(region.label, painted.get(from[0]!.label)!);
    goesOn.add(from[0]!.label);
  }
  // What has run into a region of its own paint is not lost.
  const joined = ({ label, area }: Region) =>
    after.some(
      (region) =>
        result.get(region.label) === painted.get(label) && (shared.get(region.label)?.get(label) ?? 0) > JOINED * area,
    );
  const min = TELLING * to.barrier.scale ** 2;
  return {
    painted: result,
    lost: before
      .filter((old) => !goesOn.has(old.label) && painted.get(old.label) !== null && old.area >= min && !joined(old))
      .map(({ label }) => ({ label, at: wellInside(from, label) })),
    bare: after
      .filter(({ label, area }) => !result.has(label) && area >= min)
      .map(({ label }) => ({ label, at: wellInside(to, label) })),
  };
}
