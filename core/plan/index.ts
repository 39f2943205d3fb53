export {
  cutWay,
  dropNode,
  joinWays,
  type MeasuredPath,
  moveNode,
  moveWay,
  nodePoints,
  simplified,
  smoothedWay,
  type Spot,
  wayOf,
  wayThrough,
} from './way.ts';
export { easedTicks, easeOf, flatTicks, placeTick, spacingFacts, type SpacingFacts, ticksOf } from './spacing.ts';
export { asStandIn, type Stamp, stampRing, stampsOf } from './stand-in.ts';
export { holdsFor, PHASE_SETS, phaseAt, phasesFrom, timedPhases } from './phases.ts';
export { phasesAt } from './phases-at.ts';
export { followingPhases, rearrangedPhases } from './phase-moves.ts';
export { partOfStroke, reachOn, revealCount, type Revealing } from './reveal.ts';
