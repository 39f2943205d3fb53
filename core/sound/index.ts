export * from './time.ts';
export * from './voices.ts';
export * from './peaks.ts';
export * from './hits.ts';
export * from './wav.ts';
export * from './made/index.ts';
