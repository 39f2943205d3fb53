import type { ExportFormat } from './export-format.ts';

/** Frames as PNG, in a zip with the exposure sheet beside them. */
export const png: ExportFormat = {
  label: 'PNG frames in a zip',
  ending: 'zip',
  frames: 'png',
  doing: (frames, sequences) => `Export ${sequences === 1 ? '' : `${sequences} × `}${frames} frames`,
};
