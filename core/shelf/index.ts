export * from './kinds.ts';
export * from './found.ts';
export * from './keep.ts';
export * from './put.ts';
export * from './newer.ts';
export * from './kept/index.ts';
