export { steadyReach, SteadyStroke } from './steady.ts';
export { TIPS, newestVersion, tipOf } from './tips.ts';
export { breadthAt, breadths, leanOf } from './breadth.ts';
export { along, chunkBox, chunkCount, firstOpenChunk, middleLine, pieceAt, strokeRoom, walkChunk } from './walk.ts';
export { inkChunk } from './ink.ts';
export { fleckChunk } from './flecks.ts';
export { type AlphaArea, emptyArea, touchedBoxes } from './alpha-area.ts';
export { depositChunk } from './deposit.ts';
export { type Grounds, makeGrounds, paperAt, SHADES, takeGrounds } from './shades.ts';
export { HAZE_FADE, hazeChunk } from './haze.ts';
export { answered, type Response, STRAIGHT } from './response.ts';
export { closedSamples, outlineRing } from './outline.ts';
export {
  arcPoints,
  curveThrough,
  FIGURE_FORMS,
  type FigureForm,
  FINISHES,
  hasCorners,
  isPlain,
  levelled,
  madeSamples,
  type Making,
  type StrokeFinish,
} from './figures.ts';
