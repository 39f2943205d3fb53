/**
 * Liquid: a gob along a path (head, neck, a tail as long as it is fast; it squashes where it lands, and spreads),
 * the crown of a splash with its ring, streams that meet, and a surface that waves. A gob keeps its area: what goes
 * into the tail is taken from the head. Drops leave fast, slow down, shrink, and break in two.
 */
import { clamp, cosineTurn, mix, seededRandom, sineTurn, smoothStep, type Point } from '../geometry/index.ts';
import type { Ring } from '../document/index.ts';
import { wayOf, wayThrough, type Way } from '../plan/index.ts';
import { circleLine } from './circles.ts';
import { discsBox, gridOver, OUTSIDE, ringsAt, softMax, unionField, within, type Disc, type Grid } from './field.ts';
import { outlined } from './line.ts';
import { ageOf, choice, control, fillOf, phaseOf, type LaidFrame, type Scene, type StarterKind } from './starter.ts';

const GOB = 0;
const CROWN = 1;
const STREAMS = 2;
const SURFACE = 3;

/** The way a gob goes where no path is given: a throw. */
const throwWay = (size: number): Way =>
  wayOf({
    nodes: wayThrough(
      [
        { x: 0, y: 0 },
        { x: size * 1.6, y: -size * 1.3 },
        { x: size * 3.6, y: -size * 0.9 },
        { x: size * 5, y: size * 1.6 },
      ],
      false,
    ),
    closed: false,
  });

/** What lies on one moment: balls that flow together, a floor they do not pass, and drops on their own. */
interface Liquid {
  readonly balls: readonly Disc[];
  readonly drops: readonly Disc[];
  readonly blend: number;
  /** Breadth of the light and shade along its rims, px; null where they are made ball by ball. */
  readonly rims: number | null;
  /** More that is inside, px deep. */
  readonly more?: (x: number, y: number) => number;
}

/** Balls along a line from its head back: a neck after the head, a swelling before the end. */
function tailBalls(at: (back: number) => Point, head: number, long: number, neck: number): Disc[] {
  const count = Math.max(2, Math.ceil(long / (head * 0.22)));
  return Array.from({ length: count + 1 }, (_, i): Disc => {
    const t = i / count;
    const necked = 1 - neck * smoothStep(0.05, 0.4, t) * (1 - smoothStep(0.45, 0.85, t));
    const r = head * Math.max(0.05, (1 - t) * mix(1, 0.72, t) * necked + 0.1 * (1 - t));
    return { ...at(t * long), r };
  });
}

/** Drops that leave at a moment: fast, then slower and smaller; the larger break in two. */
function dropsAt(scene: Scene, since: number, from: Point, reach: number, size: number, upward: boolean): Disc[] {
  const random = seededRandom(scene.seed ^ 0x68bc21eb);
  return Array.from({ length: Math.round(scene.settings['drops']!) }, (_, i): Disc[] => {
    const [r1, r2, r3, r4] = [random(), random(), random(), random()];
    const lives = mix(0.65, 1, r3);
    const own = (since - 0.06 * r4) / lives;
    if (own <= 0 || own >= 1) return [];
    const turn = upward ? -0.25 + (r1 - 0.5) * 0.36 : r1;
    const out = reach * mix(0.5, 1.2, r2) * (1 - (1 - own) * (1 - own));
    const [ux, uy] = [cosineTurn(turn), sineTurn(turn)];
    const fall = reach * 0.9 * own * own;
    const at = { x: from.x + ux * out, y: from.y + uy * out * 1.15 + fall };
    const r = size * mix(0.1, 0.24, r2) * Math.sqrt(1 - own);
    if (r < 2) return [];
    if (i % 3 === 0 && own > 0.4) {
      const apart = r * 2.4 * (own - 0.25);
      return [
        { x: at.x - apart, y: at.y - apart * 0.4, r: r * 0.7 },
        { x: at.x + apart, y: at.y + apart * 0.3, r: r * 0.58 },
      ];
    }
    return [{ ...at, r }];
  }).flat();
}

