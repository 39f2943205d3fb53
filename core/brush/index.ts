export * from './steady.ts';
export * from './ink.ts';
export * from './outline.ts';
