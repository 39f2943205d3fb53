/** In-betweens: ordinary drawings on the way from one to another. */
import type { Drawing, Id, Mark, NewId, Ring, Shape, WayKind } from '../document/index.ts';
import { apply, mix, translation, type Matrix, type Point, isInside } from '../geometry/index.ts';
import { transformed } from '../marks/index.ts';
import { betweenLines, type Going, type LineMark } from './lines.ts';
import { islandsOf } from './islands.ts';
import { matchMarks, type Pairing } from './match.ts';
import { bodyOf, ringWalk } from './outline.ts';
import { flownTogether } from './regions.ts';
import { betweenRings, ringPairs, scaledRing } from './rings.ts';
import { powerOf, similarityBetween, type Similarity } from './similar.ts';

type Marks = Pick<Drawing, 'marks' | 'order'>;

interface BetweenSettings {
  readonly way: WayKind;
  /** How far a drawn path leads off the straight line, by share; for `path`. */
  readonly bend?: (share: number) => Point;
}

/** How points go at a share of the way: straight, or round the place about which the whole mark turns. */
function goingAt(share: number, { way, bend }: BetweenSettings): Going {
  return (from, to) => {
    const off = way === 'path' && bend ? bend(share) : { x: 0, y: 0 };
    if (way !== 'arc')
      return from.map((p, i) => ({ x: mix(p.x, to[i]!.x, share) + off.x, y: mix(p.y, to[i]!.y, share) + off.y }));
    const whole = similarityBetween(from, to);
    const [on, back] = [powerOf(whole, share), powerOf(whole, share - 1)];
    return from.map((p, i) => {
      const [a, b] = [apply(on, p), apply(back, to[i]!)];
      return { x: mix(a.x, b.x, share), y: mix(a.y, b.y, share) };
    });
  };
}

/** Below this share of its size a mark that appears or vanishes is not there yet, or no more. */
const GONE = 0.03;

/** A mark smaller about its middle. */
function smaller(mark: Mark, by: number): Mark {
  const { middle } = bodyOf(mark);
  return transformed(mark, [by, 0, 0, by, middle.x * (1 - by), middle.y * (1 - by)]);
}

/** How a pairing's hosts go from one to the other, for what hangs on them. */
function similarityOf(a: Mark, b: Mark): Similarity {
  const [p, q] = [bodyOf(a), bodyOf(b)];
  const scale = q.reach / p.reach;
  return { angle: 0, scale, e: q.middle.x - scale * p.middle.x, f: q.middle.y - scale * p.middle.y };
}

/** Where a piece that parts from an area was while it still lay in it: the move that takes it back in. */
function moveInto(piece: Shape, area: Shape): Point {
  const { middle, reach } = bodyOf(piece);
  const outline = area.rings.flatMap((ring) => [...ringWalk(ring).points]);
  const near = outline.reduce((best, p) =>
    Math.hypot(p.x - middle.x, p.y - middle.y) < Math.hypot(best.x - middle.x, best.y - middle.y) ? p : best,
  );
  const host = bodyOf(area).middle;
  const way = Math.max(1, Math.hypot(host.x - near.x, host.y - near.y));
  const into = Math.min(way, 0.6 * reach);
  return {
    x: near.x + ((host.x - near.x) / way) * into - middle.x,
    y: near.y + ((host.y - near.y) / way) * into - middle.y,
  };
}

/** What is left of the size of a piece while it lies in what it parts from. */
const INSIDE = 0.55;

function parted(piece: Shape, host: Shape, hostThere: Similarity, share: number): Ring[] {
  const home = transformed(piece, powerOf(hostThere, -1)) as Shape;
  const into = moveInto(home, host);
  const back = 1 - share;
  const by = mix(INSIDE, 1, share);
  const small = smaller(piece, by) as Shape;
  const drift = powerOf(hostThere, share - 1);
  const moved = transformed(small, drift) as Shape;
  return (transformed(moved, translation(into.x * back, into.y * back)) as Shape).rings.slice();
}

