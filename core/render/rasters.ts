/** Rasters of drawings and of their ghosts, kept by everything they were made from, the longest unused given up first. */
import { Scratch, type MakeSurface, type Surface, type SurfacePool } from '../canvas/index.ts';
import type { Drawing, Id, ShotDocument } from '../document/index.ts';
import { IDENTITY, isEmpty, multiply, translation } from '../geometry/index.ts';
import { ByteCache } from './cache.ts';
import { roomFor, roomOn, wholeSight, type Sight } from './room.ts';
import type { Placed } from './render-context.ts';
import { drawGhost, ghostReach, type GhostLook } from './ghost.ts';
import { drawDrawing, drawMark } from './marks.ts';
import { paintsOf, type PaintedOn } from './painted.ts';

/** A drawing and where it is seen. */
export type Seen = PaintedOn & { readonly drawing: Drawing };

interface Raster {
  readonly surface: Surface;
  readonly left: number;
  readonly top: number;
  readonly drawing: Drawing;
}

const placed = ({ surface, left, top }: Raster): Placed => ({ picture: surface.picture, left, top });

export class Rasters {
  private readonly kept: ByteCache<Raster>;
  private readonly versions = new Map<Id, number>();
  /** Drawings whose latest version is the one before with marks added on top. */
  private readonly growing = new Set<Id>();
  readonly scratch: Scratch;
  private colours = '';

  /** @param bytes kept at most. @param make surfaces for what is worked out on the way. @param between called before each mark with what has been drawn so far. */
  constructor(
    private readonly pool: SurfacePool,
    bytes: number,
    make: MakeSurface,
    private readonly between?: (on: Surface) => void,
  ) {
    this.scratch = new Scratch(make);
    this.kept = new ByteCache<Raster>(bytes, ({ surface }) => {
      pool.giveBack(surface);
    });
  }

  clear(): void {
    this.kept.clear();
  }

  /** Notes a new version of a drawing. @param grew whether it is the one before with marks added on top. */
  changed(id: Id, grew: boolean): void {
    this.versions.set(id, (this.versions.get(id) ?? 0) + 1);
    if (grew) this.growing.add(id);
    else this.growing.delete(id);
  }

  /** Follows the palette. */
  recoloured(doc: ShotDocument): void {
    this.colours = Object.values(doc.entities)
      .flatMap((e) => {
        if (e.kind === 'swatch') return [JSON.stringify([e.id, e.colour, e.gradient, e.role])];
        if (e.kind !== 'element') return [];
        return [JSON.stringify([e.anchor, e.tip, e.recolours.find(({ id }) => id === e.recolour)?.map])];
      })
      .join();
  }

  private versionOf(drawingId: Id): number {
    return this.versions.get(drawingId.split('~')[0]!) ?? 0;
  }

  /** Tells versions of a drawing apart, and of the palette. A drawing a waver has moved has its own drawing's version. */
  stamp(drawingId: Id): string {
    return `${drawingId}@${this.versionOf(drawingId)}|${this.colours}`;
  }

  private placeKey({ drawing, layerId, tint, recolour, matrix: own }: Seen, { width, height, matrix }: Sight): string {
    return `${drawing.id}|${layerId}|${tint}|${recolour}|${width}x${height}|${matrix.join()}|${own.join()}|${this.colours}`;
  }

  /** A surface for a drawing, as large as what of it is seen, or as the picture. */
  private blank(drawing: Drawing, sight: Sight, how: 'whole' | 'cut' | 'shared', reach = 1): Omit<Raster, 'drawing'> {
    const room = {
      whole: () => ({ left: 0, top: 0, right: sight.width, bottom: sight.height }),
      cut: () => roomOn(drawing, sight.matrix, sight, reach),
      shared: () => roomFor(drawing, sight.matrix),
    }[how]();
    const box = isEmpty(room) ? { left: 0, top: 0, right: 1, bottom: 1 } : room;
    const surface = this.pool.keep(this.pool.make(box.right - box.left, box.bottom - box.top));
    return { surface, left: box.left, top: box.top };
  }

