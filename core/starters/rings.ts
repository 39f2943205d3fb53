/** Shock ring and ripple: crescents of an ellipse that run out, thin and come apart. */
import type { Ring } from '../document/index.ts';
import { cosineTurn, fitRing, mix, seededRandom, sineTurn, smoothStep } from '../geometry/index.ts';
import { control } from '../controls/index.ts';
import { ageOf, starterFill, phaseOf, type Scene, type StarterKind } from './starter.ts';

/** A crescent of an ellipse: from one turn to another, tapering to both ends. */
function crescent(radius: number, flat: number, from: number, to: number, thick: number): Ring {
  const steps = Math.max(10, Math.round((to - from) * 72));
  const edge = (side: 1 | -1): [number, number][] =>
    Array.from({ length: steps + 1 }, (_, i): [number, number] => {
      const t = side === 1 ? i / steps : 1 - i / steps;
      const turn = mix(from, to, t);
      const half = (thick / 2) * Math.min(1, 5.5 * t * (1 - t));
      const r = radius + side * half;
      // Far and near it keeps half of its thickness: flattened whole, it would be a hair.
      return [cosineTurn(turn) * r, sineTurn(turn) * (radius * flat + side * half * mix(flat, 1, 0.5))];
    });
  return fitRing([...edge(1), ...edge(-1).slice(1, -1)], 0.4);
}

/** A whole ring: its outer edge, and its inner one while it is open. */
function wholeRing(radius: number, flat: number, thick: number): Ring[] {
  const ellipse = (r: number, high: number): Ring =>
    fitRing(
      Array.from({ length: 72 }, (_, i): [number, number] => [cosineTurn(i / 72) * r, sineTurn(i / 72) * high]),
      0.4,
    );
  const across = (thick / 2) * mix(flat, 1, 0.5);
  const outer = ellipse(radius + thick / 2, radius * flat + across);
  const [inside, high] = [radius - thick / 2, radius * flat - across];
  return inside > 6 && high > 4 ? [outer, ellipse(inside, high)] : [outer];
}

/** Arcs of a ring that comes apart: the older, the more air between them. */
function ringArcs(scene: Scene, radius: number, flat: number, thick: number, apart: number, seed: number): Ring[] {
  const random = seededRandom(scene.seed + seed);
  const count = 5;
  if (radius < 4 || thick < 4.2) return [];
  if (apart < 0.04) return wholeRing(radius, flat, thick);
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
  offered: 'more',
  telling: 0.4,
  cycles: () => false,
  follows: 'nothing',
  stands: 'floor',
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
    return { body: starterFill('ring', rings) };
  },
};

export const RIPPLE: StarterKind = {
  effect: 'ripple',
  name: 'Ripple',
  says: 'Rings that run out on a surface, round and round',
  offered: 'more',
  cycles: () => true,
  follows: 'nothing',
  stands: 'floor',
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
      return ringArcs(scene, (size! / 2) * out, flat! / 100, thick! * strength, Math.max(0.1, age), i * 13);
    }).flat();
    return { body: starterFill('ring', arcs) };
  },
};
