/** A layer's drawing while some of its marks are reshaped: what lies under them stays, they and what lies on them are drawn anew. */
import { find, type Drawing, type ShotDocument } from '@tallow/core/document';
import { multiply } from '@tallow/core/geometry';
import { drawDrawing, drawMark, paintsOf, drawListOf, wipe, type Surface } from '@tallow/core/render';
import type { Board } from './board.ts';
import type { ReshapeRequest } from './paint.ts';
import { makeSurface } from './surfaces.ts';

interface Under {
  readonly surface: Surface;
  readonly drawing: Drawing;
  readonly count: number;
  readonly place: string;
}

const withDrawing = (doc: ShotDocument, drawing: Drawing): ShotDocument => ({
  ...doc,
  entities: { ...doc.entities, [drawing.id]: drawing },
});

export class Reshaped {
  private under: Under | null = null;

  /** Lets go of what was kept for a pull. */
  forget(): void {
    this.under = null;
  }

  /** Draws the drawing of a layer, emptied surface and all, with some of its marks as they would be. */
  draw({ doc, rasters }: Board, request: ReshapeRequest): Surface {
    const { width, height, view, shotFrame, layerId, place: use, drawingId, marks } = request;
    const target = makeSurface(width, height);
    const base = find(doc, 'drawing', drawingId);
    if (!base) return target;
    const changed: Drawing = { ...base, marks: { ...base.marks, ...Object.fromEntries(marks.map((m) => [m.id, m])) } };
    const asked = { guides: true, alone: layerId, place: use, flat: use };
    let item = drawListOf(doc, shotFrame, asked)[0];
    // A look that moves lines moves those that are pulled too.
    const isMoved = item !== undefined && item.drawing !== base;
    if (isMoved) item = drawListOf(withDrawing(doc, changed), shotFrame, asked)[0];
    if (!item) return target;
    const drawing = isMoved ? item.drawing : changed;
    const paintOf = paintsOf(doc, item);
    const matrix = multiply(view, item.matrix);
    const taken = new Set(marks.map(({ id }) => id));
    const first = drawing.order.findIndex((id) => taken.has(id));
    const count = first === -1 ? drawing.order.length : first;
    const place = `${width}x${height}|${matrix.join()}`;
    const { under } = this;
    const isKnown = under?.drawing === base && under.count === count && under.place === place;
    const surface = isKnown ? under.surface : makeSurface(width, height);
    if (!isKnown) {
      const part = { ...drawing, order: drawing.order.slice(0, count) };
      drawDrawing(surface, rasters.scratch, part, paintOf, matrix);
      this.under = { surface, drawing: base, count, place };
    }
    wipe(target);
    target.context.drawImage(surface.picture, 0, 0);
    for (const id of drawing.order.slice(count)) drawMark(target, rasters.scratch, drawing.marks[id]!, paintOf, matrix);
    return target;
  }
}
