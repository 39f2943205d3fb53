/**
 * Smoke: puffs leave a source at uneven gaps, rise on a swaying way, grow and roll, then tear open and shrink
 * away. In a plume every puff comes round a whole number of times in a cycle, so it closes; a single puff ends.
 */
import { clamp, cosineTurn, mix, seededRandom, sineTurn, smoothStep } from '../geometry/index.ts';
import { billowRings, type Puff } from './billow.ts';
import { GUIDE_PAINT, circleLine } from './circles.ts';
import { outlinedAll } from './line.ts';
import { choice, control } from '../controls/index.ts';
import { ageOf, leftOf, starterFill, phaseOf, type LaidFrame, type Scene, type StarterKind } from './starter.ts';

/** A puff of some age: 0 at the source, 1 gone. */
function puffAt(
  scene: Scene,
  age: number,
  of: { seed: number; side: number; size: number; way: number; at: number; share: number },
  phase: number,
): Puff {
  const { height, width, growth, curl, drift, sway, thin } = scene.settings as Record<string, number>;
  const up = scene.way ? age : age * mix(1.25, 0.75, age);
  const reach = (width! / 2) * of.size * of.share;
  const grown = mix(0.5, growth! / 100, Math.sqrt(age)) * smoothStep(-0.06, 0.1, age);
  const thinning = smoothStep(1 - thin! / 100, 1, age);
  const shrink = 1 - 0.85 * thinning * thinning;
  const spot = scene.way?.at(clamp(up, 0, 1));
  const aside = of.side * reach * (0.25 + 0.9 * up) + sway! * up * sineTurn(up * 0.8 + part(of.way - phase));
  return {
    x: of.at + (spot ? spot.x - spot.dy * aside : aside + drift! * up * (0.4 + 0.6 * up)),
    y: spot ? spot.y + spot.dx * aside : -height! * of.share * up,
    r: reach * grown * shrink,
    roll: of.way + (of.side >= 0 ? 1 : -1) * (curl! / 100) * 0.6 * age,
    seed: of.seed,
    torn: thinning,
  };
}

/** How far up a plume its root goes, as a share of an age, and how many small puffs it is made of. */
const ROOT = 0.22;
const ROOT_PUFFS = 6;

/**
 * What joins a plume to its source: small puffs that leave it one close behind the other, as fast as the others, and are gone
 * within those. So a plume never comes off its source, however uneven the gaps are.
 */
function rootAt(
  scene: Scene,
  of: { seed: number; at: number; share: number },
  turns: number,
  phase: number,
): { puff: Puff; age: number }[] {
  const random = seededRandom(of.seed ^ 0x3c6ef372);
  // They go round as many times more often as their way is shorter: whole turns, so that it closes.
  const often = Math.round(1 / ROOT);
  return Array.from({ length: ROOT_PUFFS }, (_, i) => {
    const [r1, r2, r3] = [random(), random(), random()];
    const own = part(turns * often + whole((i + 0.5 * (r1 - 0.5)) / ROOT_PUFFS));
    const age = own / often;
    const made = {
      seed: of.seed + 31 * i,
      side: 0.5 * (r2 - 0.5),
      size: mix(0.62, 0.8, r3),
      way: r1,
      at: of.at,
      share: of.share,
    };
    const puff = puffAt(scene, age, made, phase);
    return {
      puff: { ...puff, r: puff.r * (1 - smoothStep(0.72, 1, own)) * mix(0.8, 1, smoothStep(0, 0.3, own)), torn: 0 },
      age,
    };
  });
}

/** A share as whole parts of 2^24, to which whole turns can be added and taken off without a bit being lost. */
const whole = (share: number): number => Math.round(share * 16_777_216) / 16_777_216;
/** What is left of a number of turns: the same to the last bit a whole turn later. */
const part = (turns: number): number => turns - Math.floor(turns);

/** All puffs of a drawing, the farthest back first. */
export function puffsAt(scene: Scene, index: number): Puff[] {
  const { settings, seed, cycle } = scene;
  const [count, rises, smaller] = [
    Math.round(settings['puffs']!),
    Math.round(settings['rises']!),
    Math.round(settings['plumes']!),
  ];
  const random = seededRandom(seed);
  const phase = cycle ? phaseOf(scene, index) : ageOf(scene, index);
  const uneven = settings['uneven']! / 100;
  const puffs: { puff: Puff; age: number }[] = [];
  const plume = (at: number, share: number, own: number) => {
    for (let i = 0; i < own; i++) {
      const [r1, r2, r3, r4] = [random(), random(), random(), random()];
      const of = {
        seed: Math.floor(r4 * 4294967295),
        side: (i % 2 === 0 ? 1 : -1) * mix(0.25, 1, r1),
        size: mix(0.72, 1.15, r2),
        way: r3,
        at,
        share,
      };
      const offset = whole((i + uneven * 0.9 * (r3 - 0.5)) / own);
      if (cycle) {
        const age = part(phase * rises + offset);
        puffs.push({ puff: puffAt(scene, age, of, phase), age });
      } else {
        // A single puff: what left last is youngest; all of it is gone at the end.
        const age = clamp(phase * 1.02 - offset * 0.22 * (own > 1 ? 1 : 0), 0, 1);
        const burst = 1 - (1 - age) * (1 - age) * (1 - age);
        const puff = puffAt(scene, mix(age, burst, 0.55), of, 0);
        puffs.push({ puff: { ...puff, r: puff.r * leftOf(scene, index) }, age });
      }
    }
  };
  plume(0, 1, count);
  if (cycle) puffs.push(...rootAt(scene, { seed, at: 0, share: 1 }, phase * rises, phase));
  for (let k = 0; k < smaller; k++) {
    const side = (k % 2 === 0 ? 1 : -1) * (0.75 + 0.4 * Math.floor(k / 2));
    const [at, share] = [side * settings['width']!, mix(0.38, 0.55, random())];
    plume(at, share, Math.max(3, Math.round(count * 0.9)));
    if (cycle) puffs.push(...rootAt(scene, { seed: seed + k + 1, at, share }, phase * rises, phase));
  }
  return puffs.sort((a, b) => b.age - a.age).map(({ puff }) => puff);
}

