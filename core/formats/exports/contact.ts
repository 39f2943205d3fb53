import type { ExportFormat } from './export-format.ts';

/** All different pictures beside each other, numbered, to be looked at. */
export const contact: ExportFormat = {
  family: 'page',
  label: 'Contact sheet',
  says: 'One PNG with every drawing small, its frame and how long it is held.',
  ending: 'png',
  frames: null,
  whole: true,
  alphas: [],
  linear: false,
  sound: false,
  doing: (frames) => `Export contact sheet of ${frames} frames`,
};
