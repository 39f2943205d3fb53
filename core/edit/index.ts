export * from './layers.ts';
export * from './drawings.ts';
export * from './shot.ts';
