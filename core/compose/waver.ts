/**
 * Noise that moves outlines: a sum of plane waves in random directions, each going through whole turns in one turn
 * of the cycle, so that the last frame leads to the first by construction.
 */
import { mapped } from '../marks/index.ts';
import type { Drawing, Mark, Ring } from '../document/index.ts';
import { seededRandom, sineTurn, type Point } from '../geometry/index.ts';
import type { Resolved } from './resolve.ts';

interface Wave {
  /** Turns per px. */
  readonly kx: number;
  readonly ky: number;
  /** Turns of the wave in one turn of the cycle, whole. */
  readonly turns: number;
  readonly phase: number;
}

const WAVES = 5;
/** Pieces of a ring are cut so that one is at most this share of the noise's scale. */
const PIECE = 0.25;
const MOST_CUTS = 12;

function wavesOf(random: () => number, scale: number, churn: number): Wave[] {
  return Array.from({ length: WAVES }, (_, i) => {
    const direction = random();
    const length = scale * (0.55 + 0.9 * random());
    const way = i % 2 === 0 ? 1 : -1;
    return {
      kx: sineTurn(direction + 0.25) / length,
      ky: sineTurn(direction) / length,
      turns: way * Math.round(churn) * (1 + (i % 2)),
      phase: random(),
    };
  });
}

const sumOf = (waves: readonly Wave[], { x, y }: Point, at: number): number =>
  waves.reduce((sum, { kx, ky, turns, phase }) => sum + sineTurn(kx * x + ky * y + turns * at + phase), 0) /
  Math.sqrt(waves.length);

/** How a place is moved by a waver. @param place element space, px. */
export function waverOf({ numbers, seed, at }: Pick<Resolved, 'numbers' | 'seed' | 'at'>): (place: Point) => Point {
  const random = seededRandom(seed);
  const [scale, churn, amount] = [numbers['scale']!, numbers['churn']!, numbers['amount']!];
  const across = wavesOf(random, scale, churn);
  const down = wavesOf(random, scale, churn);
  return (place) => ({
    x: place.x + amount * sumOf(across, place, at),
    y: place.y + amount * sumOf(down, place, at),
  });
}

type Piece = readonly [Point, Point, Point, Point];

const between = (a: Point, b: Point, t: number): Point => ({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t });

/** A cubic in two at a share of its way (de Casteljau). */
function halved([p0, p1, p2, p3]: Piece, t: number): [Piece, Piece] {
  const [a, b, c] = [between(p0, p1, t), between(p1, p2, t), between(p2, p3, t)];
  const [d, e] = [between(a, b, t), between(b, c, t)];
  const m = between(d, e, t);
  return [
    [p0, a, d, m],
    [m, e, c, p3],
  ];
}

/** A ring with its pieces cut so that none is much longer than `longest` px; it encloses the same area. */
export function cutRing(ring: Ring, longest: number): Ring {
  const count = ring.length / 6;
  const at = (i: number): Point => ({ x: ring[i]!, y: ring[i + 1]! });
  const pieces = Array.from({ length: count }, (_, i): Piece => {
    const [a, b] = [i * 6, ((i + 1) % count) * 6];
    return [at(a), at(a + 4), at(b + 2), at(b)];
  }).flatMap((piece) => {
    const chord = Math.hypot(piece[3].x - piece[0].x, piece[3].y - piece[0].y);
    const cuts = Math.min(MOST_CUTS, Math.max(1, Math.ceil(chord / longest)));
    const parts: Piece[] = [];
    let rest = piece;
    for (let left = cuts; left > 1; left--) {
      const [first, second] = halved(rest, 1 / left);
      parts.push(first);
      rest = second;
    }
    return [...parts, rest];
  });
  return Float32Array.from(
    pieces.flatMap(([p, out], i) => {
      const into = pieces[(i - 1 + pieces.length) % pieces.length]![2];
      return [p.x, p.y, into.x, into.y, out.x, out.y];
    }),
  );
}

/** Waverings of a drawing kept; playing round asks for the same ones again and again. */
const KEPT = 64;
const known = new WeakMap<Drawing, Map<string, Drawing>>();

/** A drawing whose outlines and lines have been moved by a waver. Its id tells which waver that was, after a `~`. */
export function wavered(drawing: Drawing, waver: Pick<Resolved, 'numbers' | 'seed' | 'at'>): Drawing {
  const key = [waver.seed, waver.at, ...Object.values(waver.numbers)].join();
  let kept = known.get(drawing);
  if (!kept || kept.size > KEPT) known.set(drawing, (kept = new Map()));
  const made = kept.get(key) ?? movedBy(drawing, waver, key);
  kept.set(key, made);
  return made;
}

function movedBy(drawing: Drawing, waver: Pick<Resolved, 'numbers' | 'seed' | 'at'>, key: string): Drawing {
  const move = waverOf(waver);
  const longest = Math.max(2, waver.numbers['scale']! * PIECE);
  const moved = (mark: Mark): Mark =>
    mapped(mark.kind === 'shape' ? { ...mark, rings: mark.rings.map((ring) => cutRing(ring, longest)) } : mark, move);
  return {
    ...drawing,
    id: `${drawing.id}~${key}`,
    marks: Object.fromEntries(Object.entries(drawing.marks).map(([id, mark]) => [id, moved(mark)])),
  };
}
