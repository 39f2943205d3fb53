export { anchorOf, cornersMap, placementMatrix } from './space.ts';
export { onWay } from './way.ts';
export {
  airAt,
  cameraMoves,
  cameraOn,
  depthMatrix,
  depthScale,
  focalOf,
  isAtRest,
  isFixed,
  planeMatrix,
  planeOf,
} from './planes.ts';
export {
  allOccurrences,
  firstKeyOf,
  type HowLaid,
  keyOf,
  type Lie,
  lyingOn,
  type Occurrence,
  occurrenceIn,
  occurrencesOn,
  pathOf,
  shotFrameIn,
  standing,
  withInner,
} from './occurrences.ts';
export { drawingsOn } from './drawings-on.ts';
export { lightsOfElement, lightTime } from './light-time.ts';
export { seenPart } from './seen-part.ts';
export { onlyUse, staysPut } from './only-use.ts';
export { riddenBy, rideables, type Rideable } from './seats.ts';
