/**
 * Burst: a flash with spikes for one or two drawings, then billows that are most of their size within the first
 * fifth and go on rolling, a core that burns out inside them, and a break-up by tearing. Fragments and sparks fly
 * out on arcs, each a mark of its own.
 */
import {
  clamp,
  cosineTurn,
  mix,
  polygonRing,
  seededRandom,
  sineTurn,
  smoothStep,
  unitedRings,
  gridOver,
  ringsAt,
} from '../geometry/index.ts';
import type { Ring } from '../document/index.ts';
import { billowRings, type Puff } from './billow.ts';
import { GUIDE_PAINT, circleLine, samplesOf } from './circles.ts';
import { discsBox, unionField } from './field.ts';
import { outlinedAll } from './line.ts';
import { choice, control } from '../controls/index.ts';
import {
  ageOf,
  leftOf,
  starterFill,
  type StarterFill,
  type LaidFrame,
  type LaidMark,
  type StarterLine,
  type Scene,
  type StarterKind,
} from './starter.ts';

const ROUND = 0;
const DIRECTED = 1;
const RINGED = 2;
const GROUNDED = 3;

/** How much of its size a burst has at an age: three quarters of it after a fifth. */
export const grownAt = (age: number): number => {
  const left = 1 - age;
  const cubed = left * left * left;
  return 1 - cubed * cubed;
};

/** Directions of the parts, in turns, evenly spread with some unevenness. 0 is to the right, a quarter is down. */
function wayOut(scene: Scene, share: number, jitter: number): { ux: number; uy: number; reach: number } {
  const form = Math.round(scene.settings['form']!);
  const towards = -scene.settings['direction']! / 360;
  const free = share + jitter;
  if (form === DIRECTED) {
    const turn = towards + (free - Math.floor(free) - 0.5) * 0.3;
    return { ux: cosineTurn(turn), uy: sineTurn(turn), reach: 1.35 };
  }
  if (form === GROUNDED) {
    const turn = towards + 0.5 * (free - Math.floor(free) - 0.5);
    return { ux: cosineTurn(turn), uy: sineTurn(turn), reach: 1 };
  }
  return { ux: cosineTurn(free), uy: form === RINGED ? sineTurn(free) * 0.34 : sineTurn(free), reach: 1 };
}

/** The billows at an age. */
function puffsAt(scene: Scene, age: number): Puff[] {
  const { size, billows, roll, rise } = scene.settings as Record<string, number>;
  const form = Math.round(scene.settings['form']!);
  const random = seededRandom(scene.seed);
  const grown = grownAt(age);
  const breaking = smoothStep(1 - scene.settings['breakup']! / 100, 1, age);
  const puffs: Puff[] = [];
  const count = Math.round(billows!);
  for (let i = 0; i < count; i++) {
    const [r1, r2, r3, r4] = [random(), random(), random(), random()];
    const { ux, uy, reach } = wayOut(scene, i / count, 0.5 * (r1 - 0.5) * (1 / count));
    const inner = i % 3 === 2 && form !== RINGED;
    const out = size! * 0.5 * reach * (inner ? mix(0.1, 0.3, r2) : mix(0.5, 0.78, r2)) * grown;
    const lives = breaking * mix(0.85, 1.3, r4);
    const side = ux >= 0 ? 1 : -1;
    // Billows circulate in the mass, up in its middle and down outside, each at a pace of its own: they roll over and swallow
    // one another for as long as it lasts, when it has long stopped growing.
    const round = (roll! / 100) * mix(1.3, 2.2, r2) * (age + 0.2 * grown);
    const stir = size! * (form === RINGED ? 0.075 : 0.12) * mix(0.7, 1.2, r3) * grown;
    const [stirX, stirY] = [
      side * stir * (sineTurn(round + r1) - sineTurn(r1)),
      -stir * (cosineTurn(round + r1) - cosineTurn(r1)),
    ];
    // Some grow while others are swallowed.
    const swell = 1 + 0.16 * sineTurn(round * 1.3 + r2);
    puffs.push({
      x: ux * out * (1 + 0.16 * age) + stirX,
      y:
        uy * out +
        stirY -
        rise! * age * mix(0.5, 1.1, r3) * mix(0.45, 1, age) -
        (form === GROUNDED ? size! * 0.07 * grown : 0),
      r:
        size! *
        0.5 *
        mix(0.26, 0.42, r3) *
        (inner ? 1.25 : 1) *
        mix(0.35, 1, grown) *
        (form === RINGED ? 0.62 : 1) *
        swell *
        (1 - 0.75 * smoothStep(0.35, 1.1, lives)),
      roll: r2 + side * (roll! / 100) * (0.3 * grown + 0.4 * age),
      seed: Math.floor(r4 * 4294967295),
      torn: clamp(lives, 0, 1),
    });
  }
  return puffs;
}

