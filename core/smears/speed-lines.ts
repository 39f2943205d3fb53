/** Lines: speed lines along the way behind the form, uneven in length, spacing and weight; or from its middle outwards, for a hit or a rush. */
import { choice, control } from '../controls/index.ts';
import type { Stroke } from '../document/index.ts';
import { mix, seededRandom, type Point } from '../geometry/index.ts';
import { NOTHING_SMEARED, type SmearKind, type SmearScene } from './scene.ts';

/** Samples of a line. */
const SAMPLES = 12;

function strokeThrough(points: readonly Point[], width: number, seed: number, scene: SmearScene, id: string): Stroke {
  const column = (of: (p: Point, i: number) => number) => Float32Array.from(points, of);
  return {
    kind: 'stroke',
    id,
    swatch: scene.lineSwatch,
    brush: { kind: 'ink', width, opacity: 1, pressure: true },
    seed,
    samples: {
      x: column(({ x }) => x),
      y: column(({ y }) => y),
      // Fullest near the thing, out to nothing behind.
      pressure: column((_, i) => Math.max(0.04, Math.sin(Math.PI * Math.pow((i + 0.5) / points.length, 0.6)))),
      altitude: column(() => Math.PI / 2),
      azimuth: column(() => 0),
    },
  };
}

/** Where the form ends behind on a lane beside the way: the least along of what it covers there, or null beside it. */
function endsAt(
  form: readonly (readonly { readonly along: number; readonly across: number }[])[],
  lane: number,
): number | null {
  let min: number | null = null;
  for (const outline of form)
    outline.forEach((p, i) => {
      const q = outline[(i + 1) % outline.length]!;
      if (p.across > lane === q.across > lane) return;
      const along = p.along + ((lane - p.across) / (q.across - p.across)) * (q.along - p.along);
      if (min === null || along < min) min = along;
    });
  return min;
}

export const LINES: SmearKind = {
  form: 'lines',
  name: 'Lines',
  says: 'Speed lines along the way or outwards',
  lies: () => 'behind',
  controls: [
    control('count', 'How many', '', [1, 80, 1], 6),
    control('length', 'Length', '%', [5, 200, 5], 60),
    control('width', 'Width', 'px', [0.5, 40, 0.5], 3),
    choice('form', 'They run', ['along the way', 'outwards'], 0),
    choice('side', 'They lie', ['on both sides', 'on the left', 'on the right'], 0),
    control('gap', 'Gap to the form', 'px', [0, 200, 1], 8, 'more'),
    control('uneven', 'Uneven', '%', [0, 100, 5], 60, 'more'),
    control('speed', 'By the speed', '%', [0, 100, 5], 0, 'more'),
  ],
  draw: (scene, newId) => {
    const { settings, flow, arrived, seed, stops } = scene;
    if (flow.length < 1 || arrived.area === 0) return NOTHING_SMEARED;
    const random = seededRandom(seed);
    const uneven = settings['uneven']! / 100;
    const size = Math.sqrt(arrived.area);
    // Against a step of its own size in a frame.
    const fast = Math.min(3, flow.length / Math.max(1, stops.at(-1)!.frames) / size);
    const by = mix(1, fast, settings['speed']! / 100);
    const count = Math.max(1, Math.round(settings['count']! * by));
    const long = (settings['length']! / 100) * by;
    const form = arrived.outlines.map((outline) => outline.map(([x, y]) => flow.to({ x, y })));
    const acrosses = form.flat().map(({ across }) => across);
    const [min, max] = [acrosses.reduce((a, b) => Math.min(a, b)), acrosses.reduce((a, b) => Math.max(a, b))];
    const middle = (min + max) / 2;
    const [from, to] = [
      [min, max],
      [min, middle],
      [middle, max],
    ][settings['side']!]! as [number, number];
    const lines = Array.from({ length: count }, (_, i): Stroke[] => {
      const [r1, r2, r3] = [random(), random(), random()];
      const width = settings['width']! * mix(1, mix(0.35, 1.5, r1), uneven);
      const own = long * mix(1, mix(0.4, 1.35, r2), uneven);
      const place = (i + 0.5 + uneven * (r3 - 0.5)) / count;
      if (settings['form'] === 1) {
        const turn = place * 2 * Math.PI;
        const start = size * 0.56 + settings['gap']! + size * 0.3 * uneven * r1;
        const reach = flow.length * own;
        const points = Array.from({ length: SAMPLES }, (__, k): Point => {
          const r = start + (reach * k) / (SAMPLES - 1);
          return { x: arrived.middle.x + Math.cos(turn) * r, y: arrived.middle.y + Math.sin(turn) * r };
        });
        return [strokeThrough(points, width, i, scene, newId())];
      }
      const lane = mix(from, to, place);
      const end = endsAt(form, lane);
      if (end === null) return [];
      const start = end - settings['gap']! / flow.length - 0.12 * uneven * r1;
      const points = Array.from({ length: SAMPLES }, (__, k) => flow.from(start - (own * k) / (SAMPLES - 1), lane));
      return [strokeThrough(points, width, i, scene, newId())];
    });
    return { own: new Map(), behind: [lines.flat()] };
  },
};
