/** The form of a recording as pairs of its lowest and highest values, in several finenesses, so that any width is drawn at once. */

/** Samples that one pair of the finest level stands for, and how many pairs of a level make one of the next. */
export const FINEST = 256;
const COARSER = 4;

/** Lowest and highest values by turns, -1 to 1. */
export interface PeakLevel {
  /** Samples of the recording that a pair stands for. */
  readonly each: number;
  readonly pairs: Float32Array;
}

/** Gathers peaks from a recording that comes in pieces. */
export class Peaks {
  private readonly pairs: Float32Array;
  private count = 0;

  /** @param length samples of the whole recording. */
  constructor(private readonly length: number) {
    this.pairs = new Float32Array(2 * Math.ceil(length / FINEST));
  }

  /** Takes the samples that come next, -1 to 1. @throws RangeError where there are more than was said. */
  take(samples: Float32Array): void {
    if (this.count + samples.length > this.length)
      throw new RangeError('There are more samples than the recording has.');
    for (let i = 0; i < samples.length; i++, this.count++) {
      const at = 2 * Math.floor(this.count / FINEST);
      const value = samples[i]!;
      const isFirst = this.count % FINEST === 0;
      if (isFirst || value < this.pairs[at]!) this.pairs[at] = value;
      if (isFirst || value > this.pairs[at + 1]!) this.pairs[at + 1] = value;
    }
  }

  /** The levels, the finest first, until one has few pairs. */
  levels(): PeakLevel[] {
    const all: PeakLevel[] = [{ each: FINEST, pairs: this.pairs }];
    for (let last = all[0]!; last.pairs.length > 512; last = all.at(-1)!)
      all.push({ each: last.each * COARSER, pairs: coarser(last.pairs) });
    return all;
  }
}

function coarser(pairs: Float32Array): Float32Array {
  const count = Math.ceil(pairs.length / 2 / COARSER);
  const next = new Float32Array(2 * count);
  for (let i = 0; i < count; i++) {
    let [low, high] = [Infinity, -Infinity];
    for (let k = i * COARSER; k < Math.min((i + 1) * COARSER, pairs.length / 2); k++) {
      low = Math.min(low, pairs[2 * k]!);
      high = Math.max(high, pairs[2 * k + 1]!);
    }
    next[2 * i] = low;
    next[2 * i + 1] = high;
  }
  return next;
}

/** The lowest and highest value between two samples of a recording, from the level that is just fine enough; 0 where there are none. */
export function peakBetween(levels: readonly PeakLevel[], from: number, to: number): readonly [number, number] {
  const [finest] = levels;
  if (!finest || from >= (finest.pairs.length / 2) * finest.each) return [0, 0];
  const level = levels.findLast(({ each }) => each <= Math.max(FINEST, to - from)) ?? finest;
  const first = Math.max(0, Math.floor(from / level.each));
  const end = Math.min(level.pairs.length / 2, Math.max(first + 1, Math.ceil(to / level.each)));
  let [low, high] = [0, 0];
  for (let i = first; i < end; i++) {
    low = Math.min(low, level.pairs[2 * i]!);
    high = Math.max(high, level.pairs[2 * i + 1]!);
  }
  return [low, high];
}
