export * from './resolve.ts';
export * from './waver.ts';
export * from './blur.ts';
export * from './finish.ts';
