/**
 * Shows the picture: three sheets from the painter with the stroke under the pen laid between them.
 * New sheets are shown and the stroke they contain is cleared in one task, so no frame shows it twice or not at all.
 */
import { EMPTY_BOX, intersection, isEmpty, union, type Box, type Matrix } from '@tallow/core/geometry';
import { invert, multiply } from '@tallow/core/geometry';
import { lay, wipe, type Surface } from '@tallow/core/render';
import type { Painted } from '../workers/painter.ts';
import { makeSurface } from '../workers/surfaces.ts';
import { LiveStroke, type StrokeSetup } from './live-stroke.ts';

export class Compositor {
  private readonly context: CanvasRenderingContext2D;
  private painted: (Painted & { view: Matrix }) | null = null;
  private activeOpacity = 1;
  private active: Surface;
  private mixed: Surface;
  private whole: Surface;
  private fixed: Surface;
  private live: LiveStroke | null = null;
  private liveBox: Box = EMPTY_BOX;

  constructor(readonly canvas: HTMLCanvasElement) {
    const context = canvas.getContext('2d', { willReadFrequently: true });
    if (!context) throw new Error('This browser gives no 2D canvas');
    this.context = context;
    [this.active, this.mixed, this.whole, this.fixed] = this.surfaces();
  }

  private surfaces(): [Surface, Surface, Surface, Surface] {
    const make = () => makeSurface(Math.max(1, this.canvas.width), Math.max(1, this.canvas.height));
    return [make(), make(), make(), make()];
  }

  /** Follows a change of the canvas's size, device pixels. */
  resize(width: number, height: number): void {
    if (this.canvas.width === width && this.canvas.height === height) return;
    this.canvas.width = width;
    this.canvas.height = height;
    [this.active, this.mixed, this.whole, this.fixed] = this.surfaces();
    if (this.painted) this.copyActive(this.painted);
  }

  /** Takes new sheets and shows them at once. @param opacity of the active layer. */
  take(painted: Painted, view: Matrix, opacity: number): void {
    if (this.painted)
      for (const bitmap of [this.painted.below, this.painted.active, this.painted.above]) bitmap.close();
    this.painted = { ...painted, view };
    this.activeOpacity = opacity;
    this.copyActive(painted);
    this.showAll();
  }

  private copyActive(painted: Painted): void {
    wipe(this.active);
    this.active.context.drawImage(painted.active, 0, 0);
  }

  private get bounds(): Box {
    return { left: 0, top: 0, right: this.canvas.width, bottom: this.canvas.height };
  }

  /** Shows what is there, all of it. */
  showAll(): void {
    this.show(this.bounds);
  }

  /** Shows the sheets that are there as they would lie in another view, until the painter has drawn them for it. */
  showAs(view: Matrix): void {
    if (!this.painted) return;
    const { context, canvas } = this;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, canvas.width, canvas.height);
    context.setTransform(...multiply(view, invert(this.painted.view)));
    context.drawImage(this.painted.below, 0, 0);
    context.globalAlpha = this.activeOpacity;
    context.drawImage(this.active.picture as OffscreenCanvas, 0, 0);
    context.globalAlpha = 1;
    context.drawImage(this.painted.above, 0, 0);
    context.setTransform(1, 0, 0, 1, 0, 0);
  }

  /** Shows a finished frame of playing. @param opaque whether it covers everything, so that nothing need be cleared first. */
  showFrame(frame: ImageBitmap, opaque: boolean): void {
    this.context.setTransform(1, 0, 0, 1, 0, 0);
    if (!opaque) this.context.clearRect(0, 0, this.canvas.width, this.canvas.height);
    this.context.drawImage(frame, 0, 0);
  }

  private show(area: Box): void {
    const box = intersection(area, this.bounds);
    if (isEmpty(box) || !this.painted) return;
    const [x, y, width, height] = [box.left, box.top, box.right - box.left, box.bottom - box.top];
    const { context } = this;
    let middle = this.active;
    if (this.live) {
      middle = this.mixed;
      middle.context.setTransform(1, 0, 0, 1, 0, 0);
      middle.context.clearRect(x, y, width, height);
      middle.context.drawImage(this.active.picture, x, y, width, height, x, y, width, height);
      lay(middle.context, this.live.whole, box, this.live.setup.laying);
    }
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(x, y, width, height);
    context.drawImage(this.painted.below, x, y, width, height, x, y, width, height);
    context.globalAlpha = this.activeOpacity;
    context.drawImage(middle.picture as OffscreenCanvas, x, y, width, height, x, y, width, height);
    context.globalAlpha = 1;
    context.drawImage(this.painted.above, x, y, width, height, x, y, width, height);
  }

  /** Begins a stroke under the pen. */
  begin(setup: StrokeSetup): LiveStroke {
    this.live = new LiveStroke(setup, this.whole, this.fixed);
    this.liveBox = EMPTY_BOX;
    return this.live;
  }

  /** Shows what the pen added since the last call. */
  advance(): void {
    if (!this.live) return;
    const dirty = this.live.draw();
    this.liveBox = union(this.liveBox, dirty);
    this.show(dirty);
  }

  /** Ends the stroke: what it drew becomes part of the active sheet, pixel for pixel as it was shown. */
  settle(): void {
    if (!this.live) return;
    const box = intersection(this.liveBox, this.bounds);
    if (!isEmpty(box)) lay(this.active.context, this.live.whole, box, this.live.setup.laying);
    this.live = null;
    this.showAll();
  }

  /** Takes the stroke under the pen away again. */
  drop(): void {
    this.live = null;
    this.showAll();
  }
}
