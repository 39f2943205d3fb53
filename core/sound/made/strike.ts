/** A strike: lightning into the roof, a crack and its echoes, thunder rolling out behind it. */
import { hashFraction } from '../../geometry/index.ts';
import { atPeak, highPass, left, soundLength, lowPass, whiteNoise } from './noise.ts';
import { MADE_RATE, type MadeSound } from './sound-kind.ts';

const SECONDS = 3;
const AT = 0.1;
/** Cracks right after the first: how long after it, s. */
const ECHOES = 5;

export const strike: MadeSound = {
  name: 'Strike',
  seconds: SECONDS,
  closes: false,
  hits: [AT],
  make: (seed) => {
    const length = soundLength(SECONDS);
    const sharp = highPass(whiteNoise(length, seed), 900);
    const body = lowPass(whiteNoise(length, seed + 1), 700);
    const deep = lowPass(lowPass(whiteNoise(length, seed + 2), 70), 140);
    const echoes = Array.from({ length: ECHOES }, (_, n) => [
      0.012 + 0.03 * (n + hashFraction(seed, n, 1)),
      0.5 * hashFraction(seed, n, 2),
    ]);
    const mixed = Float32Array.from({ length }, (_, i) => {
      const after = i / MADE_RATE - AT;
      const cracks = echoes.reduce((sum, [late, loud]) => sum + loud! * left(after - late!, 0.008), left(after, 0.012));
      // Thunder comes up behind the crack and rolls.
      const rolls = (1 + 0.5 * Math.sin(after * 9 + 6 * hashFraction(seed, 0, 3))) * left(after, 0.7);
      return 1.6 * cracks * sharp[i]! + left(after, 0.09) * body[i]! + 9 * Math.min(1, after * 12) * rolls * deep[i]!;
    });
    return atPeak(mixed, 0.95);
  },
};
