export * from './change.ts';
export * from './transform.ts';
export * from './hit.ts';
export * from './split.ts';
export * from './bend.ts';
export * from './parallel.ts';
export * from './reach.ts';
export * from './redraw.ts';
