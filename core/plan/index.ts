export * from './way.ts';
export * from './spacing.ts';
export * from './stand-in.ts';
export * from './phases.ts';
export * from './phases-at.ts';
export * from './phase-moves.ts';
export * from './reveal.ts';
