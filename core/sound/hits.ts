/**
 * Hits of a recording: where something begins to sound. They are found by spectral flux, how much louder the parts of the
 * sound have become from one moment to the next, as in J. P. Bello et al., "A Tutorial on Onset Detection in Music
 * Signals" (2005) and S. Dixon, "Onset Detection Revisited" (2006).
 */
import FFT from 'fft.js';

/** Samples looked at together, and from one moment to the next. */
const WINDOW = 1024;
const HOP = 256;
/** What is fainter than this in a spectrum counts for nothing: louder parts are compared with silence, not with hiss. */
const FLOOR = 0.00125;
/** Seconds before and after a moment against which it is judged, and within which it must be the strongest. */
const BEFORE_S = 0.25;
const AFTER_S = 0.1;
const APART_S = 0.06;

/** A place where something begins to sound. */
export interface Hit {
  /** s from the beginning of the recording. */
  readonly at: number;
  /** How strong it is against the strongest, above 0 to 1. */
  readonly strength: number;
}

/** Finds hits in a recording that comes in pieces. */
export class HitFinder {
  private readonly fft = new FFT(WINDOW);
  private readonly shape = Float64Array.from(
    { length: WINDOW },
    (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / WINDOW),
  );
  private readonly held = new Float64Array(WINDOW);
  private readonly windowed = new Array<number>(WINDOW).fill(0);
  private readonly spectrum = this.fft.createComplexArray();
  private last = new Float64Array(WINDOW / 2);
  private now = new Float64Array(WINDOW / 2);
  /** Samples of the next hop that have come. */
  private waiting = 0;
  private readonly flux: number[] = [];

  /** @param rate samples a second. */
  constructor(private readonly rate: number) {}

  /** Takes the samples that come next, -1 to 1. */
  take(samples: Float32Array): void {
    for (const value of samples) this.push(value);
  }

  private push(value: number): void {
    this.held[WINDOW - HOP + this.waiting] = value;
    this.waiting += 1;
    if (this.waiting < HOP) return;
    this.flux.push(this.step());
    this.held.copyWithin(0, HOP);
    this.waiting = 0;
  }

  /** How much louder the parts of the sound are than a moment before. */
  private step(): number {
    for (let i = 0; i < WINDOW; i++) this.windowed[i] = this.held[i]! * this.shape[i]!;
    this.fft.realTransform(this.spectrum, this.windowed);
    let sum = 0;
    for (let i = 1; i < WINDOW / 2; i++) {
      const [re, im] = [this.spectrum[2 * i]!, this.spectrum[2 * i + 1]!];
      const power = Math.log1p(Math.sqrt(re * re + im * im) / WINDOW / FLOOR);
      this.now[i] = power;
      if (power > this.last[i]!) sum += power - this.last[i]!;
    }
    [this.last, this.now] = [this.now, this.last];
    return sum;
  }

  /** The hits, the first of them first. @param faint how faint one is still found, 0 to 1. */
  hits(faint: number): Hit[] {
    return strongest(this.found(), faint);
  }

  /** All that could be a hit, however faint. */
  found(): Hit[] {
    const { flux, rate } = this;
    const moments = (seconds: number) => Math.max(1, Math.round((seconds * rate) / HOP));
    const [before, after, apart] = [moments(BEFORE_S), moments(AFTER_S), moments(APART_S)];
    const over = flux.map((value, i) => {
      const [first, end] = [Math.max(0, i - before), Math.min(flux.length, i + after + 1)];
      let sum = 0;
      for (let k = first; k < end; k++) sum += flux[k]!;
      return value - (1.5 * sum) / (end - first);
    });
    const all: Hit[] = [];
    over.forEach((value, i) => {
      if (value <= 0) return;
      for (let k = Math.max(0, i - apart); k <= Math.min(over.length - 1, i + apart); k++)
        if (over[k]! > value || (over[k] === value && k < i)) return;
      // The window's middle has reached what begins: that is two hops before the last sample of it.
      all.push({ at: Math.max(0, ((i + 1) * HOP - WINDOW / 2) / rate), strength: value });
    });
    const max = Math.max(...all.map(({ strength }) => strength), 0);
    return all.map(({ at, strength }) => ({ at, strength: strength / max }));
  }
}

/** Those of some hits that are strong enough. @param faint how faint one is still found: 0 finds none, 1 all. */
export const strongest = (hits: readonly Hit[], faint: number): Hit[] =>
  hits.filter(({ strength }) => strength > 1 - faint);
