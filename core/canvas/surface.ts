/**
 * What rendering needs of a canvas: the part of the standard 2D interface that browsers and the
 * server's canvas share.
 */

/**
 * What outlines are drawn with. They are only ever filled, which closes them by itself: `closePath` would cost Chromium the length of
 * the path so far each time, 335 ms where 8,000 flecks without it take 10.
 */
export interface PathSink {
  moveTo(x: number, y: number): void;
  lineTo(x: number, y: number): void;
  arc(x: number, y: number, radius: number, from: number, to: number): void;
}

/** Anything `drawImage` takes; made by the same platform as the context. */
export type Picture = object;

/** Pixels as red, green, blue and alpha, made by the same platform as the context. */
export interface PixelData {
  readonly data: Uint8ClampedArray;
  readonly width: number;
}

export interface Context2D extends PathSink {
  globalAlpha: number;
  globalCompositeOperation: string;
  fillStyle: unknown;
  /** CSS filter functions; only `blur()` is asked for. */
  filter: string;
  setTransform(a: number, b: number, c: number, d: number, e: number, f: number): void;
  clearRect(x: number, y: number, width: number, height: number): void;
  fillRect(x: number, y: number, width: number, height: number): void;
  beginPath(): void;
  bezierCurveTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void;
  createRadialGradient(
    x0: number,
    y0: number,
    r0: number,
    x1: number,
    y1: number,
    r1: number,
  ): { addColorStop(offset: number, colour: string): void };
  createLinearGradient(
    x0: number,
    y0: number,
    x1: number,
    y1: number,
  ): { addColorStop(offset: number, colour: string): void };
  createImageData(width: number, height: number): PixelData;
  getImageData(x: number, y: number, width: number, height: number): PixelData;
  putImageData(pixels: PixelData, x: number, y: number): void;
  /** Puts a part of the pixels where it would lie with all of them. */
  putImageData(pixels: PixelData, x: number, y: number, left: number, top: number, width: number, height: number): void;
  fill(rule?: 'nonzero' | 'evenodd'): void;
  drawImage(picture: Picture, x: number, y: number): void;
  drawImage(
    picture: Picture,
    sx: number,
    sy: number,
    sw: number,
    sh: number,
    x: number,
    y: number,
    w: number,
    h: number,
  ): void;
}

/** A canvas with its context. Sizes are whole device pixels. */
export interface Surface {
  readonly width: number;
  readonly height: number;
  readonly picture: Picture;
  readonly context: Context2D;
}

/** @param deep of half floats to a channel in place of bytes. */
export type MakeSurface = (width: number, height: number, deep?: boolean) => Surface;

/** Makes a surface wholly transparent and its transform the identity. */
export function wipe({ context, width, height }: Surface): void {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
  context.clearRect(0, 0, width, height);
}
