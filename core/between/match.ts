/**
 * Which mark of one drawing becomes which of another: by place, size, colour and order, by the names of
 * their pieces, and by what the user says. Marks that find no partner split off one, run into one, appear or vanish.
 */
import { marksInOrder } from '../document/index.ts';
import type { Drawing, Id, Mark, Tie } from '../document/index.ts';
import type { Point } from '../geometry/index.ts';
import { assign } from './assign.ts';
import { bodyOf } from './outline.ts';

type Marks = Pick<Drawing, 'marks' | 'order'>;

/** What becomes of marks: most often one becomes one; where areas part or run together there are several on a side. */
export interface Pairing {
  readonly from: readonly Id[];
  readonly to: readonly Id[];
}

interface MatchOptions {
  readonly ties: readonly Tie[];
  /** How far each mark of the first drawing is expected to go, by id, px: the way it came from the drawing before. */
  readonly expected?: ReadonlyMap<Id, Point>;
}

/** What a wrong colour costs, in mark sizes of distance. */
const COLOUR = 1.5;
const ORDER = 0.35;
const LENGTH = 0.8;
/** A pair dearer than this is none: the one vanishes, the other appears. */
const TOO_FAR = 3.5;
const NEVER = 1e6;

const isArea = (mark: Mark): boolean => mark.kind === 'shape';

/** Turns and mirrorings that a drawing as a whole is tried in, the untouched one first. */
function poses(): ((p: Point) => Point)[] {
  const all: ((p: Point) => Point)[] = [];
  for (const flip of [1, -1])
    for (let k = 0; k < 8; k++) {
      const [cos, sin] = [Math.cos((k * Math.PI) / 4), Math.sin((k * Math.PI) / 4)];
      all.push(({ x, y }) => ({ x: cos * flip * x - sin * y, y: sin * flip * x + cos * y }));
    }
  return all;
}

interface Placed {
  readonly at: Point;
  readonly size: number;
}

/** Marks with their places about the middle of all, where that is, and how far they lie from it in the mean, px. */
function placed(marks: readonly Mark[]): { places: Placed[]; middle: Point; spread: number } {
  const bodies = marks.map(bodyOf);
  const weight = bodies.reduce((sum, body) => sum + body.length, 0);
  const mean = (axis: 'x' | 'y') => bodies.reduce((sum, body) => sum + body.middle[axis] * body.length, 0) / weight;
  const [cx, cy] = [mean('x'), mean('y')];
  const away = bodies.reduce((sum, { middle, length }) => sum + Math.hypot(middle.x - cx, middle.y - cy) * length, 0);
  const spread = Math.max(1, away / weight);
  return {
    places: bodies.map(({ middle, reach }) => ({ at: { x: middle.x - cx, y: middle.y - cy }, size: reach })),
    middle: { x: cx, y: cy },
    spread,
  };
}

/** How far two marks lie apart, in sizes of what they are. */
const apart = (a: Placed, b: Placed, pose: (p: Point) => Point): number => {
  const moved = pose(a.at);
  const [dx, dy] = [moved.x - b.at.x, moved.y - b.at.y];
  return Math.sqrt(dx * dx + dy * dy) / (12 + 0.5 * (a.size + b.size));
};

/** Marks that poses are tried on, at most. */
const TRIED = 48;

/** How ill a pose of the whole fits: each mark's way to the nearest of the other drawing. */
function misfit(from: readonly Placed[], to: readonly Placed[], pose: (p: Point) => Point): number {
  let sum = 0;
  const every = Math.ceil(from.length / TRIED);
  for (let i = 0; i < from.length; i += every) {
    const a = from[i]!;
    let nearest = Infinity;
    for (const b of to) nearest = Math.min(nearest, apart(a, b, pose) + Math.abs(Math.log(a.size / b.size)));
    sum += nearest;
  }
  return sum;
}

/** A turned or mirrored pose must fit this much better than the drawing as it is. */
const MUCH_BETTER = 0.4;

/** A drawing that fits as it is, by this much a mark, is not tried in other poses. */
const FITS = 0.5;

function bestPose(from: readonly Placed[], to: readonly Placed[]): (p: Point) => Point {
  const all = poses();
  if (from.length < 3 || to.length < 3) return all[0]!;
  const plain = misfit(from, to, all[0]!);
  if (plain < FITS * Math.min(TRIED, from.length)) return all[0]!;
  let [best, min] = [all[0]!, plain * MUCH_BETTER];
  for (const pose of all.slice(1)) {
    const fit = misfit(from, to, pose);
    if (fit < min) [best, min] = [pose, fit];
  }
  return best;
}

