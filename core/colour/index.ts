export * from './contrast.ts';
export * from './pairs.ts';
export * from './flashes.ts';
