export * from './frame.ts';
export * from './marks.ts';
export * from './read.ts';
export { NoSvg, type SvgNode } from './tree.ts';
export { escaped, numberText, tag } from './markup.ts';
