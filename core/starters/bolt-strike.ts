/** The way of a strike: how it bends, where it branches, and its outline. */
import { clamp, cosineTurn, mix, seededRandom, sineTurn, unitedRings, type Point } from '../geometry/index.ts';
import type { Ring } from '../document/index.ts';
import { type Scene } from './starter.ts';

/** A crooked line with the place on the main line where it leaves it. */
export interface Branch {
  readonly points: readonly Point[];
  /** Share of the main line at its root. */
  readonly root: number;
  /** Thickness against the main line. */
  readonly share: number;
}

/** A strike on one drawing: which one it is, how old, and for how long it lives. */
export interface Strike {
  readonly number: number;
  readonly age: number;
}

/** The strike of a drawing, or null in the dark. */
export function strikeOf(settings: Scene['settings'], index: number): Strike | null {
  const each = Math.round(settings['lives']!) + Math.round(settings['dark']!);
  const number = Math.floor(index / each);
  const age = index % each;
  return number < Math.round(settings['strikes']!) && age < Math.round(settings['lives']!) ? { number, age } : null;
}

/** A line bent at its middles. @param amounts px to the side at each halving, as shares of the piece's length. */
export function bent(
  from: Point,
  to: Point,
  amounts: readonly number[],
  random: () => number,
  shift: () => number,
): Point[] {
  let points = [from, to];
  for (const [level, amount] of amounts.entries()) {
    const next: Point[] = [points[0]!];
    for (let i = 1; i < points.length; i++) {
      const [a, b] = [points[i - 1]!, points[i]!];
      const side = (random() - 0.5) * 2 * amount + (level >= 2 ? shift() * amount : 0);
      const along = mix(0.36, 0.64, random());
      next.push({ x: mix(a.x, b.x, along) - (b.y - a.y) * side, y: mix(a.y, b.y, along) + (b.x - a.x) * side }, b);
    }
    points = next;
  }
  return points;
}

export const lengthOf = (points: readonly Point[]): number =>
  points.reduce(
    (sum, p, i) => (i === 0 ? 0 : sum + Math.sqrt((p.x - points[i - 1]!.x) ** 2 + (p.y - points[i - 1]!.y) ** 2)),
    0,
  );

/** The stretch of a line between two shares of its length. */
export function stretchOf(points: readonly Point[], from: number, to: number): Point[] {
  const whole = lengthOf(points);
  const [start, end] = [from * whole, to * whole];
  const part: Point[] = [];
  let passed = 0;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!];
    const step = Math.sqrt((b.x - a.x) ** 2 + (b.y - a.y) ** 2);
    const at = (where: number): Point => {
      const t = step === 0 ? 0 : (where - passed) / step;
      return { x: mix(a.x, b.x, t), y: mix(a.y, b.y, t) };
    };
    if (passed + step > start && passed < end) {
      if (part.length === 0) part.push(at(Math.max(start, passed)));
      part.push(at(Math.min(end, passed + step)));
    }
    passed += step;
  }
  return part;
}

/** Where a strike begins and ends: the path's ends, or straight down; later strikes end elsewhere. */
export function endsOf(scene: Scene, strike: number): { pivots: Point[] } {
  const { settings, seed, way } = scene;
  const random = seededRandom(seed + 7919 * strike);
  const spread = strike === 0 ? 0 : (settings['elsewhere']! / 100) * (random() - 0.5) * 1.6;
  if (way) {
    const steps = 4;
    const shift = way.length * spread * 0.35;
    return {
      pivots: Array.from({ length: steps + 1 }, (_, i) => {
        const spot = way.at(i / steps);
        const aside = (shift * i) / steps;
        return { x: spot.x - spot.dy * aside, y: spot.y + spot.dx * aside };
      }),
    };
  }
  const turn = settings['direction']! / 360;
  const long = settings['length']!;
  const end = { x: cosineTurn(turn) * long, y: -sineTurn(turn) * long };
  return {
    pivots: [
      { x: 0, y: 0 },
      { x: end.x + end.y * spread * 0.6, y: end.y - end.x * spread * 0.6 },
    ],
  };
}

