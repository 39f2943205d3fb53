/** What the pen has done since it landed: its samples, steadied, and for forms of several taps the points set before. */
import { madeSamples, steadyReach, SteadyStroke, type Making } from '@tallow/core/brush';
import type { Samples } from '@tallow/core/document';

/** A point of a curve that the pen has taken hold of. */
interface Holding {
  readonly index: number;
  /** Where the pen landed. */
  readonly from: { readonly x: number; readonly y: number };
  /** px it goes before it is dragged, not tapped. */
  readonly slack: number;
  readonly moved: boolean;
}

export class PenPath {
  private held: Holding | null = null;
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
    this.version += 1;
    if (this.held) this.drag(this.held, { x, y });
    else this.steady.add(x, y, this.pressure, altitude, azimuth);
  }

  private drag(held: Holding, to: { x: number; y: number }): void {
    const { index, from, slack } = held;
    if (!held.moved && Math.hypot(to.x - from.x, to.y - from.y) < slack) return;
    this.held = { ...held, moved: true };
    // As samples are kept, so that the end is known again.
    const at = { x: Math.fround(to.x), y: Math.fround(to.y) };
    this.set = this.set.with(index, at);
    if (index === this.set.length - 1) this.endAt(at);
  }

  /** The stroke as it is now. */
  samples(): Samples {
    return madeSamples(this.steady.finish(), { ...this.making, points: this.set });
  }

  /** Sets a point where the path ends now: the next tap goes on from it. @param reach px within which a drag is a tap. */
  private setPoint(reach: number): void {
    const raw = this.steady.view();
    const from = { x: raw.x[0]!, y: raw.y[0]! };
    const made = this.samples();
    const last = made.x.length - 1;
    const end = { x: made.x[last]!, y: made.y[last]! };
    // A curve begun by a tap has one point, where it was tapped.
    const tapped = this.making.form === 'curve' && Math.hypot(from.x - end.x, from.y - end.y) < reach / 2;
    this.set = this.set.length === 0 ? (tapped ? [from] : [from, end]) : [...this.set, end];
    this.endAt(this.set.at(-1)!);
  }

  /** Begins the next stretch where the last one ended. */
  private endAt({ x, y }: { x: number; y: number }): void {
    const raw = this.steady.view();
    const [altitude, azimuth] = [raw.altitude[0]!, raw.azimuth[0]!];
    this.steady = this.fresh();
    this.steady.add(x, y, this.pressure, altitude, azimuth);
    this.version += 1;
  }

  /** The pen lands again, element space. On a point of a curve it takes hold of that one. @param reach px. */
  land(x: number, y: number, reach: number): void {
    if (this.making.form !== 'curve') return;
    const held = this.set.findIndex((p) => Math.hypot(p.x - x, p.y - y) < reach);
    this.held = held < 0 ? null : { index: held, from: { x, y }, slack: reach / 2, moved: false };
  }

  /** The pen lifts. @param reach px within which a point is meant. @returns whether the stroke is over; else a point was set or moved. */
  lift(reach: number): boolean {
    const { form } = this.making;
    if (form !== 'polyline' && form !== 'arc' && form !== 'curve') return true;
    if (this.held) return this.letGo(this.held);
    if (form === 'arc' ? this.set.length >= 2 : form === 'polyline' && this.endsOn(reach)) return true;
    this.setPoint(reach);
    return false;
  }

  /** Ends it with the points that are set, wherever the pen is by now. */
  end(): void {
    const last = this.set.at(-1);
    if (last) this.endAt(last);
  }

  /** Whether the pen ends on the last point or the first: then the line ends on that very point. */
  private endsOn(reach: number): boolean {
    const raw = this.steady.view();
    const end = { x: raw.x.at(-1)!, y: raw.y.at(-1)! };
    const meant = [this.set.at(-1), this.set[0]].find((p) => p && Math.hypot(p.x - end.x, p.y - end.y) < reach);
    if (this.set.length < 2 || !meant) return false;
    this.endAt(meant);
    return true;
  }

  /** A point that was dragged stays where it is; one that was tapped ends the curve if it is the first or the last. */
  private letGo({ index, moved }: Holding): boolean {
    this.held = null;
    const last = this.set.length - 1;
    if (moved || this.set.length < 2 || (index !== 0 && index !== last)) {
      this.endAt(this.set[last]!);
      return false;
    }
    this.endAt(this.set[index]!);
    return true;
  }
}
