/**
 * Smoke: puffs leave a source at uneven gaps, rise on a swaying way, grow and roll, then tear open and shrink
 * away. In a plume every puff comes round a whole number of times in a cycle, so it closes; a single puff ends.
 */
import { cosineTurn, sineTurn } from '../geometry/index.ts';
import { billowRings } from './billow.ts';
import { GUIDE_PAINT, circleLine } from './circles.ts';
import { outlinedAll } from './line.ts';
import { choice, control } from '../controls/index.ts';
import { puffsAt } from './plume.ts';
import { starterFill, type LaidFrame, type Scene, type StarterKind } from './starter.ts';

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
