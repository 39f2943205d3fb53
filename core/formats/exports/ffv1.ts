import { secondsText } from '../../timing/index.ts';
import type { ExportFormat } from './export-format.ts';

/** A film without any loss: FFV1 in Matroska. */
export const ffv1: ExportFormat = {
  family: 'film',
  label: 'FFV1',
  says: 'Lossless with alpha, in Matroska: to keep, and to go on with.',
  ending: 'mkv',
  frames: null,
  whole: true,
  alphas: ['straight'],
  linear: false,
  sound: true,
  rates: true,
  doing: (frames) => `Export film of ${frames} frames`,
  tells: (frames, rate) => ({ comes: `${secondsText(frames, rate)} at ${rate} fps.`, lost: null }),
};
