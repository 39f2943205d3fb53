export * from './raster.ts';
export * from './regions.ts';
export * from './leaks.ts';
export * from './fill.ts';
export * from './follow.ts';
export * from './carry.ts';
export * from './relief.ts';
export * from './tone.ts';
