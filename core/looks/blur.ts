/** Blur: even, at an angle, or along the motion. */
import { blurred, blurredAlong, type Surface } from '../canvas/index.ts';
import { scaleOf } from '../geometry/index.ts';
import { onAll, px, type Look, type LookNow, type LookPlace } from './look.ts';

function blurOf(source: Surface, { numbers, choices }: LookNow, place: LookPlace): Surface {
  const { matrix, make, rough, motion } = place;
  const scale = scaleOf(matrix);
  if (choices['along'] === 'even') return blurred(source, Math.max(0.1, numbers['radius']! * scale * 0.5), rough, make);
  const angle = (numbers['angle']! * Math.PI) / 180;
  const far = Math.hypot(motion.x, motion.y);
  const way =
    choices['along'] === 'angle'
      ? { x: Math.cos(angle), y: Math.sin(angle) }
      : far > 0
        ? { x: motion.x / far, y: motion.y / far }
        : { x: 0, y: 0 };
  // Along the motion it is as long as what goes on in one frame, and no longer than the radius.
  const long = choices['along'] === 'motion' ? Math.min(far, numbers['radius']!) : numbers['radius']!;
  if (long <= 0) return source;
  const [a, b, c, d] = matrix;
  return blurredAlong(source, (a * way.x + c * way.y) * long, (b * way.x + d * way.y) * long, make);
}

export const blur: Look = {
  name: 'Blur',
  does: 'even, or along the motion',
  colour: 'none',
  fields: [
    px('radius', 'Radius', 8, 300),
    { key: 'angle', label: 'Angle', unit: '°', min: -3600, max: 3600, default: 0 },
  ],
  choices: [{ key: 'along', label: 'Along', options: ['even', 'angle', 'motion'] }],
  uses: (key, { along }) => key !== 'angle' || along === 'angle',
  acts: ({ radius }) => radius! > 0,
  reach: ({ radius }, { along }) => (along === 'even' ? 2.4 * 0.5 * radius! : radius!),
  paint: onAll(blurOf),
};
