/** Surfaces of the picture's size that a stroke grows on, made when one is first asked for and kept for the next stroke. */
import type { Surface } from '@tallow/core/render';
import { makeSurface } from '../workers/surfaces.ts';

export class StrokeSurfaces {
  private readonly made = new Map<string, Surface>();

  constructor(
    readonly width: number,
    readonly height: number,
  ) {}

  /** @param which the stroke as it looks now, or only what of it is finished. @param deep of half floats a channel. */
  of(which: 'whole' | 'finished', deep: boolean): Surface {
    const key = `${which}${deep}`;
    const surface = this.made.get(key) ?? makeSurface(this.width, this.height, deep);
    this.made.set(key, surface);
    return surface;
  }
}
