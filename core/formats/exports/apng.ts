import { secondsText } from '../../timing/index.ts';
import type { ExportFormat } from './export-format.ts';

/** A PNG that loops: all colours, soft edges. */
export const apng: ExportFormat = {
  family: 'loop',
  label: 'APNG',
  says: 'Lossless with soft edges, for browsers. Large.',
  ending: 'png',
  frames: null,
  whole: true,
  alphas: ['straight'],
  linear: false,
  sound: false,
  rates: true,
  doing: (frames) => `Export loop of ${frames} frames`,
  tells: (frames, rate) => ({
    comes: `${secondsText(frames, rate)} a turn, ${frames} frames at ${rate} fps.`,
    lost: null,
  }),
};