/** A star of uneven spikes. */
function starRing(scene: Scene, radius: number, seed: number): Ring[] {
  const random = seededRandom(seed);
  const count = Math.round(scene.settings['spikes']!);
  const points: [number, number][] = [];
  const grounded = Math.round(scene.settings['form']!) === GROUNDED;
  for (let i = 0; i < count; i++) {
    const [r1, r2, r3] = [random(), random(), random()];
    const { ux, uy, reach } = wayOut(scene, i / count, (r1 - 0.5) * (0.7 / count));
    const next = wayOut(scene, (i + 0.5) / count, (r2 - 0.5) * (0.3 / count));
    const long = radius * (i % 2 === 0 ? mix(0.72, 1.15, r3) : mix(0.42, 0.7, r3)) * reach;
    points.push([ux * long, uy * long]);
    if (i < count - 1 || !grounded)
      points.push([next.ux * radius * mix(0.2, 0.32, r2), next.uy * radius * mix(0.2, 0.32, r2)]);
  }
  if (grounded) {
    const away = -scene.settings['direction']! / 360 + 0.25;
    const [ax, ay] = [cosineTurn(away) * radius * 0.25, sineTurn(away) * radius * 0.25];
    points.push([ax, ay], [-ax, -ay]);
  }
  return unitedRings([points], 4);
}

/** The flash: its first drawing small, its second full, hotter inside. */
function flashAt(scene: Scene, index: number): LaidMark[] {
  const drawings = Math.round(scene.settings['flash']!);
  if (index >= drawings) return [];
  const full = drawings === 1 ? 1 : mix(0.55, 1, index / (drawings - 1));
  const radius = scene.settings['size']! * 0.62 * full;
  const seed = scene.seed + 101 * (index + 1);
  return [
    { paint: 'flash', rings: starRing(scene, radius, seed) },
    { paint: 'hot', rings: starRing(scene, radius * 0.58, seed) },
  ];
}

/** Where something thrown is: fast, slowing, drawn down. */
function thrown(reach: number, ux: number, uy: number, age: number, fall: number): { x: number; y: number } {
  const out = reach * (1 - (1 - age) * (1 - age) * (1 - age));
  return { x: ux * out, y: uy * out + fall * age * age };
}

/** Fragments: tilted, uneven, tumbling and shrinking; none whole, none like another. */
function fragmentsAt(scene: Scene, age: number): StarterFill[] {
  const { fragments, size, fall } = scene.settings as Record<string, number>;
  const random = seededRandom(scene.seed ^ 0x3c6ef372);
  return Array.from({ length: Math.round(fragments!) }, (_, i): StarterFill[] => {
    const [r1, r2, r3, r4, r5] = [random(), random(), random(), random(), random()];
    const lives = mix(0.55, 1, r5);
    const own = age / lives;
    const corners = 3 + Math.floor(r4 * 2.99);
    const shapes = Array.from({ length: corners }, () => random());
    if (own >= 1 || age === 0) return [];
    const { ux, uy } = wayOut(scene, i / fragments!, (r1 - 0.5) * 0.12);
    const at = thrown(size! * mix(0.75, 1.5, r2), ux, uy, own, fall! * mix(0.7, 1.3, r3));
    const r = size! * mix(0.028, 0.075, r3) * (1 - 0.7 * own);
    if (r < 2.5) return [];
    const tilt = r1 + (r2 > 0.5 ? 1 : -1) * own * mix(0.3, 1.2, r4);
    const points = shapes.map((s, k): [number, number] => {
      const turn = tilt + (k + 0.55 * (s - 0.5)) / corners;
      const long = r * mix(0.55, 1.25, s);
      // Seen edge on in turn as it tumbles.
      const edge = mix(0.5, 1, Math.abs(cosineTurn(own * 1.5 + r5)));
      return [at.x + cosineTurn(turn) * long, at.y + sineTurn(turn) * long * edge];
    });
    return [{ paint: i % 3 === 0 ? 'shardLight' : 'shard', rings: [polygonRing(points)] }];
  }).flat();
}

