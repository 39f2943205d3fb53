/**
 * Surfaces to work a stroke out on before it is laid, kept for the next stroke. What they hold is lost with it.
 * Laying a surface copies all of it the next time it is drawn on, so small strokes get small ones.
 */
import type { MakeSurface, Surface } from './surface.ts';

/** Sizes come in steps, so that strokes of nearly one size share a surface. */
const STEP = 128;
/** How many are kept. */
const KEPT = 6;

export class Scratch {
  private readonly kept = new Map<string, Surface>();

  /** @param make surfaces of exactly the size that is asked for. */
  constructor(readonly make: MakeSurface) {}

  /** A surface at least so large. @param deep of half floats a channel, for what builds up of faint layers. */
  of(width: number, height: number, deep = false): Surface {
    const [w, h] = [STEP * Math.ceil(width / STEP), STEP * Math.ceil(height / STEP)];
    const key = `${w}x${h}${deep ? ' deep' : ''}`;
    const surface = this.kept.get(key) ?? this.make(w, h, deep);
    this.kept.delete(key);
    this.kept.set(key, surface);
    if (this.kept.size > KEPT) this.kept.delete(this.kept.keys().next().value!);
    return surface;
  }
}
