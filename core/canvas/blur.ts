/** Blurs: even ones at reduced size where the eye can't tell, and along a direction. */
import { plain } from './flood.ts';
import { wipe, type MakeSurface, type Picture, type Surface } from './surface.ts';

/** Device px of standard deviation from which a picture is blurred at half, a quarter and an eighth of its size. */
const REDUCED = [9, 22, 48] as const;
/** Pictures laid on one another along a direction. */
const STEPS = 14;

const sized = (length: number, halvings: number): number => Math.max(1, Math.ceil(length / 2 ** halvings));

/** A picture at half its size so many times over; each halving takes the mean of four pixels. */
export function reduced(source: Surface, halvings: number, make: MakeSurface): Surface {
  let from = source;
  for (let i = 1; i <= halvings; i++) {
    const next = make(sized(source.width, i), sized(source.height, i));
    next.context.drawImage(from.picture, 0, 0, next.width * 2, next.height * 2, 0, 0, next.width, next.height);
    from = next;
  }
  return from;
}

/** Lays a reduced picture over a surface at full size. */
export function layReduced(target: Surface, small: Picture, width: number, height: number, halvings: number): void {
  const factor = 2 ** halvings;
  target.context.drawImage(small, 0, 0, width, height, 0, 0, width * factor, height * factor);
}

/** How often a picture is halved before it is blurred. @param deviation device px. @param rough while something moves. */
export const halvingsFor = (deviation: number, rough: boolean): number =>
  REDUCED.filter((from) => deviation >= from).length + (rough ? 1 : 0);

/** The picture blurred evenly, reduced. @param deviation standard deviation, device px. */
export function blurredSmall(
  source: Surface,
  deviation: number,
  halvings: number,
  make: MakeSurface,
): { small: Surface; halvings: number } {
  const small = reduced(source, halvings, make);
  const out = make(small.width, small.height);
  out.context.filter = `blur(${(deviation / 2 ** halvings).toFixed(3)}px)`;
  out.context.drawImage(small.picture, 0, 0);
  out.context.filter = 'none';
  return { small: out, halvings };
}

/** The picture blurred evenly, of the same size. */
export function blurred(source: Surface, deviation: number, rough: boolean, make: MakeSurface): Surface {
  const { small, halvings } = blurredSmall(source, deviation, halvingsFor(deviation, rough), make);
  if (halvings === 0) return small;
  const out = make(source.width, source.height);
  layReduced(out, small.picture, small.width, small.height, halvings);
  return out;
}

/** The picture blurred along a way. @param dx, @param dy the whole way, device px. */
export function blurredAlong(source: Surface, dx: number, dy: number, make: MakeSurface): Surface {
  const out = make(source.width, source.height);
  wipe(out);
  const steps = Math.max(2, Math.min(STEPS, Math.ceil(Math.hypot(dx, dy) / 2)));
  out.context.globalCompositeOperation = 'lighter';
  out.context.globalAlpha = 1 / steps;
  for (let i = 0; i < steps; i++) {
    const t = i / (steps - 1) - 0.5;
    out.context.setTransform(1, 0, 0, 1, t * dx, t * dy);
    out.context.drawImage(source.picture, 0, 0);
  }
  plain(out);
  return out;
}
