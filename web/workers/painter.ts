/** The painter: draws pictures away from the main thread and hands them over as bitmaps. Several of them may work side by side. */
import { find, shotOf, type Drawing, type Id, type ShotDocument } from '@tallow/core/document';
import { takesBelow } from '@tallow/core/compose';
import { coverOf, type Cover, type Finding } from '@tallow/core/checks';
import { fitInto, IDENTITY, type Box, type Matrix, type Point } from '@tallow/core/geometry';
import {
  drawBackground,
  drawFrame,
  drawPlates,
  drawCoverage,
  layPart,
  layDrawList,
  coveredFraction,
  itemsAsDrawn,
  drawListOf,
  shownParts,
  withVariant,
  type DrawItem,
  type DrawOptions,
  type Size,
  type Surface,
} from '@tallow/core/render';
import { drawingsOn, occurrencesOn } from '@tallow/core/assembly';
import { elementLength, runStart, slotsInOrder, timedLayers } from '@tallow/core/timing';
import { expose, transfer } from 'comlink';
import { Board } from './board.ts';
import { deskPicture, layerShowing } from './desk-picture.ts';
import { findingsIn } from './findings.ts';
import { floatSelection } from './float-selection.ts';
import {
  bitmapsOf,
  type FloatRequest,
  type MiniatureRequest,
  type DeskPicture,
  type PaintRequest,
  type ReshapeRequest,
  type Updated,
  type Wanted,
} from './paint.ts';
import { Reshaped } from './reshaped.ts';
import { bitmapOf, drawNow, makeSurface } from './surfaces.ts';
import { passGate, type Gate } from './gate.ts';

/** What this painter waits at, if what it draws can wait. */
let gate: Gate = { sign: null };
/** Marks drawn in one go by a painter that gives way, a few ms. */
const IN_ONE_GO = 8;
let marksNoted = 0;
const board = new Board(
  (wanted, low) => {
    postMessage({ wanted, low } satisfies Wanted);
  },
  (on) => {
    if (on && gate.sign && ++marksNoted % IN_ONE_GO === 0) drawNow(on);
    passGate(gate);
  },
);
const reshaped = new Reshaped();

/** Messages to this thread itself, one for each who waits: timers that follow one another take 4 ms each. */
const turns = new MessageChannel();
const turning: (() => void)[] = [];
turns.port1.onmessage = () => turning.shift()?.();

/** Comes when the next step may be taken; what was posted to this thread meanwhile has been read. */
async function nextTurn(): Promise<void> {
  await new Promise<void>((read) => {
    turning.push(read);
    turns.port2.postMessage(null);
  });
  passGate(gate);
}

/** Sees to it that all a frame shows is here: its drawings, others besides, and pictures of plates. */
async function frameReady(shotFrame: number, variant: Id | null = null, others: readonly Id[] = []): Promise<void> {
  const doc = variant ? withVariant(board.doc, variant) : board.doc;
  if (!doc.shotId) return;
  await Promise.all([
    board.ready([...drawingsOn(doc, shotFrame), ...others]),
    board.assets.ready(board.doc, shotFrame),
  ]);
}

/** Draws the parts of a frame one after another, giving way between them; they are kept, and the frame is quickly put together. */
async function inTurns(shotFrame: number, size: Size, view: Matrix, options: DrawOptions): Promise<void> {
  for (const item of drawListOf(board.doc, shotFrame, options)) {
    if (item.look?.looks.some(takesBelow)) continue;
    await nextTurn();
    board.pool.during(() => shownParts({ ...item, within: null, cuts: [] }, view, size, board.rendering));
  }
  await nextTurn();
}

