export {
  type Darkness,
  darknessOf,
  DEFAULT_LEVELS,
  LEVEL_LIMITS,
  type Levels,
  pencilAt,
  type ScannedPixels,
} from './paper.ts';
export { findMark, markReach, overlaid, type RegistrationMark, scanMarkAt } from './register.ts';
export { type ScannedShape, scannedShapes } from './drawing.ts';
