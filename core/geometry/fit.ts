/**
 * Fits cubic pieces to a dense polyline.
 * Method: P. J. Schneider, "An Algorithm for Automatically Fitting Digitized Curves", Graphics Gems, 1990,
 * on flat columns: an under-drawing fits thousands of points per drawing, which lists of pairs are too slow for.
 * Only + - * / and square roots: every engine finds the same pieces.
 */

const { abs, max, min, sqrt } = Math;
export type Pair = [number, number];
/** Start, handle out, handle in, end. */
export type Cubic = [Pair, Pair, Pair, Pair];

/** Times the parameters of a stretch are improved before it is cut in two. */
const IMPROVEMENTS = 4;

interface Points {
  readonly x: Float64Array;
  readonly y: Float64Array;
}

/** A direction as a unit vector; of nothing, none. */
function unit(dx: number, dy: number): Pair {
  const length = sqrt(dx * dx + dy * dy);
  return length === 0 ? [0, 0] : [dx / length, dy / length];
}

/** The direction away from an end of a stretch, over up to three points. */
function endDirection({ x, y }: Points, at: number, step: 1 | -1, limit: number): Pair {
  const reach = min(3, limit);
  let [dx, dy] = [0, 0];
  for (let k = 1; k <= reach; k++) {
    const [ux, uy] = unit(x[at + step * k]! - x[at]!, y[at + step * k]! - y[at]!);
    dx += ux / k;
    dy += uy / k;
  }
  return unit(dx, dy);
}

/** Shares of the length of a stretch at its points. */
function lengthShares({ x, y }: Points, from: number, to: number): Float64Array {
  const shares = new Float64Array(to - from + 1);
  for (let i = from + 1; i <= to; i++) {
    const [dx, dy] = [x[i]! - x[i - 1]!, y[i]! - y[i - 1]!];
    shares[i - from] = shares[i - from - 1]! + sqrt(dx * dx + dy * dy);
  }
  const all = shares[to - from]!;
  if (all > 0) for (let i = 0; i < shares.length; i++) shares[i]! /= all;
  return shares;
}

/** The piece with the tiny squared error whose ends leave in the given directions. */
function pieceThrough({ x, y }: Points, from: number, to: number, u: Float64Array, out: Pair, into: Pair): Cubic {
  const [x0, y0, x3, y3] = [x[from]!, y[from]!, x[to]!, y[to]!];
  let [c00, c01, c11, r0, r1] = [0, 0, 0, 0, 0];
  const dot = out[0] * into[0] + out[1] * into[1];
  for (let i = 0; i < u.length; i++) {
    const t = u[i]!;
    const s = 1 - t;
    const [b1, b2] = [3 * t * s * s, 3 * t * t * s];
    const [start, end] = [s * s * s + b1, t * t * t + b2];
    c00 += b1 * b1;
    c01 += b1 * b2 * dot;
    c11 += b2 * b2;
    const dx = x[from + i]! - x0 * start - x3 * end;
    const dy = y[from + i]! - y0 * start - y3 * end;
    r0 += b1 * (out[0] * dx + out[1] * dy);
    r1 += b2 * (into[0] * dx + into[1] * dy);
  }
  const chord = sqrt((x3 - x0) * (x3 - x0) + (y3 - y0) * (y3 - y0));
  const det = c00 * c11 - c01 * c01;
  let a = det === 0 ? 0 : (r0 * c11 - r1 * c01) / det;
  let b = det === 0 ? 0 : (c00 * r1 - c01 * r0) / det;
  const tiny = 1e-6 * chord;
  // Handles the other way, or longer than their chord, are what a fit with too few points gives.
  if (!(a > tiny) || !(b > tiny)) a = b = chord / 3;
  a = min(a, chord);
  b = min(b, chord);
  return [
    [x0, y0],
    [x0 + out[0] * a, y0 + out[1] * a],
    [x3 + into[0] * b, y3 + into[1] * b],
    [x3, y3],
  ];
}

const at = (piece: Cubic, axis: 0 | 1, t: number): number => {
  const s = 1 - t;
  return (
    s * s * s * piece[0][axis] +
    3 * s * s * t * piece[1][axis] +
    3 * s * t * t * piece[2][axis] +
    t * t * t * piece[3][axis]
  );
};

/** The greatest squared distance from the points, and from the middles between them, and where it is. */
function worstOf({ x, y }: Points, from: number, piece: Cubic, u: Float64Array): { squared: number; index: number } {
  let [squared, index] = [0, from + (u.length >> 1)];
  const look = (t: number, px: number, py: number, i: number) => {
    const [dx, dy] = [at(piece, 0, t) - px, at(piece, 1, t) - py];
    const off = dx * dx + dy * dy;
    if (off > squared) [squared, index] = [off, i];
  };
  for (let i = 1; i < u.length; i++) {
    const [px, py] = [x[from + i]!, y[from + i]!];
    if (i < u.length - 1) look(u[i]!, px, py, from + i);
    look((u[i]! + u[i - 1]!) / 2, (px + x[from + i - 1]!) / 2, (py + y[from + i - 1]!) / 2, from + max(1, i - 1));
  }
  return { squared, index: min(from + u.length - 2, max(from + 1, index)) };
}

