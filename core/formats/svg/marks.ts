/** Marks as SVG: a shape as its curves, a line of one width as a stroked path, a line that swells as its outline. */
import { chunkCount, inkChunk, tipOf, walkChunk } from '../../brush/index.ts';
import type { PathSink } from '../../canvas/index.ts';
import type { Drawing, Mark, Shape, Stroke } from '../../document/index.ts';
import { EMPTY_BOX, ringBox, union, type Box, type Point } from '../../geometry/index.ts';
import { plainOf, isHole, linePaint, type GradientPaint, type Paint, type PaintOf } from '../../render/index.ts';
import { numberText as n, tag } from './markup.ts';

/** Definitions that marks point at, each kept once. */
export class Defs {
  private readonly known = new Map<string, string>();

  /** @param make the definition under an id. @returns the id. */
  id(content: string, make: (id: string) => string): string {
    const known = this.known.get(content);
    if (known) return known.slice(0, known.indexOf('\n'));
    const id = `d${this.known.size + 1}`;
    this.known.set(content, `${id}\n${make(id)}`);
    return id;
  }

  get text(): string {
    return [...this.known.values()].map((each) => each.slice(each.indexOf('\n') + 1)).join('\n');
  }
}

/** Outlines drawn with, as the data of a path. */
class PathText implements PathSink {
  readonly parts: string[] = [];

  moveTo(x: number, y: number): void {
    this.parts.push(`M${n(x)} ${n(y)}`);
  }
  lineTo(x: number, y: number): void {
    this.parts.push(`L${n(x)} ${n(y)}`);
  }
  /** Ink draws whole circles only, from where it has moved to. */
  arc(x: number, y: number, r: number): void {
    this.parts.push(`A${n(r)} ${n(r)} 0 1 1 ${n(x - r)} ${n(y)}A${n(r)} ${n(r)} 0 1 1 ${n(x + r)} ${n(y)}Z`);
  }
}

/** The data of a path round an area. */
function ringsPath(rings: Shape['rings']): string {
  const at = (ring: Float32Array, i: number): string => `${n(ring[i]!)} ${n(ring[i + 1]!)}`;
  return rings
    .map((ring) => {
      const nodes = ring.length / 6;
      const curves = Array.from({ length: nodes }, (_, i) => {
        const [a, b] = [i * 6, ((i + 1) % nodes) * 6];
        return `C${at(ring, a + 4)} ${at(ring, b + 2)} ${at(ring, b)}`;
      });
      return `M${at(ring, 0)}${curves.join('')}Z`;
    })
    .join('');
}

function gradient(paint: GradientPaint, box: Box | null, defs: Defs): string {
  const place = ({ x, y }: Point): Point =>
    paint.own && box ? { x: box.left + x * (box.right - box.left), y: box.top + y * (box.bottom - box.top) } : { x, y };
  const [from, to] = [place(paint.from), place(paint.to)];
  const far = Math.hypot(to.x - from.x, to.y - from.y);
  if ((paint.own && !box) || !(far > 1e-6)) return plainOf(paint);
  const stops = paint.stops.map(({ at, colour }) => tag('stop', { offset: at, 'stop-color': colour })).join('');
  const where: Record<string, number> =
    paint.form === 'linear' ? { x1: from.x, y1: from.y, x2: to.x, y2: to.y } : { cx: from.x, cy: from.y, r: far };
  const name = paint.form === 'linear' ? 'linearGradient' : 'radialGradient';
  const id = defs.id(JSON.stringify([name, where, stops]), (own) =>
    tag(name, { id: own, gradientUnits: 'userSpaceOnUse', ...where }, stops),
  );
  return `url(#${id})`;
}

const fillOf = (paint: Paint, box: Box | null, defs: Defs): string =>
  typeof paint === 'string' ? paint : gradient(paint, box, defs);

/** px by which a width may change along a line that counts as one width. */
const SAME = 0.02;

/** The places of a line, and its half width where that is the same all along. */
function stepsOf({ samples, brush }: Stroke): { points: Point[]; radius: number | null } {
  const points: Point[] = [];
  let [min, max] = [Infinity, 0];
  for (let chunk = 0; chunk < chunkCount(samples.x.length, brush); chunk++)
    walkChunk(samples, brush, chunk, (x, y, radius) => {
      const last = points.at(-1);
      if (last?.x !== x || last.y !== y) points.push({ x, y });
      [min, max] = [Math.min(min, radius), Math.max(max, radius)];
    });
  return { points, radius: max - min <= SAME ? max : null };
}

function strokeText(mark: Stroke, paint: Paint, defs: Defs): string {
  const fill = fillOf(linePaint(paint), null, defs);
  const { points, radius } = stepsOf(mark);
  const opacity = mark.brush.opacity < 1 ? mark.brush.opacity : null;
  if (radius !== null && points.length > 1)
    return tag('path', {
      d: points.map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${n(x)} ${n(y)}`).join(''),
      fill: 'none',
      stroke: fill,
      'stroke-width': 2 * radius,
      'stroke-linecap': 'round',
      'stroke-linejoin': 'round',
      opacity,
    });
  const path = new PathText();
  for (let chunk = 0; chunk < chunkCount(mark.samples.x.length, mark.brush); chunk++)
    inkChunk(path, mark.samples, mark.brush, chunk);
  return tag('path', { d: path.parts.join(''), fill, opacity });
}

/** Whether a mark can be said by paths alone. */
export function isPure(mark: Mark, paintOf: PaintOf): boolean {
  if (mark.kind === 'rub' || mark.lays === 'inside') return false;
  if (mark.kind === 'stroke' && mark.unseen) return true;
  return !isHole(paintOf(mark.swatch)) && (mark.kind === 'shape' || tipOf(mark.brush).lays === 'outline');
}

/** A drawing of pure marks as SVG, element space. */
export function marksText({ order, marks }: Pick<Drawing, 'order' | 'marks'>, paintOf: PaintOf, defs: Defs): string {
  const parts: string[] = [];
  for (const id of order) {
    const mark = marks[id];
    if (!mark || mark.kind === 'rub' || (mark.kind === 'stroke' && mark.unseen)) continue;
    const text =
      mark.kind === 'stroke'
        ? strokeText(mark, paintOf(mark.swatch), defs)
        : tag('path', {
            d: ringsPath(mark.rings),
            fill: fillOf(paintOf(mark.swatch), mark.rings.map(ringBox).reduce(union, EMPTY_BOX), defs),
            'fill-rule': mark.rule === 'evenodd' ? 'evenodd' : null,
            opacity: mark.opacity < 1 ? mark.opacity : null,
          });
    // What goes behind lies under all that was there.
    if (mark.lays === 'behind') parts.unshift(text);
    else parts.push(text);
  }
  return parts.join('\n');
}
