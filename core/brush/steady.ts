/**
 * Steadying: each sample becomes the weighted middle of its neighbours. The window shrinks towards
 * the pen, so the line always ends exactly at the pen, never lags, and pen-up has nothing to catch up with.
 */
import type { Samples } from '../document/index.ts';

/** The widest window, in samples to each side, at full steadying. */
const STEADY_REACH = 14;

/** Samples to each side for a steadying of 0 to 1. */
export const steadyReach = (steadying: number): number =>
  Math.round(Math.min(1, Math.max(0, steadying)) * STEADY_REACH);

type Column = 'x' | 'y' | 'pressure' | 'altitude' | 'azimuth' | 'rawX' | 'rawY';
const COLUMNS: readonly Column[] = ['x', 'y', 'pressure', 'altitude', 'azimuth', 'rawX', 'rawY'];

/** A stroke while it is being drawn: raw samples go in, steadied samples come out. */
export class SteadyStroke {
  private columns = Object.fromEntries(COLUMNS.map((name) => [name, new Float32Array(256)])) as Record<
    Column,
    Float32Array
  >;
  private size = 0;
  private readonly reach: number;

  /** @param reach samples to each side, see `steadyReach`. */
  constructor(reach: number) {
    this.reach = reach;
  }

  /** Samples so far. */
  get count(): number {
    return this.size;
  }

  /** Samples that no later sample will move. */
  get settledCount(): number {
    return Math.max(0, this.size - this.reach);
  }

  /** Takes a sample in element space. A sample on the very place of the one before is passed over. */
  add(x: number, y: number, pressure: number, altitude: number, azimuth: number): void {
    const rawX = Math.fround(x);
    const rawY = Math.fround(y);
    const { columns, size } = this;
    if (size > 0 && columns.rawX[size - 1] === rawX && columns.rawY[size - 1] === rawY) return;
    if (size === columns.x.length) this.grow();
    const values: Record<Column, number> = {
      x: rawX,
      y: rawY,
      pressure: Math.min(1, Math.max(0, pressure)),
      altitude,
      azimuth,
      rawX,
      rawY,
    };
    for (const name of COLUMNS) this.columns[name][size] = values[name];
    this.size = size + 1;
    for (let i = Math.max(0, size - this.reach); i <= size; i++) this.settle(i);
  }

  private grow(): void {
    for (const name of COLUMNS) {
      const wider = new Float32Array(this.size * 2);
      wider.set(this.columns[name]);
      this.columns[name] = wider;
    }
  }

  private settle(i: number): void {
    const { x, y, rawX, rawY } = this.columns;
    const reach = Math.min(i, this.size - 1 - i, this.reach);
    let [sumX, sumY, weights] = [0, 0, 0];
    for (let k = -reach; k <= reach; k++) {
      const weight = reach + 1 - Math.abs(k);
      sumX += rawX[i + k]! * weight;
      sumY += rawY[i + k]! * weight;
      weights += weight;
    }
    x[i] = sumX / weights;
    y[i] = sumY / weights;
  }

  /** The samples so far: views that later samples write into. For drawing, not for keeping. */
  view(): Samples {
    const { x, y, pressure, altitude, azimuth } = this.columns;
    const cut = (column: Float32Array) => column.subarray(0, this.size);
    return { x: cut(x), y: cut(y), pressure: cut(pressure), altitude: cut(altitude), azimuth: cut(azimuth) };
  }

  /** The samples for keeping: columns of their own. */
  finish(): Samples {
    const { x, y, pressure, altitude, azimuth } = this.view();
    return {
      x: x.slice(),
      y: y.slice(),
      pressure: pressure.slice(),
      altitude: altitude.slice(),
      azimuth: azimuth.slice(),
    };
  }
}
