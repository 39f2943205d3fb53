export * from './contrast.ts';
export * from './pairs.ts';
export * from './flashes.ts';
export * from './oklch.ts';
