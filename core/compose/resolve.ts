/** Finishes as they are on one frame: numbers in place of values over time, and what moves with the frame. */
import { FINISHES, valueAt, type Finish, type FinishKind, type Id } from '../document/index.ts';

/** A finish on a frame. Numbers are in the units of its fields; those switched off or without effect are left out. */
export interface Resolved {
  readonly kind: FinishKind;
  readonly numbers: Readonly<Record<string, number>>;
  readonly choices: Readonly<Record<string, string>>;
  readonly swatch: Id | null;
  readonly seed: number;
  /** Of waver and drifting texture the share of the turn, 0 to 1; of boiling texture which it is. */
  readonly at: number;
}

/** Frames noise takes to come round where time ends. */
const ONCE = 48;

/** Whether a finish does anything with these numbers. */
function acts(kind: FinishKind, numbers: Readonly<Record<string, number>>): boolean {
  switch (kind) {
    case 'glow':
    case 'tint':
    case 'texture':
    case 'inner glow':
      return numbers['strength']! > 0;
    case 'blur':
    case 'feather':
      return numbers['radius']! > 0;
    case 'waver':
      return numbers['amount']! > 0;
    case 'fade':
    case 'line colour':
      return true;
  }
}

function atOf(
  { kind, choices }: Finish,
  numbers: Readonly<Record<string, number>>,
  frame: number,
  turn: number | null,
) {
  if (kind === 'waver') return frame / (turn ?? ONCE);
  if (kind !== 'texture') return 0;
  if (choices['moves'] === 'drifts') return frame / (turn ?? ONCE);
  return choices['moves'] === 'boils' ? Math.floor(frame / Math.max(1, Math.round(numbers['every']!))) : 0;
}

/**
 * The finishes that act on a frame, in order.
 * @param turn frames of a cycle, or null where time ends.
 */
export function resolved(finishes: readonly Finish[], frame: number, turn: number | null): Resolved[] {
  return finishes.flatMap((finish): Resolved[] => {
    const { kind, on, choices, swatch, seed } = finish;
    if (!on) return [];
    const numbers = Object.fromEntries(
      FINISHES[kind].fields.map(({ key, usual }) => {
        const value = finish.numbers[key];
        return [key, value ? valueAt(value, frame, turn) : usual];
      }),
    );
    return acts(kind, numbers)
      ? [{ kind, numbers, choices, swatch, seed, at: atOf(finish, numbers, frame, turn) }]
      : [];
  });
}
