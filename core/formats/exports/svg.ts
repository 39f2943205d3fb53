import { doingFrames, type ExportFormat } from './export-format.ts';

const COMES = 'Shapes and ink as paths, layer by layer; what no path can say as a picture in its place.';

/** Frames as SVG. */
export const svg: ExportFormat = {
  family: 'frames',
  label: 'SVG',
  says: 'Each frame as paths, sharp at any size.',
  ending: 'zip',
  frames: 'svg',
  whole: true,
  alphas: ['straight'],
  linear: false,
  sound: false,
  rates: true,
  doing: doingFrames,
  tells: () => ({ comes: COMES, lost: 'Plates, light and air are not in it.' }),
};
