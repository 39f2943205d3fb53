import { modulo } from '../geometry/index.ts';
/** Playing against the clock: which frame is due, and the rate really reached. */

/** The frame due after a time of playing, wrapping round a loop. */
export function dueFrame(elapsedMilliseconds: number, rate: number, from: number, length: number): number {
  const passed = Math.floor((elapsedMilliseconds * rate) / 1000 + 1e-6);
  return (from + Math.max(0, passed)) % length;
}

/** The place in a stretch that is played to and fro: its ends show once at each turn. @param length at least 1. */
export function bounced(place: number, length: number): number {
  if (length < 2) return 0;
  const way = 2 * (length - 1);
  const at = modulo(place, way);
  return at < length ? at : way - at;
}

/** Times at which new frames were shown, kept for one second, as a rate. */
export class RateMeter {
  private shown: number[] = [];

  /** Notes that a new frame appeared, so many frames after the one before. */
  note(timeMilliseconds: number): void {
    this.shown.push(timeMilliseconds);
    while (this.shown.length > 2 && timeMilliseconds - this.shown[0]! > 1500) this.shown.shift();
  }

  /** Frames per second over the last second and a half, or null before two frames have been shown. */
  rate(): number | null {
    const first = this.shown[0];
    const last = this.shown.at(-1);
    if (first === undefined || last === undefined || last <= first) return null;
    return ((this.shown.length - 1) * 1000) / (last - first);
  }
}

/** A length in frames as seconds, to two places at most: `0.33 s`. */
export function secondsText(frames: number, rate: number): string {
  return `${Number((frames / rate).toFixed(2))} s`;
}

/**
 * A length as it is typed: frames, or seconds with an s behind them, `0.3s`, to the nearest frame.
 * @returns frames, or null for what is no length.
 */
export function framesTyped(text: string, rate: number): number | null {
  const typed = /^(\d+(?:[.,]\d+)?|[.,]\d+)\s*(s|sec)?$/i.exec(text.trim());
  if (!typed) return null;
  const number = Number(typed[1]!.replace(',', '.'));
  if (typed[2]) return Math.max(1, Math.round(number * rate));
  return Number.isInteger(number) ? number : null;
}
