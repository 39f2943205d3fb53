/**
 * The painter: draws the picture away from the main thread and hands it over as bitmaps. It keeps
 * its own copy of the document and rasters of drawings, the longest unused given up first.
 */
import {
  find,
  valueAt,
  type Drawing,
  type Folder,
  type Id,
  type Layer,
  type ShotDocument,
} from '@tallow/core/document';
import { fitInto, IDENTITY, multiply, type Box, type Matrix } from '@tallow/core/geometry';
import {
  DIMMED,
  drawBackground,
  drawDrawing,
  drawFrame,
  drawPlates,
  inGroups,
  layPicture,
  layerOrder,
  laySheets,
  matrixOf,
  paintsOf,
  paintsOnLayer,
  sheetsOf,
  shownPicture,
  type Picture,
  type PictureOf,
  type Sheet,
  type SheetOptions,
  type Surface,
} from '@tallow/core/render';
import { elementLength, placedElements, placementFrame, roundOf, timedLayers } from '@tallow/core/timing';
import { expose, transfer } from 'comlink';
import type { Laid, MiniatureRequest, Painted, PaintRequest, Updated } from './paint.ts';
import { Assets } from './assets.ts';
import { Rasters } from './rasters.ts';
import { makeSurface } from './surfaces.ts';

let doc: ShotDocument = { shotId: '', entities: {} };
const rasters = new Rasters();
const assets = new Assets();

const picturesAt =
  (width: number, height: number): PictureOf =>
  (sheet, matrix) =>
    rasters.drawing(doc, sheet, { width, height, matrix });

const bitmapOf = (surface: Surface): ImageBitmap => (surface.picture as OffscreenCanvas).transferToImageBitmap();

/** Sheets as few pictures as their blends allow. @param onTop pictures laid over all of them. */
function laidApart(
  sheets: readonly Sheet[],
  size: readonly [number, number],
  view: Matrix,
  onTop: readonly Picture[] = [],
): Laid[] {
  const pictures = picturesAt(...size);
  const laid: Laid[] = [];
  let open: Surface | null = null;
  const close = () => {
    if (open) laid.push({ bitmap: bitmapOf(open), blend: 'normal', opacity: 1 });
    open = null;
  };
  for (const run of inGroups(sheets)) {
    for (const part of run[0]!.group ? [run] : run.map((sheet) => [sheet])) {
      const blend = part[0]!.group ? 'normal' : part[0]!.blend;
      if (blend === 'normal') {
        open ??= makeSurface(...size);
        laySheets(open, part, view, pictures, makeSurface);
        continue;
      }
      close();
      const apart = makeSurface(...size);
      layPicture(apart, shownPicture(part[0]!, view, pictures, makeSurface), 1, 'normal');
      laid.push({ bitmap: bitmapOf(apart), blend, opacity: part[0]!.opacity });
    }
  }
  if (onTop.length > 0) open ??= makeSurface(...size);
  for (const picture of onTop) layPicture(open!, picture, 1, 'normal');
  close();
  return laid;
}

/** The layer that shows a drawing, for its place in the picture. */
const layerShowing = (drawingId: Id): Layer | undefined =>
  Object.values(doc.entities).find((e): e is Layer => e.kind === 'layer' && Object.values(e.slots).includes(drawingId));

/** How strongly a folder shows on a frame of the shot. */
function folderOpacityAt(folder: Folder, shotFrame: number): number {
  const placed = placedElements(doc).find(({ element }) => element.id === folder.elementId);
  if (!placed) return 1;
  const turn = elementLength(doc, placed.element);
  const frame = placementFrame(placed.placement, placed.element, turn, shotFrame) ?? 0;
  return valueAt(folder.opacity, frame, roundOf(placed.element, turn));
}

const hasShapes = (drawing: Drawing): boolean => Object.values(drawing.marks).some((mark) => mark.kind === 'shape');

/** Every bitmap of a painted picture, for handing over and for closing. */
function bitmapsOf({ below, active, above, folder, mask }: Painted): ImageBitmap[] {
  return [
    below,
    active,
    ...(mask ? [mask] : []),
    ...above.map((laid) => laid.bitmap),
    ...(folder ? [folder.below, ...folder.above.map((laid) => laid.bitmap)] : []),
  ];
}

