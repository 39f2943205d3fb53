/** Finishes worked out on the picture of a layer or an element: what comes of it is laid, part by part. */
import type { Blend } from '../document/index.ts';
import { apply, invert, mapBox, scaleOf, type Matrix, type Point } from '../geometry/index.ts';
import type { MakeSurface, Picture, Surface } from '../render/surface.ts';
import { blurred, blurredAlong, blurredSmall, halvingsFor, layReduced, reduced } from './blur.ts';
import type { Resolved } from './resolve.ts';
import { drawTexture } from './texture.ts';

/** Where a finish is worked out. */
export interface FinishPlace {
  /** Element space to device pixels of the surface. */
  readonly matrix: Matrix;
  /** From anchor to tip, element space. */
  readonly axis: { readonly from: Point; readonly to: Point };
  readonly colourOf: (swatch: string) => string;
  /** How far what is drawn goes in one frame, px of element space. */
  readonly motion: Point;
  /** What lies under it in its element, of the surface's size; for lines that take the colour of fills. */
  readonly below: () => Picture | null;
  /** While something moves, coarser. */
  readonly rough: boolean;
  readonly make: MakeSurface;
}

/** A picture to be laid, of the surface's size. */
export interface Part {
  readonly picture: Surface;
  readonly blend: Blend;
  readonly opacity: number;
}

/** Device px beyond the picture that finishes reach: what is drawn there matters. @param scale device px in one px. */
export function reachOf(finishes: readonly Resolved[], scale: number): number {
  const reaches = finishes.map(({ kind, numbers, choices }) => {
    const radius = numbers['radius'] ?? 0;
    // Beyond 2.4 standard deviations nothing of a blur is left that could be seen.
    if (kind === 'glow') return 2.4 * 0.6 * radius * 2 ** (Math.round(numbers['radii']!) - 1);
    if (kind === 'blur') return choices['along'] === 'even' ? 2.4 * 0.5 * radius : radius;
    return kind === 'feather' || (kind === 'inner glow' && choices['where'] !== 'base') ? 1.2 * radius : 0;
  });
  return Math.min(1400, Math.ceil(Math.max(0, ...reaches) * scale));
}

const plain = ({ context }: Surface): void => {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
};

/** Fills all of a surface, meeting what is there in one of the standard's ways. */
function flood(target: Surface, fill: unknown, operation: string, opacity = 1): void {
  const { context, width, height } = target;
  plain(target);
  context.globalCompositeOperation = operation;
  context.globalAlpha = opacity;
  context.fillStyle = fill;
  context.fillRect(0, 0, width, height);
  plain(target);
}

function copyOf({ picture, width, height }: Surface, make: MakeSurface): Surface {
  const copy = make(width, height);
  copy.context.drawImage(picture, 0, 0);
  return copy;
}

/** A gradient along the axis on device pixels. @param stops shares of the axis and what is there. */
function alongAxis(target: Surface, place: FinishPlace, stops: readonly (readonly [number, string])[]): unknown {
  const { axis, matrix } = place;
  const [a, b] = [apply(matrix, axis.from), apply(matrix, axis.to)];
  const [least, most] = [stops[0]![0], stops.at(-1)![0]];
  const at = (share: number): Point => ({ x: a.x + (b.x - a.x) * share, y: a.y + (b.y - a.y) * share });
  const [from, to] = [at(least), at(Math.max(most, least + 1e-4))];
  const gradient = target.context.createLinearGradient(from.x, from.y, to.x, to.y);
  for (const [share, colour] of stops) gradient.addColorStop((share - least) / Math.max(1e-4, most - least), colour);
  return gradient;
}

/** What lies outside a picture within a distance of it, softly: 0 far inside, half at the edge. */
function outsideOf(source: Surface, deviation: number, { rough, make }: FinishPlace): Surface {
  const outside = make(source.width, source.height);
  flood(outside, '#000000', 'source-over');
  outside.context.globalCompositeOperation = 'destination-out';
  outside.context.drawImage(source.picture, 0, 0);
  plain(outside);
  return blurred(outside, deviation, rough, make);
}

