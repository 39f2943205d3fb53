/** Marks that are moved, apart from the rest of the picture. */
import type { Drawing } from '@tallow/core/document';
import { multiply } from '@tallow/core/geometry';
import {
  drawBackground,
  drawDrawing,
  drawPlates,
  layDrawList,
  paintsOf,
  drawListOf,
  type DrawItem,
  type Surface,
} from '@tallow/core/render';
import type { Board } from './board.ts';
import type { FloatRequest } from './paint.ts';
import { makeSurface } from './surfaces.ts';

/** The picture without some marks, and those alone: of one layer's drawing, or of the frame where several layers have some. */
export function floatSelection(board: Board, request: FloatRequest): { rest: Surface; apart: Surface } {
  const { width, height, view, shotFrame, layerId, place, others, markIds, options, backdrop } = request;
  const { doc, rasters, assets, rendering } = board;
  const taken = new Set(markIds);
  const part = (drawing: Drawing, wanted: boolean): Drawing => ({
    ...drawing,
    order: drawing.order.filter((id) => taken.has(id) === wanted),
  });
  const [rest, apart] = [makeSurface(width, height), makeSurface(width, height)];
  if (others.length === 0) {
    const item = drawListOf(doc, shotFrame, { guides: true, alone: layerId, place, flat: place })[0];
    if (!item) return { rest, apart };
    const matrix = multiply(view, item.matrix);
    drawDrawing(rest, rasters.scratch, part(item.drawing, false), paintsOf(doc, item), matrix);
    drawDrawing(apart, rasters.scratch, part(item.drawing, true), paintsOf(doc, item), matrix);
    return { rest, apart };
  }
  const layers = new Set([layerId, ...others]);
  const items = drawListOf(doc, shotFrame, options).map((item): DrawItem => ({ ...item, wholes: [] }));
  const has = ({ layerId: id, place: key, drawing }: DrawItem) =>
    key === place && layers.has(id) && drawing.order.some((mark) => taken.has(mark));
  board.pool.during(() => {
    drawBackground(rest, doc, view, backdrop);
    drawPlates(rest, doc, shotFrame, view, { ...rendering, assets: assets.picture }, options, true);
    for (const item of items) {
      if (has(item)) layDrawList(rest, [{ ...item, drawing: part(item.drawing, false) }], view, board.passing);
      else layDrawList(rest, [item], view, rendering);
    }
    const moving = items.filter(has).map((item): DrawItem => ({ ...item, drawing: part(item.drawing, true) }));
    layDrawList(apart, moving, view, board.passing);
  });
  return { rest, apart };
}
