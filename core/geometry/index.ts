export * from './matrix.ts';
export * from './box.ts';
export * from './random.ts';
export * from './rings.ts';
export * from './simplify.ts';
export * from './waves.ts';
export * from './solid.ts';
export * from './levels.ts';
