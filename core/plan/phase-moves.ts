/** Phases when an element's time changes: they keep to their drawings. */
import { derivedId, type Phase } from '../document/index.ts';
import type { Follower } from '../timing/index.ts';
import { timedPhases } from './phases.ts';

/** How a stretch of no phase is called once phases lie on both sides of it. */
const BETWEEN = { name: 'Rest', hold: 2 } as const;

/**
 * Phases whose first frames go with what is drawn there, and whose last one ends where its last drawing does. Each keeps
 * a frame at least; what lies beyond what is drawn stays.
 * @param drawn frames that something is drawn on, from the first.
 */
export function followingPhases(phases: readonly Phase[], { at }: Follower, drawn: number): readonly Phase[] {
  let from = 0;
  const timed = timedPhases(phases);
  const moved = timed.map(({ from: start, length }, i): number => {
    const end = start + length;
    const isLast = i === timed.length - 1;
    const next = isLast && end <= drawn ? at(end - 1) + 1 : end < drawn || !isLast ? at(end) : end;
    const kept = Math.max(1, next - from);
    from += kept;
    return kept;
  });
  return moved.every((length, i) => length === phases[i]!.length)
    ? phases
    : phases.map((phase, i) => ({ ...phase, length: moved[i]! }));
}

/**
 * Phases of a turn whose frames are given anew.
 * @param turn frames before. @param from the frame before of each frame after, in order.
 */
export function rearrangedPhases(phases: readonly Phase[], turn: number, from: readonly number[]): readonly Phase[] {
  if (phases.length === 0) return phases;
  const of: (Phase | null)[] = [];
  for (const phase of phases) for (let i = 0; i < phase.length; i++) of.push(phase);
  // Phases planned beyond the turn stay behind it.
  const beyond = of.slice(turn);
  const labels = [...from.map((frame) => of[frame] ?? null), ...beyond];
  while (labels.length > 0 && labels.at(-1) === null) labels.pop();
  const made: Phase[] = [];
  const times = new Map<string, number>();
  let last: Phase | null | undefined;
  for (const label of labels) {
    if (label === last && made.length > 0) {
      made[made.length - 1] = { ...made.at(-1)!, length: made.at(-1)!.length + 1 };
      continue;
    }
    last = label;
    const source = label ?? { id: phases[0]!.id, ...BETWEEN };
    const key = label ? label.id : 'rest';
    const time = times.get(key) ?? 0;
    times.set(key, time + 1);
    const id = label && time === 0 ? label.id : derivedId(source.id, `${key} ${time}`);
    made.push({ id, name: source.name, hold: source.hold, length: 1 });
  }
  return made;
}
