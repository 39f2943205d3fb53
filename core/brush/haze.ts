/** Haze: an airbrush. Soft round stamps along the stroke that build up where they overlap. */
import type { BrushSettings, Samples } from '../document/index.ts';
import { hashFraction } from '../geometry/index.ts';
import { breadths } from './breadth.ts';
import { along, chunkEnds, pieceAt, type Visit } from './walk.ts';

/** Stamps on a stretch as long as the brush is wide. */
const STAMPS = 14;
/** How far stamps stray to either side, in half widths: standing in a row they would show as bars. */
const STRAY = 0.16;
/** How opaque one stamp is in its middle at full flow and pressure. */
const STRONGEST = 0.4;

/** How a stamp fades from its middle to its rim: places 0 to 1 and what is left there. */
export const HAZE_FADE: readonly (readonly [number, number])[] = [
  [0, 1],
  [0.25, 0.88],
  [0.5, 0.56],
  [0.75, 0.19],
  [0.9, 0.036],
  [1, 0],
];

/** Length of a stretch of samples by their pieces' ends, and how far past its last stamp it goes on. */
function leftOver(samples: Samples, brush: BrushSettings, chunk: number, spacing: number): number {
  const [first, last] = chunkEnds(samples, brush, chunk);
  let length = 0;
  for (let i = first; i < last; i++) length += pieceAt(samples, i).length;
  return length - Math.floor(length / spacing) * spacing;
}

/**
 * Visits the stamps of one chunk in order, element space. Stamps stand evenly from the chunk's first sample on; the first
 * one is as strong as the gap behind it is long, so that chunks meet without a seam.
 * @param visit gets the stamp's middle, its radius and its opacity, 0 to 1.
 */
export function hazeChunk(
  samples: Samples,
  brush: BrushSettings,
  seed: number,
  chunk: number,
  visit: (...stamp: [...Parameters<Visit>, number]) => void,
): void {
  const [first, last] = chunkEnds(samples, brush, chunk);
  const half = breadths(samples, brush, first, last);
  const spacing = brush.width / STAMPS;
  const strength = (i: number) => STRONGEST * (brush.flow ?? 1) * (brush.pressure ? samples.pressure[i]! : 1);
  const gap = chunk === 0 ? spacing : leftOver(samples, brush, chunk - 1, spacing);
  visit(samples.x[first]!, samples.y[first]!, half[0]!, (strength(first) * gap) / spacing);
  let next = spacing;
  let stamps = 0;
  for (let i = first; i < last; i++) {
    const piece = pieceAt(samples, i);
    for (; next <= piece.length; next += spacing) {
      const t = next / piece.length;
      const radius = (1 - t) * half[i - first]! + t * half[i + 1 - first]!;
      stamps += 1;
      const aside = STRAY * radius * (2 * hashFraction(seed, chunk, 2 * stamps) - 1);
      const ahead = (spacing / 2) * (2 * hashFraction(seed, chunk, 2 * stamps + 1) - 1);
      const [ux, uy] = [(piece.x[3] - piece.x[0]) / piece.length, (piece.y[3] - piece.y[0]) / piece.length];
      visit(
        along(piece.x, t) - uy * aside + ux * ahead,
        along(piece.y, t) + ux * aside + uy * ahead,
        radius,
        (1 - t) * strength(i) + t * strength(i + 1),
      );
    }
    next -= piece.length;
  }
}
