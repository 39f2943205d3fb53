export * from './types.ts';
export * from './value.ts';
export * from './columns.ts';
export * from './text.ts';
export * from './check.ts';
export * from './merge.ts';
export * from './history.ts';
export * from './create.ts';
