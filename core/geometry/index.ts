export { apply, IDENTITY, invert, type Matrix, multiply, type Point, scaleOf, translation } from './matrix.ts';
export { type Box, EMPTY_BOX, fitInto, grown, intersection, isEmpty, mapBox, union, wholePixels } from './box.ts';
export { hashFraction, nextSeed, seededIds, seededRandom } from './random.ts';
export { fitLine, fitRing, pointWithin, polygonRing, ringBox, ringPoints } from './rings.ts';
export { keptPoints } from './simplify.ts';
export { clamp, cosineTurn, mix, sineTurn, smoothStep } from './waves.ts';
export {
  joinedAreas,
  lineArea,
  type Polygon,
  polygonsArea,
  polygonsWith,
  polygonsWithout,
  unitedPolygons,
  unitedRings,
  withoutArea,
} from './solid.ts';
export { type Grid, gridOver, levelLines, ringsAt } from './levels.ts';
export { gently, modulo } from './numbers.ts';
export { distanceToSegment, doubleAreaOf, isInside, nearestFraction } from './polygons.ts';
export { ontoRuler, type Ruler } from './ruler.ts';
export { evenPoints, partBetween, seek, type Walk, walkOf } from './walk.ts';
export { discRing } from './circle.ts';
export type { Pair } from './fit.ts';
export {
  composed,
  cornersOf,
  derivativeAt,
  isConvex,
  project,
  type Projection,
  projectionFrom,
  projectionTo,
  type Quad,
  unproject,
} from './projection.ts';
