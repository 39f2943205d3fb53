export * from './drawings.ts';
export * from './exposures.ts';
export * from './layers.ts';
export * from './elements.ts';
export * from './shot.ts';
export * from './keep-both.ts';
export * from './duplicate.ts';
export { type Timed } from './place.ts';
export * from './plan.ts';
