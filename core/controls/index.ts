export * from './control.ts';
