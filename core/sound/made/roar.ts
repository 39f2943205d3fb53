/** A furnace: a deep breath of noise that swells unevenly, with crackling in it. It loops without a seam. */
import { hashFraction } from '../../geometry/index.ts';
import { atPeak, closedLoop, highPass, left, soundLength, lowPass, whiteNoise } from './noise.ts';
import { MADE_RATE, type MadeSound } from './sound-kind.ts';

const SECONDS = 6;
const OVER = 0.5;
/** Swells over its length, each with how strong it is: whole numbers, so that it closes. */
const SWELLS = [
  [2, 0.16],
  [5, 0.12],
  [11, 0.1],
  [29, 0.07],
] as const;
const CRACKLES = 42;

export const roar: MadeSound = {
  name: 'Furnace roar',
  seconds: SECONDS,
  closes: true,
  hits: [],
  make: (seed) => {
    const length = soundLength(SECONDS + OVER);
    const deep = lowPass(lowPass(whiteNoise(length, seed), 120), 260);
    const breath = highPass(lowPass(whiteNoise(length, seed + 1), 900), 220);
    const hiss = highPass(whiteNoise(length, seed + 2), 2500);
    const swell = (time: number) =>
      SWELLS.reduce(
        (sum, [times, much], i) =>
          sum + much * Math.sin((2 * Math.PI * times * time) / SECONDS + 2 * Math.PI * hashFraction(seed, i, 3)),
        1,
      );
    const mixed = Float32Array.from({ length }, (_, i) => {
      const breathes = swell(i / MADE_RATE);
      return breathes * (14 * deep[i]! + breathes * 1.1 * breath[i]! + 0.03 * hiss[i]!);
    });
    const closed = closedLoop(mixed, soundLength(SECONDS));
    for (let n = 0; n < CRACKLES; n++) {
      const at = Math.floor(hashFraction(seed, n, 4) * closed.length);
      const loud = 0.25 + 0.9 * hashFraction(seed, n, 5) ** 3;
      const half = 0.0008 + 0.003 * hashFraction(seed, n, 6);
      for (let i = 0; i < soundLength(0.03); i++)
        closed[(at + i) % closed.length]! += loud * left(i / MADE_RATE, half) * (2 * hashFraction(seed, at + i, 7) - 1);
    }
    return atPeak(closed, 0.5);
  },
};
