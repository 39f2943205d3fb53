/** SVG as marks: filled outlines become shapes, lines become strokes of ink, groups become layers. */
import { newestVersion } from '../../brush/index.ts';
import { textProblem } from '../../document/index.ts';
import type { BroughtMarks, ColouredMark } from '../../edit/index.ts';
import { multiply, type Matrix } from '../../geometry/index.ts';
import { svgLength, pointsAlong, ringOf, samplesAlong, subpathsOf, type Subpath } from './paths.ts';
import { svgColour, paintedIn, rulesOf, UNPAINTED, type SvgPaint } from './style.ts';
import { NoSvg, SVG_LIMITS, type SvgNode } from './tree.ts';

/** Marks in px of the SVG. */
export interface SvgMarks extends BroughtMarks {
  /** What could not be made marks, in words with how often. */
  readonly left: readonly string[];
}

/** Nodes that are not seen themselves. */
const SILENT = new Set(['defs', 'style', 'title', 'desc', 'metadata', 'symbol', 'script', 'animate', 'set']);
const GROUPS = new Set(['g', 'a', 'svg', 'switch']);
const OUTLINED = new Set(['path', 'rect', 'circle', 'ellipse', 'line', 'polyline', 'polygon']);
const GRADIENTS = new Set(['linearGradient', 'radialGradient']);

/** How things are called that are left out; others by their own names. */
const WORDS: Readonly<Record<string, string>> = { text: 'text', image: 'picture', foreignObject: 'embedded page' };

/** What lies farther outside than so many times the picture's longer side could not be kept, however large the shot is. */
const FARTHEST = 100;

/** Whether all of an outline are numbers that can be kept. */
const isNear = ({ from, pieces }: Subpath, reach: number): boolean =>
  [from, ...pieces.flatMap(({ c1, c2, to }) => [c1, c2, to])].every(
    ({ x, y }) => Math.abs(x) <= reach && Math.abs(y) <= reach,
  );

class Reader {
  private readonly byId = new Map<string, SvgNode>();
  private readonly gradients = new Map<string, string>();
  private readonly sheets: string[] = [];
  private rules: ReturnType<typeof rulesOf> = new Map();
  private readonly lost = new Map<string, number>();
  private readonly layers: { name: string; marks: ColouredMark[] }[] = [];
  private nodes = 0;
  private marks = 0;
  private points = 0;
  private following = 0;
  /** px beyond which nothing is taken. */
  private reach = 0;

  read(root: SvgNode): SvgMarks {
    if (root.name !== 'svg') throw new NoSvg('This file is no SVG.');
    this.learn(root, 0);
    this.rules = rulesOf(this.sheets);
    for (const [id, node] of this.byId) if (GRADIENTS.has(node.name)) this.gradients.set(id, this.endOf(node));
    const box = (root.attributes['viewBox'] ?? '').split(/[\s,]+/).map(Number);
    const hasBox = box.length === 4 && box.every(Number.isFinite) && box[2]! > 0 && box[3]! > 0;
    const [x, y, width, height] = hasBox
      ? (box as [number, number, number, number])
      : [0, 0, svgLength(root.attributes['width'], 300), svgLength(root.attributes['height'], 150)];
    if (!(width > 0 && height > 0)) throw new NoSvg('This SVG has no size.');
    this.reach = FARTHEST * Math.max(width, height);
    const around: SvgPaint = { ...UNPAINTED, matrix: [1, 0, 0, 1, -x, -y] };
    const own = paintedIn({ ...root, attributes: { ...root.attributes, transform: '' } }, around, this.rules) ?? around;
    for (const each of root.children) this.walk(each, own, null, 0);
    const layers = this.layers.filter(({ marks }) => marks.length > 0);
    if (layers.length === 0) throw new NoSvg('There is no shape and no line in this SVG.');
    const left = [...this.lost].map(([what, count]) => (count === 1 ? what : `${count} × ${what}`));
    return { width, height, layers, left };
  }

  /** Looks through everything once: ids, style sheets, how much there is. */
  private learn(node: SvgNode, depth: number): void {
    this.nodes += 1;
    if (depth > SVG_LIMITS.depth) throw new NoSvg(`This SVG is nested more than ${SVG_LIMITS.depth} deep.`);
    if (this.nodes > SVG_LIMITS.nodes) throw new NoSvg(`This SVG holds more than ${SVG_LIMITS.nodes} things.`);
    const { id } = node.attributes;
    if (id !== undefined && !this.byId.has(id)) this.byId.set(id, node);
    if (node.name === 'style') this.sheets.push(node.text);
    for (const each of node.children) this.learn(each, depth + 1);
  }

  /** The colour in the middle of a gradient: a mark has one. */
  private endOf(node: SvgNode, depth = 0): string {
    const stops = node.children.filter(({ name }) => name === 'stop');
    const stop = stops[Math.floor((stops.length - 1) / 2)];
    if (stop) {
      const inStyle = /stop-color:\s*([^;]+)/.exec(stop.attributes['style'] ?? '')?.[1];
      return (inStyle ?? stop.attributes['stop-color'] ?? '#000000').trim();
    }
    const to = this.byId.get((node.attributes['href'] ?? '').replace('#', ''));
    return to && depth < 8 ? this.endOf(to, depth + 1) : '#808080';
  }