/** Sparks: short strokes along the way they fly, as long as they are fast. */
function sparksAt(
  scene: Scene,
  age: number,
  { count, reach, fall, long }: { count: number; reach: number; fall: number; long: number },
): StarterLine[] {
  const random = seededRandom(scene.seed ^ 0x1b873593);
  return Array.from({ length: count }, (_, i): StarterLine[] => {
    const [r1, r2, r3, r4] = [random(), random(), random(), random()];
    const leaves = 0.12 * r4;
    const lives = mix(0.4, 0.95, r3);
    const own = (age - leaves) / lives;
    if (own <= 0.02 || own >= 1) return [];
    const { ux, uy } = wayOut(scene, i / count, (r1 - 0.5) * 0.2);
    const path = (t: number) => thrown(reach * mix(0.45, 1.25, r2), ux, uy, Math.max(0, t), fall * mix(0.6, 1.2, r3));
    const tail = Math.min(own, long * mix(0.05, 0.14, r4) * (1 - 0.6 * own));
    const points = Array.from({ length: 6 }, (_, k) => path(own - tail + (tail * k) / 5));
    const width = mix(3, 8, r2) * (1 - 0.6 * own);
    return [{ paint: r4 > 0.5 ? 'spark' : 'hot', samples: samplesOf(points, (k) => 0.15 + (0.85 * k) / 5), width }];
  }).flat();
}

/** The core: balls of fire inside the billows that burn out. */
function coreAt(scene: Scene, puffs: readonly Puff[], age: number): { core: Ring[]; hot: Ring[] } {
  const burns = scene.settings['burns']! / 100;
  const left = 1 - age / Math.max(0.02, burns);
  if (left <= 0) return { core: [], hot: [] };
  const balls = puffs.map((p) => ({ x: p.x * 0.8, y: p.y * 0.8 + p.r * 0.1, r: p.r * 1.0 * Math.sqrt(left) }));
  const grid = gridOver(discsBox(balls), 1.6, 220);
  const mean = balls.reduce((s, b) => s + b.r, 0) / balls.length;
  const field = unionField(balls, grid, mean * 0.3);
  const smallest = Math.max(40, mean * mean * 0.12);
  return {
    core: ringsAt(field, grid, mean * 0.12, smallest),
    hot: ringsAt(field, grid, mean * mix(0.75, 0.42, left), smallest),
  };
}

function draw(scene: Scene, index: number): LaidFrame {
  const { settings } = scene;
  const flash = Math.round(settings['flash']!);
  const age = ageOf(scene, index);
  const early = index < Math.max(1, flash);
  const left = leftOf(scene, index);
  const puffs = early ? [] : puffsAt(scene, age).map((puff) => ({ ...puff, r: puff.r * left }));
  const angle = settings['light']! / 360;
  const style = { scallops: settings['scallops']! / 100, light: { x: cosineTurn(angle), y: -sineTurn(angle) } };
  const { body, light, shade, creases } = billowRings(puffs, style, 'line');
  const { core, hot } = puffs.length > 0 ? coreAt(scene, puffs, age) : { core: [], hot: [] };
  const width = Math.max(2.5, settings['size']! * 0.014);
  return {
    balls: puffs.filter((p) => p.r > 3).map((p) => circleLine('guide', p, 3)),
    flash: flashAt(scene, index),
    sparks: sparksAt(scene, age, {
      count: Math.round(settings['sparks']!),
      reach: settings['size']! * 1.25,
      fall: settings['fall']!,
      long: 1,
    }),
    fragments: fragmentsAt(scene, age),
    line: outlinedAll(body, 'line', width),
    details: core.length > 0 ? [] : creases,
    core: [...starterFill('fire', core), ...starterFill('hot', hot)],
    light: starterFill('light', light),
    shade: starterFill('shade', shade),
    body: starterFill('body', body),
  };
}

