/**
 * Light laid on what it falls on: pixel by pixel, screened or added by its colour, brighter on the side towards it; how opaque
 * things are stays. The canvas has no blend that keeps that, and took ten times as long for the parts of one that came close.
 */
import { channels } from '../colour/index.ts';
import { apply, intersection, isEmpty, scaleOf, wholePixels, type Box, type Matrix } from '../geometry/index.ts';
import type { Surface } from '../canvas/index.ts';
import type { Falling } from './lights.ts';

/** How a light dies away is looked up by the share of the way, in so many steps: finer than a level of 255. */
const STEPS = 1024;
/** Shares are whole numbers of this many parts: pixels are worked out without fractions, which takes half as long. */
const [ONE, BITS, HALF] = [65536, 16, 32768] as const;
/** The side towards a light is what lies within this share of the way to it, and of its radius, from an edge. */
const [SIDE, WIDEST] = [0.12, 0.05] as const;
/** More than this is never laid at once: what is screened is white by then. */
const MOST = 8 * ONE;
/** An edge is looked for at so many places on the way. */
const LOOKS = 3;

/** How much of a light is left at a share of the way to its rim. */
export const leftAt = (share: number, dies: number): number => (1 - share) ** dies;

/** A light on a surface, device px. */
interface OnSurface {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
  readonly adds: boolean;
  readonly side: number;
  /** What is left of each of its colours by the share of the way. */
  readonly red: Int32Array;
  readonly green: Int32Array;
  readonly blue: Int32Array;
  readonly box: Box;
}

function onSurface(light: Falling, view: Matrix, room: Box): OnSurface {
  const { x, y } = apply(view, light);
  const radius = light.radius * scaleOf(view);
  const table = (channel: number): Int32Array =>
    Int32Array.from({ length: STEPS + 1 }, (_, i) =>
      Math.round(ONE * light.strength * leftAt(i / STEPS, light.dies) * (channel / 255)),
    );
  const [red, green, blue] = channels(light.colour).map(table) as [Int32Array, Int32Array, Int32Array];
  return {
    x,
    y,
    radius,
    adds: light.blend === 'add',
    side: light.side,
    red,
    green,
    blue,
    box: intersection(wholePixels({ left: x - radius, top: y - radius, right: x + radius, bottom: y + radius }), room),
  };
}

/**
 * How free the way from a pixel to a light is right before it, 0 to 1: 1 on an edge that faces it. What is covered at its far end
 * counts as covered: most pixels are told by one look.
 * @param known within it, what lies beside the surface is free; beyond it things go on.
 */
function freeBefore({ data, width, height, known }: Lit, px: number, py: number, stepX: number, stepY: number): number {
  let free = 0;
  for (let i = LOOKS; i > 0; i--) {
    const x = (px - stepX * i + 0.5) | 0;
    const y = (py - stepY * i + 0.5) | 0;
    if (x < known.left || y < known.top || x >= known.right || y >= known.bottom) return 0;
    const inside = x >= 0 && y >= 0 && x < width && y < height;
    const alpha = inside ? data[(y * width + x) * 4 + 3]! : 0;
    if (i === LOOKS && alpha === 255) return 0;
    free += 255 - alpha;
  }
  return free / (255 * LOOKS);
}

/** What light is laid on: pixels not multiplied by how opaque they are. */
interface Lit {
  readonly data: Uint8ClampedArray;
  readonly width: number;
  readonly height: number;
  readonly known: Box;
}

/** Lays one light. */
function layLight(on: Lit, light: OnSurface): void {
  const { data, width } = on;
  const { x, y, radius, adds, side, red, green, blue } = light;
  const scale = STEPS / radius;
  for (let py = light.box.top; py < light.box.bottom; py++) {
    const dy = py + 0.5 - y;
    let i = (py * width + light.box.left) * 4;
    for (let px = light.box.left; px < light.box.right; px++, i += 4) {
      if (data[i + 3] === 0) continue;
      const dx = px + 0.5 - x;
      const far = Math.sqrt(dx * dx + dy * dy);
      const at = (far * scale) | 0;
      if (at >= STEPS) continue;
      // Plain names: taken apart from lists, colours took three times as long.
      let r = red[at]!;
      let g = green[at]!;
      let b = blue[at]!;
      if (side > 0) {
        const by = Math.min(SIDE, (WIDEST * radius) / far) / LOOKS;
        const free = freeBefore(on, px, py, dx * by, dy * by);
        if (free > 0) {
          const more = 1 + side * free;
          r = (r * more) | 0;
          g = (g * more) | 0;
          b = (b * more) | 0;
        }
      }
      const dr = data[i]!;
      const dg = data[i + 1]!;
      const db = data[i + 2]!;
      // The clamped array stops at 255.
      data[i] = dr + (((adds ? 255 : 255 - dr) * Math.min(r, MOST) + HALF) >> BITS);
      data[i + 1] = dg + (((adds ? 255 : 255 - dg) * Math.min(g, MOST) + HALF) >> BITS);
      data[i + 2] = db + (((adds ? 255 : 255 - db) * Math.min(b, MOST) + HALF) >> BITS);
    }
  }
}

/**
 * Lays lights on a thing, in their order.
 * @param thing a surface with nothing but what they fall on. @param view shot px to device px.
 * @param known how far to each side it is known that nothing of it lies; beyond that it counts as going on.
 */
export function shine(thing: Surface, lights: readonly Falling[], view: Matrix, known: Box = all(thing)): void {
  const box = all(thing);
  const falling = lights.map((light) => onSurface(light, view, box)).filter((each) => !isEmpty(each.box));
  if (falling.length === 0) return;
  const pixels = thing.context.getImageData(0, 0, thing.width, thing.height);
  const on = { data: pixels.data, width: thing.width, height: thing.height, known };
  for (const light of falling) layLight(on, light);
  thing.context.putImageData(pixels, 0, 0);
}

const all = ({ width, height }: Surface): Box => ({ left: 0, top: 0, right: width, bottom: height });
