export * from './resolve.ts';
export * from './waver.ts';
export * from './finish.ts';
