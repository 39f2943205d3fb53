import { secondsText } from '../../timing/index.ts';
import type { ExportFormat } from './export-format.ts';

/** An animated WebP that loops. */
export const webp: ExportFormat = {
  family: 'loop',
  label: 'WebP',
  says: 'Lossless with soft edges, for browsers. Smaller than APNG.',
  ending: 'webp',
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
