import { gifTimes, secondsText } from '../../timing/index.ts';
import type { ExportFormat } from './export-format.ts';

/** One GIF that loops. */
export const gif: ExportFormat = {
  family: 'loop',
  label: 'GIF',
  says: 'Shown everywhere. 256 colours, edges hard where it is seen through.',
  ending: 'gif',
  frames: null,
  whole: true,
  alphas: ['straight'],
  linear: false,
  sound: false,
  rates: true,
  doing: (frames) => `Export GIF of ${frames} frames`,
  tells: (frames, rate) => {
    const left = gifTimes(Math.max(1, frames), rate).kept.length;
    return {
      comes: `${secondsText(frames, rate)} a turn, ${left} frames at ${rate} fps.`,
      lost:
        left < frames
          ? `A GIF shows 50 frames a second at most: ${frames - left} of ${frames} frames are left out.`
          : null,
    };
  },
};