function draw(scene: Scene, index: number): LaidFrame {
  const { settings } = scene;
  const puffs = puffsAt(scene, index);
  const angle = settings['light']! / 360;
  const soft = settings['outline'] === 1;
  const style = {
    scallops: soft ? 0.25 : settings['scallops']! / 100,
    light: { x: cosineTurn(angle), y: -sineTurn(angle) },
  };
  const { body, light, shade, creases } = billowRings(puffs, style, 'line');
  const width = Math.max(2.5, settings['width']! * 0.024);
  return {
    balls: puffs.filter((p) => p.r > 3).map((p) => circleLine('guide', p, 3)),
    line: soft ? [] : outlinedAll(body, 'line', width),
    details: creases,
    light: starterFill('light', light),
    shade: starterFill('shade', shade),
    body: starterFill('body', body),
  };
}

export const SMOKE: StarterKind = {
  effect: 'smoke',
  name: 'Smoke',
  says: 'A plume that rises round and round, or a puff that ends',
  offered: 'first',
  cycles: ({ ends }) => ends !== 1,
  follows: 'path',
  stands: 'floor',
  length: 48,
  hold: 4,
  controls: [
    control('height', 'Rises', 'px', [60, 1600, 5], 620),
    control('width', 'Width', 'px', [30, 900, 5], 230),
    control('puffs', 'Puffs', '', [1, 14, 1], 7),
    control('growth', 'Growth', '%', [30, 220, 1], 115),
    control('drift', 'Drift', 'px', [-900, 900, 5], 90),
    control('curl', 'Curl', '%', [-150, 150, 1], 60),
    control('thin', 'Thins over the last', '%', [5, 90, 1], 45),
    choice('ends', 'Time', ['plume, round and round', 'a puff that ends']),
    choice('outline', 'Outline', ['scalloped', 'soft']),
    { ...control('scallops', 'Depth of scallops', '%', [0, 100, 1], 85), more: true },
    control('uneven', 'Uneven gaps', '%', [0, 100, 1], 60, 'more'),
    control('rises', 'Rises per cycle', '', [1, 4, 1], 1, 'more'),
    control('sway', 'Sway', 'px', [0, 160, 1], 26, 'more'),
    control('plumes', 'Smaller plumes', '', [0, 4, 1], 0, 'more'),
    control('light', 'Light from', '°', [0, 360, 1], 120, 'more'),
  ],
  outputs: [
    { key: 'balls', name: 'Smoke balls', role: 'guide', hidden: true },
    { key: 'line', name: 'Smoke line', role: 'line' },
    { key: 'details', name: 'Smoke creases', role: 'line' },
    { key: 'light', name: 'Smoke light', role: 'tone' },
    { key: 'shade', name: 'Smoke shade', role: 'tone' },
    { key: 'body', name: 'Smoke body', role: 'body' },
  ],
  paints: [
    { key: 'line', name: 'soot line', role: 'outline', colour: '#0f1317' },
    { key: 'light', name: 'smoke light', role: 'light', colour: '#b7c0ca' },
    { key: 'shade', name: 'smoke shade', role: 'shade', colour: '#59636f' },
    { key: 'body', name: 'smoke', role: 'body', colour: '#87919d' },
    GUIDE_PAINT,
  ],
  presets: [
    { name: 'Plume', settings: {} },
    { name: 'Chimney', settings: { width: 150, height: 720, puffs: 8, drift: 320, growth: 150, plumes: 0, thin: 35 } },
    { name: 'Steam', settings: { outline: 1, puffs: 5, width: 190, height: 460, thin: 70, growth: 130, sway: 50 } },
    {
      name: 'Puff',
      settings: { ends: 1, puffs: 5, height: 300, width: 260, drift: 40, thin: 55 },
      length: 40,
      hold: 2,
    },
    { name: 'Vents', settings: { width: 150, height: 520, puffs: 6, plumes: 2, drift: -60 } },
  ],
  ground: '#20262d',
  moods: {
    calm: { curl: 30, sway: 40, scallops: 60, thin: 60 },
    crackling: { curl: 70, uneven: 90, scallops: 90, thin: 50 },
    angry: { curl: 120, growth: 150, scallops: 100, thin: 30 },
    menacing: { curl: 90, growth: 190, scallops: 75, thin: 25, sway: 10 },
  },
  draw,
  pieces: ['body', 'light', 'shade'],
};
