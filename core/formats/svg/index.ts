export { frameSvg, itemsText, movingSvg, type Pictured, type SvgSpan } from './frame.ts';
export { Defs } from './marks.ts';
export { readSvg } from './read.ts';
export { NoSvg, type SvgNode } from './tree.ts';
export { escaped } from './markup.ts';
