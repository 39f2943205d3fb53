export * from './layers.ts';
export * from './drawings.ts';
export * from './shot.ts';
export * from './duplicate.ts';
export * from './keep-both.ts';