const painter = {
  /** Lets all it draws wait at a gate from now on. */
  waitAt(at: Gate): void {
    gate = at;
  },

  /** Takes entities that changed, and drawings that were asked for. */
  update(changed: readonly Updated[]): void {
    board.update(changed);
  },

  /** Takes a drawing that lies aside; see the board. */
  take(aside: Omit<Drawing, 'marks'>, blob: Blob): Promise<boolean> {
    return board.take(aside, blob);
  },

  /** Forgets the document before another one is opened. */
  clear(): void {
    board.clear();
  },

  /** Draws the picture for drawing on, of the given size. */
  async paint(request: PaintRequest): Promise<DeskPicture> {
    await frameReady(
      request.shotFrame,
      null,
      request.ghosts.map(({ drawingId }) => drawingId),
    );
    reshaped.forget();
    const painted = board.pool.during(() => deskPicture(board, request));
    return transfer(painted, bitmapsOf(painted));
  },

  /** Draws a layer's drawing, or the frame, in two: without some marks, and those alone. */
  async floatSelection(request: FloatRequest): Promise<{ rest: ImageBitmap; apart: ImageBitmap }> {
    await frameReady(request.shotFrame);
    const { rest, apart } = floatSelection(board, request);
    const pair = { rest: bitmapOf(rest), apart: bitmapOf(apart) };
    return transfer(pair, [pair.rest, pair.apart]);
  },

  /** Draws a layer's drawing with some of its marks as they would be. */
  async reshaped(request: ReshapeRequest): Promise<ImageBitmap> {
    await frameReady(request.shotFrame);
    const bitmap = bitmapOf(reshaped.draw(board, request));
    return transfer(bitmap, [bitmap]);
  },

  /** Draws one whole frame for playing. @param under colour of everything that nothing covers, or null to leave it open. */
  async frame(
    width: number,
    height: number,
    view: Matrix,
    shotFrame: number,
    under: string | null,
    options: DrawOptions & { backdrop: string | null; rough?: boolean; moving?: boolean },
  ): Promise<ImageBitmap> {
    await frameReady(shotFrame, options.variant ?? null);
    const rendering = options.moving ? board.moving : options.rough ? board.roughly : board.rendering;
    if (rendering === board.rendering) await inTurns(shotFrame, { width, height }, view, options);
    const surface = makeSurface(width, height);
    const { picture } = board.assets;
    drawFrame(surface, board.doc, shotFrame, view, rendering, { ...options, background: true, assets: picture });
    if (under) fillUnder(surface, under);
    const bitmap = bitmapOf(surface);
    return transfer(bitmap, [bitmap]);
  },

  /**
   * A frame in three: what lies below some uses, those alone, what lies above them, so that they can be carried about at once.
   * What lies between them counts as below.
   */
  async inThree(
    width: number,
    height: number,
    view: Matrix,
    shotFrame: number,
    places: readonly string[],
    options: DrawOptions & { backdrop: string | null },
  ): Promise<{ below: ImageBitmap; apart: ImageBitmap; above: ImageBitmap }> {
    await frameReady(shotFrame);
    const { doc, rendering, assets } = board;
    const isCarried = ({ place }: DrawItem) => places.some((key) => place === key || place.startsWith(`${key}/`));
    const items = drawListOf(doc, shotFrame, options);
    const last = items.findLastIndex(isCarried);
    const [below, apart, above] = [0, 1, 2].map(() => makeSurface(width, height)) as [Surface, Surface, Surface];
    board.pool.during(() => {
      drawBackground(below, doc, view, options.backdrop);
      drawPlates(below, doc, shotFrame, view, { ...rendering, assets: assets.picture }, options);
      const under = items.filter((item, i) => i < last && !isCarried(item));
      layDrawList(below, under, view, rendering);
      layDrawList(apart, items.filter(isCarried), view, rendering);
      layDrawList(above, items.slice(last + 1), view, rendering);
    });
    const made = { below: bitmapOf(below), apart: bitmapOf(apart), above: bitmapOf(above) };
    return transfer(made, Object.values(made));
  },

  /** The colour of the picture at a place of the shot, plates and background with it; null where it is see-through. */
  async colourAt({ x, y }: Point, shotFrame: number): Promise<string | null> {
    await frameReady(shotFrame);
    const pixel = makeSurface(1, 1);
    drawFrame(pixel, board.doc, shotFrame, [1, 0, 0, 1, 0.5 - x, 0.5 - y], board.rendering, {
      guides: false,
      background: true,
      assets: board.assets.picture,
    });
    const [r, g, b, a] = pixel.context.getImageData(0, 0, 1, 1).data;
    if (a === 0) return null;
    return `#${[r, g, b].map((v) => v!.toString(16).padStart(2, '0')).join('')}`;
  },

  /** Draws what moves of an element as one dark shape on light paper. */
  async silhouette(
    width: number,
    height: number,
    view: Matrix,
    shotFrame: number,
    place: string | null,
  ): Promise<ImageBitmap> {
    await frameReady(shotFrame);
    const { doc, rendering } = board;
    const surface = makeSurface(width, height);
    const moving = drawListOf(doc, shotFrame, { guides: false, place }).filter(
      ({ layerId }) => find(doc, 'runlist', find(doc, 'layer', layerId)?.runListId)?.period !== 1,
    );
    board.pool.during(() => {
      layDrawList(surface, moving, view, rendering);
    });
    const { context } = surface;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalCompositeOperation = 'source-in';
    context.fillStyle = '#14110f';
    context.fillRect(0, 0, width, height);
    fillUnder(surface, '#cfcac2');
    const bitmap = bitmapOf(surface);
    return transfer(bitmap, [bitmap]);
  },

  /** What some drawings cover of a square over `box`, and how far each of its cells lies from it. */
  async coverage(drawingIds: readonly Id[], box: Box, cells: number): Promise<Cover[]> {
    await board.ready(drawingIds, true);
    const surface = makeSurface(cells, cells);
    const matrix = fitInto(box, cells, cells);
    const covers: Cover[] = [];
    for (const id of drawingIds) {
      await nextTurn();
      const drawing = find(board.doc, 'drawing', id);
      const mask = new Uint8Array(cells * cells);
      if (drawing) {
        drawCoverage(surface, drawing, matrix);
        const { data } = surface.context.getImageData(0, 0, cells, cells);
        for (let i = 0; i < mask.length; i++) mask[i] = data[i * 4 + 3]!;
      }
      covers.push(coverOf(mask));
    }
    return covers;
  },

  /**
   * What each use on the planes costs on a frame: ms to draw it anew, with nothing kept.
   * @returns by placement, the dearest first.
   */
  async costs(size: Size, view: Matrix, shotFrame: number): Promise<{ placementId: Id; ms: number }[]> {
    await frameReady(shotFrame);
    const found = occurrencesOn(board.doc, shotFrame).map(({ placement, key }) => {
      const began = performance.now();
      board.pool.during(() => {
        const surface = board.pool.make(size.width, size.height);
        const items = drawListOf(board.doc, shotFrame, { guides: false, looks: 'all', place: key });
        layDrawList(surface, items, view, { ...board.passing, rough: false });
        // Read back, so that all of it has been drawn.
        surface.context.getImageData(0, 0, 1, 1);
      });
      return { placementId: placement.id, ms: performance.now() - began };
    });
    return found.sort((a, b) => b.ms - a.ms);
  },

  /**
   * How much of a use lies under another one on some frames, 0 to 1 of what it shows. @param width px that are looked at across the picture.
   */
  async contact(thingId: Id, effectId: Id, frames: readonly number[], width: number): Promise<number[]> {
    const shot = shotOf(board.doc);
    const scale = width / shot.width;
    const size: Size = { width, height: Math.max(1, Math.round(shot.height * scale)) };
    const shares: number[] = [];
    for (const frame of frames) {
      await nextTurn();
      await board.ready(drawingsOn(board.doc, frame), true);
      const [thing, effect] = [thingId, effectId].map((place) => {
        const surface = makeSurface(size.width, size.height);
        const items = drawListOf(board.doc, frame, { guides: false, looks: 'none', place });
        board.pool.during(() => {
          layDrawList(surface, items, [scale, 0, 0, scale, 0, 0], board.passing);
        });
        return surface.context.getImageData(0, 0, size.width, size.height).data;
      });
      shares.push(coveredFraction(thing!, effect!));
    }
    return shares;
  },

  /** The frame as it will be taken away, at the size of the shot. */
  async still(shotFrame: number): Promise<Blob> {
    await frameReady(shotFrame);
    const { width, height } = shotOf(board.doc);
    const surface = makeSurface(width, height);
    const { picture } = board.assets;
    const options = { guides: false, looks: 'all', background: true, assets: picture } as const;
    drawFrame(surface, board.doc, shotFrame, IDENTITY, board.rendering, options);
    return (surface.picture as OffscreenCanvas).convertToBlob({ type: 'image/png' });
  },

  /** What is worth a look on an element's layers, or null when the document has changed meanwhile. */
  findings(elementId: Id): Promise<Finding[] | null> {
    return findingsIn(board, elementId, nextTurn);
  },

  /** Draws a small picture of some drawings. */
  async miniature({ items, box, width, height }: MiniatureRequest): Promise<ImageBitmap> {
    await board.ready(
      items.map(({ drawingId }) => drawingId),
      true,
    );
    await nextTurn();
    const view = fitInto(box, width, height);
    const surface = makeSurface(width, height);
    board.pool.during(() => {
      for (const { drawingId, opacity, shift } of items) {
        const seen = asSeen(board.doc, drawingId);
        if (!seen) continue;
        // Where it stands is asked for; how it looks is its layer's.
        const item: DrawItem = {
          ...seen,
          matrix: shift ?? IDENTITY,
          opacity,
          blend: 'normal',
          within: null,
          cuts: [],
          group: null,
        };
        for (const part of shownParts(item, view, surface, board.passing)) layPart(surface, part);
      }
    });
    const bitmap = bitmapOf(surface);
    return transfer(bitmap, [bitmap]);
  },
};

/** A drawing as its layer shows it where it first shows: with its looks and its tint. */
function asSeen(doc: ShotDocument, drawingId: Id): DrawItem | undefined {
  const layer = layerShowing(doc, drawingId);
  const element = find(doc, 'element', layer?.elementId);
  const timed = element && timedLayers(doc, element).find((each) => each.layer.id === layer!.id);
  const slot = timed && Object.entries(timed.layer.slots).find(([, id]) => id === drawingId)?.[0];
  const at = slot ? slotsInOrder(timed.list).find((each) => each.slot === slot) : undefined;
  if (!element || !timed || !at) return undefined;
  const frame = runStart(timed.list, at.index, elementLength(doc, element));
  return itemsAsDrawn(doc, element, frame, { guides: true, alone: timed.layer.id }).find(
    ({ drawing }) => drawing.id.split('~')[0] === drawingId,
  );
}

function fillUnder({ context, width, height }: Surface, colour: string): void {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalCompositeOperation = 'destination-over';
  context.fillStyle = colour;
  context.fillRect(0, 0, width, height);
  context.globalCompositeOperation = 'source-over';
}

export type Painter = typeof painter;
expose(painter);
