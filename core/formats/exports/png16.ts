import { ALPHA_KINDS, doingFrames, type ExportFormat } from './export-format.ts';

/** Frames as PNG of 16 bits a channel. */
export const png16: ExportFormat = {
  family: 'frames',
  label: 'PNG 16 bit',
  says: 'For grading that rounds no further. Tallow paints in 8 bits a channel.',
  ending: 'zip',
  frames: 'png',
  whole: false,
  alphas: ALPHA_KINDS,
  linear: false,
  sound: false,
  rates: true,
  doing: doingFrames,
};
