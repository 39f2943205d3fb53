/** Impact frames: the whole picture in two tones or inverted, by the blends of layers alone. */
import { polygonRing } from '../geometry/index.ts';
import { choice, control } from '../controls/index.ts';
import { type StarterFill, type LaidFrame, type StarterKind } from './starter.ts';

const FAR = 6000;
const everywhere = (paint: string, opacity = 1): StarterFill => ({
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
  offered: 'more',
  telling: 0,
  cycles: () => false,
  follows: 'nothing',
  stands: 'fills',
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