/** What of the time a gob is on its way where no path says how long. */
const FLIGHT = 0.56;

function gobAt(scene: Scene, index: number): Liquid {
  const last = Math.max(1, scene.starts.at(-1)!);
  const age = scene.starts[index]! / last;
  const flight = scene.travel === null ? FLIGHT : Math.min(0.94, scene.travel / last);
  const { size, trail, neck, spread } = scene.settings as Record<string, number>;
  const way = scene.way ?? throwWay(size!);
  const radius = size! / 2;
  const area = Math.PI * radius * radius;
  const end = way.at(1);
  const floor = end.y + radius * 0.55;
  if (age < flight) {
    const t = age / flight;
    const share = scene.pace(t);
    const step = 0.04;
    const speed = ((share - scene.pace(Math.max(0, t - step))) / step) * way.length;
    // Never back past where it started: it grows out of it.
    const long = Math.min(share * way.length, (trail! / 100) * speed * 0.32);
    // Head and tail together keep the area: π R² + 2 R L m = A, m being the tail's mean half width in heads.
    const mean = 0.34;
    const head = (-long * mean + Math.sqrt(long * long * mean * mean + Math.PI * area)) / Math.PI;
    const balls = tailBalls(
      (back) => way.at(share - back / way.length),
      head,
      long,
      (neck! / 100) * clamp(long / (3 * radius), 0, 1),
    );
    const drops = dropsAt(
      scene,
      t,
      way.at(Math.max(0, share - (long * 0.9) / way.length)),
      radius * 1.2,
      radius * 0.8,
      false,
    );
    return { balls, drops: drops.slice(0, 3), blend: head * 0.22, rims: null };
  }
  const since = (age - flight) / (1 - flight);
  const out = 1 - (1 - since) * (1 - since) * (1 - since);
  const wide = radius * mix(1.12, 1 + (spread! / 100) * 2.6, out);
  // What it gains in width it loses in height; its lip stands up for a moment where it was fastest.
  const tall = (radius * radius * 1.5) / wide;
  const lip = radius * 0.9 * smoothStep(0, 0.14, since) * (1 - smoothStep(0.2, 0.75, since));
  const pool = (x: number, y: number) => {
    const t = Math.abs(x - end.x) / wide;
    if (t >= 1) return -50;
    const round = Math.sqrt(1 - t * t);
    const dome = mix(round, 1 - t * t * t * t, out) * mix(1, 0.75, smoothStep(0.1, 0.5, since));
    const stands = smoothStep(0.5, 0.84, t) * (1 - smoothStep(0.86, 1, t));
    return Math.min(y - (floor - tall * dome - lip * stands), floor + round * (wide * 0.09 + tall * 0.16) - y);
  };
  const frame: Disc[] = [
    { x: end.x - wide, y: floor, r: 1 },
    { x: end.x + wide, y: floor + wide * 0.2, r: 1 },
    { x: end.x, y: floor - tall - lip * 1.2, r: 1 },
  ];
  const drops = dropsAt(scene, since, { x: end.x, y: floor - radius * 0.3 }, radius * 2.6, radius, true);
  return { balls: frame, drops, blend: 2, rims: tall * 0.3, more: pool };
}