function glow(source: Surface, finish: Resolved, place: FinishPlace): Part {
  const { numbers, swatch, choices } = finish;
  const scale = scaleOf(place.matrix);
  const { make, rough } = place;
  const radii = Math.round(numbers['radii']!);
  const bright = numbers['bright']! / 100;
  const first = Math.max(0.3, numbers['radius']! * scale * 0.6);
  const least = halvingsFor(first, rough);
  const light = reduced(copyOf(source, make), least, make);
  if (bright > 0) onlyBright(light, bright);
  if (swatch) flood(light, place.colourOf(swatch), 'source-in');
  const out = make(source.width, source.height);
  const strength = numbers['strength']! / 100;
  for (let i = 0; i < radii; i++) {
    const deviation = (first * 2 ** i) / 2 ** least;
    const { small, halvings } = blurredSmall(light, deviation, halvingsFor(deviation, false), make);
    // Each radius adds the same light; wider ones spread it thinner by themselves.
    for (let left = strength / Math.sqrt(radii); left > 0.001; left -= 1) {
      out.context.globalAlpha = Math.min(1, left);
      out.context.globalCompositeOperation = i === 0 ? 'source-over' : 'lighter';
      layReduced(out, small.picture, small.width, small.height, least + halvings);
    }
  }
  plain(out);
  return { picture: out, blend: (choices['blend'] ?? 'lighter') as Blend, opacity: 1 };
}

/** Keeps what is brighter than a limit, softly, by relative luminance of the colour. */
function onlyBright(target: Surface, limit: number): void {
  const { context, width, height } = target;
  const pixels = context.getImageData(0, 0, width, height);
  const { data } = pixels;
  const room = Math.max(0.04, (1 - limit) * 0.5);
  for (let i = 0; i < data.length; i += 4) {
    if (data[i + 3] === 0) continue;
    const y = (0.2126 * data[i]! + 0.7152 * data[i + 1]! + 0.0722 * data[i + 2]!) / 255;
    data[i + 3] = data[i + 3]! * Math.min(1, Math.max(0, (y - limit) / room));
  }
  context.putImageData(pixels, 0, 0);
}

function textured(source: Surface, finish: Resolved, place: FinishPlace): Surface {
  const { make, matrix, axis } = place;
  const out = copyOf(source, make);
  const colour = place.colourOf(finish.swatch ?? '');
  const { context, width, height } = out;
  const strength = finish.numbers['strength']! / 100;
  const box = mapBox(invert(matrix), { left: 0, top: 0, right: width, bottom: height });
  const far = Math.hypot(axis.to.x - axis.from.x, axis.to.y - axis.from.y) || 1;
  const unit = { x: (axis.to.x - axis.from.x) / far, y: (axis.to.y - axis.from.y) / far };
  context.globalCompositeOperation = 'source-atop';
  context.globalAlpha = strength;
  context.setTransform(...matrix);
  context.fillStyle = colour;
  const fade = context.createRadialGradient(0, 0, 0, 0, 0, 1);
  fade.addColorStop(0, colour);
  fade.addColorStop(0.45, `${colour}8c`);
  fade.addColorStop(1, `${colour}00`);
  drawTexture(context, finish, box, unit, (at, radius, opacity) => {
    const [a, b, c, d] = matrix;
    const middle = apply(matrix, at);
    context.fillStyle = fade;
    context.globalAlpha = strength * opacity * 0.5;
    context.setTransform(a * radius, b * radius, c * radius, d * radius, middle.x, middle.y);
    context.fillRect(-1, -1, 2, 2);
  });
  plain(out);
  return out;
}

function innerGlow(source: Surface, finish: Resolved, place: FinishPlace): Surface {
  const { numbers, choices } = finish;
  const colour = place.colourOf(finish.swatch ?? '');
  const strength = numbers['strength']! / 100;
  const out = copyOf(source, place.make);
  if (choices['where'] === 'base') {
    flood(
      out,
      alongAxis(out, place, [
        [0, colour],
        [numbers['reach']! / 100, `${colour}00`],
      ]),
      'source-atop',
      strength,
    );
    return out;
  }
  const edge = outsideOf(source, (numbers['radius']! * scaleOf(place.matrix)) / 2, place);
  flood(edge, colour, 'source-in');
  out.context.globalCompositeOperation = 'source-atop';
  // Half the light lies outside, so twice as much is laid inside.
  for (let left = 2 * strength; left > 0.001; left -= 1) {
    out.context.globalAlpha = Math.min(1, left);
    out.context.drawImage(edge.picture, 0, 0);
  }
  plain(out);
  return out;
}