  private keep(key: string, raster: Raster): Placed {
    const { width, height } = raster.surface;
    if (!this.kept.set(key, raster, width * height * 4)) this.pool.giveBack(raster.surface);
    return placed(raster);
  }

  /**
   * The picture of a drawing as it is seen on its layer.
   * @param whole of the picture's size, for what the pen draws on: moved by even a whole pixel, outlines would round here
   * and there by a level, and the settled stroke would not be quite the one that was drawn.
   */
  drawing(doc: ShotDocument, seen: Seen, sight: Sight, whole = false): Placed {
    const { drawing } = seen;
    if (whole) return this.drawn(doc, seen, sight, 'whole');
    if (isEmpty(roomOn(drawing, sight.matrix, sight)))
      return { picture: this.pool.make(1, 1).picture, left: 0, top: 0 };
    const same = wholeSight(drawing, sight);
    if (!same) return this.drawn(doc, seen, sight, 'cut');
    // Gradients across the picture hang on where it lies.
    const isPlaced = this.colours.includes('"run":"picture"');
    const own = isPlaced ? seen : { ...seen, matrix: IDENTITY };
    const { picture, left, top } = this.drawn(doc, own, same.sight, 'shared');
    return { picture, left: left + same.x, top: top + same.y };
  }

  private drawn(doc: ShotDocument, seen: Seen, sight: Sight, how: 'whole' | 'cut' | 'shared'): Placed {
    const { drawing } = seen;
    const whole = how === 'whole';
    const place = `${how}|${this.placeKey(seen, sight)}`;
    const version = this.versionOf(drawing.id);
    const key = `${place}|${version}`;
    const kept = this.kept.get(key);
    if (kept) return placed(kept);
    const blank = this.blank(drawing, sight, how);
    const { surface, left, top } = blank;
    const paintOf = paintsOf(doc, seen);
    const matrix = whole ? sight.matrix : multiply(translation(-left, -top), sight.matrix);
    const earlierKey = `${place}|${version - 1}`;
    const earlier = this.kept.get(earlierKey);
    if (earlier && this.growing.has(drawing.id)) {
      surface.context.drawImage(earlier.surface.picture, earlier.left - left, earlier.top - top);
      for (const id of drawing.order.slice(earlier.drawing.order.length))
        drawMark(surface, this.scratch, drawing.marks[id]!, paintOf, matrix);
    } else {
      drawDrawing(surface, this.scratch, drawing, paintOf, matrix, this.between);
    }
    this.kept.delete(earlierKey);
    return this.keep(key, { ...blank, drawing });
  }

  /** The ghost of a drawing. @param piece only the marks of that piece. @param pixel device pixels per CSS pixel. */
  ghost(doc: ShotDocument, seen: Seen, sight: Sight, look: GhostLook, pixel: number, piece: string | null): Placed {
    const version = this.versionOf(seen.drawing.id);
    const key = `ghost|${piece}|${Object.values(look).join()}|${this.placeKey(seen, sight)}|${version}`;
    const kept = this.kept.get(key);
    if (kept) return placed(kept);
    const drawing = piece === null ? seen.drawing : partOf(seen.drawing, piece);
    const blank = this.blank(drawing, sight, 'cut', ghostReach(pixel));
    const { surface, left, top } = blank;
    const { width, height } = surface;
    this.pool.during(() => {
      const plain = this.pool.make(width, height);
      const matrix = multiply(translation(-left, -top), sight.matrix);
      drawDrawing(plain, this.scratch, drawing, paintsOf(doc, seen), matrix, this.between);
      const picture = { picture: plain.picture, left: 0, top: 0 };
      drawGhost(surface, this.pool.make(width, height), picture, look, pixel, { left, top });
    });
    return this.keep(key, { ...blank, drawing });
  }
}

/** The marks of one piece of a drawing. */
function partOf(drawing: Drawing, piece: string): Drawing {
  const order = drawing.order.filter((id) => {
    const mark = drawing.marks[id]!;
    return mark.kind !== 'rub' && mark.piece === piece;
  });
  return { ...drawing, order, marks: Object.fromEntries(order.map((id) => [id, drawing.marks[id]!])) };
}
