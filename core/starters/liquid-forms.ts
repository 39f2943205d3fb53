/** What a liquid is on one moment, and the forms that are not a gob: crown, streams, surface. */
import { clamp, cosineTurn, mix, seededRandom, sineTurn, smoothStep, type Point } from '../geometry/index.ts';
import type { Ball } from './field.ts';
import type { Scene } from './starter.ts';

/** What lies on one moment: balls that flow together, a floor they do not pass, and drops on their own. */
export interface Liquid {
  readonly balls: readonly Ball[];
  readonly drops: readonly Ball[];
  readonly blend: number;
  /** Breadth of the light and shade along its rims, px; null where they are made ball by ball. */
  readonly rims: number | null;
  /** More that is inside, px deep. */
  readonly more?: (x: number, y: number) => number;
}

/** Drops that leave at a moment: fast, then slower and smaller; the larger break in two. */
export function dropsAt(
  scene: Scene,
  since: number,
  from: Point,
  reach: number,
  size: number,
  upward: boolean,
): Ball[] {
  const random = seededRandom(scene.seed ^ 0x68bc21eb);
  return Array.from({ length: Math.round(scene.settings['drops']!) }, (_, i): Ball[] => {
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

/** The crown: a wall that rises in a ring and flares, with fingers that let drops go, and sinks again. */
export function crownAt(scene: Scene, age: number): Liquid {
  const { size, fingers, spread } = scene.settings as Record<string, number>;
  const random = seededRandom(scene.seed);
  const random0 = seededRandom(scene.seed ^ 0x2f6e2b1)();
  const wide = size! * mix(0.35, 0.62 + spread! / 400, 1 - (1 - age) * (1 - age));
  const rises = 4 * age * (1 - age);
  const tall = size! * 0.85 * rises * (1 - 0.25 * age);
  const count = Math.round(fingers!);
  const balls: Ball[] = [];
  const drops: Ball[] = [];
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
    // A drop leaves each finger when that reaches its height.
    const left = (age - mix(0.32, 0.45, r3)) / 0.5;
    if (left > 0 && left < 1) {
      const r = size! * mix(0.026, 0.05, r1) * Math.sqrt(1 - left);
      const up = size! * 0.42 * mix(0.6, 1.2, r2) * (1 - (1 - left) * (1 - left)) - size! * 0.75 * left * left;
      const y0 = s * wide * 0.26 - size! * 0.85 * 0.9 * mix(0.65, 1.15, r2);
      if (r > 2) drops.push({ x: c * wide * (1.3 + 0.35 * left), y: y0 - up, r });
    }
  }
  // Its foot spreads over the surface: a lip that runs out wider and wider, and thinner to its edge.
  const lip = wide * mix(1.08, 1.42, age);
  for (let i = 0; i < 48; i++) {
    const turn = i / 48;
    const uneven = 1 + 0.05 * sineTurn(3 * turn + random0) + 0.03 * sineTurn(7 * turn + 2 * random0);
    for (const far of [0.55, 1])
      balls.push({
        x: cosineTurn(turn) * mix(wide, lip, far) * uneven,
        y: sineTurn(turn) * mix(wide, lip, far) * 0.25 * uneven,
        r: size! * mix(0.04, 0.014, far) * (1 - 0.6 * age),
      });
  }
  // The wall: highest in the middle, sinking to the lip at both sides in a curve, never straight down.
  const sheet = (x: number, y: number) => {
    const inside = 1 - (x * x) / (wide * wide);
    if (inside <= 0) return -50;
    const foot = Math.sqrt(inside) * wide * 0.25;
    return Math.min(y + tall * 0.42 * inside, foot - y);
  };
  return { balls, drops, blend: size! * 0.035, rims: size! * 0.05, more: sheet };
}

/** Streams from both sides that taper, meet, well up and spread. */
export function streamsAt(scene: Scene, age: number): Liquid {
  const { size, spread, trail } = scene.settings as Record<string, number>;
  const far = size! * 2.6;
  const meets = 0.5;
  const balls: Ball[] = [];
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
export function surfaceAt(scene: Scene, phase: number): Liquid {
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
  const frame: Ball[] = [
    { x: -wide, y: -height! * 1.3, r: 1 },
    { x: wide, y: size! * 0.55, r: 1 },
  ];
  return { balls: frame, drops: [], blend: 2, rims: height! * 0.4, more: body };
}
