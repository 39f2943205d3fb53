/** Looks as they are on one frame: numbers in place of values over time, and what moves with the frame. */
import { valueAt, type AppliedLook, type LookKind } from '../document/index.ts';
import { LOOKS, type LookNow } from '../looks/index.ts';

/** A look on a frame; those switched off or without effect are left out. */
export interface Resolved extends LookNow {
  readonly kind: LookKind;
}

/** Whether it moves outlines, which is done before anything is drawn. */
export const movesOutlines = ({ kind }: Resolved): boolean => LOOKS[kind].moves !== undefined;
/** Whether what was drawn covers the same with it as before. */
export const keepsShape = ({ kind }: Resolved): boolean => LOOKS[kind].keepsShape === true;
/** Whether it takes what lies under it into account. */
export const takesBelow = ({ kind }: Resolved): boolean => LOOKS[kind].takesBelow === true;

/**
 * The looks that act on a frame, in order.
 * @param turn frames of a cycle, or null where time ends.
 */
export function resolved(finishes: readonly AppliedLook[], frame: number, turn: number | null): Resolved[] {
  return finishes.flatMap((applied): Resolved[] => {
    const { kind, on, choices, swatch, seed } = applied;
    if (!on) return [];
    const look = LOOKS[kind];
    const numbers = Object.fromEntries(
      look.fields.map(({ key, default: preset }) => {
        const value = applied.numbers[key];
        return [key, value ? valueAt(value, frame, turn) : preset];
      }),
    );
    return look.acts(numbers)
      ? [{ kind, numbers, choices, swatch, seed, at: look.at?.(choices, numbers, frame, turn) ?? 0 }]
      : [];
  });
}
