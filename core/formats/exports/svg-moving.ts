import { secondsText } from '../../timing/index.ts';
import type { ExportFormat } from './export-format.ts';

/** One SVG that loops. */
export const svgMoving: ExportFormat = {
  family: 'loop',
  label: 'SVG',
  says: 'For pages: paths that move, sharp at any size.',
  ending: 'svg',
  frames: null,
  whole: true,
  alphas: ['straight'],
  linear: false,
  sound: false,
  doing: (frames) => `Export SVG of ${frames} frames`,
  tells: (frames, rate) => ({
    comes: `${secondsText(frames, rate)} a turn. What no path can say is a picture in its place.`,
    lost: 'Plates, light and air are not in it.',
  }),
};
