export {
  describeHolds,
  exposureAt,
  exposures,
  fillGap,
  insertRun,
  listFrame,
  moveRuns,
  removeRun,
  retime,
  runStart,
  setHold,
  splitRun,
  toldFrom,
  totalLength,
} from './runs.ts';
export {
  changeSpan,
  cutAt,
  emptied,
  heldAlong,
  heldLonger,
  joinedEqual,
  refilled,
  repeatedRuns,
  reversedRuns,
  runsWithin,
  stretchedTo,
  thinned,
} from './spans.ts';
export { slotNumbers, slotOfNumber, timesShown, withNumbersKept } from './numbers.ts';
export {
  DEEPEST,
  elementLength,
  isLocked,
  isVisible,
  placedInside,
  roundOf,
  type Shown,
  shownOn,
  type TimedLayer,
  timedLayers,
} from './element.ts';
export {
  type InTime,
  type Moment,
  momentOn,
  onPlanes,
  outerFrame,
  placedElements,
  placementFrame,
  seenFrames,
  turnsIn,
  usedElements,
} from './placed.ts';
export { labelOfUse, nameOfUse, placementsOf } from './names.ts';
export { elementOf, frameOfSlot, type Place, placeOf } from './place.ts';
export { type Arc, arcsOf, arcsWithin } from './arcs.ts';
export { drawingsInOrder, drawingsNear, slotsInOrder } from './in-order.ts';
export { cutOff, type CutOff, cutOffText } from './cut-off.ts';
export { follower, type Follower } from './follow.ts';
export { meetingLength, meetingOf } from './meeting.ts';
export { shiftAt } from './shift.ts';
export { bounced, dueFrame, framesTyped, RateMeter, secondsText } from './clock.ts';
export { type Neighbour, neighbours } from './onion.ts';
export { gifTimes } from './gif.ts';
