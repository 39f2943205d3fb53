/**
 * Pencil: graphite pressed into the tooth of paper. The paper is a function of the place in element space alone, so strokes
 * that cross share its grain, and a drawing that is held keeps it.
 */
import { NONE, type Shade } from './deposit.ts';
import { evenly, heightAt, smoothNoise, type Ground } from './ground.ts';

/** Cells of the paper's tile to one px of element space, and cells to a side: it repeats every 205 px. */
const CELLS = 2.5;
const SIDE = 512;

let paper: Ground | null = null;
const madePaper = (): Ground => {
  const [fine, coarse, cloud] = [
    smoothNoise(SIDE, SIDE, 1, 1, 1),
    smoothNoise(SIDE, SIDE, 2, 3, 3),
    smoothNoise(SIDE, SIDE, 3, 9, 9),
  ];
  return evenly(
    fine.map((v, i) => v + 0.7 * coarse[i]! + 0.3 * cloud[i]!),
    SIDE,
    SIDE,
  );
};

/** The paper, made when first asked for. */
export const paperGround = (): Ground => (paper ??= madePaper());

/** Takes the paper as another thread has made it. */
export const takePaper = (made: Ground): void => {
  paper ??= made;
};

/** How high the paper stands at a place of element space, px: 0 to 1. */
export function paperAt(x: number, y: number): number {
  return heightAt(paperGround(), x * CELLS, y * CELLS);
}

/** How much of the height one level of tone takes: the softness of the edges of grains. */
const SOFT = 0.5;

/** How much graphite the paper takes. */
export const graphite: Shade = ({ lean, footprint }, { count, x, y, stepX, stepY, far, pressure, opaque }) => {
  const ground = paperGround();
  const steep = 0.7 * (1 - 0.6 * lean);
  const spread = 1 / (1 + 0.95 * lean);
  const perSoft = 1 / (SOFT + 0.4 * (footprint > 1 ? footprint - 1 : 0));
  for (let i = 0; i < count; i++) {
    const u = far[i]!;
    if (u === NONE) continue;
    const p = pressure[i]!;
    // Pressed hard it fills the valleys; lying flat it spreads the same push over more of the paper.
    const reach = (0.34 + 1.2 * p) * spread * (1 - steep * u * u);
    const share = (reach - heightAt(ground, (x + i * stepX) * CELLS, (y + i * stepY) * CELLS)) * perSoft + 0.5;
    opaque[i] = (0.42 + 0.58 * p) * (share < 0 ? 0 : share > 1 ? 1 : share);
  }
};
