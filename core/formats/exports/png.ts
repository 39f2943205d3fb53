import { ALPHA_KINDS, doingFrames, type ExportFormat } from './export-format.ts';

/** Frames as PNG, in a zip with the exposure sheet beside them. */
export const png: ExportFormat = {
  family: 'frames',
  label: 'PNG',
  says: 'Lossless, read by everything.',
  ending: 'zip',
  frames: 'png',
  whole: false,
  alphas: ALPHA_KINDS,
  linear: false,
  sound: false,
  rates: true,
  doing: doingFrames,
};
