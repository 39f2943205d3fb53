export * from './exposure-sheet.ts';
