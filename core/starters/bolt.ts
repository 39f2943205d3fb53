/**
 * Bolt: a line bent again and again at its middle, more at large than at small scale, with forks that have a
 * reach of their own. A strike is full length within one or two drawings, lives for a few with small shifts, thins,
 * and lets go from its start; the next strike goes elsewhere. All outlines are straight-sided unions.
 */
import {
  clamp,
  cosineTurn,
  mix,
  polygonRing,
  seededRandom,
  sineTurn,
  unitedRings,
  type Point,
} from '../geometry/index.ts';
import type { Ring } from '../document/index.ts';
import { GUIDE_PAINT, samplesOf } from './circles.ts';
import { control } from '../controls/index.ts';
import {
  starterFill,
  type StarterFill,
  type LaidFrame,
  type LaidMark,
  type Scene,
  type StarterKind,
} from './starter.ts';

/** A crooked line with the place on the main line where it leaves it. */
interface Branch {
  readonly points: readonly Point[];
  /** Share of the main line at its root. */
  readonly root: number;
  /** Thickness against the main line. */
  readonly share: number;
}

/** A strike on one drawing: which one it is, how old, and for how long it lives. */
interface Strike {
  readonly number: number;
  readonly age: number;
}

/** The strike of a drawing, or null in the dark. */
function strikeOf(settings: Scene['settings'], index: number): Strike | null {
  const each = Math.round(settings['lives']!) + Math.round(settings['dark']!);
  const number = Math.floor(index / each);
  const age = index % each;
  return number < Math.round(settings['strikes']!) && age < Math.round(settings['lives']!) ? { number, age } : null;
}

