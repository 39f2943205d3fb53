/**
 * The painter: draws the picture away from the main thread and hands it over as bitmaps. It keeps
 * its own copy of the document and rasters of drawings, the longest unused given up first.
 */
import { find, shotOf, type Drawing, type Entity, type Id, type ShotDocument } from '@tallow/core/document';
import type { Box, Matrix } from '@tallow/core/geometry';
import {
  ByteCache,
  drawBackground,
  drawDrawing,
  drawFrame,
  drawMark,
  layGhost,
  laySheets,
  paletteOf,
  sheetsOf,
  type PictureOf,
  type Sheet,
  type Surface,
} from '@tallow/core/render';
import { expose, transfer } from 'comlink';
import { makeSurface, type BrowserSurface } from './surfaces.ts';

const CACHE_BYTES = 256 * 1024 * 1024;

/** Strength of ghosts that are shown whole, against that of outlines. */
const WHOLE_LINE = 0.6;

export interface Ghost {
  readonly drawingId: Id;
  readonly colour: string;
  readonly broken: boolean;
  readonly strength: number;
}

export interface PaintRequest {
  readonly width: number;
  readonly height: number;
  /** Shot px to device pixels. */
  readonly view: Matrix;
  readonly shotFrame: number;
  readonly activeLayerId: Id | null;
  readonly ghosts: readonly Ghost[];
  /** Device pixels per CSS pixel. */
  readonly pixel: number;
}

/** The picture in three sheets: what is below the active layer, that layer, and what is above it. */
export interface Painted {
  readonly below: ImageBitmap;
  readonly active: ImageBitmap;
  readonly above: ImageBitmap;
}

/** An entity that changed; null for deleted. */
export interface Updated {
  readonly id: Id;
  readonly entity: Entity | null;
  /** A drawing that is the one sent before with marks added on top. */
  readonly grew: boolean;
}

export interface MiniatureRequest {
  /** Drawings lowest first, with their opacity. */
  readonly sheets: readonly { readonly drawingId: Id; readonly opacity: number }[];
  /** The part of element space that is shown. */
  readonly box: Box;
  readonly width: number;
  readonly height: number;
}

let doc: ShotDocument = { shotId: '', entities: {} };
const versions = new Map<Id, number>();
const rasters = new ByteCache<{ surface: BrowserSurface; drawing: Drawing }>(CACHE_BYTES);
let scratch: Surface | null = null;

function scratchOf(width: number, height: number): Surface {
  if (scratch?.width !== width || scratch.height !== height) scratch = makeSurface(width, height);
  return scratch;
}

/** Drawings whose latest version is the one before with marks added on top. */
const growing = new Set<Id>();
let coloursStamp = '';
function rasterAt(width: number, height: number): PictureOf {
  const colourOf = paletteOf(doc);
  return (sheet: Sheet, matrix: Matrix) => {
    const { drawing } = sheet;
    const place = `${drawing.id}|${width}x${height}|${matrix.join()}|${coloursStamp}`;
    const key = `${place}|${versions.get(drawing.id) ?? 0}`;
    const kept = rasters.get(key);
    if (kept) return kept.surface.picture;
    const surface = makeSurface(width, height) as BrowserSurface;
    const earlierKey = `${place}|${(versions.get(drawing.id) ?? 0) - 1}`;
    const earlier = rasters.get(earlierKey);
    if (earlier && growing.has(drawing.id)) {
      surface.context.drawImage(earlier.surface.picture, 0, 0);
      for (const id of drawing.order.slice(earlier.drawing.order.length)) {
        drawMark(surface, scratchOf(width, height), drawing.marks[id]!, colourOf, matrix);
      }
    } else {
      drawDrawing(surface, scratchOf(width, height), drawing, colourOf, matrix);
    }
    rasters.delete(earlierKey);
    rasters.set(key, { surface, drawing }, width * height * 4);
    return surface.picture;
  };
}

const bitmapOf = (surface: Surface): ImageBitmap => (surface.picture as OffscreenCanvas).transferToImageBitmap();

