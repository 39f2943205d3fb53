/**
 * Billows: masses with volume, each a ball ringed by lobes that roll round it. Drawn as one outline with
 * creases between the lobes, a light side made lobe by lobe, a shade at its foot, and short creases within.
 */
import type { Ring } from '../document/index.ts';
import {
  cosineTurn,
  mix,
  seededRandom,
  sineTurn,
  smoothStep,
  type Point,
  gridOver,
  ringsAt,
  type Grid,
} from '../geometry/index.ts';
import { samplesOf } from './circles.ts';
import { discsBox, partOf, softMax, unionField, withinBall, without, type Ball } from './field.ts';
import type { StarterLine } from './starter.ts';

const { abs, floor, max } = Math;

/** A mass on one moment. */
export interface Puff {
  readonly x: number;
  readonly y: number;
  /** px, lobes not counted. */
  readonly r: number;
  /** Turns its lobes have rolled. */
  readonly roll: number;
  /** Decides its lobes, so that they stay the same from drawing to drawing. */
  readonly seed: number;
  /** 0 to 1: how far it is eaten away by holes. */
  readonly torn: number;
}

interface Lobe extends Ball {
  /** Direction from the middle of its puff, as a unit vector. */
  readonly ux: number;
  readonly uy: number;
}

/** What of billows is drawn. */
interface BillowStyle {
  /** 0 soft round masses, 1 deep scallops. */
  readonly scallops: number;
  /** Towards the light, a unit vector. */
  readonly light: Point;
}

/** The lobes of a puff: uneven in size and gap, rolling round its middle. */
function lobesOf(puff: Puff, scallops: number): Lobe[] {
  const random = seededRandom(puff.seed);
  const count = 6 + floor(3 * random());
  const lobes: Lobe[] = [];
  for (let i = 0; i < count; i++) {
    const [r1, r2, r3] = [random(), random(), random()];
    const turn = (i + 0.55 * (r1 - 0.5)) / count + puff.roll;
    const [ux, uy] = [cosineTurn(turn), sineTurn(turn)];
    const breath = 1 + 0.06 * sineTurn(puff.roll * 2 + r3);
    const r = puff.r * mix(0.3, mix(0.3, 0.58, r2), scallops) * breath;
    const out = puff.r * mix(0.72, mix(0.7, 0.84, r3), scallops);
    lobes.push({ x: puff.x + ux * out, y: puff.y + uy * out, r, ux, uy });
  }
  return lobes;
}

/** How deep each slot goes and how wide it is, against the first: no two of a puff are alike. */
const SLOTS = [
  { at: 0, deep: 1, wide: 1 },
  { at: 0.43, deep: 0.62, wide: 0.6 },
  { at: 0.71, deep: 0.8, wide: 0.42 },
] as const;

/**
 * Torn openings of a puff, growing as it thins: slots that begin outside its rim and run in, slanted, narrowing. None is ever
 * a hole by itself: two of those side by side read as eyes.
 */
function holesOf(puff: Puff): Ball[] {
  if (puff.torn <= 0) return [];
  const random = seededRandom(puff.seed ^ 0x7f4a7c15);
  const [first, slant] = [random(), random() < 0.5 ? -1 : 1];
  return SLOTS.flatMap(({ at, deep, wide }, i): Ball[] => {
    const [r1, r2] = [random(), random()];
    const late = i * 0.16;
    const open = max(0, (puff.torn - late) / (1 - late));
    if (open <= 0) return [];
    const turn = first + at + 0.08 * (r1 - 0.5) + 0.3 * puff.roll;
    const [ux, uy] = [cosineTurn(turn), sineTurn(turn)];
    // Inwards, leaning along the rim.
    const lean = slant * mix(0.5, 0.95, r2);
    const [vx, vy] = [-ux - uy * lean, -uy + ux * lean];
    const long = puff.r * deep * mix(0.3, 1.15, open);
    const r = puff.r * wide * mix(0.12, 0.62, open);
    return Array.from({ length: 7 }, (_, k) => {
      const t = k / 6;
      const far = long * t;
      return {
        x: puff.x + ux * puff.r * 1.22 + vx * far,
        y: puff.y + uy * puff.r * 1.22 + vy * far,
        r: r * (1 - 0.72 * t),
      };
    });
  });
}

interface BillowRings {
  readonly body: readonly Ring[];
  readonly light: readonly Ring[];
  readonly shade: readonly Ring[];
  readonly creases: readonly StarterLine[];
}