const painter = {
  /** Takes entities that changed. */
  update(changed: readonly Updated[]): void {
    const entities = { ...doc.entities };
    for (const { id, entity, grew } of changed) {
      if (entity) entities[id] = entity;
      else Reflect.deleteProperty(entities, id);
      if (entity?.kind === 'drawing') rasters.changed(id, grew);
      if (entity?.kind === 'shot') doc = { ...doc, shotId: id };
    }
    doc = { ...doc, entities };
    rasters.recoloured(doc);
  },

  /** Forgets the document before another one is opened. */
  clear(): void {
    doc = { shotId: '', entities: {} };
    rasters.clear();
  },

  /** Draws the picture for drawing on, of the given size. */
  async paint(request: PaintRequest): Promise<Painted> {
    await assets.ready(doc, request.shotFrame);
    const { width, height, view, shotFrame, activeLayerId, ghosts, pixel, options, backdrop } = request;
    const size = [width, height] as const;
    const pictures = picturesAt(width, height);
    const sheets = sheetsOf(doc, shotFrame, options);
    const order = layerOrder(doc);
    const rank = (id: Id) => order.indexOf(id);
    const at = activeLayerId ? rank(activeLayerId) : order.length;
    const folderOf = find(doc, 'folder', folderIdOf(activeLayerId));
    const folderOpacity = folderOf ? folderOpacityAt(folderOf, shotFrame) : 1;
    const faded = folderOpacity < 1 ? folderOf : undefined;
    const inside = (sheet: Sheet) => sheet.group !== null && sheet.group.id === faded?.id;
    const ungrouped = (sheet: Sheet): Sheet => (inside(sheet) ? { ...sheet, group: null } : sheet);
    const under = sheets.filter((s) => rank(s.layerId) < at);
    const over = sheets.filter((s) => rank(s.layerId) > at);
    const below = makeSurface(...size);
    drawBackground(below, doc, view, backdrop);
    drawPlates(below, doc, shotFrame, view, true, assets.picture, options.dimBut ? DIMMED : 1);
    laySheets(
      below,
      under.filter((s) => !inside(s)),
      view,
      pictures,
      makeSurface,
    );
    const active = makeSurface(...size);
    const own = sheets.find((s) => s.layerId === activeLayerId);
    const within = clipBase(shotFrame, activeLayerId, options);
    const mask = within ? makeSurface(...size) : null;
    if (within && mask) layPicture(mask, pictures(within, multiply(view, within.matrix)), 1, 'normal');
    if (own) layPicture(active, pictures(own, multiply(view, own.matrix)), 1, 'normal');
    let folder: Painted['folder'] = null;
    if (faded) {
      const bottom = makeSurface(...size);
      laySheets(bottom, under.filter(inside).map(ungrouped), view, pictures, makeSurface);
      folder = {
        below: bitmapOf(bottom),
        above: laidApart(over.filter(inside).map(ungrouped), size, view),
        opacity: folderOpacity,
      };
    }
    const onTop: Picture[] = [];
    for (const { drawingId, look, shift, piece, ...rest } of ghosts) {
      const drawing = find(doc, 'drawing', drawingId);
      const layerId = layerShowing(drawingId)?.id ?? '';
      const matrix = matrixOf(doc, layerId, shotFrame);
      if (!drawing || !matrix) continue;
      const seen = { drawing, layerId, matrix, tint: null };
      const style = hasShapes(drawing) ? look : 'line';
      const placed = multiply(view, matrix);
      const sight = { width, height, matrix: shift ? multiply(placed, shift) : placed };
      const picture = rasters.ghost(doc, seen, sight, { ...rest, style }, pixel, piece);
      // Filled drawings would hide what lies under them, so ghosts lie on top, unless there are only lines to see.
      if (style !== 'line' || over.length > 0) onTop.push(picture);
      else layPicture(below, picture, 1, 'normal');
    }
    const outside = over.filter((s) => !inside(s));
    const above = laidApart(outside, size, view, onTop);
    const painted: Painted = {
      below: bitmapOf(below),
      active: bitmapOf(active),
      above,
      folder,
      mask: mask && bitmapOf(mask),
    };
    return transfer(painted, bitmapsOf(painted));
  },

  /** Draws a layer's drawing in two: without some of its marks, and those alone. */
  lifted(
    width: number,
    height: number,
    view: Matrix,
    shotFrame: number,
    layerId: Id,
    markIds: readonly Id[],
  ): { rest: ImageBitmap; apart: ImageBitmap } {
    const sheet = sheetsOf(doc, shotFrame, { guides: true, alone: layerId })[0];
    const [rest, apart] = [makeSurface(width, height), makeSurface(width, height)];
    if (sheet) {
      const taken = new Set(markIds);
      const scratch = rasters.scratchOf(width, height);
      const matrix = multiply(view, sheet.matrix);
      const part = (wanted: boolean): Drawing => ({
        ...sheet.drawing,
        order: sheet.drawing.order.filter((id) => taken.has(id) === wanted),
      });
      drawDrawing(rest, scratch, part(false), paintsOf(doc, sheet), matrix);
      drawDrawing(apart, scratch, part(true), paintsOf(doc, sheet), matrix);
    }
    const pair = { rest: bitmapOf(rest), apart: bitmapOf(apart) };
    return transfer(pair, [pair.rest, pair.apart]);
  },

  /** Draws one whole frame for playing. @param under colour of everything that nothing covers, or null to leave it open. */
  async frame(
    width: number,
    height: number,
    view: Matrix,
    shotFrame: number,
    under: string | null,
    options: SheetOptions & { backdrop: string | null },
  ): Promise<ImageBitmap> {
    await assets.ready(doc, shotFrame);
    const surface = makeSurface(width, height);
    drawFrame(surface, doc, shotFrame, view, picturesAt(width, height), makeSurface, {
      ...options,
      background: true,
      assets: assets.picture,
    });
    if (under) fillUnder(surface, under);
    const bitmap = bitmapOf(surface);
    return transfer(bitmap, [bitmap]);
  },

  /** Draws what moves of an element as one dark shape on light paper. */
  silhouette(width: number, height: number, view: Matrix, shotFrame: number, elementId: Id): ImageBitmap {
    const surface = makeSurface(width, height);
    const moving = sheetsOf(doc, shotFrame, { guides: false, element: elementId }).filter(
      ({ layerId }) => find(doc, 'runlist', find(doc, 'layer', layerId)?.runListId)?.period !== 1,
    );
    laySheets(surface, moving, view, picturesAt(width, height), makeSurface);
    const { context } = surface;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalCompositeOperation = 'source-in';
    context.fillStyle = '#14110f';
    context.fillRect(0, 0, width, height);
    fillUnder(surface, '#cfcac2');
    const bitmap = bitmapOf(surface);
    return transfer(bitmap, [bitmap]);
  },

  /** How much of each cell of a square over `box` some drawings cover, 0 to 255 each, cells row by row. */
  coverage(drawingIds: readonly Id[], box: Box, cells: number): Uint8Array[] {
    const surface = makeSurface(cells, cells);
    const scratch = makeSurface(cells, cells);
    const matrix = fitInto(box, cells, cells);
    return drawingIds.map((id) => {
      const drawing = find(doc, 'drawing', id);
      const mask = new Uint8Array(cells * cells);
      if (!drawing) return mask;
      drawDrawing(surface, scratch, drawing, () => '#000000', matrix);
      const { data } = (surface.picture as OffscreenCanvas).getContext('2d')!.getImageData(0, 0, cells, cells);
      for (let i = 0; i < mask.length; i++) mask[i] = data[i * 4 + 3]!;
      return mask;
    });
  },

  /** Draws a small picture of some drawings. */
  miniature({ sheets, box, width, height }: MiniatureRequest): ImageBitmap {
    const matrix = fitInto(box, width, height);
    const surface = makeSurface(width, height);
    const [one, small] = pairOf(width, height);
    for (const { drawingId, opacity, shift } of sheets) {
      const drawing = find(doc, 'drawing', drawingId);
      if (!drawing) continue;
      drawDrawing(one, small, drawing, paintsOnLayer(doc, layerShowing(drawingId)?.id), shift ? multiply(matrix, shift) : matrix);
      layPicture(surface, one.picture, opacity, 'normal');
    }
    const bitmap = bitmapOf(surface);
    return transfer(bitmap, [bitmap]);
  },
};

