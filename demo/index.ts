export * from './ids.ts';
export * from './furnace-mouth.ts';
