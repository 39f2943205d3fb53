/**
 * Changes of a stretch of time: runs in, runs out. None of them makes or loses a drawing; what a run
 * shows is its slot. Runs that are new get fresh ids.
 */
import type { Id, Run, RunList } from '../document/index.ts';
import { exposures, totalLength } from './runs.ts';

type NewRunId = () => Id;

/** Frames of runs together. */
export const lengthOf = (runs: readonly Run[]): number => runs.reduce((sum, run) => sum + run.length, 0);

/** Runs in the order in which they show backwards. */
export const reversedRuns = (runs: readonly Run[]): Run[] => [...runs].reverse();

/** Neighbours that show the same thing become one run, held for both. */
export function joinedEqual(runs: readonly Run[]): Run[] {
  const joined: Run[] = [];
  for (const run of runs) {
    const last = joined.at(-1);
    if (last?.slot === run.slot) joined[joined.length - 1] = { ...last, length: last.length + run.length };
    else joined.push(run);
  }
  return joined;
}

/** Drawn runs held for the numbers of a list, over and over; empty runs keep their length. @param holds frames, each at least 1. */
export function heldAlong(runs: readonly Run[], holds: readonly number[]): Run[] {
  let at = 0;
  return runs.map((run) => {
    if (run.slot === null) return run;
    const length = Math.max(1, Math.round(holds[at % holds.length] ?? 1));
    at += 1;
    return { ...run, length };
  });
}

/**
 * Every nth drawn run goes and the one before it is held on, so that the length stays.
 * @param every 2 or more: 2 takes out the second, the fourth and so on.
 */
export function thinned(runs: readonly Run[], every: number): Run[] {
  const kept: Run[] = [];
  let drawn = 0;
  for (const run of runs) {
    if (run.slot !== null) drawn += 1;
    const last = kept.at(-1);
    if (run.slot !== null && drawn % every === 0 && last)
      kept[kept.length - 1] = { ...last, length: last.length + run.length };
    else kept.push(run);
  }
  return kept;
}

/** Runs of a length together, in the shares they have now, each at least 1 frame. */
export function stretchedTo(runs: readonly Run[], length: number): Run[] {
  const old = lengthOf(runs);
  const whole = Math.max(runs.length, Math.round(length));
  let [passed, given] = [0, 0];
  return runs.map((run, i) => {
    passed += run.length;
    const left = runs.length - i - 1;
    const end = Math.min(whole - left, Math.max(given + 1, Math.round((passed * whole) / old)));
    const held = { ...run, length: end - given };
    given = end;
    return held;
  });
}

/** Runs so many times one after another; each time shows the same drawings again. */
export const repeatedRuns = (runs: readonly Run[], times: number, newId: NewRunId): Run[] =>
  Array.from({ length: Math.max(1, times) }, (_, turn) =>
    runs.map((run) => (turn === 0 ? run : { ...run, id: newId() })),
  ).flat();

/** One empty run in place of some. */
export const emptied = (runs: readonly Run[], newId: NewRunId): Run[] =>
  runs.length > 0 ? [{ id: newId(), slot: null, length: lengthOf(runs) }] : [];

/** Runs on the same drawings, each for so many frames more (or less, below 0), at least 1. */
export const heldLonger = (runs: readonly Run[], by: number): Run[] =>
  runs.map((run) => ({ ...run, length: Math.max(1, run.length + by) }));

/** The list cut at a frame of its own time, so that a run begins there. Past the end an empty run leads up to it. */
export function cutAt(list: RunList, local: number, newId: NewRunId): RunList {
  const total = totalLength(list);
  if (local > total) return { ...list, runs: [...list.runs, { id: newId(), slot: null, length: local - total }] };
  const at = exposures(list).find((e) => local > e.start && local < e.start + e.run.length);
  if (!at) return list;
  const kept = local - at.start;
  const parts = [
    { ...at.run, length: kept },
    { ...at.run, id: newId(), length: at.run.length - kept },
  ];
  return { ...list, runs: list.runs.toSpliced(at.index, 1, ...parts) };
}

/** A stretch of a list's own time, frames. */
interface Span {
  readonly from: number;
  readonly length: number;
}

/** Indices of the runs of a list that lie wholly within a span that begins and ends with runs. */
export function runsWithin(list: RunList, { from, length }: Span): { first: number; count: number } {
  const inside = exposures(list).filter((e) => e.start >= from && e.start < from + length);
  return { first: inside[0]?.index ?? list.runs.length, count: inside.length };
}

/**
 * Changes what lies in a span; runs that reach into it are cut at its ends first. What follows moves.
 * A list that repeats by itself, and filled its repeat, goes on filling it.
 */
export function changeSpan(
  list: RunList,
  span: Span,
  change: (runs: readonly Run[]) => readonly Run[],
  newId: NewRunId,
): RunList {
  const opened = cutAt(list, span.from, newId);
  const cut = cutAt(opened, span.from + span.length, newId);
  const { first, count } = runsWithin(cut, span);
  const made = change(cut.runs.slice(first, first + count));
  const before = cut.runs.slice(0, first);
  const after = cut.runs.slice(first + count);
  // Where a run was cut only to change one side of it, and both sides still show the same, it is whole again.
  const healed = (left: readonly Run[], right: readonly Run[], wasCut: boolean): Run[] => {
    const [end, start] = [left.at(-1), right[0]];
    if (!wasCut || !end || !start || end.slot !== start.slot) return [...left, ...right];
    return [...left.slice(0, -1), { ...end, length: end.length + start.length }, ...right.slice(1)];
  };
  const runs = healed(healed(before, made, opened !== list), after, cut !== opened);
  return refilled(list, { ...cut, runs });
}

/** A list after a change, its own repeat as long as its runs where they filled it before. */
export function refilled(before: RunList, after: RunList): RunList {
  const full = before.period !== null && before.period > 1 && before.period === totalLength(before);
  const total = totalLength(after);
  return full && total > 0 ? { ...after, period: total } : after;
}