let pair: [Surface, Surface] | null = null;
/** Two surfaces of a size for small pictures, kept for the next of that size. */
function pairOf(width: number, height: number): [Surface, Surface] {
  if (pair?.[0].width !== width || pair[0].height !== height)
    pair = [makeSurface(width, height), makeSurface(width, height)];
  return pair;
}

/** What the active layer shows within only: the sheet it clips to, or an empty one where that shows nothing. */
function clipBase(shotFrame: number, layerId: Id | null, options: SheetOptions): Sheet | null {
  const layer = find(doc, 'layer', layerId);
  if (!layer?.clip || options.alone) return null;
  // Seen as if something were drawn on it: a layer that clips and holds nothing yet clips what is drawn on it now.
  const element = find(doc, 'element', layer.elementId);
  const timed = element ? timedLayers(doc, element) : [];
  const at = timed.findIndex((each) => each.layer.id === layerId);
  const base = timed.slice(at + 1).find((each) => !each.layer.clip || each.folder?.id !== timed[at]!.folder?.id);
  const matrix = matrixOf(doc, layerId, shotFrame) ?? IDENTITY;
  const nothing: Sheet = {
    layerId: layer.id,
    drawing: { kind: 'drawing', id: '', marks: {}, order: [] },
    opacity: 1,
    blend: 'normal',
    group: null,
    within: null,
    tint: null,
    matrix,
  };
  if (!base || base.folder?.id !== timed[at]!.folder?.id) return nothing;
  return sheetsOf(doc, shotFrame, options).find((s) => s.layerId === base.layer.id) ?? nothing;
}

const folderIdOf = (layerId: Id | null): Id | undefined =>
  Object.values(doc.entities).find((e) => e.kind === 'folder' && layerId !== null && e.layers.includes(layerId))?.id;

function fillUnder({ context, width, height }: Surface, colour: string): void {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalCompositeOperation = 'destination-over';
  context.fillStyle = colour;
  context.fillRect(0, 0, width, height);
  context.globalCompositeOperation = 'source-over';
}

export type Painter = typeof painter;
expose(painter);
