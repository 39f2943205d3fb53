/** What the marks of a subject cover together: the form that is stretched, swept and judged. */
import type { Mark } from '../document/index.ts';
import {
  lineArea,
  polygonsArea,
  ringPoints,
  unitedPolygons,
  type Pair,
  type Point,
  type Polygon,
} from '../geometry/index.ts';

/** Points on each piece of a ring. */
const STEPS = 8;
/** How far apart the ends of a line may be for it to enclose something, of its length. */
const CLOSED = 0.12;

const known = new WeakMap<Mark, Polygon[]>();

/** What a mark covers; a line that leads back to itself covers what it encloses. Marks never change: worked out once. */
function coverOf(mark: Mark): Polygon[] {
  const kept = known.get(mark);
  if (kept) return kept;
  const cover = covered(mark);
  known.set(mark, cover);
  return cover;
}

function covered(mark: Mark): Polygon[] {
  if (mark.kind === 'rub') return [];
  if (mark.kind === 'shape') return mark.rings.map((ring) => ringPoints(ring, STEPS).map(({ x, y }): Pair => [x, y]));
  if (mark.unseen) return [];
  const { x, y } = mark.samples;
  const line = Array.from(x, (v, i): Pair => [v, y[i]!]);
  if (line.length < 2) return line.length === 0 ? [] : lineArea([line[0]!, line[0]!], mark.brush.width / 2);
  const area = lineArea(line, mark.brush.width / 2);
  return leadsBack(line, mark.brush.width) ? [...area, line] : area;
}

/** Whether a line comes back to where it began. @param width of the line, px. */
function leadsBack(line: Polygon, width: number): boolean {
  let long = 0;
  for (let i = 1; i < line.length; i++)
    long += Math.hypot(line[i]![0] - line[i - 1]![0], line[i]![1] - line[i - 1]![1]);
  const [first, last] = [line[0]!, line.at(-1)!];
  const apart = Math.hypot(last[0] - first[0], last[1] - first[1]);
  return line.length > 7 && apart < Math.max(width, CLOSED * long);
}

/** What lines enclose, as far as their middles: so that a line drawn along it lies where they lay. */
export const enclosedBy = (marks: readonly Mark[]): Pair[][] =>
  unitedPolygons(
    marks.flatMap((mark) => {
      if (mark.kind !== 'stroke' || mark.unseen) return [];
      const line = Array.from(mark.samples.x, (x, i): Pair => [x, mark.samples.y[i]!]);
      return line.length > 7 && leadsBack(line, mark.brush.width) ? [line] : [];
    }),
    false,
  );

/** The silhouette of some marks: outlines that do not cross, no holes. */
export interface Silhouette {
  readonly outlines: readonly Polygon[];
  /** What its edge is drawn by: points of outlines, and of lines along their middles. */
  readonly drawnBy: Polygon;
  /** px². */
  readonly area: number;
  /** The middle of what it covers. */
  readonly middle: Point;
}

const NOTHING: Silhouette = { outlines: [], drawnBy: [], area: 0, middle: { x: 0, y: 0 } };

export function smearSilhouette(marks: readonly Mark[]): Silhouette {
  const outlines = unitedPolygons(marks.flatMap(coverOf), false);
  if (outlines.length === 0) return NOTHING;
  let [twice, sx, sy] = [0, 0, 0];
  for (const outline of outlines)
    outline.forEach(([ax, ay], i) => {
      const [bx, by] = outline[(i + 1) % outline.length]!;
      const cross = ax * by - bx * ay;
      twice += cross;
      sx += (ax + bx) * cross;
      sy += (ay + by) * cross;
    });
  if (Math.abs(twice) < 1e-6) return NOTHING;
  const drawnBy = marks.flatMap((mark): Pair[] =>
    mark.kind === 'shape'
      ? coverOf(mark).flat()
      : mark.kind === 'stroke' && !mark.unseen
        ? Array.from(mark.samples.x, (x, i): Pair => [x, mark.samples.y[i]!])
        : [],
  );
  return { outlines, drawnBy, area: polygonsArea(outlines), middle: { x: sx / (3 * twice), y: sy / (3 * twice) } };
}

/** Outlines with no side longer than a step, so that they bend where they are bent. @param step px. */
export const denser = (outlines: readonly Polygon[], step: number): Polygon[] =>
  outlines.map((outline) =>
    outline.flatMap(([ax, ay], i): Pair[] => {
      const [bx, by] = outline[(i + 1) % outline.length]!;
      const parts = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay) / step));
      return Array.from({ length: parts }, (_, k): Pair => [
        ax + ((bx - ax) * k) / parts,
        ay + ((by - ay) * k) / parts,
      ]);
    }),
  );