/**
 * Pairs the marks of two drawings. Every mark of both is in exactly one pairing, but for one that several are tied to.
 * @param options ties said by the user hold before all else.
 */
export function matchMarks(a: Marks, b: Marks, options: MatchOptions): Pairing[] {
  const [from, to] = [marksInOrder(a), marksInOrder(b)].map((marks) => marks.filter((mark) => mark.kind !== 'rub')) as [
    Mark[],
    Mark[],
  ];
  const rubs = (marks: readonly Mark[]) => marks.filter((mark) => mark.kind === 'rub').map(({ id }) => id);
  const erased = pairRubs(rubs(marksInOrder(a)), rubs(marksInOrder(b)));
  if (from.length === 0 || to.length === 0)
    return [
      ...from.map(({ id }) => ({ from: [id], to: [] })),
      ...to.map(({ id }) => ({ from: [], to: [id] })),
      ...erased,
    ];
  const pairs = paired(from, to, options);
  return [...regrouped(pairs, from, to, options.ties), ...erased];
}

/** Marks that take away are paired as they follow each other. */
const pairRubs = (from: readonly Id[], to: readonly Id[]): Pairing[] =>
  Array.from({ length: Math.max(from.length, to.length) }, (_, i) => ({
    from: from[i] === undefined ? [] : [from[i]],
    to: to[i] === undefined ? [] : [to[i]],
  }));

type AllPlaced = ReturnType<typeof placed>;

/** The places of a drawing's marks where they are, about the middle of the other drawing. */
const where = (own: AllPlaced, target: AllPlaced): Placed[] =>
  own.places.map(({ at, size }) => ({
    at: { x: at.x + own.middle.x - target.middle.x, y: at.y + own.middle.y - target.middle.y },
    size,
  }));

/** Whether marks came or went while the rest stayed where it is: what comes draws the middle of all to itself. */
function isStill(own: AllPlaced, moved: readonly Placed[], target: AllPlaced): boolean {
  const count = target.places.length - own.places.length;
  // Each of the fewer has a partner, not each of the more.
  const fit = (places: readonly Placed[]) =>
    count > 0 ? misfit(places, target.places, poses()[0]!) : misfit(target.places, places, poses()[0]!);
  if (count === 0) return false;
  // One mark alone lies in the middle of its drawing wherever it is.
  const alone = Math.min(own.places.length, target.places.length) === 1;
  return alone || MUCH_BETTER * fit(where(own, target)) < fit(moved);
}

/** What is looked at of a mark for every pair it could be in. */
const seenAs = (mark: Mark, rank: number) => {
  const { middle, length } = bodyOf(mark);
  const colour = mark.kind === 'rub' ? '' : mark.swatch;
  const piece = mark.kind === 'rub' ? undefined : mark.piece;
  return { id: mark.id, isArea: isArea(mark), colour, piece, middle, long: Math.log(length), rank };
};

function paired(from: readonly Mark[], to: readonly Mark[], { ties, expected }: MatchOptions): Map<Id, Id> {
  const [own, target] = [placed(from), placed(to)];
  // A drawing that has grown as a whole is compared at the other's size.
  const grown = expected ? 1 : Math.min(2, Math.max(0.5, target.spread / own.spread));
  const moved = own.places.map(({ at, size }) => ({ at: { x: at.x * grown, y: at.y * grown }, size: size * grown }));
  const other = target.places;
  const one = !expected && isStill(own, moved, target) ? where(own, target) : moved;
  // With places expected, they say more than the middle of all does.
  const pose = expected ? poses()[0]! : bestPose(one, other);
  const [here, there] = [
    from.map((mark, i) => seenAs(mark, i / from.length)),
    to.map((mark, j) => seenAs(mark, j / to.length)),
  ];
  const shifted = expected ? meanWay(from, expected) : { x: 0, y: 0 };
  const gone = from.map((mark) => expected?.get(mark.id) ?? shifted);
  const tied = new Map(ties.flatMap(({ from: f, to: t }) => (f && t ? [[f, t] as const] : [])));
  const bound = new Set(ties.flatMap(({ from: f, to: t }) => [f, t]));
  const price = (i: number, j: number): number => {
    const [x, y] = [here[i]!, there[j]!];
    if (bound.size > 0 && (bound.has(x.id) || bound.has(y.id))) return tied.get(x.id) === y.id ? -NEVER : NEVER;
    if (x.isArea !== y.isArea) return NEVER;
    if (x.piece !== undefined && y.piece !== undefined) return x.piece === y.piece ? -NEVER / 2 : NEVER;
    let way: number;
    if (expected) {
      const [dx, dy] = [x.middle.x + gone[i]!.x - y.middle.x, x.middle.y + gone[i]!.y - y.middle.y];
      way = Math.sqrt(dx * dx + dy * dy) / (12 + 0.5 * (one[i]!.size + other[j]!.size));
    } else way = apart(one[i]!, other[j]!, pose);
    return (
      way +
      LENGTH * Math.abs(x.long - y.long) +
      ORDER * Math.abs(x.rank - y.rank) +
      (x.colour === y.colour ? 0 : COLOUR)
    );
  };
  const swap = from.length > to.length;
  const [rows, columns] = swap ? [to.length, from.length] : [from.length, to.length];
  const cost = new Float64Array(rows * columns);
  // What is too far is all the same too far: a mark left alone must not push others from their partners.
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) cost[r * columns + c] = Math.min(TOO_FAR, swap ? price(c, r) : price(r, c));
  const found = assign(cost, rows, columns);
  const pairs = new Map<Id, Id>();
  found.forEach((column, row) => {
    if (column < 0 || cost[row * columns + column]! >= TOO_FAR) return;
    pairs.set(from[swap ? column : row]!.id, to[swap ? row : column]!.id);
  });
  return pairs;
}

