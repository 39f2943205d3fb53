/** The mark a brush really makes, drawn by the brush engine itself, away from the main thread. */
import type { BrushSettings, Samples } from '@tallow/core/document';
import { tipOf } from '@tallow/core/brush';
import { drawStroke, Scratch } from '@tallow/core/render';
import { makeSurface, type BrowserSurface } from './surfaces.ts';

/** Marks shown of a brush have one texture. */
const SEED = 5;

export interface BrushMarkRequest {
  readonly brush: BrushSettings;
  readonly colour: string;
  /** Colours it runs through from left to right instead, or none. */
  readonly running: readonly string[];
  /** CSS px. */
  readonly width: number;
  readonly height: number;
  /** Device pixels per CSS pixel. */
  readonly pixel: number;
  /** Slant of the stroke, upwards to the right. */
  readonly lean: number;
  /** Draws a full patch and cuts the mark out of it. */
  readonly rub: boolean;
}

/** A wave drawn from left to right, pressed most in the middle. */
function sampleStroke(width: number, height: number, lean: number, soft: boolean): Samples {
  const count = 40;
  const column = (value: (t: number) => number) =>
    Float32Array.from({ length: count }, (_, i) => value(i / (count - 1)));
  return {
    x: column((t) => 5 + t * (width - 10)),
    y: column((t) => height / 2 + Math.sin(t * Math.PI * 2) * height * 0.22 + (0.5 - t) * height * lean),
    pressure: column((t) => 0.15 + 0.85 * Math.sin(Math.PI * t) ** 0.8),
    altitude: column(() => (soft ? Math.PI / 3 : Math.PI / 2)),
    azimuth: column(() => 0),
  };
}

/** The mark as a picture. */
export function brushMarkPicture(request: BrushMarkRequest): ImageBitmap {
  const { brush, colour, running, width, height, pixel, lean, rub } = request;
  const size = [Math.round(width * pixel), Math.round(height * pixel)] as const;
  const stroke = { samples: sampleStroke(width, height, lean, tipOf(brush).leans), brush, seed: SEED };
  const mark = makeSurface(...size) as BrowserSurface;
  const whole = { opacity: 1, operation: 'source-over' } as const;
  drawStroke(mark, new Scratch(makeSurface), stroke, whole, colour, [pixel, 0, 0, pixel, 0, 0]);
  if (running.length > 0) {
    const on = mark.context;
    const across = on.createLinearGradient(0, 0, size[0], 0);
    running.forEach((each, i) => {
      across.addColorStop(i / (running.length - 1), each);
    });
    on.setTransform(1, 0, 0, 1, 0, 0);
    on.globalCompositeOperation = 'source-in';
    on.fillStyle = across;
    on.fillRect(0, 0, ...size);
  }
  const shown = new OffscreenCanvas(...size);
  const context = shown.getContext('2d')!;
  if (rub) {
    context.fillStyle = '#5a4c40';
    context.beginPath();
    context.roundRect(4 * pixel, 6 * pixel, (width - 8) * pixel, (height - 12) * pixel, 4 * pixel);
    context.fill();
    context.globalCompositeOperation = 'destination-out';
  }
  context.globalAlpha = brush.opacity;
  context.drawImage(mark.picture, 0, 0);
  return shown.transferToImageBitmap();
}
