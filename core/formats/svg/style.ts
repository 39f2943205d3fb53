/** What a node of SVG is painted with: attributes, style sheets and what is inherited, as far as shapes and lines need it. */
import { formatHex, parse } from 'culori';
import { IDENTITY, multiply, type Matrix } from '../../geometry/index.ts';
import type { SvgNode } from './tree.ts';

/** Properties by their names. */
type Style = Readonly<Record<string, string>>;

export interface SvgPaint {
  readonly matrix: Matrix;
  /** What is inherited, and the node's own. */
  readonly style: Style;
  /** That of everything round it, times its own. */
  readonly opacity: number;
}

export const UNPAINTED: SvgPaint = { matrix: IDENTITY, style: { fill: '#000000', 'stroke-width': '1' }, opacity: 1 };

const INHERITED = new Set([
  'color',
  'fill',
  'fill-opacity',
  'fill-rule',
  'stroke',
  'stroke-opacity',
  'stroke-width',
  'visibility',
]);
const OWN = new Set(['opacity', 'display', 'clip-path', 'mask', 'filter']);

/** `name: value` pairs of a style. */
function pairs(text: string): Style {
  const style: Record<string, string> = {};
  for (const each of text.split(';')) {
    const colon = each.indexOf(':');
    if (colon < 0) continue;
    const value = each.slice(colon + 1).replace('!important', '');
    style[each.slice(0, colon).trim().toLowerCase()] = value.trim();
  }
  return style;
}

/** Rules of style sheets by `.class`, `#id` and name; anything more is not read. */
export function rulesOf(sheets: readonly string[]): ReadonlyMap<string, Style> {
  const rules = new Map<string, Style>();
  for (const sheet of sheets)
    for (const rule of sheet.split('}')) {
      const brace = rule.lastIndexOf('{');
      if (brace < 0) continue;
      const style = pairs(rule.slice(brace + 1));
      for (const selector of rule.slice(0, brace).split(',')) {
        const key = selector.trim();
        rules.set(key, { ...rules.get(key), ...style });
      }
    }
  return rules;
}

function ownStyle({ name, attributes }: SvgNode, rules: ReadonlyMap<string, Style>): Style {
  const style: Record<string, string> = {};
  for (const [key, value] of Object.entries(attributes))
    if (INHERITED.has(key) || OWN.has(key)) style[key] = value.trim();
  const classes = (attributes['class'] ?? '').split(/\s+/).map((each) => `.${each}`);
  for (const selector of [name, ...classes, `#${attributes['id'] ?? ''}`]) Object.assign(style, rules.get(selector));
  return { ...style, ...pairs(attributes['style'] ?? '') };
}

const numbersIn = (text: string): number[] =>
  text.split(/[\s,]+/).flatMap((each) => (each === '' ? [] : [Number(each)]));

const turnBy = (degrees: number): Matrix => {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  return [c, s, -s, c, 0, 0];
};

/** One function of a transform; null where it is none. */
function transformed(name: string, v: readonly number[]): Matrix | null {
  if (v.length === 0 || v.some((each) => !Number.isFinite(each))) return null;
  const [a = 0, b, c] = v;
  const radians = (degrees: number): number => Math.tan((degrees * Math.PI) / 180);
  switch (name) {
    case 'matrix':
      return v.length === 6 ? [v[0]!, v[1]!, v[2]!, v[3]!, v[4]!, v[5]!] : null;
    case 'translate':
      return [1, 0, 0, 1, a, b ?? 0];
    case 'scale':
      return [a, 0, 0, b ?? a, 0, 0];
    case 'rotate':
      return multiply(multiply([1, 0, 0, 1, b ?? 0, c ?? 0], turnBy(a)), [1, 0, 0, 1, -(b ?? 0), -(c ?? 0)]);
    case 'skewX':
      return [1, 0, radians(a), 1, 0, 0];
    case 'skewY':
      return [1, radians(a), 0, 1, 0, 0];
    default:
      return null;
  }
}

/** The matrix of a `transform` attribute; what of it cannot be read changes nothing. */
export function matrixOf(text: string): Matrix {
  let matrix: Matrix = IDENTITY;
  for (const each of text.split(')')) {
    const open = each.indexOf('(');
    if (open < 0) continue;
    const own = transformed(each.slice(0, open).replaceAll(',', ' ').trim(), numbersIn(each.slice(open + 1)));
    if (own) matrix = multiply(matrix, own);
  }
  return matrix;
}

/** A number of px from 0 to 1, percent too. */
const share = (text: string | undefined): number => {
  const value = text?.endsWith('%') ? Number.parseFloat(text) / 100 : Number.parseFloat(text ?? '1');
  return Number.isFinite(value) ? Math.min(1, Math.max(0, value)) : 1;
};

/** What a node is painted with; null where it is not shown. */
export function paintedIn(node: SvgNode, around: SvgPaint, rules: ReadonlyMap<string, Style>): SvgPaint | null {
  const own = ownStyle(node, rules);
  if (own['display'] === 'none') return null;
  const style = { ...around.style };
  for (const [key, value] of Object.entries(own)) if (INHERITED.has(key) && value !== 'inherit') style[key] = value;
  return {
    matrix: node.attributes['transform']
      ? multiply(around.matrix, matrixOf(node.attributes['transform']))
      : around.matrix,
    style,
    opacity: around.opacity * share(own['opacity']),
  };
}

/** A colour as `#rrggbb` with how opaque it is; null for none. @param ends colours at the ends of gradients, by id. */
export function svgColour(
  { style, opacity }: SvgPaint,
  key: 'fill' | 'stroke',
  gradients: ReadonlyMap<string, string>,
): { colour: string; opacity: number } | null {
  const value = style[key] === 'currentColor' ? (style['color'] ?? '#000000') : (style[key] ?? 'none');
  if (value === 'none' || style['visibility'] === 'hidden' || style['visibility'] === 'collapse') return null;
  const url = /^url\(["']?#([^)"']+)["']?\)/.exec(value)?.[1];
  const found = parse(url === undefined ? value : (gradients.get(url) ?? '#808080'));
  if (!found) return null;
  const seen = opacity * share(style[`${key}-opacity`]) * (found.alpha ?? 1);
  return seen > 0 ? { colour: formatHex({ ...found, alpha: 1 }), opacity: Math.round(seen * 1000) / 1000 } : null;
}