function feathered(source: Surface, { numbers }: Resolved, place: FinishPlace): Surface {
  const edge = outsideOf(source, (numbers['radius']! * scaleOf(place.matrix)) / 2, place);
  // Half of what is outside reaches the edge itself: twice as much leaves nothing there.
  const twice = copyOf(edge, place.make);
  twice.context.globalCompositeOperation = 'lighter';
  twice.context.drawImage(edge.picture, 0, 0);
  plain(twice);
  const out = copyOf(source, place.make);
  out.context.globalCompositeOperation = 'destination-out';
  out.context.drawImage(twice.picture, 0, 0);
  plain(out);
  return out;
}

/** px by which the colours of fills are carried under the lines beside them. */
const SPREAD = 9;

function lineColoured(source: Surface, { numbers }: Resolved, place: FinishPlace): Surface {
  const below = place.below();
  if (!below) return source;
  const { make } = place;
  const fills = make(source.width, source.height);
  fills.context.drawImage(below, 0, 0);
  const wide = blurred(fills, SPREAD * scaleOf(place.matrix), true, make);
  const out = copyOf(source, make);
  const colours = make(source.width, source.height);
  // Laid on itself again and again its soft rim becomes solid: the nearest colour, carried outwards.
  for (let i = 0; i < 6; i++) colours.context.drawImage(wide.picture, 0, 0);
  colours.context.drawImage(below, 0, 0);
  flood(colours, '#000000', 'source-atop', numbers['darker']! / 100);
  out.context.globalCompositeOperation = 'source-atop';
  out.context.drawImage(colours.picture, 0, 0);
  plain(out);
  return out;
}

function faded(source: Surface, { numbers }: Resolved, place: FinishPlace): Surface {
  const out = copyOf(source, place.make);
  const [from, to] = [numbers['from']! / 100, numbers['to']! / 100];
  const ends: (readonly [number, string])[] =
    from <= to
      ? [
          [from, '#00000000'],
          [to, '#000000'],
        ]
      : [
          [to, '#000000'],
          [from, '#00000000'],
        ];
  flood(out, alongAxis(out, place, ends), 'destination-in');
  return out;
}

function blur(source: Surface, { numbers, choices }: Resolved, place: FinishPlace): Surface {
  const { matrix, make, rough, motion } = place;
  const scale = scaleOf(matrix);
  if (choices['along'] === 'even') return blurred(source, Math.max(0.1, numbers['radius']! * scale * 0.5), rough, make);
  const angle = (numbers['angle']! * Math.PI) / 180;
  const far = Math.hypot(motion.x, motion.y);
  const way =
    choices['along'] === 'angle'
      ? { x: Math.cos(angle), y: Math.sin(angle) }
      : far > 0
        ? { x: motion.x / far, y: motion.y / far }
        : { x: 0, y: 0 };
  // Along the motion it is as long as what goes on in one frame, and no longer than the radius.
  const long = choices['along'] === 'motion' ? Math.min(far, numbers['radius']!) : numbers['radius']!;
  if (long <= 0) return source;
  const [a, b, c, d] = matrix;
  return blurredAlong(source, (a * way.x + c * way.y) * long, (b * way.x + d * way.y) * long, make);
}

/**
 * Works finishes out, in their order. Waver is not among them: it moves outlines before they are drawn.
 * @returns parts to be laid one over the other; the first is what was drawn, the others its light.
 */
export function finished(source: Surface, finishes: readonly Resolved[], place: FinishPlace): Part[] {
  let main = source;
  let lights: Part[] = [];
  const onLights = (change: (surface: Surface) => Surface): void => {
    lights = lights.map((part) => ({ ...part, picture: change(part.picture) }));
  };
  for (const finish of finishes) {
    switch (finish.kind) {
      case 'glow':
        lights.push(glow(main, finish, place));
        break;
      case 'tint':
        main = copyOf(main, place.make);
        flood(main, place.colourOf(finish.swatch ?? ''), 'source-atop', finish.numbers['strength']! / 100);
        break;
      case 'blur':
        main = blur(main, finish, place);
        onLights((surface) => blur(surface, finish, place));
        break;
      case 'fade':
        main = faded(main, finish, place);
        onLights((surface) => faded(surface, finish, place));
        break;
      case 'feather':
        main = feathered(main, finish, place);
        break;
      case 'inner glow':
        main = innerGlow(main, finish, place);
        break;
      case 'texture':
        main = textured(main, finish, place);
        break;
      case 'line colour':
        main = lineColoured(main, finish, place);
        break;
      case 'waver':
        break;
    }
  }
  return [{ picture: main, blend: 'normal', opacity: 1 }, ...lights];
}