/** The crown: a wall that rises in a ring and flares, with fingers that let drops go, and sinks again. */
function crownAt(scene: Scene, age: number): Liquid {
  const { size, fingers, spread } = scene.settings as Record<string, number>;
  const random = seededRandom(scene.seed);
  const wide = size! * mix(0.35, 0.62 + spread! / 400, 1 - (1 - age) * (1 - age));
  const rises = 4 * age * (1 - age);
  const tall = size! * 0.85 * rises * (1 - 0.25 * age);
  const count = Math.round(fingers!);
  const balls: Disc[] = [];
  const drops: Disc[] = [];
  // The far rim, seen over the near one.
  for (let i = 0; i <= 28; i++) {
    const turn = 0.5 * (i / 28) + 0.5;
    balls.push({ x: cosineTurn(turn) * wide, y: sineTurn(turn) * wide * 0.24, r: size! * 0.035 * (0.5 + rises) });
    const near = 0.5 * (i / 28);
    balls.push({
      x: cosineTurn(near) * wide * 1.02,
      y: sineTurn(near) * wide * 0.28,
      r: size! * 0.05 * (0.6 + 0.5 * rises),
    });
  }
  for (let i = 0; i < count; i++) {
    const [r1, r2, r3] = [random(), random(), random()];
    const turn = (i + 0.5 * (r1 - 0.5)) / count;
    const [c, s] = [cosineTurn(turn), sineTurn(turn)];
    const long = tall * mix(0.65, 1.15, r2);
    const flare = 1 + 0.32 * rises;
    const root = { x: c * wide, y: s * wide * 0.26 };
    const tip = { x: c * wide * flare, y: s * wide * 0.26 - long };
    const steps = Math.max(2, Math.ceil(long / (size! * 0.045)));
    for (let k = 0; k <= steps; k++) {
      const t = k / steps;
      const r = size! * mix(0.1, 0.022, Math.sqrt(t)) * (0.45 + 0.55 * rises);
      balls.push({ x: mix(root.x, tip.x, t * t * 0.6 + t * 0.4), y: mix(root.y, tip.y, t), r });
    }
    balls.push({ x: tip.x, y: tip.y, r: size! * mix(0.028, 0.046, r3) * (0.4 + 0.6 * rises) });
    // A drop leaves each finger as it comes to its height.
    const left = (age - mix(0.32, 0.45, r3)) / 0.5;
    if (left > 0 && left < 1) {
      const r = size! * mix(0.026, 0.05, r1) * Math.sqrt(1 - left);
      const up = size! * 0.42 * mix(0.6, 1.2, r2) * (1 - (1 - left) * (1 - left)) - size! * 0.75 * left * left;
      const y0 = s * wide * 0.26 - size! * 0.85 * 0.9 * mix(0.65, 1.15, r2);
      if (r > 2) drops.push({ x: c * wide * (1.3 + 0.35 * left), y: y0 - up, r });
    }
  }
  const sheet = (x: number, y: number) => {
    const inside = 1 - (x * x) / (wide * wide * 1.1);
    if (inside <= 0) return -50;
    const foot = Math.sqrt(inside) * wide * 0.28;
    return Math.min(y + tall * 0.42 * Math.sqrt(inside), foot - y);
  };
  return { balls, drops, blend: size! * 0.035, rims: size! * 0.05, more: sheet };
}

/** Streams from both sides that taper, meet, well up and spread. */
function streamsAt(scene: Scene, age: number): Liquid {
  const { size, spread, trail } = scene.settings as Record<string, number>;
  const far = size! * 2.6;
  const meets = 0.5;
  const balls: Disc[] = [];
  const come = 1 - (1 - clamp(age / meets, 0, 1)) * (1 - clamp(age / meets, 0, 1));
  for (const side of [-1, 1]) {
    const lag = side < 0 ? 0 : 0.08;
    const front = far * (1 - clamp(come - lag * (1 - come), 0, 1));
    const drain = age > meets ? ((age - meets) / (1 - meets)) * far * (1 - trail! / 260) : 0;
    const back = far - drain;
    const count = Math.max(2, Math.ceil((back - front) / (size! * 0.09)));
    if (back - front < 4) continue;
    for (let i = 0; i <= count; i++) {
      const t = i / count;
      const x = side * mix(front, back, t);
      const y =
        -size! * 0.55 * (Math.abs(x) / far) * (Math.abs(x) / far) * 1.6 +
        size! * 0.05 * sineTurn(x / (size! * 1.7) - age * 2);
      const tip = smoothStep(0, 0.28, t);
      balls.push({ x, y, r: size! * 0.19 * mix(0.25, 1, tip) * mix(1, 0.7, t) });
    }
  }
  const since = clamp((age - meets * 0.86) / (1 - meets * 0.86), 0, 1);
  if (since > 0) {
    const well = sineTurn(Math.min(0.5, since * 0.9)) * size! * 0.62;
    const pool = size! * mix(0.2, 0.35 + spread! / 130, 1 - (1 - since) * (1 - since));
    for (let i = 0; i <= 14; i++) {
      const t = (i / 14) * 2 - 1;
      balls.push({ x: t * pool, y: size! * 0.12, r: size! * 0.17 * Math.sqrt(Math.max(0.05, 1 - t * t)) });
    }
    for (let i = 0; i <= 6; i++)
      balls.push({ x: 0, y: -(well * i) / 6, r: size! * mix(0.2, 0.09, i / 6) * (1 - 0.5 * since) });
  }
  const drops = since > 0 ? dropsAt(scene, since, { x: 0, y: -size! * 0.3 }, size! * 0.85, size! * 0.5, true) : [];
  return { balls, drops, blend: size! * 0.1, rims: size! * 0.09 };
}

