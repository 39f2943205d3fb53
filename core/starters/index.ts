export * from './field.ts';
export * from './fire.ts';
export * from './line.ts';
