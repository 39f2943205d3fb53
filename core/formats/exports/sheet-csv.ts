import type { ExportFormat } from './export-format.ts';

/** The exposure sheet for other programs. */
export const sheetCsv: ExportFormat = {
  family: 'page',
  label: 'Sheet as CSV',
  says: 'The exposure sheet as a table that other programs read.',
  ending: 'csv',
  frames: null,
  whole: true,
  alphas: [],
  linear: false,
  sound: false,
  words: true,
  doing: (frames) => `Write a sheet of ${frames} frames`,
};
