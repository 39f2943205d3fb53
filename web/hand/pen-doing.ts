/** What the pen does from landing to lifting, whatever is active. */
import type { Point } from '@tallow/core/geometry';

/** One place of the pen, CSS px of the canvas. */
export interface PenSample extends Point {
  /** 0 to 1. */
  readonly pressure: number;
  /** Radians. */
  readonly altitude: number;
  readonly azimuth: number;
  readonly shift: boolean;
  readonly alt: boolean;
}

/** One doing of the pen. Ends by `up` or by `drop`; a form of several taps goes on after `up`. */
export interface PenDoing {
  move(samples: readonly PenSample[]): void;
  /** The pen lifts. Returns whether it is over. */
  up(): boolean;
  /** Backs out: nothing of it stays. */
  drop(): void;
  /** The pen lands again, of what went on. */
  down?(sample: PenSample): void;
  /** Ends what goes on, as it is. */
  end?(): void;
}
