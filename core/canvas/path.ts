/** Paths that are filled once. */
import type { Context2D } from './surface.ts';

/**
 * Fills the path there is, and lets go of it. Chromium carries a path that stays through every `setTransform` that follows: after
 * 20,000 flecks, 500 of them took 40 ms in place of 3.
 */
export function fillPath(context: Context2D, rule: 'nonzero' | 'evenodd' = 'nonzero'): void {
  context.fill(rule);
  context.beginPath();
}
