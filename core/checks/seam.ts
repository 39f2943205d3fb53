/**
 * The seam of a cycle against its other steps, in px and area, and where a cycle would best be cut. Told from what
 * drawings cover on a coarse grid, as the steps on the wheel are.
 */
import { DRAWN, usualAtSeam, wayBetween, type Cover } from './steps.ts';

/** A step between two drawings. */
interface SeamStep {
  /** Mean way from what the one covers to what the other covers, px. */
  readonly distance: number;
  /** By how much of the larger one's area the two differ, 0 to 1. */
  readonly area: number;
}

const areaOf = ({ mask }: Cover): number => mask.reduce((sum, cell) => sum + Number(cell >= DRAWN), 0);

function stepBetween(a: Cover, b: Cover, cell: number): SeamStep {
  const [s, t] = [areaOf(a), areaOf(b)];
  return { distance: wayBetween(a, b) * cell, area: Math.max(s, t) > 0 ? Math.abs(s - t) / Math.max(s, t) : 0 };
}

/** The seam against the other steps. */
export interface SeamReport {
  /** From each drawing to the next, the last one leading to the first. */
  readonly steps: readonly SeamStep[];
  readonly seam: SeamStep;
  /** Means of the others. */
  readonly usual: SeamStep;
  /** The seam's distance against the usual one, or null where nothing else moves. */
  readonly ratio: number | null;
}

/** @param all what the drawings of a cycle cover, in order; two at least. @param cell px across a cell. */
export function seamReport(all: readonly Cover[], cell: number): SeamReport {
  const steps = all.map((cover, i) => stepBetween(cover, all[(i + 1) % all.length]!, cell));
  const beside = (of: keyof SeamStep) => usualAtSeam(steps.map((step) => step[of]));
  const usual = { distance: beside('distance'), area: beside('area') };
  const seam = steps.at(-1)!;
  return { steps, seam, usual, ratio: usual.distance > 0 ? seam.distance / usual.distance : null };
}

/** A stretch of drawings that would close into a cycle. */
export interface Join {
  /** Index of the first drawing kept, and of the last; the last leads to the first. */
  readonly first: number;
  readonly last: number;
  readonly step: SeamStep;
  /** 0 is a step like all others; the larger, the more it would be seen. */
  readonly jump: number;
}

/** What a change of area counts beside distance. */
const AREA = 2;

/**
 * Where a growing or fading cycle is best cut: the pairs of drawings whose step is nearest to the usual
 * one, the best first. @param min drawings a cycle must keep. @param range indices of the first and the
 * last drawing that may be kept.
 */
export function bestJoins(
  all: readonly Cover[],
  cell: number,
  min: number,
  count: number,
  range: readonly [number, number] = [0, all.length - 1],
): Join[] {
  const ways = all.slice(1).map((cover, i) => wayBetween(all[i]!, cover) * cell);
  // The median: a jump that is to be cut away must not count as usual.
  const usual = ways.sort((a, b) => a - b)[ways.length >> 1] ?? 0;
  const joins: Join[] = [];
  for (let first = range[0]; first <= range[1]; first++)
    for (let last = first + min - 1; last <= range[1]; last++) {
      const step = stepBetween(all[last]!, all[first]!, cell);
      const off = Math.abs(step.distance - usual) / Math.max(1, usual);
      joins.push({ first, last, step, jump: off + AREA * step.area });
    }
  return joins.sort((a, b) => a.jump - b.jump || b.last - b.first - (a.last - a.first)).slice(0, count);
}
