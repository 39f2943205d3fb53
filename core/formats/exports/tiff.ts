import { ALPHA_KINDS, doingFrames, type ExportFormat } from './export-format.ts';

/** Frames as TIFF. */
export const tiff: ExportFormat = {
  family: 'frames',
  label: 'TIFF',
  says: 'Lossless, for programs that ask for it.',
  ending: 'zip',
  frames: 'tif',
  whole: false,
  alphas: ALPHA_KINDS,
  linear: false,
  sound: false,
  rates: true,
  doing: doingFrames,
};
