import { doingFrames, type ExportFormat } from './export-format.ts';

/** Frames as OpenRaster: every layer as a picture of its own, with its blend. */
export const ora: ExportFormat = {
  family: 'frames',
  label: 'OpenRaster',
  says: 'Each frame with its layers and blends, for painting on.',
  ending: 'zip',
  frames: 'ora',
  whole: true,
  alphas: ['straight'],
  linear: false,
  sound: false,
  rates: true,
  doing: doingFrames,
  tells: () => ({ comes: 'Layers as they lie; looks and lights are in the merged picture.', lost: null }),
};