/** Creases inside: short arcs along lobes that lie over the mass, tapering to both ends. */
function creasesOf(
  puffs: readonly Puff[],
  lobes: readonly Lobe[][],
  { light }: BillowStyle,
  paint: string,
): StarterLine[] {
  return puffs.flatMap((puff, p) => {
    const random = seededRandom(puff.seed ^ 0x2545f491);
    return lobes[p]!.flatMap((lobe): StarterLine[] => {
      const [pick, size] = [random(), random()];
      const facing = lobe.ux * light.x + lobe.uy * light.y;
      // Only some, more of them away from the light, and none once it is torn.
      if (pick > 0.42 - 0.25 * facing || puff.torn > 0.35 || lobe.r < 9) return [];
      const [cx, cy] = [puff.x + (lobe.x - puff.x) * 0.62, puff.y + (lobe.y - puff.y) * 0.62];
      const r = lobe.r * mix(0.8, 1.02, size);
      const hidden = puffs.some(
        (other, o) => o > p && (other.x - cx) ** 2 + (other.y - cy) ** 2 < (other.r * 1.1) ** 2,
      );
      if (hidden) return [];
      const half = mix(0.11, 0.19, size);
      const steps = 10;
      const points = Array.from({ length: steps + 1 }, (_, i): Point => {
        const a = (i / steps - 0.5) * 2 * half;
        const [c, s] = [cosineTurn(a), sineTurn(a)];
        return { x: cx + r * (lobe.ux * c - lobe.uy * s), y: cy + r * (lobe.uy * c + lobe.ux * s) };
      });
      const samples = samplesOf(points, (i) => max(0.08, 1 - abs(i / steps - 0.4) * 1.7));
      return [{ paint, samples, width: max(2.5, puff.r * 0.055), opacity: 1 }];
    });
  });
}

/** Everything that billows are drawn with. The puffs are given from the back to the front. */
export function billowRings(puffs: readonly Puff[], style: BillowStyle, crease: string, finest = 1.6): BillowRings {
  const alive = puffs.filter((p) => p.r > 2);
  if (alive.length === 0) return { body: [], light: [], shade: [], creases: [] };
  const lobes = alive.map((puff) => lobesOf(puff, style.scallops));
  const discs: Ball[] = [...alive.map(({ x, y, r }) => ({ x, y, r: r * 0.93 })), ...lobes.flat()];
  const grid: Grid = gridOver(discsBox(discs), finest, 240);
  const mean = alive.reduce((sum, p) => sum + p.r, 0) / alive.length;
  const blend = mean * mix(0.5, 0.045, style.scallops);
  // A puff is torn by itself: what lies behind or before it shows through.
  const own = (p: number): Ball[] => [{ ...alive[p]!, r: alive[p]!.r * 0.93 }, ...lobes[p]!];
  const sound = alive.flatMap((puff, p) => (puff.torn > 0 ? [] : own(p)));
  const body = unionField(sound, grid, blend);
  alive.forEach((puff, p) => {
    if (puff.torn <= 0) return;
    const part = partOf(grid, own(p), blend + 3 * grid.cell);
    const holes = unionField(holesOf(puff), part.grid, puff.r * 0.1);
    const torn = without(unionField(own(p), part.grid, blend), holes);
    for (let row = 0; row < part.grid.rows; row++) {
      const at = (part.row + row) * grid.columns + part.column;
      for (let column = 0; column < part.grid.columns; column++)
        body[at + column] = softMax(body[at + column]!, torn[row * part.grid.columns + column]!, blend);
    }
  });
  const { x: lx, y: ly } = style.light;
  // The light side: of each lobe that faces it, and of each ball, the part nearer the light.
  const lit: Ball[] = [];
  const dark: Ball[] = [];
  alive.forEach((puff, p) => {
    lit.push({ x: puff.x + lx * puff.r * 0.48, y: puff.y + ly * puff.r * 0.48, r: puff.r * 0.48 });
    for (const lobe of lobes[p]!) {
      const facing = lobe.ux * lx + lobe.uy * ly;
      // As lobes roll round, their light and shade grow from nothing and go back to it: nothing jumps.
      const [bright, shady] = [smoothStep(-0.05, 0.6, facing), smoothStep(0.1, 0.8, -facing)];
      if (bright > 0)
        lit.push({ x: lobe.x + lx * lobe.r * 0.2, y: lobe.y + ly * lobe.r * 0.2, r: lobe.r * 0.86 * bright });
      if (shady > 0)
        dark.push({ x: lobe.x - lx * lobe.r * 0.36, y: lobe.y - ly * lobe.r * 0.36, r: lobe.r * 0.92 * shady });
    }
  });
  const rim = mean * 0.07;
  const inset = body.map((v) => v - rim);
  const smallest = max(36, mean * mean * 0.05);
  const over = (marked: readonly Ball[], soft: number): Ring[] =>
    marked.length === 0 ? [] : ringsAt(withinBall(unionField(marked, grid, soft), inset), grid, 0, smallest * 3);
  return {
    body: ringsAt(body, grid, 0, smallest),
    light: over(lit, blend * 0.6),
    shade: over(dark, blend),
    creases: creasesOf(alive, lobes, style, crease),
  };
}