/** One step of Newton's method per point towards the nearest place on the piece. */
function improve({ x, y }: Points, from: number, piece: Cubic, u: Float64Array): void {
  const [p0, p1, p2, p3] = piece;
  for (let i = 1; i < u.length - 1; i++) {
    const t = u[i]!;
    const s = 1 - t;
    const first = (a: 0 | 1) => 3 * (s * s * (p1[a] - p0[a]) + 2 * s * t * (p2[a] - p1[a]) + t * t * (p3[a] - p2[a]));
    const second = (a: 0 | 1) => 6 * (s * (p2[a] - 2 * p1[a] + p0[a]) + t * (p3[a] - 2 * p2[a] + p1[a]));
    const [dx, dy] = [at(piece, 0, t) - x[from + i]!, at(piece, 1, t) - y[from + i]!];
    const [fx, fy] = [first(0), first(1)];
    const below = fx * fx + fy * fy + dx * second(0) + dy * second(1);
    const next = below === 0 ? t : t - (dx * fx + dy * fy) / below;
    // Parameters keep their order, or the piece would fold.
    u[i] = min(1, max(u[i - 1]!, next));
  }
}

/** The piece from one point to the next, its handles no longer than keep it within the tolerance of the line between. */
function pieceBetween(from: Pair, to: Pair, out: Pair, into: Pair, tolerance: number): Cubic {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const chord = sqrt(dx * dx + dy * dy);
  const handle = ([hx, hy]: Pair, forward: 1 | -1): number => {
    const along = (forward * (hx * dx + hy * dy)) / chord;
    const aside = along <= 0 ? 1 : abs(hx * dy - hy * dx) / chord;
    // Two handles on one side carry the middle three quarters of the way they stand off.
    return aside * chord <= 4 * tolerance ? chord / 3 : (4 * tolerance) / (3 * aside);
  };
  const [a, b] = [handle(out, 1), handle(into, -1)];
  return [from, [from[0] + out[0] * a, from[1] + out[1] * a], [to[0] + into[0] * b, to[1] + into[1] * b], to];
}

function fitStretch(
  points: Points,
  from: number,
  to: number,
  out: Pair,
  into: Pair,
  squared: number,
  pieces: Cubic[],
): void {
  const { x, y } = points;
  if (to - from === 1) {
    pieces.push(pieceBetween([x[from]!, y[from]!], [x[to]!, y[to]!], out, into, sqrt(squared)));
    return;
  }
  const u = lengthShares(points, from, to);
  let piece = pieceThrough(points, from, to, u, out, into);
  let worst = worstOf(points, from, piece, u);
  for (let k = 0; k < IMPROVEMENTS && worst.squared > squared && worst.squared < 16 * squared; k++) {
    improve(points, from, piece, u);
    piece = pieceThrough(points, from, to, u, out, into);
    worst = worstOf(points, from, piece, u);
  }
  if (worst.squared <= squared) {
    pieces.push(piece);
    return;
  }
  const cut = worst.index;
  const reach = min(2, cut - from, to - cut);
  const along = unit(x[cut - reach]! - x[cut + reach]!, y[cut - reach]! - y[cut + reach]!);
  fitStretch(points, from, cut, out, along, squared, pieces);
  fitStretch(points, cut, to, [-along[0], -along[1]], into, squared, pieces);
}

/**
 * Fits one open section, in order. Points that repeat the one before are passed over.
 * @param tolerance px a piece may leave the polyline by.
 * @param round whether the end is the start again, with no corner there.
 */
export function fitSection(section: readonly (readonly [number, number])[], tolerance: number, round = false): Cubic[] {
  const kept = section.filter((p, i) => i === 0 || p[0] !== section[i - 1]![0] || p[1] !== section[i - 1]![1]);
  const only = kept[0]!;
  if (kept.length === 1) return [[[...only], [...only], [...only], [...only]]];
  const points = { x: Float64Array.from(kept, (p) => p[0]), y: Float64Array.from(kept, (p) => p[1]) };
  const last = kept.length - 1;
  const pieces: Cubic[] = [];
  const through = unit(points.x[1]! - points.x[last - 1]!, points.y[1]! - points.y[last - 1]!);
  const out = round ? through : endDirection(points, 0, 1, last);
  const into: Pair = round ? [-through[0], -through[1]] : endDirection(points, last, -1, last);
  fitStretch(points, 0, last, out, into, tolerance * tolerance, pieces);
  return pieces;
}