export const BURST: StarterKind = {
  effect: 'burst',
  name: 'Burst',
  says: 'A flash, billows that roll and tear, fragments and sparks',
  offered: 'first',
  telling: 0.24,
  cycles: () => false,
  follows: 'nothing',
  stands: 'middle',
  length: 36,
  hold: 2,
  controls: [
    control('size', 'Size', 'px', [60, 1600, 5], 560),
    choice('form', 'Goes', ['all round', 'one way', 'in a ring', 'off a floor or wall'], ROUND),
    control('direction', 'Direction', '°', [0, 360, 1], 60),
    control('billows', 'Billows', '', [3, 18, 1], 9),
    control('burns', 'Core burns for', '%', [5, 100, 1], 38),
    control('breakup', 'Breaks up for', '%', [10, 90, 1], 55),
    control('fragments', 'Fragments', '', [0, 60, 1], 18),
    control('sparks', 'Sparks', '', [0, 120, 1], 34),
    control('flash', 'Flash', 'drawings', [0, 3, 1], 2, 'more'),
    control('spikes', 'Spikes', '', [6, 30, 1], 14, 'more'),
    control('fall', 'Fall', 'px', [0, 1200, 5], 260, 'more'),
    control('rise', 'Smoke rises', 'px', [-200, 600, 5], 70, 'more'),
    control('roll', 'Roll', '%', [-150, 150, 1], 60, 'more'),
    { ...control('scallops', 'Depth of scallops', '%', [0, 100, 1], 90), more: true },
    control('light', 'Light from', '°', [0, 360, 1], 110, 'more'),
  ],
  outputs: [
    { key: 'balls', name: 'Burst balls', role: 'guide', hidden: true },
    { key: 'flash', name: 'Burst flash', role: 'glow' },
    { key: 'sparks', name: 'Burst sparks', role: 'glow' },
    { key: 'fragments', name: 'Burst fragments', role: 'body' },
    { key: 'line', name: 'Burst line', role: 'line' },
    { key: 'core', name: 'Burst core', role: 'glow' },
    { key: 'details', name: 'Burst creases', role: 'line' },
    { key: 'light', name: 'Burst light', role: 'tone' },
    { key: 'shade', name: 'Burst shade', role: 'tone' },
    { key: 'body', name: 'Burst body', role: 'body' },
  ],
  paints: [
    { key: 'line', name: 'soot line', role: 'outline', colour: '#0f1317' },
    { key: 'light', name: 'burst light', role: 'light', colour: '#a08c7d' },
    { key: 'shade', name: 'burst shade', role: 'shade', colour: '#473d3a' },
    { key: 'body', name: 'burst smoke', role: 'body', colour: '#6f605a' },
    { key: 'fire', name: 'burst fire', role: 'body', colour: '#f07a2a' },
    { key: 'hot', name: 'hot', role: 'core', colour: '#fff3cf' },
    { key: 'flash', name: 'flash', role: 'light', colour: '#ffc25c' },
    { key: 'spark', name: 'spark', role: 'light', colour: '#ffb14a' },
    { key: 'shard', name: 'shard', role: 'shade', colour: '#5b7f86' },
    { key: 'shardLight', name: 'shard light', role: 'light', colour: '#b7dede' },
    GUIDE_PAINT,
  ],
  presets: [
    { name: 'Burst', settings: {} },
    { name: 'From a floor', settings: { form: GROUNDED, direction: 90, billows: 11, rise: 120, fragments: 14 } },
    { name: 'One way', settings: { form: DIRECTED, billows: 8, direction: 25, fragments: 10 } },
    {
      name: 'Dust ring',
      settings: { form: RINGED, burns: 5, sparks: 0, fragments: 0, billows: 14, flash: 0, rise: 40 },
    },
  ],
  ground: '#20262d',
  moods: {
    calm: { roll: 30, fragments: 4, sparks: 8, flash: 1, burns: 20 },
    crackling: { sparks: 90, fragments: 24, flash: 2 },
    angry: { roll: 110, fragments: 34, sparks: 60, flash: 3, spikes: 20, burns: 55 },
    menacing: { roll: 130, rise: 200, fragments: 10, sparks: 12, burns: 30, breakup: 40 },
  },
  draw,
  pieces: ['body', 'light', 'shade', 'core'],
};
