/** The puffs of smoke on a drawing: those that leave a source, what roots them in it, and what joins those that leave far apart. */
import { clamp, mix, seededRandom, sineTurn, smoothStep } from '../geometry/index.ts';
import type { Puff } from './billow.ts';
import { ageOf, leftOf, phaseOf, type Scene } from './starter.ts';

/** What a puff keeps all its life. */
interface PuffTraits {
  /** Decides its lobes. */
  readonly seed: number;
  /** Off the way of the plume: to the left below 0, 1 at most. */
  readonly side: number;
  /** Against the others, 1 the middle. */
  readonly size: number;
  /** Where it is in its sway, in turns. */
  readonly way: number;
  /** Where its plume stands, px off the anchor, and how high that rises against the first. */
  readonly at: number;
  readonly share: number;
}

/** A puff of some age: 0 at the source, 1 gone. */
function puffAt(scene: Scene, age: number, of: PuffTraits, phase: number): Puff {
  const { height, width, growth, curl, drift, sway, thin } = scene.settings as Record<string, number>;
  const up = scene.way ? age : age * mix(1.25, 0.75, age);
  const reach = (width! / 2) * of.size * of.share;
  const grown = mix(0.5, growth! / 100, Math.sqrt(age)) * smoothStep(-0.06, 0.1, age);
  const thinning = smoothStep(1 - thin! / 100, 1, age);
  const shrink = 1 - 0.85 * thinning * thinning;
  const spot = scene.way?.at(clamp(up, 0, 1));
  const aside = of.side * reach * (0.25 + 0.9 * up) + sway! * up * sineTurn(up * 0.8 + part(of.way - phase));
  return {
    x: of.at + (spot ? spot.x - spot.dy * aside : aside + drift! * up * (0.4 + 0.6 * up)),
    y: spot ? spot.y + spot.dx * aside : -height! * of.share * up,
    r: reach * grown * shrink,
    roll: of.way + (of.side >= 0 ? 1 : -1) * (curl! / 100) * 0.6 * age,
    seed: of.seed,
    torn: thinning,
  };
}

/** How far up a plume its root goes, as a share of an age, and how many small puffs it is made of. */
const ROOT = 0.22;
const ROOT_PUFFS = 6;

/**
 * What joins a plume to its source: small puffs that leave it one close behind the other, as fast as the others, and are gone
 * within those. So a plume never comes off its source, however uneven the gaps are.
 */
function rootAt(
  scene: Scene,
  of: { seed: number; at: number; share: number },
  turns: number,
  phase: number,
): { puff: Puff; age: number }[] {
  const random = seededRandom(of.seed ^ 0x3c6ef372);
  // They loop as many times more often as their way is shorter: whole turns, so that the cycle closes.
  const often = Math.round(1 / ROOT);
  return Array.from({ length: ROOT_PUFFS }, (_, i) => {
    const [r1, r2, r3] = [random(), random(), random()];
    const own = part(turns * often + whole((i + 0.5 * (r1 - 0.5)) / ROOT_PUFFS));
    const age = own / often;
    const made = {
      seed: of.seed + 31 * i,
      side: 0.5 * (r2 - 0.5),
      size: mix(0.62, 0.8, r3),
      way: r1,
      at: of.at,
      share: of.share,
    };
    const puff = puffAt(scene, age, made, phase);
    return {
      puff: { ...puff, r: puff.r * (1 - smoothStep(0.72, 1, own)) * mix(0.8, 1, smoothStep(0, 0.3, own)), torn: 0 },
      age,
    };
  });
}

/** A share as whole parts of 2^24, to which whole turns can be added and taken off without a bit being lost. */
const whole = (share: number): number => Math.round(share * 16_777_216) / 16_777_216;
/** What is left of a number of turns: the same to the last bit a whole turn later. */
const part = (turns: number): number => turns - Math.floor(turns);

/** A puff of a plume, and when it leaves: turns of its life that it is ahead. */
interface Leaving {
  readonly of: PuffTraits;
  readonly offset: number;
}

/** How near two puffs have to be to hold together: their radii, times this. Lobes reach past them, sway and tears come between. */
const HOLDS = 0.95;
/** How many ages that is looked for at, from within the root until the one ahead begins to thin. */
const LOOKED = 8;
/** How large the puffs that join two are against those, and how many there are between two at most. */
const LINK_SIZE = 0.82;
const MOST_LINKS = 4;

