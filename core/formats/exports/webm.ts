import { secondsText } from '../../timing/index.ts';
import type { ExportFormat } from './export-format.ts';

/** A film that can be seen through: VP9 in WebM. */
export const webm: ExportFormat = {
  family: 'film',
  label: 'WebM',
  says: 'VP9: small, can be seen through, for browsers and editing.',
  ending: 'webm',
  frames: null,
  whole: true,
  alphas: ['straight'],
  linear: false,
  sound: true,
  rates: true,
  doing: (frames) => `Export film of ${frames} frames`,
  tells: (frames, rate) => ({ comes: `${secondsText(frames, rate)} at ${rate} fps.`, lost: null }),
};
