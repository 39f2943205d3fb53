/** How a subject goes from one drawing to the next: told from the marks that are the same on both. */
import { matchMarks, similarityBetween, matrixOfSimilarity, bodyOf, type Similarity } from '../between/index.ts';
import type { Drawing, Mark } from '../document/index.ts';
import { apply, evenPoints, ringPoints, walkOf, type Point } from '../geometry/index.ts';
import { flowAlong, flowBetween, type Flow } from './flow.ts';
import type { Silhouette } from './silhouette.ts';

/** Points compared of a pair of marks that is alone. */
const COMPARED = 24;
/** A turn counts if it leaves this much less of what a mere move leaves over, and is no less than this, radians. */
const [BETTER, MIN_TURN] = [0.6, 0.06] as const;

const drawingOf = (marks: readonly Mark[]): Pick<Drawing, 'marks' | 'order'> => ({
  marks: Object.fromEntries(marks.map((mark) => [mark.id, mark])),
  order: marks.map(({ id }) => id),
});

const pointsOf = (mark: Mark): Point[] =>
  mark.kind === 'shape'
    ? evenPoints(walkOf(ringPoints(mark.rings[0] ?? new Float32Array(), 6), true), COMPARED, true)
    : evenPoints(
        walkOf(
          Array.from(mark.samples.x, (x, i) => ({ x, y: mark.samples.y[i]! })),
          false,
        ),
        COMPARED,
        false,
      );

/** What is left over where points are moved so: mean px. */
function leftOver(from: readonly Point[], to: readonly Point[], move: Similarity): number {
  const matrix = matrixOfSimilarity(move);
  const sum = from.reduce((all, p, i) => {
    const q = apply(matrix, p);
    return all + Math.hypot(q.x - to[i]!.x, q.y - to[i]!.y);
  }, 0);
  return sum / Math.max(1, from.length);
}

const moveOnly = (from: readonly Point[], to: readonly Point[]): Similarity => {
  const n = Math.max(1, from.length);
  return {
    angle: 0,
    scale: 1,
    e: from.reduce((sum, p, i) => sum + to[i]!.x - p.x, 0) / n,
    f: from.reduce((sum, p, i) => sum + to[i]!.y - p.y, 0) / n,
  };
};

/** The same points begun elsewhere and gone round the other way: outlines begin anywhere, lines are drawn from either end. */
function orders(points: readonly Point[], closed: boolean): (readonly Point[])[] {
  const back = points.toReversed();
  if (!closed) return [points, back];
  const turned = (all: readonly Point[]) => all.map((_, k) => [...all.slice(k), ...all.slice(0, k)]);
  return [...turned(points), ...turned(back)];
}

/** Points of both that belong together. */
function correspondences(before: readonly Mark[], after: readonly Mark[]): [Point[], Point[]] {
  const [a, b] = [drawingOf(before), drawingOf(after)];
  const pairs = matchMarks(a, b, { ties: [] }).flatMap(({ from, to }) =>
    from.length === 1 && to.length === 1 ? [[a.marks[from[0]!]!, b.marks[to[0]!]!] as const] : [],
  );
  const whole = pairs.filter(([p, q]) => p.kind !== 'rub' && q.kind !== 'rub');
  // The largest tells most: small marks may be anywhere.
  const large = whole.toSorted(([p], [q]) => bodyOf(q).length - bodyOf(p).length).slice(0, 6);
  const [from, to]: [Point[], Point[]] = [[], []];
  for (const [p, q] of large) {
    const own = pointsOf(p);
    let [best, min] = [pointsOf(q), Infinity];
    for (const order of orders(pointsOf(q), p.kind === 'shape')) {
      const over =
        leftOver(own, order, similarityBetween(own, order)) + 0.05 * leftOver(own, order, moveOnly(own, order));
      if (over < min) [best, min] = [[...order], over];
    }
    from.push(...own);
    to.push(...best);
  }
  return [from, to];
}

/** How a subject has moved. */
export interface Motion {
  readonly left: Point;
  readonly arrived: Point;
  /** Radians it has turned by, clockwise; 0 where a mere move says as much. */
  readonly turn: number;
  readonly grows: number;
}

/** @param before marks where it left. @param after marks where it arrives, in the same space. */
export function motionOf(
  before: readonly Mark[],
  after: readonly Mark[],
  { left, arrived }: { readonly left: Silhouette; readonly arrived: Silhouette },
): Motion {
  const [from, to] = correspondences(before, after);
  const ends = { left: left.middle, arrived: arrived.middle };
  if (from.length === 0) return { ...ends, turn: 0, grows: 1 };
  const whole = similarityBetween(from, to);
  const isTurned =
    Math.abs(whole.angle) > MIN_TURN &&
    leftOver(from, to, whole) < BETTER * leftOver(from, to, moveOnly(from, to)) &&
    whole.scale > 0.5 &&
    whole.scale < 2;
  if (!isTurned) return { ...ends, turn: 0, grows: 1 };
  return { ...ends, turn: whole.angle, grows: whole.scale };
}

/** Which way it goes: as the drawings tell, straight, or as a line that was drawn or a path. */
export interface WayAsked {
  readonly way: 'as drawn' | 'straight' | 'line';
  /** The line it goes along, in the space of the drawings. */
  readonly line: readonly Point[] | null;
  /** How far it bends aside beside that, radians. */
  readonly bend: number;
}

/** The way of a motion. */
export function flowOf({ left, arrived, turn, grows }: Motion, { way, line, bend }: WayAsked): Flow {
  if (way === 'line' && line && line.length > 1) return flowAlong(line, left, arrived, grows);
  return flowBetween(left, arrived, (way === 'straight' ? 0 : turn) + bend, grows);
}
