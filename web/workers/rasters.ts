/** Rasters of drawings and of their ghosts, kept by everything they were made from, the longest unused given up first. */
import type { Drawing, Id, ShotDocument } from '@tallow/core/document';
import type { Matrix } from '@tallow/core/geometry';
import {
  ByteCache,
  drawDrawing,
  drawGhost,
  drawMark,
  paintsOf,
  type GhostLook,
  type Painted,
  Scratch,
  type Picture,
  type Surface,
} from '@tallow/core/render';
import { makeSurface, type BrowserSurface } from './surfaces.ts';

const BYTES = 320 * 1024 * 1024;

/** A size in device pixels, with the map from element space to them. */
export interface Sight {
  readonly width: number;
  readonly height: number;
  readonly matrix: Matrix;
}

/** A drawing and where it is seen. */
export type Seen = Painted & { readonly drawing: Drawing };

export class Rasters {
  private readonly kept = new ByteCache<{ surface: BrowserSurface; drawing: Drawing }>(BYTES);
  private readonly versions = new Map<Id, number>();
  /** Drawings whose latest version is the one before with marks added on top. */
  private readonly growing = new Set<Id>();
  readonly scratch = new Scratch(makeSurface);
  private ghostOn: Surface | null = null;
  private colours = '';

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
        if (e.kind === 'swatch') return [`${e.id}${e.colour}${JSON.stringify(e.gradient)}`];
        if (e.kind !== 'element') return [];
        return [JSON.stringify([e.anchor, e.tip, e.recolours.find(({ id }) => id === e.recolour)?.map])];
      })
      .join();
  }

  /** A surface of exactly that size for working a ghost out on, kept for the next of that size. */
  private ghostly(width: number, height: number): Surface {
    if (this.ghostOn?.width !== width || this.ghostOn.height !== height) this.ghostOn = makeSurface(width, height);
    return this.ghostOn;
  }

  /** Tells versions of a drawing apart, and of the palette. A drawing a waver has moved has its own drawing's version. */
  stamp(drawingId: Id): string {
    return `${drawingId}@${this.versions.get(drawingId.split('~')[0]!) ?? 0}|${this.colours}`;
  }

  private placeKey({ drawing, layerId, tint, matrix: own }: Seen, { width, height, matrix }: Sight): string {
    return `${drawing.id}|${layerId}|${tint}|${width}x${height}|${matrix.join()}|${own.join()}|${this.colours}`;
  }

  /** The picture of a drawing as it is seen on its layer. */
  drawing(doc: ShotDocument, seen: Seen, sight: Sight): Picture {
    const { drawing } = seen;
    const place = this.placeKey(seen, sight);
    const version = this.versions.get(drawing.id.split('~')[0]!) ?? 0;
    const key = `${place}|${version}`;
    const kept = this.kept.get(key);
    if (kept) return kept.surface.picture;
    const { width, height, matrix } = sight;
    const surface = makeSurface(width, height) as BrowserSurface;
    const { scratch } = this;
    const paintOf = paintsOf(doc, seen);
    const earlierKey = `${place}|${version - 1}`;
    const earlier = this.kept.get(earlierKey);
    if (earlier && this.growing.has(drawing.id)) {
      surface.context.drawImage(earlier.surface.picture, 0, 0);
      for (const id of drawing.order.slice(earlier.drawing.order.length))
        drawMark(surface, scratch, drawing.marks[id]!, paintOf, matrix);
    } else {
      drawDrawing(surface, scratch, drawing, paintOf, matrix);
    }
    this.kept.delete(earlierKey);
    this.kept.set(key, { surface, drawing }, width * height * 4);
    return surface.picture;
  }

  /** The marks of one piece of a drawing, not kept: its ghost is. */
  private piece(doc: ShotDocument, seen: Seen, { width, height, matrix }: Sight, piece: string): Picture {
    const { drawing } = seen;
    const surface = makeSurface(width, height);
    const own = drawing.order.filter((id) => {
      const mark = drawing.marks[id]!;
      return mark.kind !== 'rub' && mark.piece === piece;
    });
    drawDrawing(surface, this.scratch, { ...drawing, order: own }, paintsOf(doc, seen), matrix);
    return surface.picture;
  }

  /** The ghost of a drawing. @param piece only the marks of that piece. @param pixel device pixels per CSS pixel. */
  ghost(doc: ShotDocument, seen: Seen, sight: Sight, look: GhostLook, pixel: number, piece: string | null): Picture {
    const { drawing } = seen;
    const version = this.versions.get(drawing.id) ?? 0;
    const key = `ghost|${piece}|${Object.values(look).join()}|${this.placeKey(seen, sight)}|${version}`;
    const kept = this.kept.get(key);
    if (kept) return kept.surface.picture;
    const { width, height } = sight;
    const surface = makeSurface(width, height) as BrowserSurface;
    const picture = piece === null ? this.drawing(doc, seen, sight) : this.piece(doc, seen, sight, piece);
    drawGhost(surface, this.ghostly(width, height), picture, look, pixel);
    this.kept.set(key, { surface, drawing }, width * height * 4);
    return surface.picture;
  }
}
