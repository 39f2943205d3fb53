/** Where a bolt strikes: what splashes along the surface, and sparks. */
import { cosineTurn, mix, polygonRing, seededRandom, sineTurn, unitedRings, type Point } from '../geometry/index.ts';
import type { Ring } from '../document/index.ts';
import { starterFill, type StarterFill, type Scene } from './starter.ts';
import type { Strike } from './bolt-strike.ts';

/** Tongues of a splash, and sparks that fly from it. */
const TONGUES = 9;

const SPARKS = 7;

/** A splash along the surface: tongues that lean outwards from a thin lip. @param high of the middle one, px. */
function splashRing(at: Point, half: number, high: number, random: () => number): Ring[] {
  const points: [number, number][] = [];
  for (let i = 0; i < TONGUES; i++) {
    const t = ((i + 0.5) / TONGUES) * 2 - 1;
    const [r1, r2] = [random(), random()];
    const tall = high * (1 - 0.75 * t * t) * mix(0.45, 1.1, r1);
    const foot = t * half * 0.86;
    const wide = (half / TONGUES) * mix(0.5, 0.75, r2);
    points.push([at.x + foot - wide, at.y - high * 0.06]);
    points.push([at.x + foot + t * half * 0.3 + wide * (r2 - 0.5), at.y - tall]);
    points.push([at.x + foot + wide, at.y - high * 0.07]);
  }
  // The lip: as flat as what it lies on, thinning out to both sides.
  const lip: [number, number][] = [
    [at.x + half * 1.15, at.y],
    [at.x + half * 0.4, at.y + high * 0.11],
    [at.x - half * 0.35, at.y + high * 0.1],
    [at.x - half * 1.2, at.y],
  ];
  return unitedRings([[...points, ...lip]], 8);
}

/** Where it hits: a dot, then a splash along the surface that runs out and falls apart, with a few sparks. */
export function impactAt(scene: Scene, strike: Strike, at: Point): StarterFill[] {
  const size = scene.settings['impact']!;
  const step = strike.age;
  if (size <= 0 || step < 1 || step > 4) return [];
  const random = seededRandom(scene.seed ^ 0x5bd1e995 ^ Math.round(at.x));
  const [half, high] = [size * [0, 0.22, 0.6, 0.85, 0][step]!, size * [0, 0.2, 0.62, 0.3, 0][step]!];
  const splash = half > 0 ? splashRing(at, half, high, random) : [];
  const sparks =
    step < 2
      ? []
      : Array.from({ length: SPARKS }, (): Ring => {
          const [r1, r2, r3] = [random(), random(), random()];
          const turn = -0.25 + (r1 - 0.5) * 0.42;
          const out = size * mix(0.5, 1.15, r2) * [0, 0, 0.55, 0.9, 1.05][step]!;
          const fall = size * 0.09 * (step - 2) * (step - 2) * mix(0.6, 1.4, r3);
          const [ux, uy] = [cosineTurn(turn), sineTurn(turn)];
          const [x, y] = [at.x + ux * out * 1.25, at.y + uy * out * 0.8 + fall];
          const long = size * mix(0.05, 0.11, r3) * [0, 0, 1, 0.75, 0.4][step]!;
          const thick = long * 0.2;
          return polygonRing([
            [x - ux * long, y - uy * long],
            [x - uy * thick, y + ux * thick],
            [x + ux * long * 0.5, y + uy * long * 0.5],
            [x + uy * thick, y - ux * thick],
          ]);
        });
  return [
    ...starterFill(step === 1 ? 'hot' : 'glow', splash),
    ...(sparks.length > 0 ? starterFill('hot', sparks) : []),
  ];
}
