/**
 * Trail: what a moving thing leaves behind it. As long as a share of the way of its last drawings: so it grows with the speed,
 * shrinks before a stop, and never reaches back to where the thing set out.
 */
import { choice, control } from '../controls/index.ts';
import type { Mark, NewId, Shape, Stroke } from '../document/index.ts';
import {
  fitRing,
  mix,
  partBetween,
  polygonRing,
  seededRandom,
  seek,
  walkOf,
  type Pair,
  type Point,
  type Walk,
} from '../geometry/index.ts';
import type { Flow } from './flow.ts';
import { NOTHING_SMEARED, type SmearKind, type SmearScene, type Stop } from './scene.ts';

/** A trail leaves this much of the whole way free. */
const NEVER_BACK = 0.9;
/** Places on the way between two drawings, and along a trail. */
const [STEPS, PLACES] = [16, 40] as const;

/** The way of the middle, or of the tip, through the drawings, from the earliest to the latest. */
function wayGone(stops: readonly Stop[], flows: readonly Flow[], of: 'middle' | 'tip' = 'middle'): Walk {
  const points = flows.flatMap((flow, i) => {
    const { along, across } = of === 'middle' ? { along: 0, across: 0 } : flow.to(stops[i + 1]!.tip);
    return Array.from({ length: STEPS }, (_, k) => flow.from(along + k / STEPS - 1, across));
  });
  return walkOf([...points, stops.at(-1)![of]], false);
}

/** How long a trail is, px. @param share of the way of the drawings that count. */
export const trailLength = (gone: number, share: number): number => Math.min(gone * share, gone * NEVER_BACK);

/** A place on the trail: 0 at the thing, 1 at its end. */
interface Place {
  readonly at: Point;
  /** Unit vector back along the trail. */
  readonly back: Point;
  /** Turn to the next place, radians. */
  readonly share: number;
}

function placesOn(way: Walk, long: number, lag: number, wide: number): Place[] {
  const spot = (share: number): Point => {
    const { at, share: into } = seek(way, Math.max(0, way.length - long * share));
    const [p, q] = [way.points[at]!, way.points[at + 1] ?? way.points[at]!];
    return { x: mix(p.x, q.x, into), y: mix(p.y, q.y, into) };
  };
  return Array.from({ length: PLACES + 1 }, (_, k): Place => {
    const share = k / PLACES;
    const [a, b] = [spot(Math.max(0, share - 0.04)), spot(Math.min(1, share + 0.04))];
    const size = Math.hypot(b.x - a.x, b.y - a.y) || 1;
    const back = { x: (b.x - a.x) / size, y: (b.y - a.y) / size };
    const [c, d] = [spot(Math.max(0, share - 0.12)), spot(Math.min(1, share + 0.12))];
    // On the inside of a turn: where the way bends to.
    const bend = (a.x - c.x) * (d.y - b.y) - (a.y - c.y) * (d.x - b.x);
    const aside = lag * wide * share * share * Math.sign(bend) * Math.min(1, Math.abs(bend) / 40);
    const at = spot(share);
    return { at: { x: at.x - back.y * aside, y: at.y + back.x * aside }, back, share };
  });
}

/** How wide it is at a place, of its width at the thing. */
const widthAt = (share: number, tapers: number): number => Math.pow(Math.max(0, 1 - share), mix(0.15, 1.4, tapers));

function outlineOf(places: readonly Place[], wide: number, tapers: number, to: number): Pair[] {
  const own = places.filter(({ share }) => share <= to + 1e-9);
  const side = (sign: number) =>
    own.map(({ at, back, share }): Pair => {
      const half = (sign * wide * widthAt(to > 0 ? share / to : 0, tapers)) / 2;
      return [at.x - back.y * half, at.y + back.x * half];
    });
  return [...side(1), ...side(-1).reverse()];
}

/** Drops or flecks in place of the end of a trail, closer and larger where it breaks. */
function broken(places: readonly Place[], wide: number, from: number, isFleck: boolean, seed: number): Float32Array[] {
  const random = seededRandom(seed);
  const rings: Float32Array[] = [];
  for (let share = from + 0.03; share < 1; share += (isFleck ? 0.035 : 0.07) + 0.09 * (share - from)) {
    const { at, back } = places[Math.min(PLACES, Math.round(share * PLACES))]!;
    const size = wide * widthAt(share, 0.6) * (isFleck ? 0.14 : 0.26) * mix(0.6, 1.25, random());
    if (size < 0.6) continue;
    const aside = (random() - 0.5) * wide * widthAt(share, 0.4) * (isFleck ? 0.9 : 0.45);
    const [cx, cy] = [at.x - back.y * aside, at.y + back.x * aside];
    const long = size * (isFleck ? 2.2 : 1.35);
    const points = Array.from({ length: isFleck ? 6 : 14 }, (_, k): Pair => {
      const turn = (k / (isFleck ? 6 : 14)) * 2 * Math.PI;
      const rough = isFleck ? mix(0.6, 1.1, random()) : 1;
      // Fuller at the front, as a drop in flight.
      const run = Math.cos(turn) * long * rough;
      const off = Math.sin(turn) * size * rough * (run > 0 && !isFleck ? 0.62 : 1);
      return [cx + back.x * run - back.y * off, cy + back.y * run + back.x * off];
    });
    rings.push(isFleck ? polygonRing(points) : fitRing(points, 0.2));
  }
  return rings;
}

