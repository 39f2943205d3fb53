export * from './blends.ts';
export * from './surface.ts';
export * from './scratch.ts';
export * from './pool.ts';
export * from './blur.ts';
export * from './covered.ts';
export * from './flood.ts';
export * from './path.ts';
