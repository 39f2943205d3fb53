/**
 * Strokes that are made rather than followed: straight lines, rectangles, ellipses, arcs, and freehand finished
 * crisp or round. Each is worked out whole from what the pen has done so far, so lifting the pen changes nothing.
 */
import type { Samples } from '../document/index.ts';
import { fitLine, keptPoints, type Point } from '../geometry/index.ts';

export const FIGURE_FORMS = ['free', 'line', 'polyline', 'rectangle', 'ellipse', 'circle', 'arc', 'curve'] as const;
export type FigureForm = (typeof FIGURE_FORMS)[number];
export const FINISHES = ['drawn', 'angular', 'smooth'] as const;
export type StrokeFinish = (typeof FINISHES)[number];

/** How far apart samples of a made curve stand, as a share of a turn. */
const ROUND = 72;

/** A point with how the pen was held there. */
interface Held extends Point {
  readonly pressure: number;
  readonly altitude: number;
  readonly azimuth: number;
}

const heldAt = ({ x, y, pressure, altitude, azimuth }: Samples, i: number): Held => ({
  x: x[i]!,
  y: y[i]!,
  pressure: pressure[i]!,
  altitude: altitude[i]!,
  azimuth: azimuth[i]!,
});

const columnsOf = (held: readonly Held[]): Samples => ({
  x: Float32Array.from(held, (p) => p.x),
  y: Float32Array.from(held, (p) => p.y),
  pressure: Float32Array.from(held, (p) => p.pressure),
  altitude: Float32Array.from(held, (p) => p.altitude),
  azimuth: Float32Array.from(held, (p) => p.azimuth),
});

/** The pen as it was held on the whole: made lines are as strong throughout. */
function heldOn(samples: Samples): Omit<Held, 'x' | 'y'> {
  const mean = (column: Float32Array) => column.reduce((sum, v) => sum + v, 0) / column.length;
  return { pressure: mean(samples.pressure), altitude: mean(samples.altitude), azimuth: samples.azimuth[0]! };
}

/** Straight from point to point: points inside are put twice, which leaves them their corner. */
function straightSamples(points: readonly Held[]): Samples {
  return columnsOf(points.flatMap((p, i) => (i === 0 || i === points.length - 1 ? [p] : [p, p])));
}

/** The end of a line turned to the nearest of so many directions round, its length kept. @param parts of a full turn. */
export function levelled(from: Point, to: Point, parts: number): Point {
  const length = Math.hypot(to.x - from.x, to.y - from.y);
  const step = (2 * Math.PI) / parts;
  const angle = Math.round(Math.atan2(to.y - from.y, to.x - from.x) / step) * step;
  return { x: from.x + Math.cos(angle) * length, y: from.y + Math.sin(angle) * length };
}

/** The corners of a box drawn from one to its opposite. @param equal makes it a square. */
function boxOf(a: Point, b: Point, equal: boolean): { x: number; y: number; width: number; height: number } {
  let [width, height] = [b.x - a.x, b.y - a.y];
  if (equal) {
    const side = Math.max(Math.abs(width), Math.abs(height));
    [width, height] = [Math.sign(width || 1) * side, Math.sign(height || 1) * side];
  }
  return { x: a.x, y: a.y, width, height };
}

const ellipsePoints = (cx: number, cy: number, rx: number, ry: number): Point[] =>
  Array.from({ length: ROUND + 1 }, (_, i) => {
    const angle = ((i % ROUND) / ROUND) * 2 * Math.PI - Math.PI / 2;
    return { x: cx + rx * Math.cos(angle), y: cy + ry * Math.sin(angle) };
  });

