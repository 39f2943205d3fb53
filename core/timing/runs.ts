/**
 * Run lists: which slot shows on which frame. Runs follow each other without overlap; what lies
 * past the last run is empty. All functions are pure; indices count runs from 0.
 */
import { modulo } from '../geometry/index.ts';
import type { Id, Run, RunList } from '../document/index.ts';

/** A run with its place on the list's own time. */
export interface Exposure {
  readonly index: number;
  readonly run: Run;
  /** Frame of the list's own time on which the run begins. */
  readonly start: number;
}

/** Run lists never change, so their exposures are worked out once. */
const known = new WeakMap<RunList, readonly Exposure[]>();

/** All runs with their starts. */
export function exposures(list: RunList): readonly Exposure[] {
  const kept = known.get(list);
  if (kept) return kept;
  let start = 0;
  const made = list.runs.map((run, index) => {
    const exposure = { index, run, start };
    start += run.length;
    return exposure;
  });
  known.set(list, made);
  return made;
}

/** Frames from the first run to the end of the last. */
export function totalLength(list: RunList): number {
  const last = exposures(list).at(-1);
  return last ? last.start + last.run.length : 0;
}

/**
 * The list's own frame at a frame of its element.
 * @param turn the element's length in frames; a list without a period of its own wraps round it.
 */
export function listFrame(list: RunList, frame: number, turn: number): number {
  if (list.period !== null) return modulo(frame - list.offset, list.period);
  return list.offset === 0 ? frame : modulo(frame - list.offset, turn);
}

/** The exposure at a frame of the element, or null past the last run. */
export function exposureAt(list: RunList, frame: number, turn: number): Exposure | null {
  const local = listFrame(list, frame, turn);
  const all = exposures(list);
  let [low, high] = [0, all.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (all[middle]!.start <= local) low = middle + 1;
    else high = middle;
  }
  const found = all[low - 1];
  return found && local < found.start + found.run.length ? found : null;
}

/** The element frame on which a run first shows. */
export function runStart(list: RunList, index: number, turn: number): number {
  const start = exposures(list)[index]?.start ?? totalLength(list);
  return list.offset === 0 ? start : modulo(start + list.offset, list.period ?? turn);
}

const withRuns = (list: RunList, runs: readonly Run[]): RunList => ({ ...list, runs });

/** Puts a run before the one at `index`; later ones move. */
export function insertRun(list: RunList, index: number, run: Run): RunList {
  return withRuns(list, list.runs.toSpliced(index, 0, run));
}

/** Takes a run out; later ones close up. */
export function removeRun(list: RunList, index: number): RunList {
  return withRuns(list, list.runs.toSpliced(index, 1));
}

/** Holds the run at `index` for that many frames, at least 1; later ones move. */
export function setHold(list: RunList, index: number, length: number): RunList {
  const held = Math.max(1, Math.round(length));
  return withRuns(
    list,
    list.runs.map((run, i) => (i === index ? { ...run, length: held } : run)),
  );
}

/** Puts every drawing of the list, or those of some runs, on the same hold; empty runs keep their length. */
export function retime(list: RunList, hold: number, only?: readonly number[]): RunList {
  return withRuns(
    list,
    list.runs.map((run, i) => (run.slot === null || (only && !only.includes(i)) ? run : { ...run, length: hold })),
  );
}

/** Ends the run at `index` after `kept` frames and puts another in for the rest. */
export function splitRun(list: RunList, index: number, kept: number, rest: Run): RunList {
  return insertRun(setHold(list, index, kept), index + 1, rest);
}

/** Takes `count` runs from `first` on out and puts them back before the run that stood at `to`. */
export function moveRuns(list: RunList, first: number, count: number, to: number): RunList {
  if (to > first && to < first + count) return list;
  const moved = list.runs.slice(first, first + count);
  return withRuns(list, list.runs.toSpliced(first, count).toSpliced(to > first ? to - count : to, 0, ...moved));
}

/**
 * The same time told from another run on: runs are counted from `index`, and the offset makes up for it.
 * @param length frames of one turn of the list; its runs must fill them.
 */
export function toldFrom(list: RunList, index: number, length: number): RunList {
  const passed = exposures(list)[index]?.start ?? 0;
  const runs = [...list.runs.slice(index), ...list.runs.slice(0, index)];
  return { ...list, runs, offset: modulo(list.offset + passed, length) };
}

/**
 * Puts a slot where nothing shows at `local` (the list's own time). In an empty run it takes at
 * most `hold` frames and leaves the rest empty; past the end the time up to it becomes an empty run.
 * @throws if a drawing already shows there.
 */
export function fillGap(list: RunList, local: number, slot: Id, hold: number, newId: () => Id): RunList {
  const at = exposures(list).find((e) => local >= e.start && local < e.start + e.run.length);
  if (!at) {
    const gap = local - totalLength(list);
    const lead: Run[] = gap > 0 ? [{ id: newId(), slot: null, length: gap }] : [];
    return withRuns(list, [...list.runs, ...lead, { id: newId(), slot, length: hold }]);
  }
  if (at.run.slot !== null) throw new Error(`Run ${at.index} already shows a drawing on frame ${local}`);
  const before = local - at.start;
  const length = Math.min(hold, at.run.length - before);
  const after = at.run.length - before - length;
  const parts: Run[] = [];
  if (before > 0) parts.push({ ...at.run, length: before });
  parts.push({ id: newId(), slot, length });
  if (after > 0) parts.push({ id: before > 0 ? newId() : at.run.id, slot: null, length: after });
  return withRuns(list, list.runs.toSpliced(at.index, 1, ...parts));
}

/** How a layer's drawings are held, in the trade's words: `on 2s`, `still`, `once`, `mixed` or `empty`. */
export function describeHolds(list: RunList, turn: number): string {
  const drawn = list.runs.filter((run) => run.slot !== null);
  if (drawn.length === 0) return 'empty';
  if (list.period === 1) return 'still';
  if (list.period !== null) return `every ${list.period}`;
  const covered = drawn.reduce((sum, run) => sum + run.length, 0);
  if (covered < turn) return 'once';
  const hold = drawn[0]!.length;
  return drawn.every((run) => run.length === hold) ? `on ${hold}s` : 'mixed holds';
}
