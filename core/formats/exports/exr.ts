import { doingFrames, type ExportFormat } from './export-format.ts';

/** Frames as OpenEXR: half floats, linear light, as compositing wants them. */
export const exr: ExportFormat = {
  family: 'frames',
  label: 'OpenEXR',
  says: 'Half floats in linear light, for compositing.',
  ending: 'zip',
  frames: 'exr',
  whole: false,
  alphas: ['premultiplied'],
  linear: true,
  sound: false,
  rates: true,
  doing: doingFrames,
};
