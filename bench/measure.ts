/** Measuring by ratios: two things side by side in one run, medians of several rounds. */

export interface Row {
  readonly what: string;
  readonly against: string;
  readonly goal: number;
  readonly ratio: number;
  /** The two medians, in the unit of the row. */
  readonly measured: string;
}

export const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

/** Runs two works in turn and gives the medians of their times, ms. */
export async function sideBySide(
  rounds: number,
  work: () => unknown,
  against: () => unknown,
): Promise<[number, number]> {
  const times: [number[], number[]] = [[], []];
  for (let i = -1; i < rounds; i++) {
    for (const [k, run] of [work, against].entries()) {
      const began = performance.now();
      await run();
      // The first round only warms up.
      if (i >= 0) times[k]!.push(performance.now() - began);
    }
  }
  return [median(times[0]), median(times[1])];
}

export const timeRow = (what: string, against: string, goal: number, [a, b]: readonly [number, number]): Row => ({
  what,
  against,
  goal,
  ratio: a / b,
  measured: `${a.toPrecision(3)} ms, ${b.toPrecision(3)} ms`,
});

/** The median time of a piece of work, ms; a first round is not counted. */
export function timed(rounds: number, work: () => unknown): number {
  const times: number[] = [];
  for (let i = -1; i < rounds; i++) {
    const began = performance.now();
    work();
    if (i >= 0) times.push(performance.now() - began);
  }
  return median(times);
}

/** A time against a goal in ms. */
export const against = (what: string, ms: number, goal: number): Row => ({
  what,
  against: `${Math.round(goal)} ms`,
  goal: 1,
  ratio: ms / goal,
  measured: `${ms.toPrecision(3)} ms`,
});
