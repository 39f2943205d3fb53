/** The stand-in on each tick of a path: where, how large, how turned, how stretched. */
import type { Path, Ring, StandIn } from '../document/index.ts';
import { clamp, mix, type Point, discRing } from '../geometry/index.ts';
import { ticksOf } from './spacing.ts';
import { wayOf, type MeasuredPath } from './way.ts';

/** A stand-in on one tick. Lengths px, angle radians. */
export interface Stamp extends Point {
  readonly index: number;
  /** Element frame it shows from. */
  readonly frame: number;
  /** Full length along its own axis, before stretching. */
  readonly size: number;
  readonly angle: number;
  /** Along its axis; across it is 1 / stretch, so its area stays. 1 is unstretched. */
  readonly stretch: number;
  readonly opacity: number;
}

/** Speed in shares of its size, per tick, at which a stand-in is stretched to twice its length at full stretch. */
const STRETCHING = 1.5;

/** The stand-ins of a path, one per tick, centred on the ticks. */
export function stampsOf(
  path: Path,
  way: MeasuredPath = wayOf(path),
  ticks: readonly number[] = ticksOf(path),
): Stamp[] {
  const { standIn } = path;
  return ticks.map((share, index) => {
    const spot = way.at(share);
    const size = mix(standIn.sizeStart, standIn.sizeEnd, share);
    const last = ticks.length - 1;
    const [before, after] = [ticks[Math.max(0, index - 1)]!, ticks[Math.min(last, index + 1)]!];
    const speed = ((after - before) * way.length) / (index === 0 || index === last ? 1 : 2) / size;
    const stretch = 1 + standIn.stretch * clamp(speed / STRETCHING, 0, 1.5);
    const along = Math.atan2(spot.dy, spot.dx);
    return {
      x: spot.x,
      y: spot.y,
      index,
      frame: path.from + index * path.hold,
      size,
      // What is stretched, is stretched the way it goes.
      angle: standIn.turn === 'along' || standIn.form === 'disc' ? along + standIn.angle : standIn.angle,
      stretch,
      opacity: mix(standIn.opacityStart, standIn.opacityEnd, share),
    };
  });
}

/** A circle of radius 1 as a ring. */
const UNIT_CIRCLE: Ring = discRing(0, 0, 1);

/** The outline of a stamp in element space. */
export function stampRing(standIn: Pick<StandIn, 'form' | 'shape' | 'aspect'>, stamp: Stamp): Ring {
  const drawn = standIn.form === 'shape' && standIn.shape ? standIn.shape : null;
  const across = standIn.form === 'ellipse' ? standIn.aspect : 1;
  // A drawn shape keeps its own proportions: it is drawn one px long and across.
  const [sx, sy] = drawn ? [stamp.size, stamp.size] : [stamp.size / 2, (stamp.size / 2) * across];
  const [cos, sin] = [Math.cos(stamp.angle), Math.sin(stamp.angle)];
  const ring = (drawn ?? UNIT_CIRCLE).slice();
  for (let i = 0; i < ring.length; i += 2) {
    const x = ring[i]! * sx * stamp.stretch;
    const y = (ring[i + 1]! * sy) / stamp.stretch;
    ring[i] = stamp.x + x * cos - y * sin;
    ring[i + 1] = stamp.y + x * sin + y * cos;
  }
  return ring;
}

/** A ring moved and scaled so that its box is one px at most and about 0 0: a drawn stand-in. */
export function asStandIn(ring: Ring): Ring {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < ring.length; i += 6) {
    left = Math.min(left, ring[i]!);
    right = Math.max(right, ring[i]!);
    top = Math.min(top, ring[i + 1]!);
    bottom = Math.max(bottom, ring[i + 1]!);
  }
  const long = Math.max(1e-6, right - left, bottom - top);
  return ring.map((v, i) => (i % 2 === 0 ? (v - (left + right) / 2) / long : (v - (top + bottom) / 2) / long));
}
