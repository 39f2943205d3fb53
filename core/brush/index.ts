export * from './steady.ts';
export * from './ink.ts';
