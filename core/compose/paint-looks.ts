/** Looks worked out on the picture of a layer or an element: what comes of it is laid, part by part. */
import type { Surface } from '../canvas/index.ts';
import { LOOKS, type LookPlace, type Part } from '../looks/index.ts';
import type { Resolved } from './resolve.ts';

/** Device px beyond the picture that looks reach at most. */
const FARTHEST = 1400;

/** Device px beyond the picture that looks reach: what is drawn there matters. @param scale device px in one px. */
export function lookReach(looks: readonly Resolved[], scale: number): number {
  const reaches = looks.map(({ kind, numbers, choices }) => LOOKS[kind].reach?.(numbers, choices) ?? 0);
  return Math.min(FARTHEST, Math.ceil(Math.max(0, ...reaches) * scale));
}

/**
 * Works looks out, in their order. What moves outlines has done so before anything was drawn.
 * @returns parts to be laid one over the other; the first is what was drawn, the others its light.
 */
export function paintedLooks(source: Surface, looks: readonly Resolved[], place: LookPlace): Part[] {
  const { main, lights } = looks.reduce((looked, look) => LOOKS[look.kind].paint?.(looked, look, place) ?? looked, {
    main: source,
    lights: [] as readonly Part[],
  });
  return [{ picture: main, blend: 'normal', opacity: 1 }, ...lights];
}
