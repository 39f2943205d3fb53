/** Closed curves of cubic pieces: built from fitted pieces, walked as points, bounded. */
import { modulo } from './numbers.ts';
import type { Box } from './box.ts';
import { fitSection, type Cubic, type Pair } from './fit.ts';
import type { Point } from './matrix.ts';

/** The turn at a vertex of a closed polyline, measured over `reach` px either way: cosine from -1 (reversal) to 1 (straight). */
function turnCosine(points: readonly Pair[], index: number, reach: number): number {
  const at = points[index]!;
  const walk = (step: number): Pair => {
    let here = at;
    let left = reach;
    for (let i = 1; i < points.length && left > 0; i++) {
      const next = points[modulo(index + i * step, points.length)]!;
      left -= Math.sqrt((next[0] - here[0]) ** 2 + (next[1] - here[1]) ** 2);
      here = next;
    }
    return here;
  };
  const back = walk(-1);
  const on = walk(1);
  const ax = at[0] - back[0];
  const ay = at[1] - back[1];
  const bx = on[0] - at[0];
  const by = on[1] - at[1];
  const lengths = Math.sqrt((ax * ax + ay * ay) * (bx * bx + by * by));
  return lengths === 0 ? 1 : (ax * bx + ay * by) / lengths;
}

/** Indices of vertices where the polyline turns sharply: the sharpest of each neighbourhood. */
function cornersOf(points: readonly Pair[], reach: number): number[] {
  const turns = points.map((_, i) => turnCosine(points, i, reach));
  const count = points.length;
  const span = Math.max(2, Math.round(count / 60));
  return turns.flatMap((turn, i) => {
    if (turn > 0.25) return [];
    for (let k = 1; k <= span; k++) {
      if (turns[(i + k) % count]! < turn || turns[(i - k + count) % count]! <= turn) return [];
    }
    return [i];
  });
}

/**
 * Fits a closed curve to a closed polyline (last point not repeated) within `tolerance` px,
 * keeping corners (turns above about 75 degrees) as corners.
 * @throws if there are fewer than three points.
 */
export function fitRing(points: readonly Pair[], tolerance: number): Float32Array {
  if (points.length < 3) throw new Error('A ring needs three points at least');
  const corners = cornersOf(points, 8);
  const from = corners.length > 0 ? corners : [0];
  const pieces: Cubic[] = [];
  from.forEach((start, i) => {
    const end = from[(i + 1) % from.length]!;
    const count = (end - start + points.length) % points.length || points.length;
    const section = Array.from({ length: count + 1 }, (_, k): Pair => [...points[(start + k) % points.length]!]);
    pieces.push(...fitSection(section, tolerance, corners.length === 0));
  });
  const ring = new Float32Array(Math.max(2, pieces.length) * 6);
  const nodes = pieces.length === 1 ? halves(pieces[0]!) : pieces;
  nodes.forEach((piece, i) => {
    const before = nodes[(i - 1 + nodes.length) % nodes.length]!;
    ring.set([piece[0][0], piece[0][1], before[2][0], before[2][1], piece[1][0], piece[1][1]], i * 6);
  });
  return ring;
}

/**
 * Fits an open curve to a polyline within `tolerance` px, corners kept: nodes as in a ring, the last not
 * leading back to the first.
 * @throws if there are fewer than two points.
 */
export function fitLine(points: readonly Pair[], tolerance: number): Float32Array {
  if (points.length < 2) throw new Error('A line needs two points at least');
  const pieces = fitSection(points, tolerance);
  const line = new Float32Array((pieces.length + 1) * 6);
  pieces.forEach((piece, i) => {
    const into = i === 0 ? piece[0] : pieces[i - 1]![2];
    line.set([piece[0][0], piece[0][1], into[0], into[1], piece[1][0], piece[1][1]], i * 6);
  });
  const last = pieces.at(-1)!;
  line.set([...last[3], ...last[2], ...last[3]], pieces.length * 6);
  return line;
}

/** A cubic cut in two at its middle (de Casteljau). */
function halves([p0, p1, p2, p3]: Cubic): Cubic[] {
  const mid = (a: Pair, b: Pair): Pair => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  const [a, b, c] = [mid(p0, p1), mid(p1, p2), mid(p2, p3)];
  const [d, e] = [mid(a, b), mid(b, c)];
  const m = mid(d, e);
  return [
    [p0, a, d, m],
    [m, e, c, p3],
  ];
}

/** A ring through points with straight sides. */
export function polygonRing(points: readonly Pair[]): Float32Array {
  const ring = new Float32Array(points.length * 6);
  points.forEach(([x, y], i) => {
    ring.set([x, y, x, y, x, y], i * 6);
  });
  return ring;
}

/** Points along a ring, `steps` per piece, the first point not repeated at the end. */
export function ringPoints(ring: Float32Array, steps: number): Point[] {
  const count = ring.length / 6;
  const points: Point[] = [];
  for (let i = 0; i < count; i++) {
    const a = i * 6;
    const b = ((i + 1) % count) * 6;
    for (let s = 0; s < steps; s++) {
      const t = s / steps;
      const u = 1 - t;
      const at = (axis: 0 | 1) =>
        u * u * u * ring[a + axis]! +
        3 * u * u * t * ring[a + 4 + axis]! +
        3 * u * t * t * ring[b + 2 + axis]! +
        t * t * t * ring[b + axis]!;
      points.push({ x: at(0), y: at(1) });
    }
  }
  return points;
}

/** A box around a ring: that of its nodes and handles. */
export function ringBox(ring: Float32Array): Box {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < ring.length; i += 2) {
    left = Math.min(left, ring[i]!);
    right = Math.max(right, ring[i]!);
    top = Math.min(top, ring[i + 1]!);
    bottom = Math.max(bottom, ring[i + 1]!);
  }
  return { left, top, right, bottom };
}

/** Points per piece of a ring when a place within it is looked for. */
const WITHIN_STEPS = 6;

/**
 * A place inside an area by the even-odd rule: in the middle of the widest part of the line across its middle. Null where
 * the area has no inside there.
 */
export function pointWithin(rings: readonly Float32Array[]): Point | null {
  const polygons = rings.map((ring) => ringPoints(ring, WITHIN_STEPS));
  const heights = polygons.flatMap((points) => points.map(({ y }) => y));
  if (heights.length === 0) return null;
  const [min, max] = heights.reduce(([low, high], y) => [Math.min(low, y), Math.max(high, y)], [Infinity, -Infinity]);
  // A line that meets no corner but by chance.
  const y = min + (max - min) * 0.5001;
  const crossings = polygons
    .flatMap((points) =>
      points.flatMap((a, i) => {
        const b = points[(i + 1) % points.length]!;
        return a.y <= y === b.y <= y ? [] : [a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x)];
      }),
    )
    .sort((a, b) => a - b);
  let widest: readonly [number, number] | null = null;
  for (let i = 0; i + 1 < crossings.length; i += 2) {
    const span = [crossings[i]!, crossings[i + 1]!] as const;
    if (!widest || span[1] - span[0] > widest[1] - widest[0]) widest = span;
  }
  return widest && { x: (widest[0] + widest[1]) / 2, y };
}