/** A surface whose crests are drawn up and whose troughs are long, as in Stokes' wave of the second order. */
function surfaceAt(scene: Scene, phase: number): Liquid {
  const { size, waves, height } = scene.settings as Record<string, number>;
  const wide = size! * 2;
  const random = seededRandom(scene.seed);
  const [a, b] = [random(), random()];
  const top = (x: number) => {
    const s = (x / (2 * wide)) * waves! - phase + b;
    const swell = sineTurn((x / (2 * wide)) * Math.max(1, Math.round(waves! / 2)) - phase + a);
    return -height! * (0.7 * cosineTurn(s) + 0.2 * cosineTurn(2 * s) + 0.35 * swell);
  };
  const body = (x: number, y: number) => Math.min(y - top(x), size! * 0.55 - y, wide - Math.abs(x));
  const frame: Disc[] = [
    { x: -wide, y: -height! * 1.3, r: 1 },
    { x: wide, y: size! * 0.55, r: 1 },
  ];
  return { balls: frame, drops: [], blend: 2, rims: height! * 0.4, more: body };
}

/** What of a field lies along the rim that faces a way: inside, and outside once moved that way. */
function rimOf(field: Float64Array, { columns, cell }: Grid, dx: number, dy: number, inset: number): Float64Array {
  const step = Math.round(dy / cell) * columns + Math.round(dx / cell);
  return field.map((v, i) => Math.min(v - inset, inset * 1.4 - (field[i + step] ?? OUTSIDE)));
}

function ringsOf({ balls, drops, blend, rims, more }: Liquid): {
  body: Ring[];
  drops: Ring[];
  light: Ring[];
  shade: Ring[];
} {
  if (balls.length === 0) return { body: [], drops: [], light: [], shade: [] };
  const grid = gridOver(discsBox(balls), 1.4, 260);
  let field = unionField(balls, grid, blend);
  if (more)
    field = field.map((v, i) => {
      const x = grid.left + (i % grid.columns) * grid.cell;
      const y = grid.top + Math.floor(i / grid.columns) * grid.cell;
      return softMax(v, more(x, y), blend);
    });
  const own = drops.length > 0 ? gridOver(discsBox(drops), 1.2, 260) : null;
  const body = ringsAt(field, grid, 0, 24);
  const free = own ? ringsAt(unionField(drops, own, 4), own, 0, 12) : [];
  if (rims !== null) {
    const smallest = Math.max(60, rims * rims * 2.5);
    return {
      body,
      drops: free,
      light: ringsAt(rimOf(field, grid, -rims * 0.6, -rims * 1.1, rims * 0.32), grid, 0, smallest),
      shade: ringsAt(rimOf(field, grid, rims * 0.7, rims * 1.4, 0), grid, 0, smallest),
    };
  }
  const thick = Math.max(...balls.map((b) => b.r), 4);
  const moved = (dx: number, dy: number, factor: number): Float64Array =>
    unionField(
      balls.map((b) => ({ x: b.x + dx * b.r, y: b.y + dy * b.r, r: b.r * factor })),
      grid,
      blend,
    );
  const inset = field.map((v) => v - thick * 0.1);
  const smallest = Math.max(40, thick * thick * 0.12);
  return {
    body,
    drops: free,
    light: ringsAt(within(moved(-0.26, -0.34, 0.46), inset), grid, 0, smallest),
    shade: ringsAt(
      moved(-0.14, -0.24, 0.98).map((v, i) => Math.min(-v, inset[i]! + thick * 0.05)),
      grid,
      0,
      smallest,
    ),
  };
}