/** Two areas on the way: rings with rings; holes that have no partner open or close. */
function betweenShapes(a: Shape, b: Shape, share: number, going: Going): Ring[] {
  return ringPairs(a.rings, b.rings).flatMap(([p, q]) => {
    if (p && q) return [betweenRings(p, q, going)];
    const [ring, size] = p ? [p, 1 - share] : [q!, share];
    return size > GONE ? [scaledRing(ring, Math.sqrt(size))] : [];
  });
}

const outlinesNear = (a: readonly Ring[], b: readonly Ring[], within: number): boolean => {
  const [p, q] = [a, b].map((rings) => rings.flatMap((ring) => [...ringWalk(ring).points])) as [Point[], Point[]];
  return p.some((s) => q.some((t) => Math.hypot(s.x - t.x, s.y - t.y) < within));
};

/** px over which parting areas hang together, of the smaller one's reach. */
const NECK = 0.5;

/** A pairing's area at a share, and pieces that have parted from it already or not yet run into it. */
function betweenAreas(from: readonly Shape[], to: readonly Shape[], share: number, going: Going): Ring[][] {
  const [a, b] = [from[0]!, to[0]!];
  const host = betweenShapes(a, b, share, going);
  const there = similarityOf(a, b);
  const back = similarityOf(b, a);
  const pieces = [
    ...to.slice(1).map((piece) => ({ rings: parted(piece, a, there, share), reach: bodyOf(piece).reach })),
    ...from.slice(1).map((piece) => ({ rings: parted(piece, b, back, 1 - share), reach: bodyOf(piece).reach })),
  ];
  let whole = host;
  const apart: Ring[][] = [];
  for (const { rings, reach } of pieces) {
    const blend = Math.max(3, NECK * reach);
    if (outlinesNear(whole, rings, blend) || insideOf(whole, rings)) whole = flownTogether([whole, rings], blend);
    else apart.push(rings);
  }
  return [whole, ...apart];
}

/** Areas at a share, the pieces of each shape going their own ways. */
function betweenIslands(from: readonly Shape[], to: readonly Shape[], share: number, going: Going): Ring[][] {
  const [a, b] = [from.flatMap(islandsOf), to.flatMap(islandsOf)];
  if (a.length === 1 && b.length === 1) return [betweenShapes(a[0]!, b[0]!, share, going)];
  const drawing = (shapes: readonly Shape[]): Marks => ({
    order: shapes.map(({ id }) => id),
    marks: Object.fromEntries(shapes.map((shape) => [shape.id, shape])),
  });
  const [one, other] = [drawing(a), drawing(b)];
  return matchMarks(one, other, { ties: [] }).flatMap((pairing): Ring[][] => {
    const [p, q] = [pairing.from, pairing.to].map((ids, side) =>
      ids.map((id) => (side === 0 ? one : other).marks[id] as Shape),
    );
    if (p!.length > 0 && q!.length > 0) return betweenAreas(p!, q!, share, going);
    const size = p!.length > 0 ? 1 - share : share;
    return size < GONE ? [] : [...p!, ...q!].map((shape) => (smaller(shape, size) as Shape).rings.slice());
  });
}

/** Whether areas lie within others, so that their outlines need not come near. */
const insideOf = (whole: readonly Ring[], rings: readonly Ring[]): boolean => {
  const p = ringWalk(rings[0]!).points[0]!;
  // Even-odd over all of them: what lies in a hole of theirs does not lie in them.
  return whole.filter((ring) => isInside(ringWalk(ring).points, p)).length % 2 === 1;
};

