export * from './surface.ts';
export * from './paint.ts';
export * from './marks.ts';
export * from './frame.ts';
export * from './barrier.ts';
export * from './plates.ts';
export * from './cache.ts';
export * from './ghost.ts';
