export * from './exposure-sheet.ts';
export * from './exports/index.ts';
export * from './export-settings.ts';
export * from './export-notes.ts';
export * from './palette.ts';
export * from './svg/index.ts';
export * from './unsaved-work.ts';
export * from './archive.ts';