  private lose(what: string): void {
    this.lost.set(what, (this.lost.get(what) ?? 0) + 1);
  }

  private layer(name: string): ColouredMark[] {
    const last = this.layers.at(-1);
    if (last?.name === name) return last.marks;
    const made = { name, marks: [] };
    this.layers.push(made);
    return made.marks;
  }

  private walk(node: SvgNode, around: SvgPaint, into: string | null, depth: number): void {
    const { name, attributes } = node;
    if (SILENT.has(name) || GRADIENTS.has(name)) return;
    const own = paintedIn(node, around, this.rules);
    if (!own) return;
    for (const key of ['clip-path', 'mask', 'filter'])
      if (attributes[key] && attributes[key] !== 'none')
        this.lose({ 'clip-path': 'clip', mask: 'mask', filter: 'filter' }[key]!);
    if (GROUPS.has(name)) {
      const layer = into ?? nameOf(node, this.layers.length + 1);
      const moved = name === 'svg' ? shifted(own, attributes) : own;
      for (const each of node.children) this.walk(each, moved, layer, depth + 1);
    } else if (name === 'use') this.use(node, own, into, depth);
    else if (OUTLINED.has(name)) this.outline(node, own, into ?? 'Shapes');
    else this.lose(WORDS[name] ?? name.slice(0, 30));
  }

  private use(node: SvgNode, own: SvgPaint, into: string | null, depth: number): void {
    const to = this.byId.get((node.attributes['href'] ?? '').replace('#', ''));
    this.following += 1;
    if (!to || depth > SVG_LIMITS.depth || this.following > SVG_LIMITS.nodes) {
      this.lose('use of something that is not there');
      return;
    }
    const moved = shifted(own, node.attributes);
    if (to.name === 'symbol')
      for (const each of to.children) this.walk(each, moved, into ?? nameOf(node, 1), depth + 1);
    else this.walk(to, moved, into, depth + 1);
  }

  private outline(node: SvgNode, own: SvgPaint, layer: string): void {
    let paths: Subpath[];
    try {
      paths = subpathsOf(node, own.matrix);
    } catch {
      this.lose('path that cannot be read');
      return;
    }
    if (paths.length === 0) return;
    if (!paths.every((path) => isNear(path, this.reach))) {
      this.lose('shape far outside the picture');
      return;
    }
    this.points += paths.reduce((sum, { pieces }) => sum + pieces.length, 0);
    this.marks += 1;
    if (this.marks > SVG_LIMITS.marks) throw new NoSvg(`This SVG holds more than ${SVG_LIMITS.marks} marks.`);
    const marks = this.layer(layer);
    const fill = node.name === 'line' ? null : svgColour(own, 'fill', this.gradients);
    if (fill) {
      const rings = paths.flatMap((path) => ringOf(path) ?? []);
      const rule = own.style['fill-rule'] === 'evenodd' ? 'evenodd' : 'nonzero';
      if (rings.length > 0) marks.push({ kind: 'shape', rings, rule, opacity: fill.opacity, colour: fill.colour });
    }
    const stroke = svgColour(own, 'stroke', this.gradients);
    const width = svgLength(own.style['stroke-width'], 1) * scaleOf(own.matrix);
    if (!stroke || !(width > 0)) return;
    for (const path of paths) {
      this.points += samplesAlong(path);
      if (!(this.points <= SVG_LIMITS.points))
        throw new NoSvg('The lines of this SVG are too long to be drawn as strokes.');
      const points = pointsAlong(path);
      marks.push({
        kind: 'stroke',
        brush: {
          kind: 'ink',
          version: newestVersion('ink'),
          width: Math.min(2000, Math.max(0.1, width)),
          opacity: stroke.opacity,
          pressure: false,
        },
        seed: 1,
        samples: {
          x: Float32Array.from(points, ({ x }) => x),
          y: Float32Array.from(points, ({ y }) => y),
          pressure: new Float32Array(points.length).fill(1),
          altitude: new Float32Array(points.length).fill(Math.PI / 2),
          azimuth: new Float32Array(points.length),
        },
        colour: stroke.colour,
      });
    }
  }
}

/** How much larger a matrix makes things, on the whole. */
const scaleOf = ([a, b, c, d]: Matrix): number => Math.sqrt(Math.abs(a * d - b * c));

const shifted = (own: SvgPaint, attributes: SvgNode['attributes']): SvgPaint => ({
  ...own,
  matrix: multiply(own.matrix, [1, 0, 0, 1, svgLength(attributes['x']), svgLength(attributes['y'])]),
});

/** What a group is called, by a label if it has one. */
function nameOf({ attributes }: SvgNode, nth: number): string {
  const label = attributes['data-name'] ?? attributes['label'] ?? attributes['id'] ?? '';
  const name = label.trim().slice(0, 80);
  return textProblem(name, 'name') === null ? name : `Group ${nth}`;
}

/** @throws NoSvg, with what is wrong, said to the user. */
export const readSvg = (root: SvgNode): SvgMarks => new Reader().read(root);
