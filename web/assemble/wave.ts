/** The form of sounds in the strip: as loud as it is heard, from its beginning to its end, with its hits. */
import { SOUND_LIMITS, type Sound } from '@tallow/core/document';
import { loudnessAt, peakBetween, secondOn } from '@tallow/core/sound';
import { scaleLinear, scalePow } from 'd3-scale';
import { area } from 'd3-shape';
import { hitsOf } from '../sound/hits.ts';
import type { Recording } from '../sound/recordings.ts';
import type { InView } from './lane-canvas.tsx';

/** How high a sound is in so many rows, CSS px: together they leave room for the planes. */
export const waveHeight = (rows: number): number => Math.max(18, Math.min(34, Math.round(64 / rows)));

/** A sound in its row. */
export interface SoundBar {
  readonly sound: Sound;
  readonly from: number;
  readonly to: number;
  readonly row: number;
}

interface WavePlace {
  readonly view: InView;
  /** CSS px of the whole lane. */
  readonly width: number;
  readonly top: number;
  readonly height: number;
  /** Frames a second. */
  readonly rate: number;
}

/** What is louder than this is drawn no higher. */
const LOUDEST = Math.sqrt(SOUND_LIMITS.loudness);

/** Draws one sound. */
export function drawWave(
  context: CanvasRenderingContext2D,
  { sound, from, to }: SoundBar,
  recording: Recording | undefined,
  { view, width, top, height, rate }: WavePlace,
  isSelected: boolean,
): void {
  const xOf = scaleLinear([view.from, view.from + 1], [0, view.perFrame]);
  const [left, right] = [xOf(from), xOf(to)];
  if (right < 0 || left > width) return;
  context.save();
  context.beginPath();
  context.roundRect(left, top, Math.max(3, right - left), height, 6);
  context.fillStyle = isSelected ? '#3a3128' : '#231c17';
  context.fill();
  context.clip();
  context.globalAlpha = sound.heard ? 1 : 0.35;
  const middle = top + height / 2;
  // What is faint is still to be seen beside what is loud.
  const yOf = scalePow([-1, 1], [middle + height / 2 - 2, middle - height / 2 + 2])
    .exponent(0.6)
    .clamp(true);
  if (recording?.state === 'there') {
    const columns: { x: number; low: number; high: number }[] = [];
    for (let x = Math.max(0, Math.floor(left)); x <= Math.min(width, right); x++) {
      const [second, next] = [x, x + 1].map((each) => secondOn(sound, rate, xOf.invert(each))) as [number, number];
      const loud = Math.min(LOUDEST, loudnessAt(sound, second));
      const [low, high] = peakBetween(recording.levels, second * recording.rate, next * recording.rate);
      columns.push({ x, low: low * loud, high: high * loud });
    }
    const shape = area<(typeof columns)[number]>()
      .x(({ x }) => x)
      .y0(({ low }) => yOf(low) + 0.5)
      .y1(({ high }) => yOf(high) - 0.5)
      .context(context);
    context.beginPath();
    shape(columns);
    context.fillStyle = '#a99273';
    context.fill();
    context.fillStyle = '#ffc25c';
    for (const hit of hitsOf(sound, rate, { [sound.asset]: recording })) {
      context.fillRect(xOf(hit) - 0.5, top, 1, height);
      context.beginPath();
      context.arc(xOf(hit), top + 4, 2.5, 0, 2 * Math.PI);
      context.fill();
    }
  }
  context.restore();
  if (!isSelected) return;
  context.beginPath();
  context.roundRect(left + 0.75, top + 0.75, Math.max(2, right - left - 1.5), height - 1.5, 6);
  context.strokeStyle = '#ffc25c';
  context.lineWidth = 1.5;
  context.stroke();
}
