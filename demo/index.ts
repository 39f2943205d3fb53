import type { ShotDocument } from '@tallow/core/document';
import { furnaceMouth } from './furnace-mouth.ts';
import { burstFlask, skylightStrike, theGather, ventSmoke } from './shots.ts';
import { nightShift } from './night-shift.ts';
import type { Recorded } from './night-sounds.ts';
import { theSwing } from './the-swing.ts';

export * from './ids.ts';
export * from './furnace-mouth.ts';
export * from './shots.ts';
export * from './the-swing.ts';
export * from './night-shift.ts';
export * from './night-sounds.ts';
export * from './shelf.ts';

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
