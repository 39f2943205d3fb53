/** Small ones: sparks, shock ring, ripple, speed lines, a travelling wave, two shapes tied by area, impact frames. */
import {
  clamp,
  cosineTurn,
  fitRing,
  mix,
  polygonRing,
  seededRandom,
  sineTurn,
  smoothStep,
  type Point,
} from '../geometry/index.ts';
import type { Ring } from '../document/index.ts';
import { circleLine, samplesOf } from './circles.ts';
import { discsBox, gridOver, ringsAt, unionField } from './field.ts';
import { outlined } from './line.ts';
import {
  ageOf,
  choice,
  control,
  phaseOf,
  fillOf,
  type Fill,
  type LaidFrame,
  type Line,
  type Scene,
  type StarterKind,
} from './starter.ts';

const GUIDE = { key: 'guide', name: 'guide', role: 'outline', colour: '#d98fb0' } as const;

/** A crescent of an ellipse: from one turn to another, thickest in its middle. */
function crescent(radius: number, flat: number, from: number, to: number, thick: number): Ring {
  const steps = Math.max(10, Math.round((to - from) * 72));
  const edge = (side: 1 | -1): [number, number][] =>
    Array.from({ length: steps + 1 }, (_, i): [number, number] => {
      const t = side === 1 ? i / steps : 1 - i / steps;
      const turn = mix(from, to, t);
      const half = (thick / 2) * 4 * t * (1 - t);
      const r = radius + side * half;
      // Far and near it keeps half of its thickness: flattened whole, it would be a hair.
      return [cosineTurn(turn) * r, sineTurn(turn) * (radius * flat + side * half * mix(flat, 1, 0.5))];
    });
  return fitRing([...edge(1), ...edge(-1).slice(1, -1)], 0.4);
}

/** Arcs of a ring that comes apart: the older, the more air between them. */
function ringArcs(scene: Scene, radius: number, flat: number, thick: number, apart: number, seed: number): Ring[] {
  const random = seededRandom(scene.seed + seed);
  const count = 5;
  if (radius < 4 || thick < 4.2) return [];
  return Array.from({ length: count }, (_, i): Ring[] => {
    const [r1, r2] = [random(), random()];
    const gap = apart * mix(0.3, 1, r2) * 0.2;
    const from = (i + 0.12 * (r1 - 0.5)) / count + gap / 2 + 0.004;
    const to = (i + 1 + 0.1 * (r2 - 0.5)) / count - gap / 2 - 0.004;
    return to - from < 0.02
      ? []
      : [crescent(radius * mix(0.985, 1.015, r1), flat, from, to, thick * mix(0.8, 1.2, r2))];
  }).flat();
}

export const SHOCK_RING: StarterKind = {
  effect: 'ring',
  name: 'Shock ring',
  says: 'A ring that runs out, thins and comes apart',
  cycles: () => false,
  follows: 'nothing',
  length: 14,
  hold: 1,
  controls: [
    control('size', 'Size', 'px', [40, 2400, 5], 760),
    control('flat', 'Seen from', '%', [5, 100, 1], 34),
    control('thick', 'Thickness', 'px', [2, 160, 1], 46),
    control('apart', 'Comes apart', '%', [0, 100, 1], 70),
  ],
  outputs: [{ key: 'body', name: 'Shock ring', role: 'glow' }],
  paints: [{ key: 'ring', name: 'shock', role: 'light', colour: '#f4e7cf' }],
  presets: [
    { name: 'On the floor', settings: {} },
    { name: 'In the air', settings: { flat: 100, size: 560, thick: 30 } },
  ],
  draw: (scene, index) => {
    const { size, flat, thick, apart } = scene.settings as Record<string, number>;
    const age = ageOf(scene, index);
    const radius = (size! / 2) * (1 - (1 - age) * (1 - age) * (1 - age)) + size! * 0.04;
    const rings = ringArcs(
      scene,
      radius,
      flat! / 100,
      thick! * (1 - 0.9 * age),
      (apart! / 100) * smoothStep(0.3, 1, age),
      0,
    );
    return { body: fillOf('ring', rings) };
  },
};

