export * from './paper.ts';
export * from './register.ts';
export * from './drawing.ts';
