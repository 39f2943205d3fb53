import { modulo } from '@tallow/core/geometry';
/** The disc's geometry: frames as angles, layers as rings. Angles are radians clockwise from the top. */

/** Radii in px of the wheel's own box, whose middle is the origin. */
export const WHEEL = {
  size: 344,
  rimOuter: 152,
  rimInner: 114,
  ringsOuter: 110,
  ringsInner: 61,
  hub: 56,
  /** The band of the onion skin's reach, and of turning the disc, begins here. */
  band: 154,
  reach: 156.5,
  /** The line of steps, where a step is as large as usual. */
  steps: 163,
} as const;
/** The gap at the top of a disc that does not close, radians. */
const OPENING = 0.22;

export interface Dial {
  /** First frame on the disc: 0, or that of a phase that fills it. */
  readonly from: number;
  /** Frames on the disc. */
  readonly length: number;
  readonly closed: boolean;
  /** Where the first frame begins, for discs that close. */
  readonly turned: number;
}

const openingOf = ({ closed }: Dial): number => (closed ? 0 : OPENING);
const FULL = 2 * Math.PI;

/** The angle at which a frame begins; the end of the last is one past it. */
export function angleOf(dial: Dial, frame: number): number {
  const opening = openingOf(dial);
  return (dial.closed ? dial.turned : 0) + opening / 2 + ((FULL - opening) * (frame - dial.from)) / dial.length;
}

/** The place on the element's time under a point, in frames; in the opening, the nearer end. @param x px right of the middle @param y px below it */
export function timeAt(dial: Dial, x: number, y: number): number {
  const turned = dial.closed ? dial.turned : 0;
  const angle = modulo(Math.atan2(x, -y) - turned, FULL);
  const opening = openingOf(dial);
  const share = (angle - opening / 2) / (FULL - opening);
  return dial.from + Math.min(dial.length - 1e-9, Math.max(0, share * dial.length));
}

/** The frame under a point. */
export const frameAt = (dial: Dial, x: number, y: number): number => Math.floor(timeAt(dial, x, y));

export interface DialRing {
  readonly inner: number;
  readonly outer: number;
}

/** Rings from the outside in, in the order of the layers: the active one thick enough for a pen, the others thin. */
export function ringsFor(count: number, active: number): DialRing[] {
  const space = WHEEL.ringsOuter - WHEEL.ringsInner;
  const gap = 3;
  const thick = count === 1 ? 30 : 20;
  const thin = count > 1 ? Math.min(8, (space - thick - gap * (count - 1)) / (count - 1)) : 0;
  let outer: number = WHEEL.ringsOuter;
  return Array.from({ length: count }, (_, i) => {
    const width = i === active ? thick : thin;
    const ring = { inner: outer - width, outer };
    outer -= width + gap;
    return ring;
  });
}

/** The point at an angle and radius. */
export const pointAt = (angle: number, radius: number): { x: number; y: number } => ({
  x: Math.sin(angle) * radius,
  y: -Math.cos(angle) * radius,
});
