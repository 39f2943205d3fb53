export * from './resolve.ts';
export * from './waver.ts';
export * from './finish.ts';
export * from './tilt.ts';
