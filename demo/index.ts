import type { ShotDocument } from '@tallow/core/document';
import { furnaceMouth } from './furnace-mouth.ts';
import { burstFlask, skylightStrike, theGather, ventSmoke } from './shots.ts';
import { nightShift } from './night-shift.ts';
import type { Recorded } from './night-sounds.ts';
import { theSwing } from './the-swing.ts';

export { FURNACE_MOUTH_ID, GLASSHOUSE_ID } from './ids.ts';
export { furnaceMouth } from './furnace-mouth.ts';
export { burstFlask, skylightStrike, theGather, ventSmoke } from './shots.ts';
export { theSwing } from './the-swing.ts';
export { nightShift } from './night-shift.ts';
export { NIGHT_CUES, type Recorded } from './night-sounds.ts';
export { SHIPPED, type Shipped } from './shelf.ts';

/** Every shot of the demo, each built when it is asked for: the one that puts the others together first, these in the order of the film. */
export const DEMO_SHOTS: readonly ((recorded?: Recorded) => ShotDocument)[] = [
  nightShift,
  furnaceMouth,
  ventSmoke,
  theGather,
  skylightStrike,
  burstFlask,
  theSwing,
];
