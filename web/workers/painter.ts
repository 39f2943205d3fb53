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
  entitiesOf,
} from '@tallow/core/document';
import type { Finding } from '@tallow/core/checks';
import { fitInto, multiply, type Box, type Matrix, type Point } from '@tallow/core/geometry';
import {
  ByteCache,
  DIMMED,
  drawBackground,
  drawDrawing,
  drawFrame,
  drawPlates,
  layPart,
  layPicture,
  layerOrder,
  laySheets,
  matrixOf,
  paintsOf,
  paintsOnLayer,
  sheetsOf,
  shownParts,
  type Means,
  type Picture,
  type PlacedPart,
  type Sheet,
  type SheetOptions,
  type Surface,
  laidApart,
  maskOf,
  type LaidSurface,
} from '@tallow/core/render';
import { elementLength, placedElements, placementFrame, roundOf } from '@tallow/core/timing';
import { expose, transfer } from 'comlink';
import type { Laid, MiniatureRequest, Painted, PaintRequest, Updated } from './paint.ts';
import { Assets } from './assets.ts';
import { findingsIn } from './findings.ts';
import { Rasters } from './rasters.ts';
import { bitmapOf, makeSurface } from './surfaces.ts';

const handedOver = ({ surface, blend, opacity }: LaidSurface): Laid => ({ bitmap: bitmapOf(surface), blend, opacity });

let doc: ShotDocument = { shotId: '', entities: {} };
const rasters = new Rasters();
const assets = new Assets();

const PARTS_BYTES = 160 * 1024 * 1024;
/** What looks came to, by everything they were worked out from. */
const parts = new ByteCache<readonly PlacedPart[]>(PARTS_BYTES);

const means: Means = {
  make: makeSurface,
  pictureOf: (sheet, matrix, width, height) => rasters.drawing(doc, sheet, { width, height, matrix }),
  kept: (sheet, key, make) => {
    const full = `${rasters.stamp(sheet.drawing.id)}|${sheet.layerId}|${key}`;
    const known = parts.get(full);
    if (known) return known;
    const made = make();
    parts.set(
      full,
      made,
      made.reduce((sum, { picture }) => sum + picture.width * picture.height * 4, 0),
    );
    return made;
  },
};
/** The same while something moves: coarser. */
const roughly: Means = { ...means, rough: true };

/** The layer that shows a drawing, for its place in the picture. */
const layerShowing = (drawingId: Id): Layer | undefined =>
  entitiesOf(doc, 'layer').find((e) => Object.values(e.slots).includes(drawingId));

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
    parts.clear();
  },

  /** Draws the picture for drawing on, of the given size. */
  async paint(request: PaintRequest): Promise<Painted> {
    await assets.ready(doc, request.shotFrame);
    const { width, height, view, shotFrame, activeLayerId, ghosts, pixel, options, backdrop, rough } = request;
    const size = [width, height] as const;
    const by = rough ? roughly : means;
    // What its element as a whole is seen in waits for playing and for the finished look: here the pen draws.
    const sheets = sheetsOf(doc, shotFrame, { ...options, matte: activeLayerId }).map((s): Sheet => ({
      ...s,
      whole: null,
    }));
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
      by,
    );
    const active = makeSurface(...size);
    const own = sheets.find((s) => s.layerId === activeLayerId);
    const mask = maskOf(doc, means, shotFrame, activeLayerId, options, own, size, view);
    const maskPicture = mask && bitmapOf(mask);
    // Its own looks lie in its picture and on top of it; what cuts it cuts the stroke too.
    const [main, ...lights] = own
      ? shownParts({ ...own, within: null, cuts: [] }, view, { width, height }, by, under)
      : [];
    if (main) layPart(active, { ...main, opacity: 1, blend: 'normal' });
    let folder: Painted['folder'] = null;
    if (faded) {
      const bottom = makeSurface(...size);
      laySheets(bottom, under.filter(inside).map(ungrouped), view, by);
      folder = {
        below: bitmapOf(bottom),
        above: laidApart(over.filter(inside).map(ungrouped), size, view, by, under, lights).map(handedOver),
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
    const seen = own ? [...under, own] : under;
    const above = laidApart(outside, size, view, by, seen, faded ? [] : lights, onTop).map(handedOver);
    const painted: Painted = {
      below: bitmapOf(below),
      active: bitmapOf(active),
      above,
      folder,
      mask: maskPicture,
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
      const { scratch } = rasters;
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
    drawFrame(surface, doc, shotFrame, view, means, {
      ...options,
      background: true,
      assets: assets.picture,
    });
    if (under) fillUnder(surface, under);
    const bitmap = bitmapOf(surface);
    return transfer(bitmap, [bitmap]);
  },

  /** The colour of the picture at a place of the shot, plates and background with it; null where it is see-through. */
  async colourAt({ x, y }: Point, shotFrame: number): Promise<string | null> {
    await assets.ready(doc, shotFrame);
    const pixel = makeSurface(1, 1);
    drawFrame(pixel, doc, shotFrame, [1, 0, 0, 1, 0.5 - x, 0.5 - y], means, {
      guides: false,
      background: true,
      assets: assets.picture,
    });
    const [r, g, b, a] = pixel.context.getImageData(0, 0, 1, 1).data;
    if (a === 0) return null;
    return `#${[r, g, b].map((v) => v!.toString(16).padStart(2, '0')).join('')}`;
  },

  /** Draws what moves of an element as one dark shape on light paper. */
  silhouette(width: number, height: number, view: Matrix, shotFrame: number, elementId: Id): ImageBitmap {
    const surface = makeSurface(width, height);
    const moving = sheetsOf(doc, shotFrame, { guides: false, element: elementId }).filter(
      ({ layerId }) => find(doc, 'runlist', find(doc, 'layer', layerId)?.runListId)?.period !== 1,
    );
    laySheets(surface, moving, view, means);
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
    const { scratch } = rasters;
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

  /** What is worth a look on an element's layers, or null when the document has changed meanwhile. */
  findings(elementId: Id): Promise<Finding[] | null> {
    return findingsIn(() => doc, elementId);
  },

  /** Draws a small picture of some drawings. */
  miniature({ sheets, box, width, height }: MiniatureRequest): ImageBitmap {
    const matrix = fitInto(box, width, height);
    const surface = makeSurface(width, height);
    const one = smallOf(width, height);
    for (const { drawingId, opacity, shift } of sheets) {
      const drawing = find(doc, 'drawing', drawingId);
      if (!drawing) continue;
      drawDrawing(
        one,
        rasters.scratch,
        drawing,
        paintsOnLayer(doc, layerShowing(drawingId)?.id),
        shift ? multiply(matrix, shift) : matrix,
      );
      layPicture(surface, one.picture, opacity, 'normal');
    }
    const bitmap = bitmapOf(surface);
    return transfer(bitmap, [bitmap]);
  },
};

let smallOne: Surface | null = null;
/** A surface of a size for small pictures, kept for the next of that size. */
function smallOf(width: number, height: number): Surface {
  if (smallOne?.width !== width || smallOne.height !== height) smallOne = makeSurface(width, height);
  return smallOne;
}

const folderIdOf = (layerId: Id | null): Id | undefined =>
  entitiesOf(doc, 'folder').find((e) => layerId !== null && e.layers.includes(layerId))?.id;

function fillUnder({ context, width, height }: Surface, colour: string): void {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalCompositeOperation = 'destination-over';
  context.fillStyle = colour;
  context.fillRect(0, 0, width, height);
  context.globalCompositeOperation = 'source-over';
}

export type Painter = typeof painter;
expose(painter);
