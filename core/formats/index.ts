export * from './exposure-sheet.ts';
export * from './export-settings.ts';
