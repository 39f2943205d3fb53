/** What playing goes by: the clock of the machine, or that of the sound while any is heard. */
import type { ShotDocument } from '@tallow/core/document';

/** What is played: frames of the shot in their order. */
export interface Played {
  readonly doc: ShotDocument;
  readonly frames: readonly number[];
  /** The place in the order where it began. */
  readonly from: number;
  /** Frames a second of the shot, and how much faster or slower it plays. */
  readonly rate: number;
  readonly speed: number;
  readonly loops: boolean;
}

export interface PlayClock {
  /** Comes when it can begin at once. */
  readonly ready: (played: Played) => Promise<void>;
  /** Begins. @param time a moment of the page's clock, ms. */
  readonly begin: (played: Played, time: number) => void;
  /** ms of playing until a moment of the screen, 0 before it has begun; follows what is played now. */
  readonly elapsed: (played: Played, time: number) => number;
  readonly end: () => void;
}

/** The clock of the machine alone. */
export class WallClock implements PlayClock {
  private began = 0;

  ready(): Promise<void> {
    return Promise.resolve();
  }

  begin(_: Played, time: number): void {
    this.began = time;
  }

  elapsed(_: Played, time: number): number {
    return time - this.began;
  }

  end(): void {
    this.began = 0;
  }
}
