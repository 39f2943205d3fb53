/** Outlines and lines of a drawing moved as its looks say, before it is drawn. */
import { mapped } from '../marks/index.ts';
import { drawingLater, type Drawing, type Mark, type Ring } from '../document/index.ts';
import type { Point } from '../geometry/index.ts';
import { LOOKS } from '../looks/index.ts';
import type { Resolved } from './resolve.ts';

const MAX_CUTS = 12;

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
    const cuts = Math.min(MAX_CUTS, Math.max(1, Math.ceil(chord / longest)));
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

/** Movings of a drawing kept; playing round asks for the same ones again and again. */
const KEPT = 64;

const known = new WeakMap<Drawing, Map<string, Drawing>>();

/** A drawing whose outlines and lines have been moved by a look. Its id tells which look that was, after a `~`. */
export function wavered(drawing: Drawing, look: Resolved): Drawing {
  const key = [look.kind, look.seed, look.at, ...Object.values(look.numbers)].join();
  let kept = known.get(drawing);
  if (!kept || kept.size > KEPT) known.set(drawing, (kept = new Map<string, Drawing>()));
  const made = kept.get(key) ?? movedBy(drawing, look, key);
  kept.set(key, made);
  return made;
}

function movedBy(drawing: Drawing, look: Resolved, key: string): Drawing {
  const moving = LOOKS[look.kind].moves?.(look);
  if (!moving) return drawing;
  const { move, piece } = moving;
  const moved = (mark: Mark): Mark =>
    mapped(mark.kind === 'shape' ? { ...mark, rings: mark.rings.map((ring) => cutRing(ring, piece)) } : mark, move);
  return drawingLater(`${drawing.id}~${key}`, drawing.order, () =>
    Object.fromEntries(Object.entries(drawing.marks).map(([id, mark]) => [id, moved(mark)])),
  );
}