/** Smaller puffs between those that leave so far apart that they would come off each other on their way. */
function linksOf(scene: Scene, leaving: readonly Leaving[], rises: number): Leaving[] {
  const ordered = [...leaving].sort((a, b) => a.offset - b.offset);
  const thinning = 1 - scene.settings['thin']! / 100;
  return ordered.flatMap((behind, i): Leaving[] => {
    const ahead = ordered[(i + 1) % ordered.length]!;
    const gap = ordered.length > 1 ? part(ahead.offset - behind.offset) : 1;
    let farthest = 0;
    for (let k = 0; k <= LOOKED; k++) {
      const age = mix(ROOT / 2, Math.max(ROOT / 2, thinning - gap), k / LOOKED);
      const phase = part((age - behind.offset) / rises);
      const [a, b] = [puffAt(scene, age, behind.of, phase), puffAt(scene, age + gap, ahead.of, phase)];
      const far = Math.sqrt((b.x - a.x) * (b.x - a.x) + (b.y - a.y) * (b.y - a.y));
      farthest = Math.max(farthest, far / (HOLDS * (a.r + b.r)));
    }
    const links = clamp(Math.ceil(farthest) - 1, 0, MOST_LINKS);
    return Array.from({ length: links }, (_, k) => {
      const t = (k + 1) / (links + 1);
      return {
        of: {
          ...behind.of,
          seed: (behind.of.seed ^ Math.imul(k + 1, 0x9e3779b1)) >>> 0,
          side: mix(behind.of.side, ahead.of.side, t),
          size: LINK_SIZE * mix(behind.of.size, ahead.of.size, t),
        },
        offset: whole(part(behind.offset + t * gap)),
      };
    });
  });
}

/** By how many ends the first parts of a single puff go before the last. */
const ENDS_BEFORE = 3;

/** All puffs of a drawing, the farthest back first. */
export function puffsAt(scene: Scene, index: number): Puff[] {
  const { settings, seed, cycle } = scene;
  const [count, rises, smaller] = [
    Math.round(settings['puffs']!),
    Math.round(settings['rises']!),
    Math.round(settings['plumes']!),
  ];
  const random = seededRandom(seed);
  const phase = cycle ? phaseOf(scene, index) : ageOf(scene, index);
  const uneven = settings['uneven']! / 100;
  const puffs: { puff: Puff; age: number }[] = [];
  const plume = (at: number, share: number, own: number) => {
    const leaving: Leaving[] = [];
    for (let i = 0; i < own; i++) {
      const [r1, r2, r3, r4] = [random(), random(), random(), random()];
      const of = {
        seed: Math.floor(r4 * 4294967295),
        side: (i % 2 === 0 ? 1 : -1) * mix(0.25, 1, r1),
        size: mix(0.72, 1.15, r2),
        way: r3,
        at,
        share,
      };
      const offset = whole((i + uneven * 0.9 * (r3 - 0.5)) / own);
      if (cycle) {
        leaving.push({ of, offset });
      } else {
        // A single puff: what left last is youngest; all of it is gone at the end.
        const age = clamp(phase * 1.02 - offset * 0.22 * (own > 1 ? 1 : 0), 0, 1);
        const burst = 1 - (1 - age) * (1 - age) * (1 - age);
        const puff = puffAt(scene, mix(age, burst, 0.55), of, 0);
        // It goes from one side to the other: two pieces that shrink side by side read as eyes.
        const nth = i % 2 === 0 ? i / 2 : Math.ceil(own / 2) + (i - 1) / 2;
        puffs.push({ puff: { ...puff, r: puff.r * leftOf(scene, index, (ENDS_BEFORE * nth) / own) }, age });
      }
    }
    for (const { of, offset } of [...leaving, ...linksOf(scene, leaving, rises)]) {
      const age = part(phase * rises + offset);
      puffs.push({ puff: puffAt(scene, age, of, phase), age });
    }
  };
  plume(0, 1, count);
  if (cycle) puffs.push(...rootAt(scene, { seed, at: 0, share: 1 }, phase * rises, phase));
  for (let k = 0; k < smaller; k++) {
    const side = (k % 2 === 0 ? 1 : -1) * (0.75 + 0.4 * Math.floor(k / 2));
    const [at, share] = [side * settings['width']!, mix(0.38, 0.55, random())];
    plume(at, share, Math.max(3, Math.round(count * 0.9)));
    if (cycle) puffs.push(...rootAt(scene, { seed: seed + k + 1, at, share }, phase * rises, phase));
  }
  return puffs.sort((a, b) => b.age - a.age).map(({ puff }) => puff);
}
