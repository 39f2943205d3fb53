/** What the pen has done since it landed: its samples, steadied, and for forms of several taps the points set before. */
import { madeSamples, steadyReach, SteadyStroke, type Making } from '@tallow/core/brush';
import type { Samples } from '@tallow/core/document';

export class PenPath {
  private steady: SteadyStroke;
  private set: Making['points'] = [];
  private pressure = 1;
  /** Grows with everything that changes the path. */
  version = 0;

  /** @param steadying 0 to 1. */
  constructor(
    readonly making: Making,
    private readonly steadying: number,
  ) {
    this.steady = this.fresh();
  }

  private fresh(): SteadyStroke {
    return new SteadyStroke(this.making.form === 'free' ? steadyReach(this.steadying) : 0);
  }

  /** Points set by taps so far, element space. */
  get points(): Making['points'] {
    return this.set;
  }

  get count(): number {
    return this.steady.count;
  }

  add(x: number, y: number, pressure: number, altitude: number, azimuth: number): void {
    // A pen that hovers between two taps is not pressed: it draws as it did.
    if (pressure > 0) this.pressure = pressure;
    this.steady.add(x, y, this.pressure, altitude, azimuth);
    this.version += 1;
  }

  /** The stroke as it is now. */
  samples(): Samples {
    return madeSamples(this.steady.finish(), { ...this.making, points: this.set });
  }

  /** Sets a point where the path ends now: the next tap goes on from it. */
  setPoint(): void {
    const made = this.samples();
    const last = made.x.length - 1;
    const end = { x: made.x[last]!, y: made.y[last]! };
    const raw = this.steady.view();
    const from = { x: raw.x[0]!, y: raw.y[0]! };
    this.set = this.set.length === 0 ? [from, end] : [...this.set, end];
    this.endAt(end);
  }

  /** Begins the next stretch where the last one ended. */
  private endAt({ x, y }: { x: number; y: number }): void {
    const raw = this.steady.view();
    const [altitude, azimuth] = [raw.altitude[0]!, raw.azimuth[0]!];
    this.steady = this.fresh();
    this.steady.add(x, y, this.pressure, altitude, azimuth);
    this.version += 1;
  }

  /** Whether what is drawn now ends with the next tap, or was tapped where it ended before. */
  isDone(reach: number): boolean {
    const { form } = this.making;
    if (form !== 'polyline' && form !== 'arc') return true;
    if (form === 'arc') return this.set.length >= 2;
    const raw = this.steady.view();
    const end = { x: raw.x.at(-1)!, y: raw.y.at(-1)! };
    const meant = [this.set.at(-1), this.set[0]].find((p) => p && Math.hypot(p.x - end.x, p.y - end.y) < reach);
    if (this.set.length < 2 || !meant) return false;
    // It ends on the very point that was tapped again.
    this.endAt(meant);
    return true;
  }
}
