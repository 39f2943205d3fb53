/** Text of SVG. */
import type { Matrix } from '../../geometry/index.ts';

/** Three digits after the point: a hundredth of what an eye tells at ten times its size. */
export const numberText = (value: number): string => String(Math.round(value * 1000) / 1000 + 0);

export const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (each) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[each]!);

export const matrixText = (matrix: Matrix): string =>
  `matrix(${matrix.map((v) => String(+v.toPrecision(9))).join(' ')})`;

/** A tag with its attributes; those that are null are left out. */
export function tag(
  name: string,
  attributes: Readonly<Record<string, string | number | null>>,
  content: string | null = null,
): string {
  const all = Object.entries(attributes).flatMap(([key, value]) =>
    value === null ? [] : [` ${key}="${escaped(typeof value === 'number' ? numberText(value) : value)}"`],
  );
  return content === null ? `<${name}${all.join('')}/>` : `<${name}${all.join('')}>${content}</${name}>`;
}
