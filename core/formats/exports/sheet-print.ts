import type { ExportFormat } from './export-format.ts';

/** The exposure sheet on paper. */
export const sheetPrint: ExportFormat = {
  family: 'page',
  label: 'Sheet to print',
  says: 'The exposure sheet as a page: open it and print.',
  ending: 'html',
  frames: null,
  whole: true,
  alphas: [],
  linear: false,
  sound: false,
  words: true,
  doing: (frames) => `Write a sheet of ${frames} frames`,
};
