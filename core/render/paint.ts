/** What a swatch looks like where it is used: one colour, or colours of other swatches running into each other. */
import { find, type Element, type Gradient, type Id, type ShotDocument, type Swatch } from '../document/index.ts';
import { apply, invert, type Box, type Matrix, type Point } from '../geometry/index.ts';
import type { Context2D } from '../canvas/index.ts';

/** Colours along a way in element space, or in the bounds of each shape by itself. */
export interface GradientPaint {
  readonly form: Gradient['form'];
  /** Whether its ends are shares of the bounds of what is filled. */
  readonly own: boolean;
  readonly from: Point;
  readonly to: Point;
  readonly stops: readonly { readonly at: number; readonly colour: string }[];
  /** What is seen where no gradient can be. */
  readonly plain: string;
}
export type Paint = string | GradientPaint;

/** Resolves a swatch to what it stands for now. */
export type PaintOf = (swatch: Id) => Paint;

/** The one colour of a paint. */
export const plainOf = (paint: Paint): string => (typeof paint === 'string' ? paint : paint.plain);

/**
 * The paint of a line: gradients in a shape's own bounds would change along a line as it grows, so lines
 * have the plain colour of those.
 */
export const linePaint = (paint: Paint): Paint => (typeof paint !== 'string' && paint.own ? paint.plain : paint);

const within = ({ left, top, right, bottom }: Box, { x, y }: Point): Point => ({
  x: left + x * (right - left),
  y: top + y * (bottom - top),
});

/** What a context fills with. @param box bounds of what is filled, in the space of the context's transform. */
export function fillOf(context: Context2D, paint: Paint, box: Box | null): unknown {
  if (typeof paint === 'string') return paint;
  if (paint.own && !box) return paint.plain;
  const [from, to] = paint.own ? [within(box!, paint.from), within(box!, paint.to)] : [paint.from, paint.to];
  const far = Math.hypot(to.x - from.x, to.y - from.y);
  if (!(far > 1e-6)) return paint.plain;
  const gradient =
    paint.form === 'linear'
      ? context.createLinearGradient(from.x, from.y, to.x, to.y)
      : context.createRadialGradient(from.x, from.y, 0, from.x, from.y, far);
  for (const { at, colour } of paint.stops) gradient.addColorStop(at, colour);
  return gradient;
}

const channel = (colour: string, at: number): number => Number.parseInt(colour.slice(at, at + 2), 16);

/** The colour of a paint at a place of the space it runs in. */
export function colourAt(paint: Paint, at: Point): string {
  if (typeof paint === 'string' || paint.own) return plainOf(paint);
  const [dx, dy] = [paint.to.x - paint.from.x, paint.to.y - paint.from.y];
  const square = dx * dx + dy * dy;
  if (!(square > 1e-12)) return paint.plain;
  const [x, y] = [at.x - paint.from.x, at.y - paint.from.y];
  const share = paint.form === 'linear' ? (x * dx + y * dy) / square : Math.sqrt((x * x + y * y) / square);
  const after = paint.stops.findIndex((stop) => stop.at >= share);
  if (after === 0) return paint.stops[0]!.colour;
  if (after < 0) return paint.stops.at(-1)!.colour;
  const [a, b] = [paint.stops[after - 1]!, paint.stops[after]!];
  const t = (share - a.at) / Math.max(1e-9, b.at - a.at);
  const mixed = [1, 3, 5].map((i) => Math.round(channel(a.colour, i) * (1 - t) + channel(b.colour, i) * t));
  return `#${mixed.map((v) => v.toString(16).padStart(2, '0')).join('')}`;
}

/** Where something painted lies: what gradients along an axis or across the picture are placed by. */
export interface PaintPlace {
  /** From the element's anchor to its tip, element space; null where nothing is known of it. */
  readonly axis: { readonly from: Point; readonly to: Point } | null;
  /** Element space to shot px, or null. */
  readonly matrix: Matrix | null;
  readonly picture: { readonly width: number; readonly height: number };
}

/** The ends of a gradient in element space; null when it runs in each shape's own bounds. */
function endsOf({ run, from, to }: Gradient, { axis, matrix, picture }: PaintPlace): { from: Point; to: Point } | null {
  if (run === 'axis' && axis) {
    const v = { x: axis.to.x - axis.from.x, y: axis.to.y - axis.from.y };
    const on = (p: Point): Point => ({
      x: axis.from.x - v.y * p.x + v.x * p.y,
      y: axis.from.y + v.x * p.x + v.y * p.y,
    });
    return { from: on(from), to: on(to) };
  }
  if (run === 'picture' && matrix) {
    const back = invert(matrix);
    const on = (p: Point): Point => apply(back, { x: p.x * picture.width, y: p.y * picture.height });
    return { from: on(from), to: on(to) };
  }
  return null;
}

/** A gradient that runs along an axis, where there is none, runs upwards in the shape. */
const upright = ({ run, from, to }: Gradient): { from: Point; to: Point } =>
  run === 'axis' ? { from: { x: 0.5, y: 1 - from.y }, to: { x: 0.5, y: 1 - to.y } } : { from, to };

/** The paint of a swatch. @param swatchOf the swatches stops name; what they are as gradients is not followed. */
export function paintOfSwatch(swatch: Swatch, swatchOf: (id: Id) => Swatch | undefined, place: PaintPlace): Paint {
  const { gradient, colour } = swatch;
  if (!gradient) return colour;
  const ends = endsOf(gradient, place);
  return {
    form: gradient.form,
    own: ends === null,
    ...(ends ?? upright(gradient)),
    stops: gradient.stops.map(({ at, swatch: id }) => ({ at, colour: swatchOf(id)?.colour ?? colour })),
    plain: colour,
  };
}

/** The swatch an element is seen in for another: that of its recolouring, if it has one in use. */
export function recoloured(element: Pick<Element, 'recolour' | 'recolours'> | undefined, swatch: Id): Id {
  const used = element?.recolour && element.recolours.find(({ id }) => id === element.recolour);
  return (used && used.map[swatch]) || swatch;
}

/** An element's axis, from its anchor to its tip. */
export const axisOf = (
  { anchor, tip }: Pick<Element, 'anchor' | 'tip'>,
  height: number,
): { from: Point; to: Point } => ({
  from: anchor,
  to: tip ?? { x: anchor.x, y: anchor.y - height / 2 },
});

/** The palette as it is seen on an element; a swatch that is gone shows as mid grey. */
export const paintsOn =
  (doc: ShotDocument, element: Element | undefined, place: PaintPlace): PaintOf =>
  (id) => {
    const swatchOf = (each: Id) => find(doc, 'swatch', recoloured(element, each));
    const swatch = swatchOf(id);
    return swatch ? paintOfSwatch(swatch, swatchOf, place) : '#808080';
  };
