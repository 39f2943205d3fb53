/**
 * Shows the picture: bitmaps from the painter with the stroke under the pen laid between them.
 * New bitmaps are shown and the stroke they contain is cleared in one task, so no frame shows it twice or not at all.
 */
import type { Blend } from '@tallow/core/document';
import {
  EMPTY_BOX,
  intersection,
  invert,
  isEmpty,
  multiply,
  union,
  type Box,
  type Matrix,
} from '@tallow/core/geometry';
import { operationOf, Scratch, wipe, type Surface } from '@tallow/core/render';
import { bitmapsOf, type Laid, type DeskPicture } from '../workers/paint.ts';
import { makeSurface } from '../workers/surfaces.ts';
import { isPlain } from '@tallow/core/brush';
import { Clipping } from './clipping.ts';
import { LiveFigure } from './live-figure.ts';
import { LiveShape } from './live-shape.ts';
import { LiveStroke } from './live-stroke.ts';
import type { StrokeSetup } from './stroke-setup.ts';
import { StrokeSurfaces } from './stroke-surfaces.ts';

/** What grows under the pen. */
export type Live = LiveStroke | LiveFigure | LiveShape;

/** How the active layer lies in the picture. */
interface ActiveLook {
  readonly opacity: number;
  readonly blend: Blend;
}

type Canvas2D = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;

/** Lays a picture, or with a box only that part of it, where it lies in the context's transform. */
function put(
  context: Canvas2D,
  picture: CanvasImageSource,
  box: Box | null,
  opacity = 1,
  blend: Blend = 'normal',
): void {
  context.globalAlpha = opacity;
  context.globalCompositeOperation = operationOf(blend) as GlobalCompositeOperation;
  if (box) {
    const [x, y, width, height] = [box.left, box.top, box.right - box.left, box.bottom - box.top];
    context.drawImage(picture, x, y, width, height, x, y, width, height);
  } else {
    context.drawImage(picture, 0, 0);
  }
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
}

/** Gives up the bitmaps of a painted picture. */
export function closePainted(painted: DeskPicture): void {
  for (const bitmap of bitmapsOf(painted)) bitmap.close();
}

export class Compositor {
  private readonly context: CanvasRenderingContext2D;
  private painted: (DeskPicture & { view: Matrix }) | null = null;
  /** The finished picture that is shown in place of what is drawn on. */
  private still: { readonly frame: ImageBitmap; readonly view: Matrix } | null = null;
  private look: ActiveLook = { opacity: 1, blend: 'normal' };
  private active: Surface;
  private mixed: Surface;
  private growing: StrokeSurfaces;
  private readonly scratch = new Scratch(makeSurface);
  private grouped: Surface;
  private clipping: Clipping;
  private underPen: Live | null = null;
  private liveBox: Box = EMPTY_BOX;
  private floating: { readonly rest: ImageBitmap; readonly apart: ImageBitmap; readonly whole: boolean } | null = null;

  /** @param onPen told when a stroke begins or ends under the pen. */
  constructor(
    readonly canvas: HTMLCanvasElement,
    private readonly onPen: () => void,
  ) {
    const context = canvas.getContext('2d', { willReadFrequently: true });
    if (!context) throw new Error('This browser gives no 2D canvas');
    this.context = context;
    [this.active, this.mixed, this.grouped] = this.surfaces();
    this.clipping = new Clipping(this.size);
    this.growing = new StrokeSurfaces(...this.size);
  }

  private get size(): [number, number] {
    return [Math.max(1, this.canvas.width), Math.max(1, this.canvas.height)];
  }

  private surfaces(): [Surface, Surface, Surface] {
    const make = () => makeSurface(...this.size);
    return [make(), make(), make()];
  }

  /** What grows under the pen now, if anything. */
  get live(): Live | null {
    return this.underPen;
  }

  /** Follows a change of the canvas's size, device pixels. What it shows stays, stretched: without it the picture would blink. */
  resize(width: number, height: number): void {
    if (this.canvas.width === width && this.canvas.height === height) return;
    const before = new OffscreenCanvas(...this.size);
    before.getContext('2d')?.drawImage(this.canvas, 0, 0);
    this.canvas.width = width;
    this.canvas.height = height;
    this.context.drawImage(before, 0, 0, width, height);
    [this.active, this.mixed, this.grouped] = this.surfaces();
    this.clipping = new Clipping(this.size);
    this.growing = new StrokeSurfaces(...this.size);
    if (this.painted) this.copyActive(this.painted);
  }

