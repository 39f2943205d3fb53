export * from './runs.ts';
export * from './element.ts';
export * from './shift.ts';
export * from './clock.ts';
export * from './onion.ts';
export * from './gif.ts';
