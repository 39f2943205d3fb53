/** Works out what brushes are drawn on while nobody does anything, so that no first stroke has to wait for it. */
import { prepareGround } from '@tallow/core/brush';

export function prepareBrushes(): void {
  requestIdleCallback(() => {
    if (prepareGround()) prepareBrushes();
  });
}