  /** Takes new bitmaps and shows them at once. */
  take(painted: DeskPicture, view: Matrix, look: ActiveLook): void {
    if (this.painted) closePainted(this.painted);
    this.painted = { ...painted, view };
    this.dropStill();
    this.look = look;
    this.copyActive(painted);
    if (this.floating) this.dropFloating();
    else this.showAll();
  }

  private copyActive(painted: DeskPicture): void {
    wipe(this.active);
    this.active.context.drawImage(painted.active, 0, 0);
    this.clipping.takeBase(painted.base);
  }

  private get bounds(): Box {
    return { left: 0, top: 0, right: this.canvas.width, bottom: this.canvas.height };
  }

  /** Shows what is there, all of it. */
  showAll(): void {
    this.show(this.bounds);
  }

  /** Shows what is there as it would lie in another view, until the painter has drawn it for that. */
  showAs(view: Matrix): void {
    const { context, canvas, still, painted } = this;
    const shown = still ?? painted;
    if (!shown) return;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, canvas.width, canvas.height);
    context.setTransform(...multiply(view, invert(shown.view)));
    if (still) context.drawImage(still.frame, 0, 0);
    else if (painted) this.layAll(painted, this.active, null, this.clipping.base ?? this.active);
    context.setTransform(1, 0, 0, 1, 0, 0);
  }

  /** Shows a finished picture of a view, and keeps it for when that changes. */
  showStill(frame: ImageBitmap, opaque: boolean, view: Matrix): void {
    this.showFrame(frame, opaque);
    this.dropStill();
    this.still = { frame, view };
  }

  private dropStill(): void {
    this.still?.frame.close();
    this.still = null;
  }

  /** Shows a finished frame of playing. @param opaque whether it covers everything, so that nothing need be cleared first. */
  showFrame(frame: ImageBitmap, opaque: boolean): void {
    this.context.setTransform(1, 0, 0, 1, 0, 0);
    if (!opaque) this.context.clearRect(0, 0, this.canvas.width, this.canvas.height);
    // A frame at half size is seen as large as the picture.
    this.context.drawImage(frame, 0, 0, this.canvas.width, this.canvas.height);
  }

  /** Shows a picture in three parts, the middle one carried about. @param matrix device pixels to device pixels. */
  showCarried(below: ImageBitmap, apart: ImageBitmap, above: ImageBitmap, matrix: Matrix): void {
    this.showFrame(below, false);
    this.context.setTransform(...matrix);
    this.context.drawImage(apart, 0, 0);
    this.context.setTransform(1, 0, 0, 1, 0, 0);
    this.context.drawImage(above, 0, 0);
  }

  /**
   * Lays everything, the active layer as `middle` has it.
   * @param box the part that is seen, null for all. @param base what clips to that layer is cut by.
   */
  private layAll(painted: DeskPicture, middle: Surface, box: Box | null, base = middle): void {
    const { context, look } = this;
    const layEach = (on: Canvas2D, laid: readonly Laid[]) => {
      for (const { bitmap, opacity, blend } of laid) put(on, bitmap, box, opacity, blend);
    };
    const { folder } = painted;
    const part = box ?? this.bounds;
    const picture = this.clipping.masked(middle, painted.mask, part);
    /** The active layer with its light, and what clips to it. */
    const layOwn = (on: Canvas2D) => {
      put(on, picture, box, look.opacity, look.blend);
      layEach(on, painted.lights);
      for (const { bitmap, opacity, blend, isCut } of painted.clipped)
        put(on, isCut ? this.clipping.cutBy(bitmap, base, part) : bitmap, box, opacity, blend);
    };
    put(context, painted.below, box);
    if (folder) {
      const on = this.grouped.context as unknown as OffscreenCanvasRenderingContext2D;
      on.setTransform(1, 0, 0, 1, 0, 0);
      on.clearRect(part.left, part.top, part.right - part.left, part.bottom - part.top);
      put(on, folder.below, box);
      layOwn(on);
      layEach(on, folder.above);
      put(context, this.grouped.picture as OffscreenCanvas, box, folder.opacity);
    } else {
      layOwn(context);
    }
    layEach(context, painted.above);
  }

  private show(area: Box): void {
    const box = intersection(area, this.bounds);
    if (isEmpty(box) || !this.painted) return;
    // Canvases round half-opaque pictures by one level differently when they lay all of one than when they lay a
    // part; a stroke is shown in parts, so all of the picture is shown in parts too.
    const { right, bottom } = this.bounds;
    if (box.right - box.left === right && box.bottom - box.top === bottom && bottom > 1) {
      this.show({ ...box, bottom: bottom >> 1 });
      this.show({ ...box, top: bottom >> 1 });
      return;
    }
    const [x, y, width, height] = [box.left, box.top, box.right - box.left, box.bottom - box.top];
    let middle = this.active;
    const base = this.underPen ? this.clipping.baseWith(this.underPen, box) : this.clipping.base;
    if (this.underPen instanceof LiveStroke && this.underPen.straight) middle = this.underPen.whole;
    else if (this.underPen) {
      middle = this.mixed;
      middle.context.setTransform(1, 0, 0, 1, 0, 0);
      middle.context.clearRect(x, y, width, height);
      middle.context.drawImage(this.active.picture, x, y, width, height, x, y, width, height);
      this.underPen.layOn(middle, box);
    }
    this.context.setTransform(1, 0, 0, 1, 0, 0);
    this.context.clearRect(x, y, width, height);
    this.layAll(this.painted, middle, box, base ?? middle);
  }

  /**
   * Shows some marks apart: `rest` without them, `apart` them alone.
   * @param whole whether they are of all of the picture, not of the active bitmap.
   */
  float(rest: ImageBitmap, apart: ImageBitmap, whole = false): void {
    this.dropFloating();
    this.floating = { rest, apart, whole };
  }

  /** Shows what floats moved. @param matrix device pixels to device pixels. */
  moveFloating(matrix: Matrix): void {
    if (!this.floating || !this.painted) return;
    const { context } = this.mixed;
    wipe(this.mixed);
    context.drawImage(this.floating.rest, 0, 0);
    context.setTransform(...matrix);
    context.drawImage(this.floating.apart, 0, 0);
    this.context.setTransform(1, 0, 0, 1, 0, 0);
    this.context.clearRect(0, 0, this.canvas.width, this.canvas.height);
    if (this.floating.whole) put(this.context, this.mixed.picture as OffscreenCanvas, null);
    else this.layAll(this.painted, this.mixed, null);
  }

  /** Gives up what floated; the active bitmap is shown as it is. */
  dropFloating(): void {
    if (!this.floating) return;
    this.floating.rest.close();
    this.floating.apart.close();
    this.floating = null;
    this.showAll();
  }

  /** Shows the active bitmap as it would be. */
  showReshaped(active: ImageBitmap): void {
    if (this.painted) {
      wipe(this.mixed);
      this.mixed.context.drawImage(active, 0, 0);
      this.context.setTransform(1, 0, 0, 1, 0, 0);
      this.context.clearRect(0, 0, this.canvas.width, this.canvas.height);
      this.layAll(this.painted, this.mixed, null);
    }
    active.close();
  }

  /** Empties the active bitmap: the pen begins a drawing of its own. */
  beginAfresh(): void {
    wipe(this.active);
    this.clipping.wipe();
    this.showAll();
  }

  /** Begins a stroke under the pen. */
  begin(setup: StrokeSetup): Live {
    this.underPen = setup.shape
      ? new LiveShape(setup, setup.shape, this.scratch)
      : isPlain(setup.making)
        ? new LiveStroke(setup, this.active, this.growing, this.clipping.base !== null)
        : new LiveFigure(setup, this.scratch);
    this.liveBox = EMPTY_BOX;
    this.onPen();
    return this.underPen;
  }

  /** Shows what the pen added since the last call. */
  advance(): void {
    if (!this.underPen) return;
    const dirty = this.underPen.draw();
    this.liveBox = union(this.liveBox, dirty);
    this.show(dirty);
  }

  /** Ends the stroke: what it drew becomes part of the active bitmap, pixel for pixel as it was shown. */
  settle(): void {
    if (!this.underPen) return;
    const box = intersection(this.liveBox, this.bounds);
    if (!isEmpty(box)) this.underPen.layOn(this.active, box);
    this.clipping.settle(this.underPen, box);
    this.underPen = null;
    this.onPen();
    this.showAll();
  }

  /** Takes the stroke under the pen away again. */
  drop(): void {
    this.underPen = null;
    this.onPen();
    this.showAll();
  }
}
