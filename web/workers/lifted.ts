/** Marks that are moved, apart from the rest of the picture. */
import type { Drawing } from '@tallow/core/document';
import { multiply } from '@tallow/core/geometry';
import {
  drawBackground,
  drawDrawing,
  drawPlates,
  laySheets,
  paintsOf,
  sheetsOf,
  type Sheet,
  type Surface,
} from '@tallow/core/render';
import type { Board } from './board.ts';
import type { LiftRequest } from './paint.ts';
import { makeSurface } from './surfaces.ts';

/** The picture without some marks, and those alone: of one layer's drawing, or of the frame where several layers have some. */
export function lifted(board: Board, request: LiftRequest): { rest: Surface; apart: Surface } {
  const { width, height, view, shotFrame, layerId, place, others, markIds, options, backdrop } = request;
  const { doc, rasters, assets, rendering } = board;
  const taken = new Set(markIds);
  const part = (drawing: Drawing, wanted: boolean): Drawing => ({
    ...drawing,
    order: drawing.order.filter((id) => taken.has(id) === wanted),
  });
  const [rest, apart] = [makeSurface(width, height), makeSurface(width, height)];
  if (others.length === 0) {
    const sheet = sheetsOf(doc, shotFrame, { guides: true, alone: layerId, place, flat: place })[0];
    if (!sheet) return { rest, apart };
    const matrix = multiply(view, sheet.matrix);
    drawDrawing(rest, rasters.scratch, part(sheet.drawing, false), paintsOf(doc, sheet), matrix);
    drawDrawing(apart, rasters.scratch, part(sheet.drawing, true), paintsOf(doc, sheet), matrix);
    return { rest, apart };
  }
  const layers = new Set([layerId, ...others]);
  const sheets = sheetsOf(doc, shotFrame, options).map((sheet): Sheet => ({ ...sheet, wholes: [] }));
  const has = ({ layerId: id, place: key, drawing }: Sheet) =>
    key === place && layers.has(id) && drawing.order.some((mark) => taken.has(mark));
  board.pool.during(() => {
    drawBackground(rest, doc, view, backdrop);
    drawPlates(rest, doc, shotFrame, view, { ...rendering, assets: assets.picture }, options, true);
    for (const sheet of sheets) {
      if (has(sheet)) laySheets(rest, [{ ...sheet, drawing: part(sheet.drawing, false) }], view, board.passing);
      else laySheets(rest, [sheet], view, rendering);
    }
    const moving = sheets.filter(has).map((sheet): Sheet => ({ ...sheet, drawing: part(sheet.drawing, true) }));
    laySheets(apart, moving, view, board.passing);
  });
  return { rest, apart };
}
