import { secondsText } from '../../timing/index.ts';
import type { ExportFormat } from './export-format.ts';

/** A film that everything plays: H.264 in MP4. */
export const mp4: ExportFormat = {
  family: 'film',
  label: 'MP4',
  says: 'H.264: plays everywhere, on the background.',
  ending: 'mp4',
  frames: null,
  whole: true,
  alphas: [],
  linear: false,
  sound: true,
  rates: true,
  doing: (frames) => `Export film of ${frames} frames`,
  tells: (frames, rate) => ({
    comes: `${secondsText(frames, rate)} at ${rate} fps. A width or height that is odd gets one more row of pixels.`,
    lost: null,
  }),
};
