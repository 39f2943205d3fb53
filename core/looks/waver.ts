/** Noise that moves outlines: a sum of plane waves in random directions, each going through whole turns in one turn
 * of the cycle, so that the last frame leads to the first by construction. */
import { seededRandom, sineTurn, type Point } from '../geometry/index.ts';
import { ONCE, px, type Look, type LookNow } from './look.ts';

interface Wave {
  /** Turns per px. */
  readonly kx: number;
  readonly ky: number;
  /** Turns of the wave in one turn of the cycle, whole. */
  readonly turns: number;
  readonly phase: number;
}

const WAVES = 5;

/** Pieces of a ring are cut so that one is at most this share of the noise's scale. */
const PIECE = 0.25;

function wavesOf(random: () => number, scale: number, churn: number): Wave[] {
  return Array.from({ length: WAVES }, (_, i) => {
    const direction = random();
    const length = scale * (0.55 + 0.9 * random());
    const way = i % 2 === 0 ? 1 : -1;
    return {
      kx: sineTurn(direction + 0.25) / length,
      ky: sineTurn(direction) / length,
      turns: way * Math.round(churn) * (1 + (i % 2)),
      phase: random(),
    };
  });
}

const sumOf = (waves: readonly Wave[], { x, y }: Point, at: number): number =>
  waves.reduce((sum, { kx, ky, turns, phase }) => sum + sineTurn(kx * x + ky * y + turns * at + phase), 0) /
  Math.sqrt(waves.length);

/** How a place is moved by a waver. @param place element space, px. */
export function waverOf({ numbers, seed, at }: Pick<LookNow, 'numbers' | 'seed' | 'at'>): (place: Point) => Point {
  const random = seededRandom(seed);
  const [scale, churn, amount] = [numbers['scale']!, numbers['churn']!, numbers['amount']!];
  const across = wavesOf(random, scale, churn);
  const down = wavesOf(random, scale, churn);
  return (place) => ({
    x: place.x + amount * sumOf(across, place, at),
    y: place.y + amount * sumOf(down, place, at),
  });
}

export const waver: Look = {
  name: 'Waver',
  does: 'noise moves the outlines, round the cycle',
  colour: 'none',
  fields: [
    px('amount', 'Amount', 6, 120),
    px('scale', 'Scale', 120, 1200, 8),
    { key: 'churn', label: 'Churn', unit: '×', min: 0, max: 12, default: 1 },
  ],
  choices: [],
  seeded: true,
  acts: ({ amount }) => amount! > 0,
  at: (_choices, _numbers, frame, turn) => frame / (turn ?? ONCE),
  moves: (now) => ({ move: waverOf(now), piece: Math.max(2, now.numbers['scale']! * PIECE) }),
};
