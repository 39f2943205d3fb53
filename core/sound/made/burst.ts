/** A burst: a flask of hot glass goes off, a thump with its rush of air, and shards that ring as they come down. */
import { hashFraction } from '../../geometry/index.ts';
import { atPeak, highPass, left, soundLength, lowPass, whiteNoise } from './noise.ts';
import { MADE_RATE, type MadeSound } from './sound-kind.ts';

const SECONDS = 2.5;
const AT = 0.08;
const SHARDS = 34;

export const burst: MadeSound = {
  name: 'Burst',
  seconds: SECONDS,
  closes: false,
  hits: [AT],
  make: (seed) => {
    const length = soundLength(SECONDS);
    const rush = lowPass(whiteNoise(length, seed), 1800);
    const snap = highPass(whiteNoise(length, seed + 1), 1500);
    const mixed = Float32Array.from({ length }, (_, i) => {
      const after = i / MADE_RATE - AT;
      if (after < 0) return 0;
      // A thump falls as the air gives way: its phase is the integral of 34 + 90 * 2^(-t / 0.05) Hz.
      const turns = 34 * after + ((90 * 0.05) / Math.LN2) * (1 - left(after, 0.05));
      const thump = Math.sin(2 * Math.PI * turns) * left(after, 0.16);
      return 1.5 * thump + 1.1 * left(after, 0.12) * rush[i]! + 0.9 * left(after, 0.012) * snap[i]!;
    });
    for (let n = 0; n < SHARDS; n++) {
      const late = 0.12 + 1.5 * hashFraction(seed, n, 1) ** 1.6;
      const [hertz, half] = [2200 + 5200 * hashFraction(seed, n, 2), 0.02 + 0.07 * hashFraction(seed, n, 3)];
      const loud = 0.16 * left(late, 0.45) * (0.4 + hashFraction(seed, n, 4));
      const from = soundLength(AT + late);
      for (let i = from; i < Math.min(length, from + soundLength(6 * half)); i++) {
        const after = (i - from) / MADE_RATE;
        mixed[i]! += loud * left(after, half) * Math.sin(2 * Math.PI * hertz * after);
      }
    }
    return atPeak(mixed, 0.95);
  },
};
