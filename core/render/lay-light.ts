/**
 * One light laid on pixels, square by square: a square with nothing in it is left out, and one that is covered all the way to
 * the light has no side that faces it, so that its pixels are worked out without looking around.
 */
import { intersection, isEmpty, type Box } from '../geometry/index.ts';

/** How a light dies away is looked up by the share of the way, in so many steps: finer than a level of 255. */
const STEPS = 1024;
/** Shares are whole numbers of this many parts: pixels are worked out without fractions, which takes half as long. */
const ONE = 65536;
const [BITS, HALF] = [16, 32768] as const;
/** Less than this is half a level of 255 at most. */
const UNSEEN = HALF / 255;

/** More than this of a colour is never laid at once: what is screened is white by then. */
const maxOf = (adds: boolean): number => (adds ? 8 : 1) * ONE;
/** The side towards a light is what lies within this share of the way to it, and of its radius, from an edge. */
const [SIDE, WIDEST] = [0.12, 0.05] as const;
/** An edge is looked for at so many places on the way. */
const LOOKS = 3;
/** Px along the side of a square. */
const SQUARE = 16;
const squareAt = (px: number): number => Math.floor(px / SQUARE);

/** A light on pixels, device px. */
export interface OnPixels {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
  /** From this step on it changes no pixel. */
  readonly ends: number;
  readonly adds: boolean;
  readonly side: number;
  /** What is left of each of its colours by the share of the way, in parts of `ONE`; `mostOf` at most. */
  readonly red: Int32Array;
  readonly green: Int32Array;
  readonly blue: Int32Array;
  readonly box: Box;
}

/** What light is laid on: pixels not multiplied by how opaque they are, red in the lowest byte. */
export interface Lit {
  readonly pixels: Int32Array;
  readonly width: number;
  readonly height: number;
  /** Within it, what lies beside the pixels is free; beyond it things go on. */
  readonly known: Box;
  readonly squares: Squares;
}

/** How much of each square is covered. */
interface Squares {
  readonly across: number;
  readonly down: number;
  readonly covered: Uint8Array;
}
const [NOTHING, PART, ALL] = [0, 1, 2] as const;

/** @param pixels of a picture, row by row. */
export function litPixels(pixels: Int32Array, width: number, height: number, known: Box): Lit {
  const [across, down] = [Math.ceil(width / SQUARE), Math.ceil(height / SQUARE)];
  const covered = new Uint8Array(across * down);
  for (let row = 0; row < down; row++) {
    for (let column = 0; column < across; column++) {
      const [right, bottom] = [Math.min(width, (column + 1) * SQUARE), Math.min(height, (row + 1) * SQUARE)];
      let some = 0;
      let every = -1;
      for (let y = row * SQUARE; y < bottom; y++) {
        const end = y * width + right;
        for (let i = y * width + column * SQUARE; i < end; i++) {
          some |= pixels[i]!;
          every &= pixels[i]!;
        }
      }
      covered[row * across + column] = some >>> 24 === 0 ? NOTHING : every >>> 24 === 0xff ? ALL : PART;
    }
  }
  return { pixels, width, height, known, squares: { across, down, covered } };
}

/**
 * How free the way from a pixel to a light is right before it, 0 to 1: 1 on an edge that faces it. What is covered at its far end
 * counts as covered: most pixels are settled by one look.
 */
function freeBefore(
  { pixels, width, height, known }: Lit,
  px: number,
  py: number,
  stepX: number,
  stepY: number,
): number {
  let free = 0;
  for (let i = LOOKS; i > 0; i--) {
    const x = (px - stepX * i + 0.5) | 0;
    const y = (py - stepY * i + 0.5) | 0;
    if (x < known.left || y < known.top || x >= known.right || y >= known.bottom) return 0;
    const inside = x >= 0 && y >= 0 && x < width && y < height;
    const alpha = inside ? pixels[y * width + x]! >>> 24 : 0;
    if (i === LOOKS && alpha === 255) return 0;
    free += 255 - alpha;
  }
  return free / (255 * LOOKS);
}

/** Whether all that the pixels of a square would look at on their way to a light is covered. */
function isCoveredBefore({ squares, width, height, known }: Lit, light: OnPixels, square: Box): boolean {
  const { x, y, radius } = light;
  const nearest = Math.hypot(
    Math.max(square.left - x, 0, x - square.right),
    Math.max(square.top - y, 0, y - square.bottom),
  );
  const share = Math.min(SIDE, (WIDEST * radius) / Math.max(1, nearest));
  const [toLeft, toRight] = [(x - square.left) * share, (x - square.right) * share];
  const [toTop, toBottom] = [(y - square.top) * share, (y - square.bottom) * share];
  const left = Math.floor(square.left + Math.min(0, toLeft, toRight) - 1);
  const top = Math.floor(square.top + Math.min(0, toTop, toBottom) - 1);
  const right = Math.ceil(square.right + Math.max(0, toLeft, toRight) + 1);
  const bottom = Math.ceil(square.bottom + Math.max(0, toTop, toBottom) + 1);
  // Beside the pixels nothing covers, unless things go on there.
  if ((left < 0 && known.left < 0) || (top < 0 && known.top < 0)) return false;
  if ((right > width && known.right > width) || (bottom > height && known.bottom > height)) return false;
  const { across, down, covered } = squares;
  const last = { row: Math.min(down - 1, squareAt(bottom - 1)), column: Math.min(across - 1, squareAt(right - 1)) };
  for (let row = Math.max(0, squareAt(top)); row <= last.row; row++)
    for (let column = Math.max(0, squareAt(left)); column <= last.column; column++)
      if (covered[row * across + column] !== ALL) return false;
  return true;
}

