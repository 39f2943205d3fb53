/** The picture for drawing on: in bitmaps, so that the stroke under the pen fits between them. */
import {
  entitiesOf,
  find,
  valueAt,
  type Drawing,
  type Folder,
  type Id,
  type Layer,
  type ShotDocument,
} from '@tallow/core/document';
import { keepsShape } from '@tallow/core/compose';
import { multiply } from '@tallow/core/geometry';
import {
  drawBackground,
  drawPlates,
  laidApart,
  partsApart,
  layerRanks,
  lieOf,
  putPlaced,
  layDrawList,
  maskOf,
  drawListOf,
  shownParts,
  type LaidSurface,
  type Placed,
  type Rank,
  type DrawItem,
} from '@tallow/core/render';
import { pathOf, standing } from '@tallow/core/assembly';
import { roundOf } from '@tallow/core/timing';
import type { Board } from './board.ts';
import type { Clipped, Laid, DeskPicture, PaintRequest } from './paint.ts';
import { bitmapOf, makeSurface } from './surfaces.ts';

const handedOver = ({ surface, blend, opacity }: LaidSurface): Laid => ({ bitmap: bitmapOf(surface), blend, opacity });

const folderIdOf = (doc: ShotDocument, layerId: Id | null): Id | undefined =>
  entitiesOf(doc, 'folder').find((e) => layerId !== null && e.layers.includes(layerId))?.id;

/** The layer that shows a drawing, for its place in the picture. */
export const layerShowing = (doc: ShotDocument, drawingId: Id): Layer | undefined =>
  entitiesOf(doc, 'layer').find((e) => Object.values(e.slots).includes(drawingId));

/** How strongly a folder shows in a use on a frame of the shot. */
function folderOpacityAt(doc: ShotDocument, folder: Folder, shotFrame: number, place: string | null): number {
  const path = pathOf(doc, place ?? '');
  const here = path && standing(doc, path, shotFrame);
  return here ? valueAt(folder.opacity, here.moment.frame, roundOf(here.element, here.length)) : 1;
}

const hasShapes = (drawing: Drawing): boolean => Object.values(drawing.marks).some((mark) => mark.kind === 'shape');

/** A folder that is put together only to be faded, or null where it is not. */
const fadedOnly = (group: NonNullable<DrawItem['group']>): DrawItem['group'] =>
  group.opacity < 1 ? { ...group, look: null } : null;

/** The items right above another that clip to it; none where others lie between. */
function clippedTo(doc: ShotDocument, over: readonly DrawItem[], { drawing }: DrawItem): DrawItem[] {
  const clipped: DrawItem[] = [];
  for (const item of over) {
    if (find(doc, 'layer', item.layerId)?.clip !== true || item.within?.drawing.id !== drawing.id) break;
    clipped.push(item);
  }
  return clipped;
}

/** The drawing that others clip to, where the looks of its layer show it in another shape than it cuts them by. */
function baseOf(
  { rendering }: Board,
  own: DrawItem,
  [first]: readonly DrawItem[],
  { width, height, view }: PaintRequest,
): ImageBitmap | null {
  if (!first?.within || (own.look?.looks ?? []).every(keepsShape)) return null;
  const on = makeSurface(width, height);
  const plain = { ...first, ...first.within, within: null, cuts: [], look: null, tint: null };
  const base = rendering.pictureOf(plain, multiply(view, plain.matrix), width, height);
  putPlaced(on, base);
  return bitmapOf(on);
}

/** Whether a use is the one that is drawn on, or one around it, or one in it. */
const isAround = (key: string, place: string | null): boolean =>
  place !== null && (key === place || place.startsWith(`${key}/`) || key.startsWith(`${place}/`));

