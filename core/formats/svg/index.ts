export * from './frame.ts';
export * from './marks.ts';
export { escaped, numberText, tag } from './markup.ts';
