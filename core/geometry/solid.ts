/**
 * Areas with straight sides, put together without crossings. Clipper works on whole numbers: px times `FINE`,
 * in and out, and nowhere else.
 */
import { Clipper, FillRule, type Path64, type Paths64 } from 'clipper2-ts';
import type { Pair } from './fit.ts';
import { fitRing, polygonRing, ringPoints } from './rings.ts';

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

/** Points walked on each piece of a ring. */
const STEPS = 10;
/** px a ring may leave the outline it is fitted to. */
const TOLERANCE = 0.35;

const polygonsOf = (rings: readonly Float32Array[]): Paths64 =>
  rings.map((ring) => inward(ringPoints(ring, STEPS).map(({ x, y }) => [x, y] as const)));

/** The area of some rings (even-odd) without that of others. @param smallest px²; what is smaller is left out. */
export function withoutArea(
  rings: readonly Float32Array[],
  taken: readonly Float32Array[],
  smallest: number,
): Float32Array[] {
  const left: Paths64 = Clipper.difference(polygonsOf(rings), polygonsOf(taken), FillRule.EvenOdd);
  return left.flatMap((path) =>
    path.length < 3 || Math.abs(Clipper.area(path)) / (FINE * FINE) < smallest
      ? []
      : [
          fitRing(
            path.map(({ x, y }): Pair => [x / FINE, y / FINE]),
            TOLERANCE,
          ),
        ],
  );
}

/** The union of areas, each of some rings (even-odd), as rings (even-odd). */
export function joinedAreas(areas: readonly (readonly Float32Array[])[], smallest: number): Float32Array[] {
  // Each by itself first: where two even-odd areas overlap, both together would have a hole.
  const solid = areas.flatMap((rings) => Clipper.union(polygonsOf(rings), [], FillRule.EvenOdd));
  return Clipper.union(solid, [], FillRule.NonZero).flatMap((path) =>
    path.length < 3 || Math.abs(Clipper.area(path)) / (FINE * FINE) < smallest
      ? []
      : [
          fitRing(
            path.map(({ x, y }): Pair => [x / FINE, y / FINE]),
            TOLERANCE,
          ),
        ],
  );
}