function hazeAlong(places: readonly Place[], wide: number, tapers: number, scene: SmearScene, newId: NewId): Stroke {
  const column = (of: (place: Place) => number) => Float32Array.from(places, of);
  return {
    kind: 'stroke',
    id: newId(),
    swatch: scene.swatch,
    brush: {
      kind: 'haze',
      width: Math.max(2, wide),
      opacity: scene.settings['opacity']! / 100,
      pressure: true,
      flow: 0.6,
    },
    seed: scene.seed,
    samples: {
      x: column(({ at }) => at.x),
      y: column(({ at }) => at.y),
      pressure: column(({ share }) => Math.max(0.02, widthAt(share, tapers))),
      altitude: column(() => Math.PI / 2),
      azimuth: column(() => 0),
    },
  };
}

export const TRAIL: SmearKind = {
  form: 'trail',
  name: 'Trail',
  says: 'As long as the speed of the last drawings',
  lies: () => 'behind',
  controls: [
    control('length', 'Of the way gone', '%', [5, 90, 1], 60),
    control('width', 'Width', '%', [5, 150, 5], 80),
    control('breaks', 'Breaks from the end', '%', [0, 90, 5], 0),
    choice('made', 'It is', ['solid', 'fading', 'soft'], 0),
    control('opacity', 'Opacity', '%', [5, 100, 5], 100, 'more'),
    control('drawings', 'Of the last', 'drawings', [1, 12, 1], 3, 'more'),
    control('tapers', 'Tapers', '%', [0, 100, 5], 70, 'more'),
    control('lags', 'Lags inside turns', '%', [0, 100, 5], 30, 'more'),
    choice('into', 'Breaks into', ['drops', 'flecks'], 0),
    choice('of', 'Follows', ['the middle', 'its tip or traced point', 'its path'], 0),
  ],
  draw: (scene, newId) => {
    const { settings, flows, stops, arrived, seed, swatch } = scene;
    const count = Math.min(flows.length, settings['drawings']!);
    const own = stops.slice(-1 - count);
    const way =
      settings['of'] === 2 && scene.line
        ? partBetween(scene.line, own[0]!.middle, own.at(-1)!.middle)
        : wayGone(own, flows.slice(-count), settings['of'] === 1 ? 'tip' : 'middle');
    const long = trailLength(way.length, settings['length']! / 100);
    if (long < 2 || arrived.area === 0) return NOTHING_SMEARED;
    const flow = flows.at(-1)!;
    const across = arrived.outlines.flat().map(([x, y]) => flow.to({ x, y }).across);
    const breadth =
      across.reduce((a, b) => Math.max(a, b), -Infinity) - across.reduce((a, b) => Math.min(a, b), Infinity);
    const wide = (breadth * settings['width']!) / 100;
    const tapers = settings['tapers']! / 100;
    const places = placesOn(way, long, settings['lags']! / 100, wide);
    if (settings['made'] === 2) return { own: new Map(), behind: [[hazeAlong(places, wide, tapers, scene, newId)]] };
    const whole = 1 - settings['breaks']! / 100;
    const opacity = settings['opacity']! / 100;
    const shape = (rings: readonly Float32Array[], alpha: number): Shape => ({
      kind: 'shape',
      id: newId(),
      swatch,
      rings,
      rule: 'nonzero',
      opacity: alpha,
    });
    // Fading, shorter ones lie on longer ones, each thin by itself.
    const stack = settings['made'] === 1 ? [1, 0.8, 0.6, 0.42, 0.26] : [1];
    const alpha = stack.length === 1 ? opacity : 1 - Math.pow(1 - opacity * 0.92, 1 / stack.length);
    const marks: Mark[] = stack.map((to) => shape([fitRing(outlineOf(places, wide, tapers, whole * to), 0.25)], alpha));
    const pieces = whole < 1 ? broken(places, wide, whole, settings['into'] === 1, seed) : [];
    return { own: new Map(), behind: [[...marks, ...pieces.map((ring) => shape([ring], opacity))]] };
  },
};
