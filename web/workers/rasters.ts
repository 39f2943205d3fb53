/** Rasters of drawings and of their ghosts, kept by everything they were made from, the longest unused given up first. */
import type { Drawing, Id, ShotDocument } from '@tallow/core/document';
import type { Matrix } from '@tallow/core/geometry';
import {
  ByteCache,
  drawDrawing,
  drawGhost,
  drawMark,
  coloursOf,
  paletteOf,
  type GhostLook,
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

export class Rasters {
  private readonly kept = new ByteCache<{ surface: BrowserSurface; drawing: Drawing }>(BYTES);
  private readonly versions = new Map<Id, number>();
  /** Drawings whose latest version is the one before with marks added on top. */
  private readonly growing = new Set<Id>();
  private scratch: Surface | null = null;
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
      .flatMap((e) => (e.kind === 'swatch' ? `${e.id}${e.colour}` : []))
      .join();
  }

  scratchOf(width: number, height: number): Surface {
    if (this.scratch?.width !== width || this.scratch.height !== height) this.scratch = makeSurface(width, height);
    return this.scratch;
  }

  private placeKey(drawing: Drawing, { width, height, matrix }: Sight): string {
    return `${drawing.id}|${width}x${height}|${matrix.join()}|${this.colours}`;
  }

  /** The picture of a drawing. */
  drawing(doc: ShotDocument, drawing: Drawing, sight: Sight, tint: Id | null = null): Picture {
    const place = `${tint}|${this.placeKey(drawing, sight)}`;
    const version = this.versions.get(drawing.id) ?? 0;
    const key = `${place}|${version}`;
    const kept = this.kept.get(key);
    if (kept) return kept.surface.picture;
    const { width, height, matrix } = sight;
    const surface = makeSurface(width, height) as BrowserSurface;
    const scratch = this.scratchOf(width, height);
    const colourOf = coloursOf(doc, { tint });
    const earlierKey = `${place}|${version - 1}`;
    const earlier = this.kept.get(earlierKey);
    if (earlier && this.growing.has(drawing.id)) {
      surface.context.drawImage(earlier.surface.picture, 0, 0);
      for (const id of drawing.order.slice(earlier.drawing.order.length))
        drawMark(surface, scratch, drawing.marks[id]!, colourOf, matrix);
    } else {
      drawDrawing(surface, scratch, drawing, colourOf, matrix);
    }
    this.kept.delete(earlierKey);
    this.kept.set(key, { surface, drawing }, width * height * 4);
    return surface.picture;
  }

  /** The marks of one piece of a drawing, not kept: its ghost is. */
  private piece(doc: ShotDocument, drawing: Drawing, { width, height, matrix }: Sight, piece: string): Picture {
    const surface = makeSurface(width, height);
    const own = drawing.order.filter((id) => {
      const mark = drawing.marks[id]!;
      return mark.kind !== 'rub' && mark.piece === piece;
    });
    drawDrawing(surface, this.scratchOf(width, height), { ...drawing, order: own }, paletteOf(doc), matrix);
    return surface.picture;
  }

  /** The ghost of a drawing. @param piece only the marks of that piece. @param pixel device pixels per CSS pixel. */
  ghost(
    doc: ShotDocument,
    drawing: Drawing,
    sight: Sight,
    look: GhostLook,
    pixel: number,
    piece: string | null,
  ): Picture {
    const version = this.versions.get(drawing.id) ?? 0;
    const key = `ghost|${piece}|${Object.values(look).join()}|${this.placeKey(drawing, sight)}|${version}`;
    const kept = this.kept.get(key);
    if (kept) return kept.surface.picture;
    const { width, height } = sight;
    const surface = makeSurface(width, height) as BrowserSurface;
    const picture = piece === null ? this.drawing(doc, drawing, sight) : this.piece(doc, drawing, sight, piece);
    drawGhost(surface, this.scratchOf(width, height), picture, look, pixel);
    this.kept.set(key, { surface, drawing }, width * height * 4);
    return surface.picture;
  }
}
