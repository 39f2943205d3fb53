/** Sparks: strokes that fly on arcs, as long as they are fast. */
import { cosineTurn, mix, seededRandom, sineTurn, type Point } from '../geometry/index.ts';
import { samplesOf } from './circles.ts';
import { choice, control } from '../controls/index.ts';
import { ageOf, phaseOf, type StarterLine, type StarterKind } from './starter.ts';

export const SPARKS: StarterKind = {
  effect: 'sparks',
  name: 'Sparks',
  says: 'Sparks that fly and fall, each a stroke of its own',
  offered: 'first',
  cycles: ({ ends }) => ends !== 1,
  follows: 'nothing',
  stands: 'floor',
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
    const sparks = Array.from({ length: Math.round(count!) }, (_, i): StarterLine[] => {
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