export const RIPPLE: StarterKind = {
  effect: 'ripple',
  name: 'Ripple',
  says: 'Rings that run out on a surface, round and round',
  cycles: () => true,
  follows: 'nothing',
  length: 36,
  hold: 3,
  controls: [
    control('size', 'Size', 'px', [40, 2400, 5], 620),
    control('flat', 'Seen from', '%', [5, 100, 1], 26),
    control('rings', 'Rings', '', [1, 6, 1], 3),
    control('thick', 'Thickness', 'px', [2, 80, 1], 14),
  ],
  outputs: [{ key: 'body', name: 'Ripple', role: 'line' }],
  paints: [{ key: 'ring', name: 'ripple', role: 'light', colour: '#9fb7c4' }],
  presets: [{ name: 'Ripple', settings: {} }],
  draw: (scene, index) => {
    const { size, flat, rings, thick } = scene.settings as Record<string, number>;
    const phase = phaseOf(scene, index);
    const arcs = Array.from({ length: Math.round(rings!) }, (_, i) => {
      const whole = phase + i / Math.round(rings!);
      const age = whole - Math.floor(whole);
      const out = 1 - (1 - age) * (1 - age);
      const strength = smoothStep(0, 0.12, age) * (1 - smoothStep(0.5, 1, age));
      return ringArcs(scene, (size! / 2) * out, flat! / 100, thick! * strength, age, i * 13);
    }).flat();
    return { body: fillOf('ring', arcs) };
  },
};

export const SPARKS: StarterKind = {
  effect: 'sparks',
  name: 'Sparks',
  says: 'Sparks that fly and fall, each a stroke of its own',
  cycles: ({ ends }) => ends !== 1,
  follows: 'nothing',
  length: 24,
  hold: 1,
  controls: [
    choice('ends', 'Time', ['round and round', 'once']),
    control('count', 'Sparks', '', [1, 200, 1], 40),
    control('reach', 'Reach', 'px', [20, 1600, 5], 420),
    control('direction', 'Direction', '°', [0, 360, 1], 90),
    control('spread', 'Spread', '°', [2, 360, 1], 110),
    control('fall', 'Fall', 'px', [-600, 1600, 5], 360),
    control('width', 'Width', 'px', [1, 40, 1], 7),
    control('tail', 'Tail', '%', [5, 100, 1], 45, 'more'),
  ],
  outputs: [{ key: 'sparks', name: 'Sparks', role: 'glow' }],
  paints: [
    { key: 'spark', name: 'spark', role: 'light', colour: '#ffb14a' },
    { key: 'hot', name: 'hot', role: 'core', colour: '#fff3cf' },
  ],
  presets: [
    { name: 'Fountain', settings: {} },
    { name: 'Spray', settings: { ends: 1, direction: 20, spread: 60, reach: 620, fall: 500, count: 60 } },
    {
      name: 'Embers',
      settings: { fall: -420, reach: 160, spread: 200, count: 22, width: 5, tail: 15 },
      length: 48,
      hold: 2,
    },
  ],
  draw: (scene, index) => {
    const { count, reach, direction, spread, fall, width, tail } = scene.settings as Record<string, number>;
    const random = seededRandom(scene.seed);
    const time = scene.cycle ? phaseOf(scene, index) : ageOf(scene, index);
    const sparks = Array.from({ length: Math.round(count!) }, (_, i): Line[] => {
      const [r1, r2, r3, r4] = [random(), random(), random(), random()];
      const whole = time + (i + 0.8 * r1) / count!;
      const lives = mix(0.45, 0.95, r2);
      const own = scene.cycle ? (whole - Math.floor(whole)) / lives : (time - 0.2 * r1) / lives;
      if (own <= 0.015 || own >= 1) return [];
      const turn = -direction! / 360 + ((r3 - 0.5) * spread!) / 360;
      const [ux, uy] = [cosineTurn(turn), sineTurn(turn)];
      const at = (t: number): Point => {
        const out = reach! * mix(0.4, 1.2, r4) * (1 - (1 - t) * (1 - t));
        const sway = fall! < 0 ? 26 * sineTurn(t * 1.4 + r1) * t : 0;
        return { x: ux * out + sway, y: uy * out + fall! * mix(0.7, 1.2, r2) * t * t };
      };
      const back = Math.max(0, own - (tail! / 100) * 0.24 * (1 - 0.5 * own));
      const points = Array.from({ length: 6 }, (_, k) => at(mix(back, own, k / 5)));
      return [
        {
          paint: r4 > 0.6 ? 'hot' : 'spark',
          samples: samplesOf(points, (k) => 0.15 + 0.17 * k),
          width: width! * mix(0.5, 1.1, r1) * (1 - 0.6 * own),
        },
      ];
    }).flat();
    return { sparks };
  },
};