/** The picture for drawing on. */
export function deskPicture(board: Board, request: PaintRequest): DeskPicture {
  const { doc, rendering, rasters, assets } = board;
  const { width, height, view, shotFrame, activeLayerId, place, ghosts, pixel, options, backdrop, rough } = request;
  const size = [width, height] as const;
  const by = rough ? board.roughly : rendering;
  // What its element or its folder as a whole is seen in waits for playing and for the finished look: here the pen draws.
  const folderId = folderIdOf(doc, activeLayerId);
  const groupId = folderId && `${place}:${folderId}`;
  const items = drawListOf(doc, shotFrame, { ...options, penOn: activeLayerId }).map((s): DrawItem => ({
    ...s,
    wholes: isAround(s.place, place)
      ? []
      : s.wholes.flatMap((each) => (each.opacity < 1 ? [{ ...each, look: null }] : [])),
    group: s.group && s.group.id === groupId ? fadedOnly(s.group) : s.group,
  }));
  const ranks = layerRanks(doc, shotFrame);
  const rank = ({ place: key, layerId }: Rank) =>
    ranks.findIndex((each) => each.place === key && each.layerId === layerId);
  const own0 = activeLayerId ? rank({ place: place ?? '', layerId: activeLayerId }) : -1;
  const at = own0 < 0 ? ranks.length : own0;
  const folderOf = find(doc, 'folder', folderId);
  const folderOpacity = folderOf ? folderOpacityAt(doc, folderOf, shotFrame, place) : 1;
  const faded = folderOpacity < 1 ? folderOf : undefined;
  const inside = (item: DrawItem) => item.group !== null && faded !== undefined && item.group.id === groupId;
  const ungrouped = (item: DrawItem): DrawItem => (inside(item) ? { ...item, group: null } : item);
  const under = items.filter((s) => rank(s) < at);
  const over = items.filter((s) => rank(s) > at);
  const below = makeSurface(...size);
  drawBackground(below, doc, view, backdrop);
  drawPlates(below, doc, shotFrame, view, { ...by, assets: assets.picture }, options, true);
  layDrawList(
    below,
    under.filter((s) => !inside(s)),
    view,
    by,
  );
  const active = makeSurface(...size);
  const own = items.find((s) => s.place === place && s.layerId === activeLayerId);
  const mask = maskOf(doc, rendering, shotFrame, activeLayerId, place, options, own, size, view);
  const maskPicture = mask && bitmapOf(mask);
  // Its own looks lie in its picture and on top of it; what cuts it cuts the stroke too.
  const [main, ...light] = own
    ? shownParts({ ...own, within: null, cuts: [] }, view, { width, height }, board.underPen(by), under)
    : [];
  if (main) putPlaced(active, main);
  // At once: pictures that are handed out may be of surfaces that are used again.
  const lights = partsApart(light, size, by.make).map(handedOver);
  const seen = own ? [...under, own] : under;
  // What clips to the layer under the pen is cut by it as the stroke grows, not here.
  const clips = own ? clippedTo(doc, over, own) : [];
  const clipped = clips.flatMap((item) => {
    const parts = shownParts({ ...item, within: null }, view, { width, height }, by, seen);
    return parts.map((part, i): Clipped => {
      const on = makeSurface(...size);
      putPlaced(on, part);
      return { bitmap: bitmapOf(on), blend: part.blend, opacity: part.opacity, isCut: i === 0 };
    });
  });
  const rest = over.filter((s) => !clips.includes(s));
  let folder: DeskPicture['folder'] = null;
  if (faded) {
    const bottom = makeSurface(...size);
    layDrawList(bottom, under.filter(inside).map(ungrouped), view, by);
    folder = {
      below: bitmapOf(bottom),
      above: laidApart(rest.filter(inside).map(ungrouped), size, view, by, seen).map(handedOver),
      opacity: folderOpacity,
    };
  }
  const onTop: Placed[] = [];
  for (const { drawingId, look, shift, piece, stood, ...rest } of ghosts) {
    const drawing = find(doc, 'drawing', drawingId);
    const layerId = layerShowing(doc, drawingId)?.id ?? '';
    const matrix = lieOf(doc, layerId, stood ?? shotFrame, place, { flat: place, still: true })?.matrix;
    if (!drawing || !matrix) continue;
    const shown = { drawing, layerId, matrix, tint: null };
    const style = hasShapes(drawing) ? look : 'line';
    const placed = multiply(view, matrix);
    const sight = { width, height, matrix: shift ? multiply(placed, shift) : placed };
    const picture = rasters.ghost(doc, shown, sight, { ...rest, style }, pixel, piece);
    // Filled drawings would hide what lies under them, so ghosts lie on top, unless there are only lines to see.
    if (style !== 'line' || over.length > 0) onTop.push(picture);
    else putPlaced(below, picture);
  }
  const outside = rest.filter((s) => !inside(s));
  const above = laidApart(outside, size, view, by, seen, onTop).map(handedOver);
  const painted: DeskPicture = {
    below: bitmapOf(below),
    active: bitmapOf(active),
    above,
    folder,
    mask: maskPicture,
    lights,
    clipped,
    base: own ? baseOf(board, own, clips, request) : null,
  };
  return painted;
}