function draw(scene: Scene, index: number): LaidFrame {
  const { settings } = scene;
  const form = Math.round(settings['form']!);
  const width = Math.max(2.5, settings['size']! * 0.022);
  const age = ageOf(scene, index);
  const liquid =
    form === GOB
      ? gobAt(scene, index)
      : form === CROWN
        ? crownAt(scene, age)
        : form === STREAMS
          ? streamsAt(scene, age)
          : surfaceAt(scene, phaseOf(scene, index));
  const { body, drops, light, shade } = ringsOf(liquid);
  const head = liquid.balls.filter((_, i) => i % 3 === 0 && liquid.balls[i]!.r > 4);
  return {
    balls: head.map((ball) => circleLine('guide', ball, 3)),
    line: [...body, ...drops].map((ring) => outlined(ring, 'line', width)),
    light: fillOf('light', light),
    shade: fillOf('shade', shade),
    drops: fillOf('body', drops),
    body: fillOf('body', body),
  };
}

export const LIQUID: StarterKind = {
  effect: 'liquid',
  name: 'Liquid',
  says: 'A gob on its way, a crown, streams that meet, a surface',
  cycles: ({ form }) => form === SURFACE,
  follows: 'path',
  length: 32,
  hold: 2,
  controls: [
    choice('form', 'What', ['gob', 'crown of a splash', 'streams that meet', 'surface'], GOB),
    control('size', 'Size', 'px', [20, 1200, 2], 150),
    control('trail', 'Tail by speed', '%', [0, 200, 1], 100),
    control('neck', 'Neck', '%', [0, 90, 1], 45),
    control('spread', 'Spreads', '%', [0, 100, 1], 60),
    control('drops', 'Drops', '', [0, 24, 1], 7),
    control('fingers', 'Fingers of the crown', '', [4, 24, 1], 11, 'more'),
    control('waves', 'Waves', '', [1, 8, 1], 3, 'more'),
    control('height', 'Height of waves', 'px', [2, 300, 1], 40, 'more'),
  ],
  outputs: [
    { key: 'balls', name: 'Liquid balls', role: 'guide', hidden: true },
    { key: 'line', name: 'Liquid line', role: 'line' },
    { key: 'light', name: 'Liquid light', role: 'tone' },
    { key: 'shade', name: 'Liquid shade', role: 'tone' },
    { key: 'drops', name: 'Drops', role: 'body' },
    { key: 'body', name: 'Liquid body', role: 'body' },
  ],
  paints: [
    { key: 'line', name: 'glass line', role: 'outline', colour: '#7a2a12' },
    { key: 'body', name: 'molten', role: 'body', colour: '#f28a2e' },
    { key: 'light', name: 'molten light', role: 'light', colour: '#ffe3a1' },
    { key: 'shade', name: 'molten shade', role: 'shade', colour: '#c9531c' },
    { key: 'guide', name: 'guide', role: 'outline', colour: '#d98fb0' },
  ],
  presets: [
    { name: 'Gob', settings: {} },
    { name: 'Crown', settings: { form: CROWN, size: 320 } },
    { name: 'Streams', settings: { form: STREAMS, size: 260, drops: 10 } },
    { name: 'Surface', settings: { form: SURFACE, size: 420 }, length: 24 },
  ],
  draw,
  pieces: ['light', 'shade'],
};