/** The main line and its forks, the same for the whole life of a strike but for small shifts. */
export function branchesOf(scene: Scene, { number, age }: Strike): Branch[] {
  const { coarse, middle, fine, forks, reach } = scene.settings as Record<string, number>;
  const random = seededRandom(scene.seed * 31 + number * 104729 + 5);
  const restless = seededRandom(scene.seed * 17 + number * 7 + age * 613 + 3);
  const shift = () => (restless() - 0.5) * (age === 0 ? 0 : 0.5);
  const levels = [coarse! / 100, coarse! / 130, middle! / 100, middle! / 120, fine! / 100, fine! / 110].map(
    (a) => a * 0.3,
  );
  const { pivots } = endsOf(scene, number);
  const bends = scene.way ? levels.slice(1) : levels;
  const main = pivots.slice(1).flatMap((to, i) => bent(pivots[i]!, to, bends, random, shift).slice(i === 0 ? 0 : 1));
  const whole = lengthOf(main);
  const branches: Branch[] = [{ points: main, root: 0, share: 1 }];
  const fork = (of: Branch, at: number, side: number, long: number, share: number): Branch => {
    const [a, b] = stretchOf(of.points, at, Math.min(1, at + 0.06));
    const [dx, dy] = [b!.x - a!.x, b!.y - a!.y];
    const step = Math.sqrt(dx * dx + dy * dy) || 1;
    const turn = side * mix(0.06, 0.15, random());
    const [c, s] = [cosineTurn(turn), sineTurn(turn)];
    const to = { x: a!.x + ((dx * c - dy * s) / step) * long, y: a!.y + ((dy * c + dx * s) / step) * long };
    // What forks off a fork is there once the bolt is.
    const root = of === branches[0] ? at : 0.97;
    return { points: bent(a!, to, levels.slice(1, 5), random, shift), root, share };
  };
  for (let i = 0; i < Math.round(forks!); i++) {
    const at = mix(0.12, 0.84, (i + random() * 0.9) / Math.max(1, forks!));
    const side = random() > 0.5 ? 1 : -1;
    const own = fork(branches[0]!, at, side, whole * (reach! / 100) * mix(0.4, 1.1, random()) * (1 - 0.5 * at), 0.46);
    branches.push(own);
    if (random() > 0.45) branches.push(fork(own, mix(0.3, 0.7, random()), -side, lengthOf(own.points) * 0.5, 0.26));
  }
  return branches;
}

/** The sides of a stretch as quads that overlap at its corners. */
function quadsOf(points: readonly Point[], halfAt: (share: number) => number): [number, number][][] {
  const whole = lengthOf(points) || 1;
  let passed = 0;
  const sides = points.map((p, i) => {
    const before = points[i - 1] ?? p;
    const after = points[i + 1] ?? p;
    if (i > 0) passed += Math.sqrt((p.x - before.x) ** 2 + (p.y - before.y) ** 2);
    const [dx, dy] = [after.x - before.x, after.y - before.y];
    const long = Math.sqrt(dx * dx + dy * dy) || 1;
    const half = halfAt(passed / whole);
    return {
      left: [p.x - (dy / long) * half, p.y + (dx / long) * half],
      right: [p.x + (dy / long) * half, p.y - (dx / long) * half],
    } as const;
  });
  return sides.slice(1).map((b, i) => {
    const a = sides[i]!;
    return [[...a.left], [...b.left], [...b.right], [...a.right]] as [number, number][];
  });
}

/** The rings of a strike: what of it is there between where it has let go and how far it has come. */
export function strikeRings(branches: readonly Branch[], from: number, to: number, width: number): Ring[] {
  const quads = branches.flatMap(({ points, root, share }, i) => {
    const main = i === 0;
    // A fork begins when the bolt reaches it, and is gone when the bolt has left it.
    const start = main ? from : 0;
    const end = main ? to : clamp((to - root) / Math.max(0.05, 1 - root), 0, 1) * (from > root ? 0 : 1);
    if (end - start < 0.01) return [];
    const part = stretchOf(points, start, end);
    const half = (width / 2) * share;
    const growing = main && to < 1;
    return quadsOf(part, (s) => {
      const along = mix(start, end, s);
      const taper = main ? mix(1, 0.62, along) * (growing ? clamp((1 - s) * 5, 0.15, 1) : 1) : 1 - 0.93 * along;
      const root0 = main && from > 0 ? clamp(s * 6, 0.12, 1) : 1;
      return Math.max(1.1, half * taper * root0);
    });
  });
  return quads.length > 0 ? unitedRings(quads, 8) : [];
}
