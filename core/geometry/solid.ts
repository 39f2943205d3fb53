/**
 * Areas with straight sides, put together without crossings. Clipper works on whole numbers: px times `FINE`,
 * in and out, and nowhere else.
 */
import { Clipper, EndType, FillRule, JoinType, type Path64, type Paths64 } from 'clipper2-ts';
import type { Pair } from './fit.ts';
import { fitRing, polygonRing, ringPoints } from './rings.ts';

/** Parts of a px that are distinguished. */
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

/** A closed polyline, px; the last point leads back to the first. */
export type Polygon = readonly Pair[];

const outward = (paths: Paths64): Pair[][] =>
  paths.flatMap((path) => (path.length < 3 ? [] : [path.map(({ x, y }): Pair => [x / FINE, y / FINE])]));

/** The union of polygons, each whole whichever way it winds. @param holes whether what they enclose between them stays open. */
export function unitedPolygons(polygons: readonly Polygon[], holes = true): Pair[][] {
  const solid = polygons.map(inward).map((path) => (Clipper.area(path) < 0 ? path.reverse() : path));
  const united: Paths64 = Clipper.union(solid, [], FillRule.NonZero);
  return outward(holes ? united : united.filter((path) => Clipper.area(path) > 0));
}

/** The area of some polygons (nonzero: outlines one way round, holes the other) without that of others, each of these whole. */
export function polygonsWithout(polygons: readonly Polygon[], taken: readonly Polygon[]): Pair[][] {
  const away = taken.map(inward).map((path) => (Clipper.area(path) < 0 ? path.reverse() : path));
  return outward(Clipper.difference(polygons.map(inward), away, FillRule.NonZero));
}

/** The area of some polygons (nonzero) with that of others, each of these whole. */
export function polygonsWith(polygons: readonly Polygon[], others: readonly Polygon[]): Pair[][] {
  const more = others.map(inward).map((path) => (Clipper.area(path) < 0 ? path.reverse() : path));
  return outward(Clipper.union([...polygons.map(inward), ...more], [], FillRule.NonZero));
}

/** What a line of some width covers, round at its ends. @param radius half the width, px. */
export const lineArea = (points: Polygon, radius: number): Pair[][] =>
  outward(
    Clipper.inflatePaths(
      [inward(points)],
      radius * FINE,
      JoinType.Round,
      EndType.Round,
      2,
      Math.max(0.1, radius / 40) * FINE,
    ),
  );

/** The area of polygons, px²: holes that wind the other way are taken off. */
export const polygonsArea = (polygons: readonly Polygon[]): number =>
  Math.abs(polygons.reduce((sum, polygon) => sum + Clipper.area(inward(polygon)), 0)) / (FINE * FINE);
