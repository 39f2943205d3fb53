/** The wheel's geometry: frames as angles, layers as rings. Angles are radians clockwise from the top. */

/** Radii in px of the wheel's own box, whose middle is the origin. */
export const WHEEL = {
  size: 344,
  rimOuter: 160,
  rimInner: 119,
  ringsOuter: 115,
  ringsInner: 61,
  hub: 55,
  reach: 166,
} as const;
/** The gap at the top of a disc that does not close, radians. */
const OPENING = 0.22;

export interface Dial {
  readonly length: number;
  readonly closed: boolean;
}

const openingOf = ({ closed }: Dial): number => (closed ? 0 : OPENING);

/** The angle at which a frame begins; `length` is the end of the last. */
export function angleOf(dial: Dial, frame: number): number {
  const opening = openingOf(dial);
  return opening / 2 + ((2 * Math.PI - opening) * frame) / dial.length;
}

/** The frame under a point; in the opening, the nearer end. @param x px right of the middle @param y px below it */
export function frameAt(dial: Dial, x: number, y: number): number {
  const angle = (Math.atan2(x, -y) + 2 * Math.PI) % (2 * Math.PI);
  const opening = openingOf(dial);
  const share = (angle - opening / 2) / (2 * Math.PI - opening);
  return Math.min(dial.length - 1, Math.max(0, Math.floor(share * dial.length)));
}

export interface Ring {
  readonly inner: number;
  readonly outer: number;
}

/** Rings from the outside in, in the order of the layers: the active one thick enough for a pen, the others thin. */
export function ringsFor(count: number, active: number): Ring[] {
  const space = WHEEL.ringsOuter - WHEEL.ringsInner;
  const gap = count > 8 ? 1 : 3;
  const thick = count === 1 ? 30 : 20;
  const thin = count > 1 ? Math.min(8, (space - thick - gap * (count - 1)) / (count - 1)) : 0;
  let outer: number = WHEEL.ringsOuter;
  return Array.from({ length: count }, (_, i) => {
    const width = i === active ? thick : Math.max(1, thin);
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
