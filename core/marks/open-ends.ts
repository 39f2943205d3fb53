/** Ends of lines that meet nothing: where a fill would run out. */
import type { Drawing } from '../document/index.ts';
import type { Point } from '../geometry/index.ts';
import { linesIn, nearestOn, ownSamples, placeOn } from './line-ends.ts';

/**
 * The ends of a drawing's strokes from which no line is nearer than a gap, element space.
 * @param gap px that a fill closes by itself.
 */
export function openEnds(drawing: Drawing, gap: number): Point[] {
  const lines = linesIn(drawing);
  return lines.flatMap((line) => {
    const last = line.half.length - 1;
    if (last === 0 || line.stroke.unseen) return [];
    return [0, last].flatMap((end) => {
      const point = placeOn(line, end);
      const reach = gap + line.half[end]!;
      const own = ownSamples(line, end, 3 * reach + 2 * line.half[Math.floor(last / 2)]!);
      const meets = lines.some((other) => nearestOn(other, point, other === line ? own : null, reach) !== null);
      return meets ? [] : [point];
    });
  });
}