/** The mean of what is expected, for marks nothing is known of. */
function meanWay(from: readonly Mark[], expected: ReadonlyMap<Id, Point>): Point {
  const known = from.flatMap((mark) => expected.get(mark.id) ?? []);
  const mean = (axis: 'x' | 'y') => known.reduce((sum, p) => sum + p[axis], 0) / Math.max(1, known.length);
  return { x: mean('x'), y: mean('y') };
}

/** How far from an area, in its sizes, one lies that has parted from it. */
const NEAR = 1.6;

/** The pairs as pairings; areas left over join the pair of their colour they lie next to: what splits, splits. */
function regrouped(
  pairs: ReadonlyMap<Id, Id>,
  from: readonly Mark[],
  to: readonly Mark[],
  ties: readonly Tie[],
): Pairing[] {
  const groups = [...pairs].map(([f, t]) => ({ from: [f], to: [t] }));
  const alone = new Set(ties.flatMap(({ from: f, to: t }) => (f && t ? [] : [f ?? t!])));
  const taken = new Set([...pairs.values()]);
  const byId = new Map([...from, ...to].map((mark) => [mark.id, mark]));
  const single: Pairing[] = [];
  const place = (mark: Mark, side: 'from' | 'to') => {
    // Several that are tied to one all become it, each by itself; one that is tied to several becomes each of them.
    const other = side === 'from' ? 'to' : 'from';
    const partner = ties.find((tie) => tie[side] === mark.id && tie[other] !== null)?.[other];
    if (partner && byId.has(partner)) {
      single.push(side === 'from' ? { from: [mark.id], to: [partner] } : { from: [partner], to: [mark.id] });
      return;
    }
    const host = isArea(mark) && !alone.has(mark.id) ? nearestHost(mark, side) : null;
    if (host) host[side].push(mark.id);
    else single.push(side === 'from' ? { from: [mark.id], to: [] } : { from: [], to: [mark.id] });
  };
  const nearestHost = (mark: Mark, side: 'from' | 'to') => {
    let [best, min] = [null as (typeof groups)[number] | null, NEAR];
    for (const group of groups) {
      const partner = byId.get(group[side][0]!)!;
      if (!isArea(partner) || mark.kind === 'rub' || partner.kind === 'rub' || partner.swatch !== mark.swatch) continue;
      if (mark.piece !== undefined && partner.piece !== undefined && mark.piece !== partner.piece) continue;
      const [p, q] = [bodyOf(mark), bodyOf(partner)];
      const off = Math.hypot(p.middle.x - q.middle.x, p.middle.y - q.middle.y) / (p.reach + q.reach);
      if (off < min) [best, min] = [group, off];
    }
    return best;
  };
  for (const mark of from) if (!pairs.has(mark.id)) place(mark, 'from');
  for (const mark of to) if (!taken.has(mark.id)) place(mark, 'to');
  return [...groups, ...single];
}

/** How far each mark of a drawing came from the one before it, by id, px: what it may be expected to go on. */
export function waysCome(before: Marks, drawing: Marks): Map<Id, Point> {
  const ways = new Map<Id, Point>();
  for (const { from, to } of matchMarks(before, drawing, { ties: [] })) {
    if (from.length !== 1 || to.length !== 1) continue;
    const [p, q] = [bodyOf(before.marks[from[0]!]!).middle, bodyOf(drawing.marks[to[0]!]!).middle];
    ways.set(to[0]!, { x: q.x - p.x, y: q.y - p.y });
  }
  return ways;
}
