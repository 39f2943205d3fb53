/** The mark a brush really makes, small. */
import type { BrushSettings } from '@tallow/core/document';
import { channels, contrast, luminance } from '@tallow/core/colour';
import { besideCompute } from '../workers/compute-client.ts';
import { useEffect, useRef } from 'react';

/** What marks in the tray lie on, and the contrast to it below which they get a light rim. */
const TRAY = luminance(...channels('#232323'));
const TOLD_APART = 1.5;

/** A rim by which a colour as dark as the tray is still seen on it. */
const rimOf = (colour: string): string | undefined =>
  contrast(luminance(...channels(colour)), TRAY) < TOLD_APART ? 'drop-shadow(0 0 0.7px #f4ecdfcc)' : undefined;

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

export function BrushMark({ brush, colour, running, width, height, lean = 0.5, rub = false }: BrushMarkProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const settings = JSON.stringify(brush);
  const stops = running?.join(' ') ?? '';
  useEffect(() => {
    let left = false;
    const brushOf = JSON.parse(settings) as BrushSettings;
    const through = stops ? stops.split(' ') : [];
    const request = { brush: brushOf, colour, running: through, width, height, lean, rub, pixel: devicePixelRatio };
    void besideCompute()
      .brushMark(request)
      .then((picture) => {
        const context = left ? null : canvas.current?.getContext('2d');
        if (context) {
          context.clearRect(0, 0, picture.width, picture.height);
          context.drawImage(picture, 0, 0);
        }
        picture.close();
      })
      // Where the worker cannot draw it, its place stays empty; its name says what it is.
      .catch(() => undefined);
    return () => {
      left = true;
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
