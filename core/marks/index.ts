export { mapped, samplesAt, withColumns } from './change.ts';
export {
  matrixAbout,
  fractionOf,
  fractions,
  STILL,
  type Transform,
  transformed,
  type TransformSpread,
} from './transform.ts';
export { markAt, marksInside, marksOfSwatch, placesOf } from './hit.ts';
export { closedUp, isClosed, joined, type Joining, openedUp, splitByPolygon, splitSamples } from './split.ts';
export { bent, flatGrid, type PointGrid } from './bend.ts';
export { parallelSamples } from './parallel.ts';
export {
  allOf,
  everyControlPoint,
  type Fall,
  fallOff,
  type ControlPoint,
  controlPointsOf,
  pulled,
  smoothed,
  weightsOf,
  widened,
  withoutControlPoint,
} from './reach.ts';
export { redrawn } from './redraw.ts';
export { withNodes, withoutNodes } from './nodes.ts';
export { outlined } from './outlined.ts';
export { largestOutline } from './largest-outline.ts';
export { openEnds } from './open-ends.ts';
export { closingsOf } from './closings.ts';
export { warpedMark, warpedRing } from './warped.ts';
