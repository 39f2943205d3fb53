export * from './space.ts';
export * from './way.ts';
export * from './planes.ts';
export * from './shake.ts';
export * from './occurrences.ts';
export * from './drawings-on.ts';
export * from './seen-part.ts';
export * from './only-use.ts';