/** The marks of one pairing at a share of the way. */
function pairingAt(
  a: Marks,
  b: Marks,
  { from, to }: Pairing,
  share: number,
  settings: BetweenSettings,
  drift: Matrix[],
): Mark[] {
  const going = goingAt(share, settings);
  const [one, other] = [from.map((id) => a.marks[id]!), to.map((id) => b.marks[id]!)];
  const [p, q] = [one[0], other[0]];
  if (!p || !q) {
    const size = p ? 1 - share : share;
    if (size < GONE) return [];
    // What appears or vanishes goes along with what is nearest to it.
    return [...one, ...other].map((mark) => transformed(smaller(mark, size), drift[p ? 0 : 1]!));
  }
  if (p.kind === 'shape' && q.kind === 'shape') {
    const areas = betweenIslands(one as Shape[], other as Shape[], share, going);
    const look = share < 0.5 ? p : q;
    return areas.flatMap((rings): Mark[] =>
      rings.length === 0
        ? []
        : [
            {
              ...look,
              rings,
              rule: rings.length > 1 ? 'evenodd' : look.rule,
              opacity: mix(p.opacity, q.opacity, share),
            },
          ],
    );
  }
  if (p.kind === 'shape' || q.kind === 'shape') return share < 0.5 ? [p] : [q];
  return [betweenLines<LineMark>(p, q, share, going, settings.way === 'along')];
}

/** For each pairing with a missing side, how the nearest whole pairing moves: from the first on, and back from the second. */
function driftOf(a: Marks, b: Marks, pairings: readonly Pairing[], pairing: Pairing, share: number): Matrix[] {
  const side = pairing.from.length > 0 ? 'from' : 'to';
  const own = bodyOf((side === 'from' ? a : b).marks[pairing[side][0]!]!).middle;
  let [nearest, min] = [null as Pairing | null, Infinity];
  for (const each of pairings) {
    if (each.from.length === 0 || each.to.length === 0) continue;
    const { middle } = bodyOf((side === 'from' ? a : b).marks[each[side][0]!]!);
    const off = Math.hypot(middle.x - own.x, middle.y - own.y);
    if (off < min) [nearest, min] = [each, off];
  }
  if (!nearest) return [translation(0, 0), translation(0, 0)];
  const [p, q] = [bodyOf(a.marks[nearest.from[0]!]!).middle, bodyOf(b.marks[nearest.to[0]!]!).middle];
  const [dx, dy] = [q.x - p.x, q.y - p.y];
  return [translation(dx * share, dy * share), translation(dx * (share - 1), dy * (share - 1))];
}

/**
 * The drawing at a share of the way from one to another, 0 to 1. Marks have ids of their own.
 * @param pairings every mark of both in one of them, see `matchMarks`.
 */
export function betweenAt(
  a: Marks,
  b: Marks,
  pairings: readonly Pairing[],
  share: number,
  settings: BetweenSettings,
  newId: NewId,
): Marks {
  const rankOf = (drawing: Marks) => new Map(drawing.order.map((id, i) => [id, i / drawing.order.length]));
  const [ra, rb] = [rankOf(a), rankOf(b)];
  const min = (ids: readonly Id[], ranks: ReadonlyMap<Id, number>) =>
    ids.length > 0 ? Math.min(...ids.map((id) => ranks.get(id) ?? 0)) : null;
  const ranked = pairings.flatMap((pairing) => {
    const [p, q] = [min(pairing.from, ra), min(pairing.to, rb)];
    const rank = mix(p ?? q ?? 0, q ?? p ?? 0, share);
    const whole = pairing.from.length > 0 && pairing.to.length > 0;
    const drift = whole ? [] : driftOf(a, b, pairings, pairing, share);
    return pairingAt(a, b, pairing, share, settings, drift).map((mark) => ({ rank, mark: { ...mark, id: newId() } }));
  });
  ranked.sort((x, y) => x.rank - y.rank);
  const marks = ranked.map(({ mark }) => mark);
  return { order: marks.map(({ id }) => id), marks: Object.fromEntries(marks.map((mark) => [mark.id, mark])) };
}
