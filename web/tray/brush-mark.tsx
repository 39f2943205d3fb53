/** A small canvas with the mark a brush really makes, drawn by the brush engine itself. */
import type { BrushSettings, Samples } from '@tallow/core/document';
import { tipOf } from '@tallow/core/brush';
import { channels, contrast, luminance } from '@tallow/core/colour';
import { IDENTITY } from '@tallow/core/geometry';
import { drawStroke, isGround, Scratch } from '@tallow/core/render';
import { inIdleTurn } from '../workers/idle.ts';
import { prepareBrushes } from '../pen/prepare.ts';
import { makeSurface, type BrowserSurface } from '../workers/surfaces.ts';
import { useEffect, useRef } from 'react';

/** Marks shown of a brush have one texture. */
const SEED = 5;

/** What marks in the tray lie on, and the contrast to it below which they get a light rim. */
const TRAY = luminance(...channels('#232323'));
const TOLD_APART = 1.5;

/** A rim by which a colour as dark as the tray is still seen on it. */
const rimOf = (colour: string): string | undefined =>
  contrast(luminance(...channels(colour)), TRAY) < TOLD_APART ? 'drop-shadow(0 0 0.7px #f4ecdfcc)' : undefined;

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

interface BrushMarkProps {
  brush: BrushSettings;
  colour: string;
  /** Colours it runs through from left to right instead. */
  running?: readonly string[];
  width: number;
  height: number;
  /** Slant of the stroke, upwards to the right. */
  lean?: number;
  /** Draws a full patch and cuts the mark out of it. */
  rub?: boolean;
}

/** Draws the mark onto an emptied canvas. @param stops colours it runs through, or none. */
function drawBrushMark(
  context: CanvasRenderingContext2D,
  { brush, colour, width, height, lean = 0.5, rub = false }: BrushMarkProps,
  stops: readonly string[],
): void {
  const pixel = devicePixelRatio;
  const stroke = { samples: sampleStroke(width, height, lean, tipOf(brush).leans), brush, seed: SEED };
  const layer = makeSurface(width * pixel, height * pixel) as BrowserSurface;
  const scratch = new Scratch(makeSurface);
  const whole = { opacity: 1, operation: 'source-over' } as const;
  drawStroke(layer, scratch, stroke, whole, colour, [IDENTITY[0] * pixel, 0, 0, pixel, 0, 0]);
  const on = layer.picture.getContext('2d')!;
  if (stops.length > 0) {
    const across = on.createLinearGradient(0, 0, width * pixel, 0);
    stops.forEach((each, i) => {
      across.addColorStop(i / (stops.length - 1), each);
    });
    on.setTransform(1, 0, 0, 1, 0, 0);
    on.globalCompositeOperation = 'source-in';
    on.fillStyle = across;
    on.fillRect(0, 0, width * pixel, height * pixel);
  }
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.clearRect(0, 0, width * pixel, height * pixel);
  if (rub) {
    context.fillStyle = '#5a4c40';
    context.beginPath();
    context.roundRect(4 * pixel, 6 * pixel, (width - 8) * pixel, (height - 12) * pixel, 4 * pixel);
    context.fill();
    context.globalCompositeOperation = 'destination-out';
  }
  context.globalAlpha = brush.opacity;
  context.drawImage(layer.picture, 0, 0);
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
}

export function BrushMark({ brush, colour, running, width, height, lean = 0.5, rub = false }: BrushMarkProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const settings = JSON.stringify(brush);
  const stops = running?.join(' ');
  useEffect(() => {
    let left = false;
    let takeBack: (() => void) | undefined;
    const drawn = JSON.parse(settings) as BrushSettings;
    const draw = (): void => {
      if (left) return;
      takeBack = inIdleTurn(() => {
        const context = canvas.current?.getContext('2d');
        if (context)
          drawBrushMark(context, { brush: drawn, colour, width, height, lean, rub }, stops ? stops.split(' ') : []);
      });
    };
    if (isGround(drawn)) void prepareBrushes().then(draw);
    else draw();
    return () => {
      left = true;
      takeBack?.();
    };
  }, [settings, colour, stops, width, height, lean, rub]);
  return (
    <canvas
      ref={canvas}
      width={width * devicePixelRatio}
      height={height * devicePixelRatio}
      style={{ width, height, filter: rub || running ? undefined : rimOf(colour) }}
      aria-hidden
    />
  );
}

/** A blob as the Shape tool makes it. */
export function ShapeMark({ colour, opacity, line }: { colour: string; opacity: number; line: string | null }) {
  return (
    <svg width={48} height={36} viewBox="0 0 52 38" style={{ filter: rimOf(colour) }} aria-hidden>
      <path
        d="M10 25C7 16 15 6 25 6c9 0 16 5 17 12 1 8-6 14-17 14-8 0-13-2-15-7Z"
        fill={colour}
        fillOpacity={opacity}
        stroke={line ?? 'none'}
        strokeWidth={2.5}
      />
    </svg>
  );
}
