/**
 * What is cut by the active layer while the pen is down, and what cuts that layer: on surfaces that are made when
 * something is cut for the first time.
 */
import { intersection, isEmpty, type Box } from '@tallow/core/geometry';
import { wipe, type Surface } from '@tallow/core/render';
import { makeSurface } from '../workers/surfaces.ts';

type Drawable = CanvasImageSource;

/** What grows under the pen, as far as it can be laid. */
interface Growing {
  layOn(target: Surface, box: Box): void;
}

const pictureOf = ({ picture }: Surface): Drawable => picture as OffscreenCanvas;

export class Clipping {
  private readonly made = new Map<'layer' | 'clipped' | 'base' | 'grown', Surface>();
  private hasBase = false;

  constructor(private readonly size: readonly [number, number]) {}

  private on(which: 'layer' | 'clipped' | 'base' | 'grown'): Surface {
    const surface = this.made.get(which) ?? makeSurface(...this.size);
    this.made.set(which, surface);
    return surface;
  }

  /** Takes what the active layer cuts others by; null where that is the layer as it is shown. */
  takeBase(base: ImageBitmap | null): void {
    this.hasBase = base !== null;
    if (!base) return;
    const surface = this.on('base');
    wipe(surface);
    surface.context.drawImage(base, 0, 0);
  }

  /** What the active layer cuts others by apart from how it is shown, or null. */
  get base(): Surface | null {
    return this.hasBase ? this.on('base') : null;
  }

  /** The same with the stroke under the pen, inside a box. */
  baseWith(live: Growing, box: Box): Surface | null {
    const { base } = this;
    if (!base) return null;
    const grown = this.on('grown');
    const [x, y, width, height] = [box.left, box.top, box.right - box.left, box.bottom - box.top];
    grown.context.setTransform(1, 0, 0, 1, 0, 0);
    grown.context.clearRect(x, y, width, height);
    grown.context.drawImage(base.picture, x, y, width, height, x, y, width, height);
    live.layOn(grown, box);
    return grown;
  }

  /** The stroke under the pen becomes part of it. */
  settle(live: Growing, box: Box): void {
    if (this.base && !isEmpty(box)) live.layOn(this.base, box);
  }

  /** The pen begins a drawing of its own. */
  wipe(): void {
    if (this.base) wipe(this.base);
  }

  /** What of the active layer is seen: all of it, or what lies where a mask is. @param box the part that is seen. */
  masked(layer: Surface, mask: ImageBitmap | null, box: Box): Drawable {
    return mask ? this.cut('layer', pictureOf(layer), mask, box) : pictureOf(layer);
  }

  /** What of a picture lies where the active layer's base is. @param box the part that is seen. */
  cutBy(picture: ImageBitmap, base: Surface, box: Box): Drawable {
    return this.cut('clipped', picture, pictureOf(base), box);
  }

  private cut(on: 'layer' | 'clipped', picture: Drawable, by: Drawable, box: Box): Drawable {
    const surface = this.on(on);
    const part = intersection(box, { left: 0, top: 0, right: this.size[0], bottom: this.size[1] });
    const [x, y, width, height] = [part.left, part.top, part.right - part.left, part.bottom - part.top];
    const context = surface.context as unknown as OffscreenCanvasRenderingContext2D;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.save();
    context.beginPath();
    context.rect(x, y, width, height);
    context.clip();
    context.clearRect(x, y, width, height);
    context.drawImage(picture, x, y, width, height, x, y, width, height);
    context.globalCompositeOperation = 'destination-in';
    context.drawImage(by, x, y, width, height, x, y, width, height);
    context.restore();
    return pictureOf(surface);
  }
}
