/** Sounds that Tallow makes itself, by code: what one of them says of itself. */

/** Samples a second of every sound that is made. */
export const MADE_RATE = 48_000;

export interface MadeSound {
  /** As it stands in the interface. */
  readonly name: string;
  /** How long it is at first, s. */
  readonly seconds: number;
  /** Whether its end leads into its beginning, so that it can follow itself without a seam. */
  readonly closes: boolean;
  /** Where it hits, s from its beginning. */
  readonly hits: readonly number[];
  /** Its samples at `MADE_RATE`, -1 to 1; the same for the same seed. */
  readonly make: (seed: number) => Float32Array<ArrayBuffer>;
}