export const SPEED_LINES: StarterKind = {
  effect: 'speed',
  name: 'Speed lines',
  says: 'Lines that rush along or outwards, round and round',
  cycles: () => true,
  follows: 'nothing',
  length: 12,
  hold: 1,
  controls: [
    choice('form', 'Rush', ['outwards', 'along']),
    control('count', 'Lines', '', [4, 160, 1], 46),
    control('inner', 'Open middle', 'px', [0, 1200, 5], 300),
    control('reach', 'Reach', 'px', [100, 2600, 10], 1000),
    control('direction', 'Direction', '°', [0, 360, 1], 0),
    control('width', 'Width', 'px', [1, 60, 1], 12),
    control('long', 'Length', 'px', [20, 1400, 5], 380),
  ],
  outputs: [{ key: 'lines', name: 'Speed lines', role: 'line' }],
  paints: [{ key: 'line', name: 'speed', role: 'light', colour: '#f4ecdf' }],
  presets: [
    { name: 'Outwards', settings: {} },
    { name: 'Along', settings: { form: 1, inner: 0, count: 30 } },
  ],
  draw: (scene, index) => {
    const { form, count, inner, reach, direction, width, long } = scene.settings as Record<string, number>;
    const random = seededRandom(scene.seed);
    const phase = phaseOf(scene, index);
    const lines = Array.from({ length: Math.round(count!) }, (_, i): Line[] => {
      const [r1, r2, r3] = [random(), random(), random()];
      const whole = phase + r1;
      const run = whole - Math.floor(whole);
      const alive = smoothStep(0, 0.14, run) * (1 - smoothStep(0.8, 1, run));
      if (alive < 0.1) return [];
      const own = long! * mix(0.45, 1.2, r2);
      const turn = form === 1 ? -direction! / 360 : (i + 0.8 * r3) / count!;
      const [ux, uy] = [cosineTurn(turn), sineTurn(turn)];
      const aside = form === 1 ? (r3 - 0.5) * reach! : 0;
      const from = form === 1 ? (run - 0.5) * reach! * 2 : inner! + run * Math.max(0, reach! - inner!);
      const points = Array.from({ length: 7 }, (_, k) => {
        const t = from + (own * k) / 6;
        return { x: ux * t - uy * aside, y: uy * t + ux * aside };
      });
      // Outwards they open towards the edge; along they taper to both ends.
      const pressure = (k: number) => (form === 1 ? 0.1 + 0.9 * (1 - Math.abs(k / 3 - 1)) : 0.08 + 0.15 * k);
      return [{ paint: 'line', samples: samplesOf(points, pressure), width: width! * mix(0.4, 1.1, r1) * alive }];
    }).flat();
    return { lines };
  },
};

export const WAVE: StarterKind = {
  effect: 'wave',
  name: 'Wave',
  says: 'A sway whose peaks travel along a path',
  cycles: () => true,
  follows: 'path',
  length: 24,
  hold: 2,
  controls: [
    control('long', 'Length', 'px', [40, 2400, 5], 620),
    control('height', 'Height', 'px', [1, 500, 1], 64),
    control('peaks', 'Peaks', '', [0.5, 6, 0.5], 1.5),
    control('rises', 'Passes per cycle', '', [1, 6, 1], 1),
    control('straight', 'Straight between', '%', [0, 100, 1], 35),
    control('held', 'Held at its start', '%', [0, 100, 1], 70),
  ],
  outputs: [{ key: 'line', name: 'Wave', role: 'guide' }],
  paints: [GUIDE],
  presets: [{ name: 'Wave', settings: {} }],
  draw: (scene, index) => {
    const { long, height, peaks, rises, straight, held } = scene.settings as Record<string, number>;
    const phase = phaseOf(scene, index) * Math.round(rises!);
    const beat = 1 - (straight! / 100) * (0.5 - 0.5 * cosineTurn(2 * phase));
    const points = Array.from({ length: 61 }, (_, i): Point => {
      const s = i / 60;
      const spot = scene.way?.at(s) ?? { x: long! * s, y: 0, dx: 1, dy: 0 };
      const grow = mix(1, smoothStep(0, 0.7, s), held! / 100);
      const off = height! * grow * beat * sineTurn(peaks! * s - phase);
      return { x: spot.x - spot.dy * off, y: spot.y + spot.dx * off };
    });
    return { line: [{ paint: 'guide', samples: samplesOf(points), width: 5 }] };
  },
};

