/** Two shapes tied by area: as one shrinks the other grows. */
import { clamp, mix, smoothStep, gridOver, ringsAt } from '../geometry/index.ts';
import { circleLine, GUIDE_PAINT } from './circles.ts';
import { discsBox, unionField } from './field.ts';
import { outlinedLine } from './line.ts';
import { control } from '../controls/index.ts';
import { ageOf, starterFill, type Scene, type StarterKind } from './starter.ts';

export const TIED: StarterKind = {
  effect: 'tied',
  name: 'Tied by area',
  says: 'As one shape shrinks the other grows',
  offered: 'more',
  cycles: () => false,
  follows: 'path',
  stands: 'middle',
  length: 24,
  hold: 2,
  controls: [
    control('size', 'Size', 'px', [20, 1200, 2], 260),
    control('apart', 'Apart', 'px', [0, 1600, 5], 250),
    control('flows', 'Flows together', '%', [0, 100, 1], 80),
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
    GUIDE_PAINT,
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
      line: rings.map((ring) => outlinedLine(ring, 'line', width)),
      body: starterFill('body', rings),
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
