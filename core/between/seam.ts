/** Steps from drawing to drawing told in px and area, the seam's against the others, and where a cycle would best be cut. */
import type { Drawing } from '../document/index.ts';
import { matchMarks } from './match.ts';
import { bodyOf } from './outline.ts';

type Marks = Pick<Drawing, 'marks' | 'order'>;

/** A step between two drawings. */
export interface MarkStep {
  /** Mean way of the pieces, the larger ones counting more, px. */
  readonly distance: number;
  /** By how much of the larger one's area (of strokes: length) the two differ, 0 to 1. */
  readonly area: number;
}

const sizeOf = ({ marks, order }: Marks): number =>
  order.reduce((sum, id) => {
    const { area, length } = bodyOf(marks[id]!);
    return sum + (marks[id]!.kind === 'rub' ? 0 : area > 0 ? area : length * 4);
  }, 0);

/** How far it goes from one drawing to the next. Pieces that come or go count with the way across themselves. */
export function stepOf(a: Marks, b: Marks): MarkStep {
  let [way, weight] = [0, 0];
  for (const { from, to } of matchMarks(a, b, { ties: [] })) {
    const [p, q] = [a.marks[from[0] ?? ''], b.marks[to[0] ?? '']];
    const some = p ?? q;
    if (!some || some.kind === 'rub') continue;
    const one = bodyOf(some);
    const [m, n] =
      p && q ? [bodyOf(p).middle, bodyOf(q).middle] : [one.middle, { x: one.middle.x + one.reach, y: one.middle.y }];
    way += one.reach * Math.sqrt((m.x - n.x) ** 2 + (m.y - n.y) ** 2);
    weight += one.reach;
  }
  const [s, t] = [sizeOf(a), sizeOf(b)];
  return { distance: weight > 0 ? way / weight : 0, area: Math.max(s, t) > 0 ? Math.abs(s - t) / Math.max(s, t) : 0 };
}

/** The seam of a cycle against its other steps. */
export interface SeamReport {
  /** From each drawing to the next, the last one leading to the first. */
  readonly steps: readonly MarkStep[];
  readonly seam: MarkStep;
  /** Means of the others. */
  readonly usual: MarkStep;
  /** The seam's distance against the usual one, or null where nothing else moves. */
  readonly ratio: number | null;
}

/** @param drawings of a cycle in order, two at least. */
export function seamReport(drawings: readonly Marks[]): SeamReport {
  const steps = drawings.map((drawing, i) => stepOf(drawing, drawings[(i + 1) % drawings.length]!));
  const others = steps.slice(0, -1);
  const mean = (of: keyof MarkStep) => others.reduce((sum, step) => sum + step[of], 0) / Math.max(1, others.length);
  const usual = { distance: mean('distance'), area: mean('area') };
  const seam = steps.at(-1)!;
  return { steps, seam, usual, ratio: usual.distance > 0 ? seam.distance / usual.distance : null };
}

/** A stretch of drawings that would close into a cycle. */
export interface Join {
  /** Index of the first drawing kept, and of the last; the last leads to the first. */
  readonly first: number;
  readonly last: number;
  readonly step: MarkStep;
  /** 0 is a step like all others; the larger, the more it would be seen. */
  readonly jump: number;
}

/** What a change of area counts beside distance. */
const AREA = 2;

/**
 * Where a growing or fading cycle is best cut: the pairs of drawings whose step is nearest to the usual
 * one, the best first. @param least drawings a cycle must keep. @param range indices of the first and the
 * last drawing that may be kept.
 */
export function bestJoins(
  drawings: readonly Marks[],
  least: number,
  count: number,
  range: readonly [number, number] = [0, drawings.length - 1],
): Join[] {
  const ways = drawings.slice(1).map((drawing, i) => stepOf(drawings[i]!, drawing).distance);
  // The median: a jump that is to be cut away must not count as usual.
  const usual = ways.sort((a, b) => a - b)[ways.length >> 1] ?? 0;
  const joins: Join[] = [];
  for (let first = range[0]; first <= range[1]; first++)
    for (let last = first + least - 1; last <= range[1]; last++) {
      const step = stepOf(drawings[last]!, drawings[first]!);
      const off = Math.abs(step.distance - usual) / Math.max(1, usual);
      joins.push({ first, last, step, jump: off + AREA * step.area });
    }
  return joins.sort((a, b) => a.jump - b.jump || b.last - b.first - (a.last - a.first)).slice(0, count);
}
