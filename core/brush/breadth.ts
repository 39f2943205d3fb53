/** How wide a brush draws at each sample: its width, by pressure, by the pen's lean, tapered at the ends. */
import type { BrushSettings, Samples } from '../document/index.ts';
import { tipOf } from './tips.ts';

/** How many times as broad a pen lying flat draws, at a full answer to tilt. */
const FLAT = 4;
/** Lean that is no lean yet: hands hold a pen this far off upright, as a share of a right angle. */
const UPRIGHT = 0.25;

/** How far the pen leans beyond the usual, 0 to 1. @param altitude radians, pi/2 upright. */
export const leanOf = (altitude: number): number =>
  Math.min(1, Math.max(0, (1 - altitude / (Math.PI / 2) - UPRIGHT) / (1 - UPRIGHT)));

/** Half the width at a pressure of 0 to 1 and an altitude in radians, px of element space, tapers left out. */
export function breadthAt(brush: BrushSettings, pressure: number, altitude: number = Math.PI / 2): number {
  const min = tipOf(brush).lightest;
  const pressed = brush.pressure ? min + (1 - min) * pressure : 1;
  return (brush.width / 2) * pressed * (1 + (FLAT - 1) * (brush.tilt ?? 0) * leanOf(altitude));
}

const distance = ({ x, y }: Samples, i: number): number => {
  const [dx, dy] = [x[i + 1]! - x[i]!, y[i + 1]! - y[i]!];
  return Math.sqrt(dx * dx + dy * dy);
};

/** A taper's share of the width at a distance from its end: none at the end, all at its length, round between. */
const tapered = (far: number, length: number): number => {
  const share = Math.min(1, far / length);
  return share * (2 - share);
};

/** Half widths of the samples `from` to `to`, both included, px of element space. */
export function breadths(samples: Samples, brush: BrushSettings, from: number, to: number): Float64Array {
  const half = new Float64Array(to - from + 1);
  for (let i = from; i <= to; i++) half[i - from] = breadthAt(brush, samples.pressure[i]!, samples.altitude[i]);
  const [into, out] = brush.taper ?? [0, 0];
  const last = samples.x.length - 1;
  // A tap has no length to taper along.
  if (last === 0) return half;
  for (let i = 0, far = 0; i <= to && far < into; far += i < last ? distance(samples, i) : 0, i++)
    if (i >= from) half[i - from]! *= tapered(far, into);
  for (let i = last, far = 0; i >= from && far < out; far += i > 0 ? distance(samples, i - 1) : 0, i--)
    if (i <= to) half[i - from]! *= tapered(far, out);
  return half;
}

/**
 * The first sample whose width a longer stroke could still change, as its end tapers.
 * @param settled samples that no later one will move.
 */
export function firstTapering(samples: Samples, brush: BrushSettings, settled: number): number {
  const out = brush.taper?.[1] ?? 0;
  let i = settled - 1;
  for (let far = 0; i > 0 && far < out; i--) far += distance(samples, i - 1);
  return Math.max(0, i);
}
