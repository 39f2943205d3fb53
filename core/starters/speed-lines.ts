/** Speed lines: tapered strokes that run outwards or along, each its way once in a cycle. */
import { cosineTurn, mix, seededRandom, sineTurn, smoothStep } from '../geometry/index.ts';
import { samplesOf } from './circles.ts';
import { choice, control } from '../controls/index.ts';
import { phaseOf, type StarterLine, type StarterKind } from './starter.ts';

export const SPEED_LINES: StarterKind = {
  effect: 'speed',
  name: 'Speed lines',
  says: 'Lines that rush along or outwards, round and round',
  offered: 'more',
  cycles: () => true,
  follows: 'nothing',
  stands: 'fills',
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
    const lines = Array.from({ length: Math.round(count!) }, (_, i): StarterLine[] => {
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
