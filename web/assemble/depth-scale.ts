/** Where depths lie across the cone. */
import type { Id, Plane } from '@tallow/core/document';
import { scaleSymlog } from 'd3-scale';

/** px of depth that are at least in view, and over which the scale is about even: what is far lies closer together. */
const [NEAR, FAR, EVEN] = [-300, 1200, 350] as const;
/** How much further than the farthest plane one can drag in one go. */
const ROOM = 1.35;

/** What depths are in view: those of the planes, with room to go further. */
export function depthsInView(depths: readonly number[]): readonly [number, number] {
  const [min, max] = [Math.min(0, ...depths), Math.max(0, ...depths)];
  return [Math.min(NEAR, min * ROOM), Math.max(FAR, max * ROOM)];
}

interface DepthScale {
  readonly xOf: (depth: number) => number;
  readonly depthAt: (x: number) => number;
}

/** @param from and @param to px across, of the nearest and the farthest in view. */
export function depthScaleOf(inView: readonly [number, number], from: number, to: number): DepthScale {
  const scale = scaleSymlog().constant(EVEN).domain(inView).range([from, to]).clamp(true);
  return { xOf: (depth) => scale(depth), depthAt: (x) => scale.invert(x) };
}

/** px that two uprights are apart at least, so that each can be pressed. */
const APART = 13;

/** Where the upright of each plane stands, nearest first: those of one depth beside each other. */
export function uprightsOf(planes: readonly Plane[], { xOf }: DepthScale): ReadonlyMap<Id, number> {
  const at = new Map<Id, number>();
  let last = -Infinity;
  for (const { id, depth } of planes) {
    last = Math.max(xOf(depth), last + APART);
    at.set(id, last);
  }
  return at;
}
