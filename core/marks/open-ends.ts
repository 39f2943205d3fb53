/** Ends of lines that meet nothing: where a fill would run out. */
import { breadths } from '../brush/index.ts';
import { marksInOrder, type Drawing, type Stroke } from '../document/index.ts';
import { distanceToSegment, type Point } from '../geometry/index.ts';

/** A line as far as meeting it goes: its samples with half their width. */
interface Line {
  readonly stroke: Stroke;
  readonly half: Float64Array;
}

const at = ({ stroke: { samples } }: Line, i: number): Point => ({ x: samples.x[i]!, y: samples.y[i]! });

/** How far a point lies from a line's edge. @param but samples that do not count, from and to. */
function distanceTo(line: Line, point: Point, but: readonly [number, number] | null): number {
  const { half } = line;
  let least = Infinity;
  const last = half.length - 1;
  for (let i = 0; i < Math.max(1, last); i++) {
    if (but && i >= but[0] && i <= but[1]) continue;
    const away = distanceToSegment(point, at(line, i), at(line, Math.min(last, i + 1)));
    least = Math.min(least, away - half[i]!);
  }
  return least;
}

/** The samples near an end, along the line as far as `reach`: there it can't close with itself. */
function ownSamples(line: Line, end: number, reach: number): [number, number] {
  const last = line.half.length - 1;
  const step = end === 0 ? 1 : -1;
  let [i, far] = [end, 0];
  while (i + step >= 0 && i + step <= last && far < reach) {
    const [a, b] = [at(line, i), at(line, i + step)];
    far += Math.hypot(b.x - a.x, b.y - a.y);
    i += step;
  }
  return end === 0 ? [0, i] : [i, last];
}

/**
 * The ends of a drawing's strokes from which no line is nearer than a gap, element space.
 * @param gap px that a fill closes by itself.
 */
export function openEnds(drawing: Drawing, gap: number): Point[] {
  const lines = marksInOrder(drawing).flatMap((mark): Line[] => {
    if (mark.kind !== 'stroke') return [];
    return [{ stroke: mark, half: breadths(mark.samples, mark.brush, 0, mark.samples.x.length - 1) }];
  });
  return lines.flatMap((line) => {
    const last = line.half.length - 1;
    if (last === 0 || line.stroke.unseen) return [];
    return [0, last].flatMap((end) => {
      const point = at(line, end);
      const reach = gap + line.half[end]!;
      const own = ownSamples(line, end, 3 * reach + 2 * line.half[Math.floor(last / 2)]!);
      const meets = lines.some((other) => distanceTo(other, point, other === line ? own : null) <= reach);
      return meets ? [] : [point];
    });
  });
}
