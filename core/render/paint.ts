/** What a swatch looks like where it is used: one colour, or colours of other swatches running into each other. */
import { find, type Element, type Gradient, type Id, type ShotDocument, type Swatch } from '../document/index.ts';
import { apply, invert, type Box, type Matrix, type Point } from '../geometry/index.ts';
import type { AlphaArea } from '../brush/index.ts';
import type { Context2D, PixelData } from '../canvas/index.ts';

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
  /** It takes away what lies under it on its layer, and is not seen itself. */
  readonly cuts?: true;
}
export type Paint = string | GradientPaint;

/** Resolves a swatch to what it stands for now. */
export type PaintOf = (swatch: Id) => Paint;

/** The paint of a hole: all of what is painted in it is cut out. */
const HOLE: GradientPaint = {
  form: 'linear',
  own: true,
  from: { x: 0, y: 0 },
  to: { x: 0, y: 0 },
  stops: [],
  plain: '#000000',
  cuts: true,
};

/** Whether what is painted in it is cut out. */
export const isHole = (paint: Paint): boolean => typeof paint !== 'string' && paint.cuts === true;

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

/** How far along its way a gradient is at a place; below 0 and above 1 beyond its ends. */
function shareAt({ form, from, to }: GradientPaint, { x, y }: Point): number {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const square = dx * dx + dy * dy;
  const [ox, oy] = [x - from.x, y - from.y];
  return form === 'linear' ? (ox * dx + oy * dy) / square : Math.sqrt((ox * ox + oy * oy) / square);
}

/** Whether a gradient has a way to run along. */
const runs = ({ from, to }: GradientPaint): boolean => {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  return dx * dx + dy * dy > 1e-12;
};

/** Red, green and blue at a share of a gradient's way. */
function mixedAt({ stops }: GradientPaint, share: number): number[] {
  const after = stops.findIndex((stop) => stop.at >= share);
  const [a, b] =
    after === 0
      ? [stops[0]!, stops[0]!]
      : after < 0
        ? [stops.at(-1)!, stops.at(-1)!]
        : [stops[after - 1]!, stops[after]!];
  const t = Math.min(1, Math.max(0, (share - a.at) / Math.max(1e-9, b.at - a.at)));
  return [1, 3, 5].map((i) => Math.round(channel(a.colour, i) * (1 - t) + channel(b.colour, i) * t));
}

/** The colour of a paint at a place of the space it runs in. */
export function colourAt(paint: Paint, at: Point): string {
  if (typeof paint === 'string' || paint.own || !runs(paint)) return plainOf(paint);
  return `#${mixedAt(paint, shareAt(paint, at))
    .map((v) => v.toString(16).padStart(2, '0'))
    .join('')}`;
}

/** Gives pixels their colour and how opaque they are. */
interface PixelColours {
  /** @param pixels whose first ones are those of the box; what lies beyond it stays. @param box whole device pixels inside the area. */
  colour(pixels: PixelData, area: AlphaArea, box: Box): void;
}

const STEPS = 256;

/** A pixel as one number, as memory has it on every machine with a browser: red first, how opaque it is last. */
const wordOf = ([r, g, b]: readonly number[]): number => r! | (g! << 8) | (b! << 16);

/** The colours of a paint where pixels are. @param matrix from the space the paint runs in to device pixels. */
export function coloursOf(paint: Paint, matrix: Matrix): PixelColours {
  const runsAlong = typeof paint !== 'string' && !paint.own && runs(paint) ? paint : null;
  const plain = plainOf(paint);
  const flat = wordOf([1, 3, 5].map((i) => channel(plain, i)));
  const table = Uint32Array.from({ length: runsAlong ? STEPS + 1 : 0 }, (_, i) =>
    wordOf(mixedAt(runsAlong!, i / STEPS)),
  );
  const inward = invert(matrix);
  const wordAt = (along: GradientPaint, x: number, y: number): number =>
    table[Math.round(STEPS * Math.min(1, Math.max(0, shareAt(along, apply(inward, { x: x + 0.5, y: y + 0.5 })))))]!;
  return {
    colour({ data, width: across }, { left, top, width, alpha }, box) {
      const words = new Uint32Array(data.buffer, data.byteOffset, data.length >> 2);
      for (let y = box.top; y < box.bottom; y++) {
        let i = (y - top) * width + box.left - left;
        let at = (y - box.top) * across;
        if (runsAlong)
          for (let x = box.left; x < box.right; x++, i++, at++) {
            const opaque = alpha[i]!;
            words[at] = opaque === 0 ? 0 : wordAt(runsAlong, x, y) | (opaque << 24);
          }
        else
          for (let x = box.left; x < box.right; x++, i++, at++) {
            const opaque = alpha[i]!;
            // Nothing where it is not opaque at all, without a branch that no processor could foresee.
            words[at] = (flat | (opaque << 24)) & (-opaque >> 31);
          }
      }
    },
  };
}

/** Where something painted lies: what gradients along an axis or across the picture are placed by. */
interface PaintPlace {
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

/** The paint of a swatch; one whose role is a hole cuts. @param swatchOf the swatches stops name; what they are as gradients is not followed. */
function paintOfSwatch(swatch: Swatch, swatchOf: (id: Id) => Swatch | undefined, place: PaintPlace): Paint {
  const { gradient, colour, role } = swatch;
  if (role === 'hole') return HOLE;
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