/** Screens a light on the pixels of a square that have no side towards it. */
function screenSquare({ pixels, width }: Lit, light: OnPixels, square: Box): void {
  const { x, y, radius, ends, red, green, blue } = light;
  const scale = STEPS / radius;
  for (let py = square.top; py < square.bottom; py++) {
    const dy = py + 0.5 - y;
    const down = dy * dy;
    const end = py * width + square.right;
    let dx = square.left + 0.5 - x;
    for (let i = py * width + square.left; i < end; i++, dx++) {
      const at = (Math.sqrt(dx * dx + down) * scale) | 0;
      if (at >= ends) continue;
      const pixel = pixels[i]!;
      if (pixel >>> 24 === 0) continue;
      // Plain names: taken apart from lists, colours took three times as long.
      const r = pixel & 255;
      const g = (pixel >>> 8) & 255;
      const b = (pixel >>> 16) & 255;
      pixels[i] =
        pixel +
        ((Math.imul(255 - r, red[at]!) + HALF) >> BITS) +
        (((Math.imul(255 - g, green[at]!) + HALF) >> BITS) << 8) +
        (((Math.imul(255 - b, blue[at]!) + HALF) >> BITS) << 16);
    }
  }
}

/** Lays a light on the pixels of a square, each by the side it has towards it. */
function laySquare(on: Lit, light: OnPixels, square: Box): void {
  const { pixels, width } = on;
  const { x, y, radius, ends, adds, side, red, green, blue } = light;
  const scale = STEPS / radius;
  const max = maxOf(adds);
  for (let py = square.top; py < square.bottom; py++) {
    const dy = py + 0.5 - y;
    for (let px = square.left; px < square.right; px++) {
      const i = py * width + px;
      const pixel = pixels[i]!;
      if (pixel >>> 24 === 0) continue;
      const dx = px + 0.5 - x;
      const far = Math.sqrt(dx * dx + dy * dy);
      const at = (far * scale) | 0;
      if (at >= ends) continue;
      const by = Math.min(SIDE, (WIDEST * radius) / far) / LOOKS;
      const more = side > 0 ? 1 + side * freeBefore(on, px, py, dx * by, dy * by) : 1;
      const r = pixel & 255;
      const g = (pixel >>> 8) & 255;
      const b = (pixel >>> 16) & 255;
      const nr = r + ((Math.imul(adds ? 255 : 255 - r, Math.min(max, red[at]! * more)) + HALF) >> BITS);
      const ng = g + ((Math.imul(adds ? 255 : 255 - g, Math.min(max, green[at]! * more)) + HALF) >> BITS);
      const nb = b + ((Math.imul(adds ? 255 : 255 - b, Math.min(max, blue[at]! * more)) + HALF) >> BITS);
      pixels[i] =
        (pixel & 0xff000000) |
        (nb > 255 ? 0xff0000 : nb << 16) |
        (ng > 255 ? 0xff00 : ng << 8) |
        (nr > 255 ? 0xff : nr);
    }
  }
}

/**
 * What is left of a light by the share of the way, and where it ends.
 * @param left what is left of it in full, 1 is its colour, by the share of the way, 0 to 1. @param colour its channels, 0 to 255.
 */
export function dyingAway(
  left: (share: number) => number,
  colour: readonly number[],
  adds: boolean,
  side: number,
): Pick<OnPixels, 'red' | 'green' | 'blue' | 'ends'> {
  const max = maxOf(adds);
  const [red, green, blue] = [0, 1, 2].map(() => new Int32Array(STEPS + 1)) as [Int32Array, Int32Array, Int32Array];
  const [r, g, b] = colour.map((channel) => channel / 255) as [number, number, number];
  // A loop: `from` with a function takes many times as long.
  for (let i = 0; i <= STEPS; i++) {
    const share = ONE * left(i / STEPS);
    red[i] = Math.min(max, Math.round(share * r));
    green[i] = Math.min(max, Math.round(share * g));
    blue[i] = Math.min(max, Math.round(share * b));
  }
  let ends = STEPS;
  while (ends > 0 && Math.max(red[ends - 1]!, green[ends - 1]!, blue[ends - 1]!) * (1 + side) < UNSEEN) ends--;
  return { red, green, blue, ends };
}

/** How far a light changes pixels, device px. */
export const lightReach = ({ radius, ends }: Pick<OnPixels, 'radius' | 'ends'>): number => (radius * ends) / STEPS;

/** Lays one light on pixels. Those that are not covered at all stay. */
export function layLight(on: Lit, light: OnPixels): void {
  const { across, covered } = on.squares;
  const { box, x, y } = light;
  const reach = lightReach(light);
  for (let top = box.top - (box.top % SQUARE); top < box.bottom; top += SQUARE) {
    for (let left = box.left - (box.left % SQUARE); left < box.right; left += SQUARE) {
      const lies = covered[(top / SQUARE) * across + left / SQUARE]!;
      if (lies === NOTHING) continue;
      const square = intersection({ left, top, right: left + SQUARE, bottom: top + SQUARE }, box);
      const [dx, dy] = [Math.max(square.left - x, 0, x - square.right), Math.max(square.top - y, 0, y - square.bottom)];
      if (isEmpty(square) || dx * dx + dy * dy >= reach * reach) continue;
      const hasSide = light.side > 0 && !(lies === ALL && isCoveredBefore(on, light, square));
      if (hasSide || light.adds) laySquare(on, light, square);
      else screenSquare(on, light, square);
    }
  }
}
