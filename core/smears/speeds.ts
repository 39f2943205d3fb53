/** How fast a subject goes from drawing to drawing: what is too fast to be followed by the eye, and how much smear is right for it. */
import type { SmearReach } from '../document/index.ts';
import type { Polygon } from '../geometry/index.ts';
import { polygonsArea, unitedPolygons } from '../geometry/index.ts';
import type { Flow } from './flow.ts';
import type { Silhouette } from './silhouette.ts';

/** Drawings that overlap by less than this share lose the form to the eye; a stretch is to bring back so much. */
export const [MIN_OVERLAP, GOOD_OVERLAP] = [0.1, 0.15] as const;

/** How far each reach lets a subject be stretched, of what its speed asks for. */
export const REACH_SHARE: Readonly<Record<SmearReach, number>> = { stiff: 0, some: 0.7, far: 1 };

/** A step from one drawing to the next, judged. */
export interface StepSpeed {
  /** px that the middle goes. */
  readonly length: number;
  /** Its length along the way, px. */
  readonly extent: number;
  /** Share of the smaller form that both have in common, 0 to 1. */
  readonly overlap: number;
  /** Whether the eye can not follow it: it overlaps too little. */
  readonly fast: boolean;
}

const overlapOf = (a: readonly Polygon[], b: readonly Polygon[]): number => {
  const [one, other] = [polygonsArea(a), polygonsArea(b)];
  if (one === 0 || other === 0) return 0;
  const both = one + other - polygonsArea(unitedPolygons([...a, ...b], false));
  return Math.min(1, Math.max(0, both / Math.min(one, other)));
};

export function speedOf(flow: Flow, left: Silhouette, arrived: Silhouette): StepSpeed {
  const alongs = arrived.outlines.flat().map(([x, y]) => flow.to({ x, y }).along);
  const extent = alongs.length === 0 ? 0 : (Math.max(...alongs) - Math.min(...alongs)) * flow.length;
  const overlap = overlapOf(left.outlines, arrived.outlines);
  return { length: flow.length, extent, overlap, fast: overlap < MIN_OVERLAP && flow.length > 1 };
}

/**
 * The right amount of stretch for a step, 0 to 1: so much that the trailing end overlaps where the form was by a good share of its
 * length, as far as the subject may be stretched.
 */
export function rightAmount({ length, extent }: StepSpeed, reach: SmearReach): number {
  if (length <= 0) return 0;
  const wanted = (length - extent * (1 - GOOD_OVERLAP)) / length;
  // At least a little of a step that is fast, as it is drawn out to be seen.
  return Math.min(1, Math.max(0, Math.max(wanted, Math.min(1, extent / length) * 0.4))) * REACH_SHARE[reach];
}

/** Which of a row of steps are smeared: fast ones, in runs of two or more. @param round whether the last leads on to the first. */
export function fastRuns(fast: readonly boolean[], round: boolean): boolean[] {
  const count = fast.length;
  const at = (i: number): boolean => (round ? fast[(i + count) % count]! : (fast[i] ?? false));
  return fast.map((own, i) => own && count > 1 && (at(i - 1) || at(i + 1)));
}

/** How a smear is judged by how long it is seen: shown silently up to 1/24 s, noted up to 1/12 s, named beyond; copies may be seen for 1/8 s. */
export type SeenForSpeed = 'short' | 'noted' | 'long';

export function seenFor(frames: number, rate: number, isCopies: boolean): SeenForSpeed {
  const seconds = frames / rate;
  const [silent, noted] = isCopies ? [1 / 8, 1 / 6] : [1 / 24, 1 / 12];
  return seconds <= silent + 1e-6 ? 'short' : seconds <= noted + 1e-6 ? 'noted' : 'long';
}

/** Area that appears twice as large as the subject's own is named. */
export const TOO_LARGE = 2;