export const TIED: StarterKind = {
  effect: 'tied',
  name: 'Tied by area',
  says: 'As one shape shrinks the other grows',
  cycles: () => false,
  follows: 'path',
  length: 24,
  hold: 2,
  controls: [
    control('size', 'Size', 'px', [20, 1200, 2], 260),
    control('apart', 'Apart', 'px', [0, 1600, 5], 420),
    control('flows', 'Flows together', '%', [0, 100, 1], 55),
    control('rest', 'Left at the end', '%', [0, 80, 1], 6),
  ],
  outputs: [
    { key: 'balls', name: 'Tied balls', role: 'guide', hidden: true },
    { key: 'line', name: 'Tied line', role: 'line' },
    { key: 'body', name: 'Tied body', role: 'body' },
  ],
  paints: [
    { key: 'line', name: 'line', role: 'outline', colour: '#8c2a14' },
    { key: 'body', name: 'body', role: 'body', colour: '#e2581c' },
    GUIDE,
  ],
  presets: [{ name: 'Tied', settings: {} }],
  draw: (scene, index) => {
    const discs = tiedDiscs(scene, ageOf(scene, index));
    const grid = gridOver(discsBox(discs), 1.4, 220);
    const blend = Math.max(0.001, (scene.settings['flows']! / 100) * Math.min(...discs.map((d) => d.r)) * 1.6);
    const rings = ringsAt(unionField(discs, grid, blend), grid, 0, 16);
    const width = Math.max(2.5, scene.settings['size']! * 0.03);
    return {
      balls: discs.map((disc) => circleLine('guide', disc, 3)),
      line: rings.map((ring) => outlined(ring, 'line', width)),
      body: fillOf('body', rings),
    };
  },
};

/** The two discs: their areas always sum to that of one disc of the set size. */
export function tiedDiscs(
  scene: Pick<Scene, 'settings' | 'way'>,
  age: number,
): [{ x: number; y: number; r: number }, { x: number; y: number; r: number }] {
  const { size, apart, rest } = scene.settings as Record<string, number>;
  const share = mix(1 - rest! / 100, rest! / 100, clamp(smoothStep(0, 1, age), 0, 1));
  const radius = size! / 2;
  const from = scene.way?.at(0) ?? { x: -apart! / 2, y: 0 };
  const to = scene.way?.at(1) ?? { x: apart! / 2, y: 0 };
  return [
    { x: from.x, y: from.y, r: radius * Math.sqrt(share) },
    { x: to.x, y: to.y, r: radius * Math.sqrt(1 - share) },
  ];
}

const FAR = 6000;
const everywhere = (paint: string, opacity = 1): Fill => ({
  paint,
  rings: [
    polygonRing([
      [-FAR, -FAR],
      [FAR, -FAR],
      [FAR, FAR],
      [-FAR, FAR],
    ]),
  ],
  opacity,
});

/**
 * Impact frames by blending alone: grey by saturation, lifted so that what is brighter than the limit is white,
 * burnt so that all else is black; inverted by difference with white.
 */
export const IMPACT: StarterKind = {
  effect: 'impact',
  name: 'Impact frames',
  says: 'The whole picture in two tones or inverted',
  cycles: () => false,
  follows: 'nothing',
  length: 2,
  hold: 1,
  controls: [
    choice('form', 'Frames', ['two tones, then inverted', 'inverted', 'two tones']),
    control('limit', 'White from', '%', [2, 98, 1], 40),
  ],
  outputs: [
    { key: 'invert', name: 'Impact inverted', role: 'glow', blend: 'difference' },
    { key: 'cut', name: 'Impact black', role: 'glow', blend: 'color-burn' },
    { key: 'lift', name: 'Impact white', role: 'glow', blend: 'lighter' },
    { key: 'grey', name: 'Impact grey', role: 'glow', blend: 'saturation' },
  ],
  paints: [
    { key: 'white', name: 'impact white', role: 'light', colour: '#ffffff' },
    { key: 'black', name: 'impact black', role: 'shade', colour: '#000000' },
  ],
  presets: [
    { name: 'Two tones', settings: {} },
    { name: 'Inverted', settings: { form: 1 }, length: 1 },
  ],
  draw: (scene, index): LaidFrame => {
    const form = Math.round(scene.settings['form']!);
    const tones = form !== 1;
    const inverted = form === 1 || (form === 0 && index % 2 === 1);
    return {
      invert: inverted ? [everywhere('white')] : [],
      cut: tones ? [everywhere('black')] : [],
      lift: tones ? [everywhere('white', 1 - scene.settings['limit']! / 100)] : [],
      grey: tones ? [everywhere('black')] : [],
    };
  },
};
