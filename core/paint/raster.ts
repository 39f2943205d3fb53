/** Pictures that painting works on: what bounds regions, as plain arrays with their place in element space. */
import type { Box, Point } from '../geometry/index.ts';

/** A grid of pixels over element space. */
export interface Lattice {
  readonly width: number;
  readonly height: number;
  /** Element space of the first pixel's corner, px. */
  readonly left: number;
  readonly top: number;
  /** Pixels per px of element space. */
  readonly scale: number;
}

/** What bounds regions: how much of each pixel lines cover, and in which colour. */
export interface Barrier extends Lattice {
  /** 0 to 255. */
  readonly cover: Uint8Array;
  /** Red, green and blue of the lines, three bytes a pixel; what lies under no line is 0. */
  readonly colour: Uint8Array | null;
}

/** How much of a pixel a line must cover to bound: half-opaque and soft lines do. */
export const BOUNDS_FROM = 56;
/** Pixels of a lattice at most; larger pictures are worked on smaller. */
const MAX = 24_000_000;
/** Free px round everything, so that the outside is one region. */
export const MARGIN = 4;

/** A lattice over a box with a free margin. @param room px the margin must leave free. */
export function latticeOver(box: Box, room: number, wanted = 1): Lattice {
  const margin = Math.ceil(room) + MARGIN;
  const [width, height] = [box.right - box.left + 2 * margin, box.bottom - box.top + 2 * margin];
  const scale = Math.min(wanted, Math.sqrt(MAX / (width * height)));
  return {
    width: Math.max(1, Math.ceil(width * scale)),
    height: Math.max(1, Math.ceil(height * scale)),
    left: Math.floor(box.left) - margin,
    top: Math.floor(box.top) - margin,
    scale,
  };
}

/** The index of the pixel a point lies in, or -1 beyond the lattice. */
export function pixelAt({ width, height, left, top, scale }: Lattice, { x, y }: Point): number {
  const [column, row] = [Math.floor((x - left) * scale), Math.floor((y - top) * scale)];
  return column < 0 || row < 0 || column >= width || row >= height ? -1 : row * width + column;
}

/** The middle of a pixel in element space. */
export const pixelMiddle = ({ width, left, top, scale }: Lattice, pixel: number): Point => ({
  x: left + ((pixel % width) + 0.5) / scale,
  y: top + (Math.floor(pixel / width) + 0.5) / scale,
});
