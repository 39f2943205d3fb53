export { type Blend, BLENDS, operationOf } from './blends.ts';
export {
  type Context2D,
  type MakeSurface,
  type PathSink,
  type Picture,
  type PixelData,
  type Surface,
  wipe,
} from './surface.ts';
export { Scratch } from './scratch.ts';
export { SurfacePool } from './pool.ts';
export { blurred, blurredAlong, blurredSmall, halvingsFor, layReduced, reduced } from './blur.ts';
export { coveredIn } from './covered.ts';
export { copyOf, flood, plain } from './flood.ts';
export { fillPath } from './path.ts';
