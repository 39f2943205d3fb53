export { type Barrier, type Lattice, latticeOver } from './raster.ts';
export { OUTSIDE } from './regions.ts';
export { type Leaks, leaksAround, type LeaksAround, leaksOf } from './leaks.ts';
export {
  enclosed,
  type FillRules,
  type Paintable,
  paintableOf,
  regionAt,
  regionsWithin,
  ringsOf,
  silhouetteOf,
  wellInside,
} from './fill.ts';
export { followed } from './follow.ts';
export { Carrier, type FilledShape, type FillReport, type FillTrouble, paintedBy } from './carry.ts';
export { type ToneSettings, toneShapes, type ToneWork } from './tone.ts';
