/** Circles as curves. */

/** The length of a cubic handle that makes a quarter circle of radius 1. */
const QUARTER = 0.5522847498307936;

/** A disc as four nodes. @param radius px of element space. */
export function discRing(x: number, y: number, radius: number): Float32Array {
  const ring = new Float32Array(24);
  for (let i = 0; i < 4; i++) {
    const [cos, sin] = [[1, 0, -1, 0][i]!, [0, 1, 0, -1][i]!];
    const [px, py] = [x + cos * radius, y + sin * radius];
    const [tx, ty] = [-sin * radius * QUARTER, cos * radius * QUARTER];
    ring.set([px, py, px - tx, py - ty, px + tx, py + ty], i * 6);
  }
  return ring;
}
