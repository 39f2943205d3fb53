/** Watershed: where two areas of free pixels meet when both grow over the widest ways first, the narrowest places between them. */
import type { DistanceField } from './distance-transform.ts';
import { besides, WidestFirst } from './widest-first.ts';

/** What a pixel belongs to: nothing yet, the first area, the second. */
export const [NONE, OWN, OUT] = [0, 1, 2] as const;

/** Pixels within which places where both meet belong to one front. */
const TOGETHER = 3;

/**
 * Grows both areas until nothing free is left that they reach.
 * @param labels where they begin, `OWN` or `OUT`; filled on. @param bits 0 where free. @param seeds pixels they begin from, in the order they grow.
 * @returns the widest pixel of each front where they met.
 */
export function watershedMeetings(
  labels: Uint8Array,
  bits: Uint8Array,
  near: DistanceField,
  width: number,
  seeds: readonly number[],
): number[] {
  const count = bits.length;
  const queue = new WidestFirst(near);
  for (const pixel of seeds) queue.push(pixel);
  const take = (pixel: number, label: number): void => {
    if (labels[pixel] !== NONE || bits[pixel] !== 0) return;
    labels[pixel] = label;
    queue.push(pixel);
  };
  for (let pixel = queue.pop(); pixel !== undefined; pixel = queue.pop()) {
    const label = labels[pixel]!;
    const column = pixel % width;
    if (column > 0) take(pixel - 1, label);
    if (column < width - 1) take(pixel + 1, label);
    if (pixel >= width) take(pixel - width, label);
    if (pixel < count - width) take(pixel + width, label);
  }
  return fronts(labels, near, width).map((front) =>
    front.reduce((a, b) => (near.squares[b]! > near.squares[a]! ? b : a)),
  );
}

/** Pixels of the first area that touch the second, each front by itself. */
function fronts(labels: Uint8Array, near: DistanceField, width: number): number[][] {
  const meeting = new Set<number>();
  for (const pixel of near.order)
    if (labels[pixel] === OWN)
      besides(pixel, width, labels.length, (next) => {
        if (labels[next] === OUT) meeting.add(pixel);
      });
  const found: number[][] = [];
  for (const first of meeting) {
    const front: number[] = [];
    meeting.delete(first);
    const stack = [first];
    for (let pixel = stack.pop(); pixel !== undefined; pixel = stack.pop()) {
      front.push(pixel);
      for (let dy = -TOGETHER; dy <= TOGETHER; dy++)
        for (let dx = -TOGETHER; dx <= TOGETHER; dx++)
          if (meeting.delete(pixel + dy * width + dx)) stack.push(pixel + dy * width + dx);
    }
    found.push(front);
  }
  return found;
}
