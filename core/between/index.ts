export * from './similar.ts';
export * from './match.ts';
export { bodyOf, type MarkExtent } from './outline.ts';
export * from './between.ts';
export * from './spread.ts';
export * from './boil.ts';
export * from './ahead.ts';
export * from './pieces.ts';
export * from './lay.ts';
