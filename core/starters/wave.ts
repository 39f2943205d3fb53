/** A travelling wave: two opposite sways whose peaks advance along a path, straight between them. */
import { cosineTurn, mix, sineTurn, smoothStep, type Point } from '../geometry/index.ts';
import { GUIDE_PAINT, samplesOf } from './circles.ts';
import { control } from '../controls/index.ts';
import { phaseOf, type StarterKind } from './starter.ts';

export const WAVE: StarterKind = {
  effect: 'wave',
  name: 'Wave',
  says: 'A sway whose peaks travel along a path',
  offered: 'more',
  cycles: () => true,
  follows: 'path',
  stands: 'middle',
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
  paints: [GUIDE_PAINT],
  presets: [{ name: 'Wave', settings: {} }],
  draw: (scene, index) => {
    const { long, height, peaks, rises, straight, held } = scene.settings as Record<string, number>;
    const phase = phaseOf(scene, index) * Math.round(rises!);
    const playbackFrame = 1 - (straight! / 100) * (0.5 - 0.5 * cosineTurn(2 * phase));
    const points = Array.from({ length: 61 }, (_, i): Point => {
      const s = i / 60;
      const spot = scene.way?.at(s) ?? { x: long! * s, y: 0, dx: 1, dy: 0 };
      const grow = mix(1, smoothStep(0, 0.7, s), held! / 100);
      const off = height! * grow * playbackFrame * sineTurn(peaks! * s - phase);
      return { x: spot.x - spot.dy * off, y: spot.y + spot.dx * off };
    });
    return { line: [{ paint: 'guide', samples: samplesOf(points), width: 5 }] };
  },
};