/** A line bent at its middles. @param amounts px to the side at each halving, as shares of the piece's length. */
function bent(from: Point, to: Point, amounts: readonly number[], random: () => number, shift: () => number): Point[] {
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

const lengthOf = (points: readonly Point[]): number =>
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
function endsOf(scene: Scene, strike: number): { pivots: Point[] } {
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
function branchesOf(scene: Scene, { number, age }: Strike): Branch[] {
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
function strikeRings(branches: readonly Branch[], from: number, to: number, width: number): Ring[] {
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

/** Tongues of a splash, and sparks that fly from it. */
const TONGUES = 9;
const SPARKS = 7;

/** A splash along the surface: tongues that lean outwards from a thin lip. @param high of the middle one, px. */
function splashRing(at: Point, half: number, high: number, random: () => number): Ring[] {
  const points: [number, number][] = [];
  for (let i = 0; i < TONGUES; i++) {
    const t = ((i + 0.5) / TONGUES) * 2 - 1;
    const [r1, r2] = [random(), random()];
    const tall = high * (1 - 0.75 * t * t) * mix(0.45, 1.1, r1);
    const foot = t * half * 0.86;
    const wide = (half / TONGUES) * mix(0.5, 0.75, r2);
    points.push([at.x + foot - wide, at.y - high * 0.06]);
    points.push([at.x + foot + t * half * 0.3 + wide * (r2 - 0.5), at.y - tall]);
    points.push([at.x + foot + wide, at.y - high * 0.07]);
  }
  // The lip: as flat as what it lies on, thinning out to both sides.
  const lip: [number, number][] = [
    [at.x + half * 1.15, at.y],
    [at.x + half * 0.4, at.y + high * 0.11],
    [at.x - half * 0.35, at.y + high * 0.1],
    [at.x - half * 1.2, at.y],
  ];
  return unitedRings([[...points, ...lip]], 8);
}

/** Where it hits: a dot, then a splash along the surface that runs out and falls apart, with a few sparks. */
function impactAt(scene: Scene, strike: Strike, at: Point): StarterFill[] {
  const size = scene.settings['impact']!;
  const step = strike.age;
  if (size <= 0 || step < 1 || step > 4) return [];
  const random = seededRandom(scene.seed ^ 0x5bd1e995 ^ Math.round(at.x));
  const [half, high] = [size * [0, 0.22, 0.6, 0.85, 0][step]!, size * [0, 0.2, 0.62, 0.3, 0][step]!];
  const splash = half > 0 ? splashRing(at, half, high, random) : [];
  const sparks =
    step < 2
      ? []
      : Array.from({ length: SPARKS }, (): Ring => {
          const [r1, r2, r3] = [random(), random(), random()];
          const turn = -0.25 + (r1 - 0.5) * 0.42;
          const out = size * mix(0.5, 1.15, r2) * [0, 0, 0.55, 0.9, 1.05][step]!;
          const fall = size * 0.09 * (step - 2) * (step - 2) * mix(0.6, 1.4, r3);
          const [ux, uy] = [cosineTurn(turn), sineTurn(turn)];
          const [x, y] = [at.x + ux * out * 1.25, at.y + uy * out * 0.8 + fall];
          const long = size * mix(0.05, 0.11, r3) * [0, 0, 1, 0.75, 0.4][step]!;
          const thick = long * 0.2;
          return polygonRing([
            [x - ux * long, y - uy * long],
            [x - uy * thick, y + ux * thick],
            [x + ux * long * 0.5, y + uy * long * 0.5],
            [x + uy * thick, y - ux * thick],
          ]);
        });
  return [
    ...starterFill(step === 1 ? 'hot' : 'glow', splash),
    ...(sparks.length > 0 ? starterFill('hot', sparks) : []),
  ];
}

function draw(scene: Scene, index: number): LaidFrame {
  const { settings } = scene;
  const strike = strikeOf(settings, index);
  const empty: LaidFrame = { guide: [], impact: [], core: [], body: [], glow: [] };
  const lives = Math.round(settings['lives']!);
  const width = settings['width']!;
  if (!strike) {
    // The after-glow: one drawing in which the air still shines where it went.
    const before = index > 0 ? strikeOf(settings, index - 1) : null;
    if (!before || settings['glow'] === 0) return empty;
    const branches = branchesOf(scene, before).slice(0, 1);
    return {
      ...empty,
      glow: starterFill('glow', strikeRings(branches, 0, 1, width * 1.5), (settings['glow']! / 100) * 0.5),
    };
  }
  const branches = branchesOf(scene, strike);
  const grows = Math.round(settings['grows']!);
  const to = grows <= 1 ? 1 : clamp((strike.age + 1) / grows, 0, 1);
  // It lets go over its last drawings: while its end still grows thin, its start is already gone.
  const going = Math.max(0, strike.age - (lives - 1 - Math.round(settings['letsGo']!)));
  const from = going === 0 ? 0 : clamp((going / (Math.round(settings['letsGo']!) + 1)) * 1.05, 0, 0.92);
  const strength = strike.age === 0 && grows > 1 ? 0.7 : mix(1, 0.5, strike.age / Math.max(1, lives));
  const full = strikeRings(branches, from, to, width * strength);
  const hot = strikeRings(
    branches.filter((b) => b.share > 0.3),
    from,
    to,
    width * strength * 0.42,
  );
  const glow: LaidMark[] =
    settings['glow'] === 0
      ? []
      : starterFill(
          'glow',
          strikeRings(branches.slice(0, 1), from, to, width * 4.2 * strength),
          (settings['glow']! / 100) * 0.34,
        );
  const end = branches[0]!.points.at(-1)!;
  return {
    guide: [{ paint: 'guide', samples: samplesOf(endsOf(scene, strike.number).pivots), width: 3, opacity: 0.8 }],
    impact: impactAt(scene, strike, end),
    core: starterFill('hot', hot),
    body: starterFill('bolt', full),
    glow,
  };
}

export const BOLT: StarterKind = {
  effect: 'bolt',
  name: 'Bolt',
  says: 'Lightning that strikes, shifts, lets go and strikes again',
  offered: 'first',
  telling: 0.09,
  cycles: () => false,
  follows: 'path',
  stands: 'edges',
  length: 24,
  hold: 1,
  controls: [
    control('length', 'Length', 'px', [40, 2400, 5], 760),
    control('direction', 'Direction', '°', [0, 360, 1], 275),
    control('width', 'Width', 'px', [3, 120, 1], 26),
    control('coarse', 'Crooked at large', '%', [0, 100, 1], 62),
    control('middle', 'Crooked between', '%', [0, 100, 1], 66),
    control('fine', 'Crooked at small', '%', [0, 100, 1], 40),
    control('forks', 'Forks', '', [0, 12, 1], 4),
    control('reach', 'Reach of forks', '%', [5, 80, 1], 34),
    control('strikes', 'Strikes', '', [1, 12, 1], 3),
    control('lives', 'A strike lives', 'drawings', [2, 12, 1], 6, 'more'),
    control('dark', 'Dark between', 'drawings', [0, 24, 1], 2, 'more'),
    control('grows', 'Full length after', 'drawings', [1, 4, 1], 2, 'more'),
    control('letsGo', 'Lets go over', 'drawings', [1, 6, 1], 2, 'more'),
    control('elsewhere', 'Strikes elsewhere', '%', [0, 100, 1], 55, 'more'),
    control('glow', 'Glow', '%', [0, 100, 1], 60, 'more'),
    control('impact', 'Splash where it hits', 'px', [0, 600, 2], 120, 'more'),
  ],
  outputs: [
    { key: 'guide', name: 'Bolt way', role: 'guide', hidden: true },
    { key: 'impact', name: 'Bolt hit', role: 'glow' },
    { key: 'core', name: 'Bolt core', role: 'glow' },
    { key: 'body', name: 'Bolt', role: 'body' },
    { key: 'glow', name: 'Bolt glow', role: 'glow' },
  ],
  paints: [
    { key: 'bolt', name: 'bolt', role: 'body', colour: '#a9b8ff' },
    { key: 'hot', name: 'bolt core', role: 'core', colour: '#ffffff' },
    { key: 'glow', name: 'bolt glow', role: 'light', colour: '#5d6fd6' },
    GUIDE_PAINT,
  ],
  presets: [
    { name: 'Strike', settings: {} },
    { name: 'Many forks', settings: { forks: 9, reach: 50, coarse: 48, width: 20 } },
    {
      name: 'Crackle',
      settings: {
        length: 220,
        width: 8,
        forks: 2,
        coarse: 80,
        fine: 70,
        lives: 3,
        dark: 1,
        strikes: 6,
        impact: 0,
        grows: 1,
        letsGo: 1,
      },
    },
  ],
  moods: {
    calm: { coarse: 40, middle: 40, fine: 20, forks: 1, strikes: 1, lives: 8 },
    crackling: { coarse: 60, fine: 75, forks: 5, strikes: 6, lives: 3, dark: 1, letsGo: 1 },
    angry: { coarse: 80, middle: 85, fine: 60, forks: 9, reach: 55, strikes: 4, lives: 5 },
    menacing: { coarse: 70, middle: 55, fine: 25, forks: 6, reach: 70, strikes: 2, lives: 8, dark: 6 },
  },
  draw,
};
