/** Phases: named spans of an element's time, one after the other from its first frame. */
import type { Effect, NewId, Phase } from '../document/index.ts';

/** A phase with the frame it begins on. */
interface TimedPhase extends Phase {
  readonly from: number;
}

export function timedPhases(phases: readonly Phase[]): TimedPhase[] {
  let from = 0;
  return phases.map((phase) => {
    const timed = { ...phase, from };
    from += phase.length;
    return timed;
  });
}

/** The phase of a frame, or undefined beyond the last. */
export const phaseAt = (phases: readonly Phase[], frame: number): TimedPhase | undefined =>
  timedPhases(phases).find((p) => frame >= p.from && frame < p.from + p.length);

/**
 * The holds of drawings that fill a span of frames.
 * @param hold frames each, or null for the usual holds of the phases they lie in (2 where there is none).
 */
export function holdsFor(from: number, length: number, hold: number | null, phases: readonly Phase[]): number[] {
  const timed = timedPhases(phases);
  const holds: number[] = [];
  let frame = from;
  while (frame < from + length) {
    const phase = hold === null ? timed.find((p) => frame >= p.from && frame < p.from + p.length) : undefined;
    const end = Math.min(from + length, phase ? phase.from + phase.length : Infinity);
    const held = Math.min(hold ?? phase?.hold ?? 2, end - frame);
    holds.push(held);
    frame += held;
  }
  return holds;
}

/** Sets of phases by the kind of effect they suit, as shares of the whole and usual holds. */
export const PHASE_SETS: readonly {
  readonly name: string;
  readonly suits: readonly Effect[];
  readonly phases: readonly { readonly name: string; readonly share: number; readonly hold: number }[];
}[] = [
  {
    name: 'Explosion',
    suits: ['burst', 'ring'],
    phases: [
      { name: 'Squash', share: 0.08, hold: 1 },
      { name: 'Burst', share: 0.2, hold: 1 },
      { name: 'Billow', share: 0.36, hold: 2 },
      { name: 'Break-up', share: 0.36, hold: 3 },
    ],
  },
  {
    name: 'Stroke',
    suits: ['speed'],
    phases: [
      { name: 'Wind-up', share: 0.6, hold: 2 },
      { name: 'Stroke', share: 0.12, hold: 1 },
      { name: 'Settle', share: 0.28, hold: 2 },
    ],
  },
  {
    name: 'Throw',
    suits: ['liquid', 'sparks'],
    phases: [
      { name: 'Leave', share: 0.25, hold: 1 },
      { name: 'Fly', share: 0.45, hold: 1 },
      { name: 'Settle', share: 0.3, hold: 2 },
    ],
  },
  {
    name: 'Strike',
    suits: ['bolt'],
    phases: [
      { name: 'Charge', share: 0.3, hold: 2 },
      { name: 'Strike', share: 0.15, hold: 1 },
      { name: 'Glow', share: 0.2, hold: 2 },
      { name: 'Restrike', share: 0.35, hold: 1 },
    ],
  },
  {
    name: 'Puff',
    suits: ['smoke', 'fire'],
    phases: [
      { name: 'Rise', share: 0.3, hold: 2 },
      { name: 'Roll', share: 0.4, hold: 3 },
      { name: 'Thin out', share: 0.3, hold: 4 },
    ],
  },
];

/** A set of phases laid over a length, each at least one frame, together exactly that length if it has room. */
export function phasesFrom(set: (typeof PHASE_SETS)[number], length: number, newId: NewId): Phase[] {
  let [passed, given] = [0, 0];
  return set.phases.map(({ name, share, hold }, i) => {
    passed += share;
    const left = set.phases.length - i - 1;
    const end = left === 0 ? length : Math.round(passed * length);
    const frames = Math.max(1, Math.min(end, length - left) - given);
    given += frames;
    return { id: newId(), name, length: frames, hold };
  });
}
