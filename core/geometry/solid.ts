/**
 * Areas with straight sides, put together without crossings. Clipper works on whole numbers: px times `FINE`,
 * in and out, and nowhere else.
 */
import { Clipper, FillRule, type Path64, type Paths64 } from 'clipper2-ts';
import type { Pair } from './fit.ts';
import { polygonRing } from './rings.ts';

/** Parts of a px that are told apart. */
const FINE = 256;
/** px by which a side may be straightened. */
const STRAIGHT = 0.4;

const inward = (polygon: readonly (readonly [number, number])[]): Path64 =>
  polygon.map(([x, y]) => ({ x: Math.round(x * FINE), y: Math.round(y * FINE), z: 0 }));

/** The union of polygons, each as it winds or not, as rings that neither cross nor hold slivers. @param smallest px². */
export function unitedRings(
  polygons: readonly (readonly (readonly [number, number])[])[],
  smallest: number,
): Float32Array[] {
  const solid = polygons.map(inward).map((path) => (Clipper.area(path) < 0 ? path.reverse() : path));
  const united: Paths64 = Clipper.union(solid, [], FillRule.NonZero);
  return united.flatMap((path) => {
    const area = Math.abs(Clipper.area(path)) / (FINE * FINE);
    if (area < smallest) return [];
    return [
      polygonRing(Clipper.ramerDouglasPeucker(path, STRAIGHT * FINE).map(({ x, y }): Pair => [x / FINE, y / FINE])),
    ];
  });
}
