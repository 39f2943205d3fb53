/** The outline that tells the form of some marks. */
import { outlineRing } from '../brush/index.ts';
import type { Mark, Ring } from '../document/index.ts';
import { ringBox } from '../geometry/index.ts';

/** Samples a stroke needs at least to enclose something. */
const ROUND = 8;

const boxArea = (ring: Ring): number => {
  const { left, top, right, bottom } = ringBox(ring);
  return (right - left) * (bottom - top);
};

/** The outline with the largest box of some shapes and strokes, or null where none encloses anything. */
export function largestOutline(marks: readonly Mark[]): Ring | null {
  const outlines = marks.flatMap((mark): readonly Ring[] => {
    if (mark.kind === 'shape') return mark.rings;
    return mark.kind === 'stroke' && mark.samples.x.length >= ROUND ? [outlineRing(mark.samples)] : [];
  });
  return outlines.reduce<Ring | null>((best, each) => (best && boxArea(best) >= boxArea(each) ? best : each), null);
}
