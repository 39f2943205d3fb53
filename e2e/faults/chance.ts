/** Chance from a seed, so that a run can be told by its number. */
import { seededRandom } from '../../core/geometry/index.ts';

export class Chance {
  private readonly next: () => number;
  constructor(seed: number) {
    this.next = seededRandom(seed);
  }
  /** A whole number from 0 up to `below`. */
  below(below: number): number {
    return Math.floor(this.next() * below);
  }
  between(from: number, to: number): number {
    return from + this.next() * (to - from);
  }
  /** One of some, by their weights. */
  pick<T>(weighted: readonly (readonly [T, number])[]): T {
    let left = this.next() * weighted.reduce((sum, [, weight]) => sum + weight, 0);
    for (const [each, weight] of weighted) {
      left -= weight;
      if (left < 0) return each;
    }
    return weighted.at(-1)![0];
  }
}

export const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** What a promise gives, unless it takes too long: a killed browser may never answer. @throws when it does. */
export async function within<T>(ms: number, work: Promise<T>): Promise<T> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, failed) => {
    timer = setTimeout(() => {
      failed(new Error(`not done within ${ms} ms`));
    }, ms);
  });
  work.catch(() => undefined);
  try {
    return await Promise.race([work, late]);
  } finally {
    clearTimeout(timer);
  }
}
