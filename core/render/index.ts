export {
  blurred,
  type MakeSurface,
  operationOf,
  type Picture,
  Scratch,
  type Surface,
  SurfacePool,
  wipe,
} from '../canvas/index.ts';
export { axisOf, type GradientPaint, isHole, linePaint, type Paint, type PaintOf, plainOf } from './paint.ts';
export { areasOf } from './brightness.ts';
export { drawDrawing, drawingBox, drawingRoom, drawMark, drawShape, markBox, takeRoom } from './marks.ts';
export {
  chunksBox,
  drawChunk,
  drawStroke,
  goesStraight,
  isDeep,
  isGround,
  lay,
  type Laying,
  operationOfLays,
} from './strokes.ts';
export { GroundStroke } from './ground-stroke.ts';
export { DIMMED, type DrawItem, type DrawOptions } from './draw-item.ts';
export { paintsOf, paintsOnLayer } from './painted.ts';
export { layerRanks, lieOf, itemsAsDrawn, type Rank } from './use-draw-list.ts';
export { drawListOf, withVariant } from './draw-list.ts';
export { frameKey } from './frame-key.ts';
export { drawBackground, layPart, layPicture, putPlaced } from './lay.ts';
export { layDrawList } from './lay-draw-list.ts';
export type { PictureOf, Placed, PlacedPart, RenderContext, Size } from './render-context.ts';
export { nearly } from './near.ts';
export { roomFor, roomOn, wholeSight } from './room.ts';
export { shownParts } from './item-parts.ts';
export { drawFrame } from './draw-frame.ts';
export { drawBarrier, linesBox } from './barrier.ts';
export { assetAt, type AssetPicture, plateMatrix, platesAt } from './plates.ts';
export { drawLying } from './tilted-picture.ts';
export { drawPlates } from './behind.ts';
export { coveredFraction } from './contact.ts';
export { type Falling, lightsOn } from './lights.ts';
export { shine } from './shine.ts';
export { ByteCache } from './cache.ts';
export { drawGhost } from './ghost.ts';
export { laidApart, type LaidSurface, maskOf, partsApart } from './apart.ts';
export { type FilledThrough, type FillThere, type FillWork, FillWorker } from './fill-work.ts';
export { Rasters } from './rasters.ts';
export { KeptParts, keptRendering } from './kept-rendering.ts';
export { drawCoverage } from './coverage.ts';
