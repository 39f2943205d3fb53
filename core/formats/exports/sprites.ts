import type { ExportFormat } from './export-format.ts';

/** All different pictures in one, with a file that says where each is and for how long. */
export const sprites: ExportFormat = {
  family: 'page',
  label: 'Sprite sheet',
  says: 'One PNG with all pictures, and a JSON that says where each is, for how long, and where the anchor.',
  ending: 'zip',
  frames: null,
  whole: true,
  alphas: ['straight'],
  linear: false,
  sound: false,
  doing: (frames) => `Export sprite sheet of ${frames} frames`,
};
