/** Reveal and removal: a line that is drawn along itself, and taken away again from its start, the two overlapping in time. */
import type { Samples, Stroke } from '../document/index.ts';

/** What of a stroke is there on a drawing, as shares of its length. Nothing where `to` is not beyond `from`. */
export interface RevealReach {
  readonly from: number;
  readonly to: number;
}

/** How a line comes and goes. Counted in drawings. */
export interface Revealing {
  /** Drawings until it is there whole. */
  readonly comes: number;
  /** Drawings from when its start lets go until it is gone; 0 stays. */
  readonly goes: number;
  /** By how many drawings letting go begins before it is there whole. */
  readonly overlap: number;
}

/** How many drawings revealing takes, the last of them empty if the line goes. */
export const revealCount = ({ comes, goes, overlap }: Revealing): number =>
  goes === 0 ? comes : Math.max(comes, comes - Math.min(overlap, comes) + goes);

/** What is there on a drawing, counted from 0. */
export function reachOn(revealing: Revealing, index: number): RevealReach {
  const { comes, goes, overlap } = revealing;
  const begins = comes - Math.min(overlap, comes);
  const gone = goes === 0 ? 0 : (index + 1 - begins) / goes;
  return { from: Math.min(1, Math.max(0, gone)), to: Math.min(1, (index + 1) / comes) };
}

/** The part of a stroke between two shares of its length, its pressure and tilt kept; null where nothing is left. */
export function partOfStroke(stroke: Stroke, { from, to }: RevealReach): Stroke | null {
  const { x, y } = stroke.samples;
  const count = x.length;
  if (to <= from || count === 0) return null;
  const passed = new Float64Array(count);
  for (let i = 1; i < count; i++) {
    const [dx, dy] = [x[i]! - x[i - 1]!, y[i]! - y[i - 1]!];
    passed[i] = passed[i - 1]! + Math.sqrt(dx * dx + dy * dy);
  }
  const whole = passed[count - 1]!;
  if (whole === 0) return stroke;
  const [start, end] = [from * whole, to * whole];
  const places: number[] = [start];
  for (let i = 0; i < count; i++) if (passed[i]! > start && passed[i]! < end) places.push(passed[i]!);
  places.push(end);
  const column = (values: Float32Array): Float32Array => {
    let i = 0;
    return Float32Array.from(places, (place) => {
      while (i < count - 2 && passed[i + 1]! < place) i++;
      const step = passed[i + 1]! - passed[i]!;
      const t = step === 0 ? 0 : (place - passed[i]!) / step;
      return values[i]! + (values[Math.min(count - 1, i + 1)]! - values[i]!) * t;
    });
  };
  const samples: Samples = {
    x: column(x),
    y: column(y),
    pressure: column(stroke.samples.pressure),
    altitude: column(stroke.samples.altitude),
    azimuth: column(stroke.samples.azimuth),
  };
  return { ...stroke, samples };
}
