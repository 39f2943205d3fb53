/**
 * Pictures of plates as they lie: flat ones by the canvas, those on a tilted plane pixel by pixel, each taken back through the
 * inverse of the map (P. Heckbert, Fundamentals of Texture Mapping, 1989) and mixed from the four pixels round it.
 */
import {
  composed,
  cornersOf,
  derivativeAt,
  intersection,
  isEmpty,
  project,
  projectionFrom,
  unproject,
  wholePixels,
  type Box,
  type Matrix,
  type Projection,
} from '../geometry/index.ts';
import type { MakeSurface, Picture, PixelData, Surface } from '../canvas/index.ts';

/** A picture, how large it is, and what its corners make of it; null where it lies flat. */
interface LyingPicture {
  readonly picture: Picture;
  readonly width: number;
  readonly height: number;
  readonly bend: Projection | null;
}

/** Draws a picture where it lies. @param matrix its own px to device px. @param opacity 0 to 1. */
export function drawLying(
  target: Surface,
  lying: LyingPicture,
  matrix: Matrix,
  opacity: number,
  make: MakeSurface,
): void {
  const { context } = target;
  context.globalAlpha = opacity;
  if (!lying.bend) {
    context.setTransform(...matrix);
    context.drawImage(lying.picture, 0, 0);
  } else {
    const tilted = tiltedOn(target, lying, composed(projectionFrom(matrix), lying.bend), make);
    if (tilted) {
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.drawImage(tilted.on.picture, tilted.box.left, tilted.box.top);
    }
  }
  context.globalAlpha = 1;
}

/** How much smaller a picture is drawn first, so that what is seen small does not flicker: its largest scale at a corner or in the middle, at most 1. */
function shrunk(map: Projection, { width, height }: LyingPicture): number {
  const places = [...cornersOf({ left: 0, top: 0, right: width, bottom: height }), { x: width / 2, y: height / 2 }];
  const scales = places.map((at) => {
    const { xx, xy, yx, yy } = derivativeAt(map, at);
    return Math.sqrt(Math.abs(xx * yy - xy * yx));
  });
  return Math.min(1, Math.max(1 / 16, ...scales));
}

/** The picture through a map, on a surface of its own; null where none of it is seen. */
function tiltedOn(
  target: Surface,
  lying: LyingPicture,
  map: Projection,
  make: MakeSurface,
): { on: Surface; box: Box } | null {
  const corners = cornersOf({ left: 0, top: 0, right: lying.width, bottom: lying.height }).map((p) => project(map, p));
  const [xs, ys] = [corners.map(({ x }) => x), corners.map(({ y }) => y)];
  const bounds = { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
  const box = intersection(wholePixels(bounds), { left: 0, top: 0, right: target.width, bottom: target.height });
  if (isEmpty(box)) return null;
  const scale = shrunk(map, lying);
  const [width, height] = [Math.max(1, Math.ceil(lying.width * scale)), Math.max(1, Math.ceil(lying.height * scale))];
  const source = make(width, height);
  source.context.setTransform(width / lying.width, 0, 0, height / lying.height, 0, 0);
  source.context.drawImage(lying.picture, 0, 0);
  const on = make(box.right - box.left, box.bottom - box.top);
  const pixels = on.context.createImageData(on.width, on.height);
  const back = unproject(composed(map, projectionFrom([lying.width / width, 0, 0, lying.height / height, 0, 0])));
  sample(source.context.getImageData(0, 0, width, height), width, height, back, pixels, box);
  on.context.putImageData(pixels, 0, 0);
  return { on, box };
}

/** Fills in each pixel of a box from the four round the place it comes from; what lies beside the picture is clear. */
function sample(
  { data: from }: PixelData,
  width: number,
  height: number,
  [a, b, c, d, e, f, g, h, i]: Projection,
  { data: into }: PixelData,
  box: Box,
): void {
  let at = 0;
  for (let py = box.top; py < box.bottom; py++) {
    const y = py + 0.5;
    for (let px = box.left; px < box.right; px++, at += 4) {
      const x = px + 0.5;
      const w = g * x + h * y + i;
      // Behind the eye nothing is seen.
      if (w <= 1e-9) continue;
      const u = (a * x + b * y + c) / w - 0.5;
      const v = (d * x + e * y + f) / w - 0.5;
      if (u <= -1 || v <= -1 || u >= width || v >= height) continue;
      const left = Math.floor(u);
      const top = Math.floor(v);
      const tx = u - left;
      const ty = v - top;
      let red = 0;
      let green = 0;
      let blue = 0;
      let alpha = 0;
      for (let corner = 0; corner < 4; corner++) {
        const sx = left + (corner & 1);
        const sy = top + (corner >> 1);
        if (sx < 0 || sy < 0 || sx >= width || sy >= height) continue;
        const share = (corner & 1 ? tx : 1 - tx) * (corner >> 1 ? ty : 1 - ty);
        const s = (sy * width + sx) * 4;
        // Weighed by how opaque each is, or clear ones would darken the edge.
        const opaque = share * from[s + 3]!;
        red += opaque * from[s]!;
        green += opaque * from[s + 1]!;
        blue += opaque * from[s + 2]!;
        alpha += opaque;
      }
      if (alpha <= 0) continue;
      into[at] = red / alpha;
      into[at + 1] = green / alpha;
      into[at + 2] = blue / alpha;
      into[at + 3] = alpha;
    }
  }
}