/** The points of the arc from a to c through b; straight if the three lie in a row. */
export function arcPoints(a: Point, b: Point, c: Point): Point[] {
  const turn = (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
  const chord = Math.hypot(c.x - a.x, c.y - a.y);
  if (Math.abs(turn) < 1e-3 * Math.max(1, chord)) return [a, c];
  const squares = [a, b, c].map((p) => p.x * p.x + p.y * p.y) as [number, number, number];
  const twice = 2 * (a.x * (b.y - c.y) + b.x * (c.y - a.y) + c.x * (a.y - b.y));
  const x = (squares[0] * (b.y - c.y) + squares[1] * (c.y - a.y) + squares[2] * (a.y - b.y)) / twice;
  const y = (squares[0] * (c.x - b.x) + squares[1] * (a.x - c.x) + squares[2] * (b.x - a.x)) / twice;
  const radius = Math.hypot(a.x - x, a.y - y);
  const start = Math.atan2(a.y - y, a.x - x);
  let sweep = Math.atan2(c.y - y, c.x - x) - start;
  // The way round that passes b: forwards when the three turn right (y down), else backwards.
  if (turn > 0 && sweep < 0) sweep += 2 * Math.PI;
  if (turn < 0 && sweep > 0) sweep -= 2 * Math.PI;
  const steps = Math.max(6, Math.ceil((Math.abs(sweep) / (2 * Math.PI)) * ROUND));
  return Array.from({ length: steps + 1 }, (_, i) => {
    const angle = start + (sweep * i) / steps;
    return i === 0 ? a : i === steps ? c : { x: x + radius * Math.cos(angle), y: y + radius * Math.sin(angle) };
  });
}

/** Points between two that were set, on a curve through several. */
const PER_STRETCH = 16;

/**
 * A smooth curve through points. At each it runs along its neighbours; its handles are a third of the stretch they lead
 * along, so that points at uneven distances make no loops (Catmull-Rom directions on cubic pieces).
 * @returns the points of the curve, the given ones among them; the first again at the end of a closed one.
 */
export function curveThrough(points: readonly Point[], closed: boolean): Point[] {
  const count = points.length;
  if (count < 3) return [...points];
  const at = (i: number): Point => points[closed ? (i + count) % count : Math.min(count - 1, Math.max(0, i))]!;
  const along = (i: number): Point => {
    const [before, after] = [at(i - 1), at(i + 1)];
    const length = Math.hypot(after.x - before.x, after.y - before.y) || 1;
    return { x: (after.x - before.x) / length, y: (after.y - before.y) / length };
  };
  const made: Point[] = [points[0]!];
  for (let i = 0; i < (closed ? count : count - 1); i++) {
    const [a, b, u, v] = [at(i), at(i + 1), along(i), along(i + 1)];
    const third = Math.hypot(b.x - a.x, b.y - a.y) / 3;
    const [c, d] = [
      { x: a.x + u.x * third, y: a.y + u.y * third },
      { x: b.x - v.x * third, y: b.y - v.y * third },
    ];
    for (let k = 1; k < PER_STRETCH; k++) {
      const t = k / PER_STRETCH;
      const s = 1 - t;
      const mixed = (from: number, first: number, second: number, to: number) =>
        s * s * s * from + 3 * s * s * t * first + 3 * s * t * t * second + t * t * t * to;
      made.push({ x: mixed(a.x, c.x, d.x, b.x), y: mixed(a.y, c.y, d.y, b.y) });
    }
    made.push(b);
  }
  return made;
}

/** Freehand with straight pieces and crisp corners. @param tolerance px. */
const angularSamples = (samples: Samples, tolerance: number): Samples =>
  straightSamples(keptPoints(samples.x, samples.y, tolerance).map((i) => heldAt(samples, i)));

/** Samples per fitted piece of a smoothed stroke. */
const PER_PIECE = 8;

/** Freehand as a round curve within a tolerance. Pressure is taken from the same share of the way. @param tolerance px. */
function smoothSamples(samples: Samples, tolerance: number): Samples {
  const last = samples.x.length - 1;
  const ends = samples.x[0] === samples.x[last] && samples.y[0] === samples.y[last];
  if (last < 2 || (ends && last < 3)) return samples;
  const nodes = fitLine(
    Array.from(samples.x, (x, i): [number, number] => [x, samples.y[i]!]),
    tolerance,
  );
  const pieces = nodes.length / 6 - 1;
  const count = pieces * PER_PIECE;
  return columnsOf(
    Array.from({ length: count + 1 }, (_, k) => {
      const piece = Math.min(pieces - 1, Math.floor(k / PER_PIECE));
      const [a, t] = [piece * 6, (k - piece * PER_PIECE) / PER_PIECE];
      const u = 1 - t;
      const place = (axis: 0 | 1) =>
        u * u * u * nodes[a + axis]! +
        3 * u * u * t * nodes[a + 4 + axis]! +
        3 * u * t * t * nodes[a + 8 + axis]! +
        t * t * t * nodes[a + 6 + axis]!;
      return { ...heldAt(samples, Math.round((k / count) * last)), x: place(0), y: place(1) };
    }),
  );
}

/** How a form is drawn. */
export interface Making {
  readonly form: FigureForm;
  readonly finish: StrokeFinish;
  /** Simplification of finished freehand, px. */
  readonly tolerance: number;
  /** Level, plumb and every 15 degrees; squares and circles. */
  readonly exact: boolean;
  /** Points set by earlier taps, for a polyline, an arc and a curve. */
  readonly points: readonly Point[];
}

/** Whether a stroke so made can be drawn as it comes, without being worked out anew. */
export const isPlain = ({ form, finish }: Making): boolean => form === 'free' && finish === 'drawn';

/** Whether a made stroke has corners rather than curves, for shapes with the same outline. */
export const hasCorners = ({ form, finish }: Making): boolean =>
  form === 'line' || form === 'polyline' || form === 'rectangle' || (form === 'free' && finish === 'angular');

/** The stroke that the pen's samples so far make, element space. */
export function madeSamples(samples: Samples, making: Making): Samples {
  const { form, finish, tolerance, exact, points } = making;
  const last = samples.x.length - 1;
  const [from, to] = [heldAt(samples, 0), heldAt(samples, last)];
  const hold = heldOn(samples);
  const held = (list: readonly Point[]): Held[] => list.map((p) => ({ ...hold, x: p.x, y: p.y }));
  const begun = points.at(-1);
  const end = (start: Point): Point => (exact ? levelled(start, to, 24) : to);
  switch (form) {
    case 'free':
      if (finish === 'angular') return angularSamples(samples, tolerance);
      return finish === 'smooth' ? smoothSamples(samples, tolerance) : samples;
    case 'line':
      return straightSamples(held([from, end(from)]));
    case 'polyline':
    case 'curve': {
      const set = begun && begun.x === to.x && begun.y === to.y ? points : [...points, end(begun ?? from)];
      const all = points.length === 0 ? [from, ...set] : set;
      if (form === 'polyline') return straightSamples(held(all));
      const [first, final] = [all[0]!, all.at(-1)!];
      const closed = all.length > 3 && first.x === final.x && first.y === final.y;
      return columnsOf(held(curveThrough(closed ? all.slice(0, -1) : all, closed)));
    }
    case 'rectangle': {
      const { x, y, width, height } = boxOf(from, to, exact);
      const corners = [0, 1, 2, 3, 0].map((k) => ({
        x: x + (k === 1 || k === 2 ? width : 0),
        y: y + (k >= 2 ? height : 0),
      }));
      return straightSamples(held(corners));
    }
    case 'ellipse': {
      const { x, y, width, height } = boxOf(from, to, exact);
      return columnsOf(held(ellipsePoints(x + width / 2, y + height / 2, width / 2, height / 2)));
    }
    case 'circle': {
      const radius = Math.hypot(to.x - from.x, to.y - from.y);
      return columnsOf(held(ellipsePoints(from.x, from.y, radius, radius)));
    }
    case 'arc': {
      const [a, c] = points;
      return a && c ? columnsOf(held(arcPoints(a, to, c))) : straightSamples(held([from, end(from)]));
    }
  }
}