const painter = {
  /** Takes entities that changed. */
  update(changed: readonly Updated[]): void {
    const entities = { ...doc.entities };
    for (const { id, entity, grew } of changed) {
      if (entity) entities[id] = entity;
      else Reflect.deleteProperty(entities, id);
      if (entity?.kind === 'drawing') versions.set(id, (versions.get(id) ?? 0) + 1);
      if (grew) growing.add(id);
      else growing.delete(id);
      if (entity?.kind === 'shot') doc = { ...doc, shotId: id };
    }
    doc = { ...doc, entities };
    coloursStamp = Object.values(entities)
      .flatMap((e) => (e.kind === 'swatch' ? `${e.id}${e.colour}` : []))
      .join();
  },

  /** Forgets the document before another one is opened. */
  clear(): void {
    doc = { shotId: '', entities: {} };
    rasters.clear();
  },

  /** Draws the picture for drawing on: three sheets of the given size. */
  paint({ width, height, view, shotFrame, activeLayerId, ghosts, pixel }: PaintRequest): Painted {
    const pictures = rasterAt(width, height);
    const sheets = sheetsOf(doc, shotFrame, { guides: true });
    const layerOrder = Object.values(doc.entities).flatMap((e) =>
      e.kind === 'element' ? [...e.layers].reverse() : [],
    );
    const at = activeLayerId ? layerOrder.indexOf(activeLayerId) : layerOrder.length;
    const [below, active, above] = [makeSurface(width, height), makeSurface(width, height), makeSurface(width, height)];
    drawBackground(below, doc, view);
    laySheets(
      below,
      sheets.filter((s) => layerOrder.indexOf(s.layerId) < at),
      view,
      pictures,
    );
    // The active sheet is handed over without its opacity, which main applies when it lays the three together.
    laySheets(
      active,
      sheets.filter((s) => s.layerId === activeLayerId).map((s) => ({ ...s, opacity: 1 })),
      view,
      pictures,
    );
    laySheets(
      above,
      sheets.filter((s) => layerOrder.indexOf(s.layerId) > at),
      view,
      pictures,
    );
    const matrix = matrixOfActive(sheets, activeLayerId);
    for (const ghost of ghosts) {
      const drawing = find(doc, 'drawing', ghost.drawingId);
      if (!drawing || !matrix) continue;
      const placed: Matrix = [
        view[0],
        view[1],
        view[2],
        view[3],
        view[0] * matrix[4] + view[2] * matrix[5] + view[4],
        view[1] * matrix[4] + view[3] * matrix[5] + view[5],
      ];
      const picture = pictures({ layerId: '', drawing, opacity: 1, matrix }, placed);
      const outline = Object.values(drawing.marks).some((mark) => mark.kind === 'shape');
      // Outlines lie on top, where filled shapes cannot hide them; whole lines lie under the drawing, as on a light table.
      layGhost(
        outline ? above : below,
        scratchOf(width, height),
        picture,
        { ...ghost, outline, strength: ghost.strength * (outline ? 1 : WHOLE_LINE) },
        pixel,
      );
    }
    const painted = { below: bitmapOf(below), active: bitmapOf(active), above: bitmapOf(above) };
    return transfer(painted, [painted.below, painted.active, painted.above]);
  },

  /** Draws one whole frame for playing. @param under colour of everything that nothing covers, or null to leave it open. */
  frame(width: number, height: number, view: Matrix, shotFrame: number, under: string | null): ImageBitmap {
    const surface = makeSurface(width, height);
    drawFrame(surface, doc, shotFrame, view, rasterAt(width, height), { guides: true, background: true });
    if (under) {
      surface.context.setTransform(1, 0, 0, 1, 0, 0);
      surface.context.globalCompositeOperation = 'destination-over';
      surface.context.fillStyle = under;
      surface.context.fillRect(0, 0, width, height);
    }
    const bitmap = bitmapOf(surface);
    return transfer(bitmap, [bitmap]);
  },

  /** Draws a small picture of some drawings. */
  miniature({ sheets, box, width, height }: MiniatureRequest): ImageBitmap {
    const scale = Math.min(width / (box.right - box.left), height / (box.bottom - box.top));
    const matrix: Matrix = [
      scale,
      0,
      0,
      scale,
      width / 2 - (scale * (box.left + box.right)) / 2,
      height / 2 - (scale * (box.top + box.bottom)) / 2,
    ];
    const surface = makeSurface(width, height);
    const one = makeSurface(width, height);
    const small = makeSurface(width, height);
    const colourOf = paletteOf(doc);
    for (const { drawingId, opacity } of sheets) {
      const drawing = find(doc, 'drawing', drawingId);
      if (!drawing) continue;
      drawDrawing(one, small, drawing, colourOf, matrix);
      surface.context.globalAlpha = opacity;
      surface.context.drawImage(one.picture, 0, 0);
      surface.context.globalAlpha = 1;
    }
    const bitmap = bitmapOf(surface);
    return transfer(bitmap, [bitmap]);
  },
};

function matrixOfActive(sheets: readonly Sheet[], layerId: Id | null): Matrix | null {
  const own = sheets.find((s) => s.layerId === layerId) ?? sheets[0];
  if (own) return own.matrix;
  const { planes } = shotOf(doc);
  const placement = find(doc, 'placement', find(doc, 'plane', planes[0])?.placements[0]);
  return placement ? [1, 0, 0, 1, placement.x, placement.y] : null;
}

export type Painter = typeof painter;
expose(painter);
