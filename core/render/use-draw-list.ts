/** The items of one use of an element, with what lies in it, and of one plate. */
import {
  firstKeyOf,
  occurrenceIn,
  lyingOn,
  pathOf,
  standing,
  type HowLaid,
  type Lie,
  type Occurrence,
} from '../assembly/index.ts';
import { movesOutlines, resolved, tilted, wavered, type Resolved } from '../compose/index.ts';
import {
  emptyDrawing,
  find,
  newPlacement,
  shotOf,
  valueAt,
  type Drawing,
  type Element,
  type Id,
  type Plate,
  type ShotDocument,
} from '../document/index.ts';
import {
  composed,
  IDENTITY,
  modulo,
  multiply,
  projectionFrom,
  type Matrix,
  type Point,
  type Projection,
} from '../geometry/index.ts';
import {
  elementLength,
  isVisible,
  roundOf,
  runStart,
  shiftAt,
  shownOn,
  timedLayers,
  type TimedLayer,
} from '../timing/index.ts';
import { drawingBox } from './marks.ts';
import { axisOf, paintsOn, plainOf, type PaintOf } from './paint.ts';
import { inRecolouring } from './painted.ts';
import { plateBend, plateMatrix, plateRoom, shownOnPlate } from './plates.ts';
import { type ItemLook, type Cut, type Whole, type DrawItem, type DrawOptions, DIMMED } from './draw-item.ts';

/** Where a layer is put within its element, with what the element lies in. */
const inElement = (lie: Lie, shift: Matrix): Lie =>
  lie.bend
    ? { bend: shift === IDENTITY ? lie.bend : composed(lie.bend, projectionFrom(shift)), matrix: lie.matrix }
    : { bend: null, matrix: shift === IDENTITY ? lie.matrix : multiply(lie.matrix, shift) };

const layerLie = ({ element, moment, length, bend, matrix }: Occurrence, timed: TimedLayer): Lie =>
  inElement({ bend, matrix }, shiftAt(timed, element.anchor, moment.frame, roundOf(element, length)));

/**
 * How what lies on a layer is mapped into the shot on a frame, or null when its element is not placed.
 * @param place which use of the element; the first one unless given.
 */
export function lieOf(
  doc: ShotDocument,
  layerId: Id | null | undefined,
  shotFrame: number,
  place?: string | null,
  how: HowLaid = {},
): Lie | null {
  const layer = find(doc, 'layer', layerId);
  const path = layer && pathOf(doc, place ?? firstKeyOf(doc, layer.elementId) ?? '');
  const here = path && standing(doc, path, shotFrame, how);
  if (here?.element.id !== layer?.elementId || !here) return null;
  const timed = timedLayers(doc, here.element).find((each) => each.layer.id === layerId);
  return timed ? layerLie(here, timed) : null;
}

/** A layer of a use: what lies on what is known by these. */
export interface Rank {
  readonly place: string;
  readonly layerId: Id;
}

/** The layers of all uses that show on a frame as they lie on one another, lowest first. */
export function layerRanks(doc: ShotDocument, shotFrame: number): Rank[] {
  const within = (use: Occurrence): Rank[] =>
    [...inOrder(doc, use)].reverse().flatMap((each): Rank[] => {
      if ('layer' in each) return [{ place: use.key, layerId: each.layer.id }];
      const inner = occurrenceIn(doc, use, each.placementId);
      return inner ? within(inner) : [];
    });
  return lyingOn(doc, shotFrame)
    .reverse()
    .flatMap((each) => ('use' in each ? within(each.use) : [{ place: each.plate.id, layerId: each.plate.id }]));
}

/** The layers of an element and what is placed in it, topmost first. */
export function inOrder(doc: ShotDocument, { element }: Occurrence): (TimedLayer | { readonly placementId: Id })[] {
  const layers = timedLayers(doc, element);
  return element.layers.flatMap((id): (TimedLayer | { readonly placementId: Id })[] =>
    find(doc, 'placement', id)
      ? [{ placementId: id }]
      : layers.filter(({ layer, folder }) => (folder ? folder.id === id : layer.id === id)),
  );
}

function isIn(timed: TimedLayer, { guides, forWork, alone, without }: DrawOptions): boolean {
  if (without?.includes(timed.layer.id)) return false;
  if (alone) return timed.layer.id === alone;
  return isVisible(timed) && (guides || (timed.layer.role !== 'guide' && (forWork === true || !timed.layer.forWork)));
}

export const NO_MOTION: Point = { x: 0, y: 0 };

/** What a layer under the pen shows before anything is drawn on it; always the same one, as what is kept of drawings hangs on which it is. */
const NOTHING_YET: Drawing = emptyDrawing('');

/** How far a layer's drawing goes in a frame: from the middle of the one before to that of the one after. */
function motionOf(doc: ShotDocument, timed: TimedLayer, frame: number, turn: number, round: number | null): Point {
  const here = shownOn(timed, frame, turn);
  if (!here) return NO_MOTION;
  const { run } = here.exposure;
  const own = runStart(timed.list, here.exposure.index, turn);
  const wrapped = (f: number) => (round === null ? f : modulo(f, turn));
  const at = (f: number) => {
    const shown = round === null && f < 0 ? null : shownOn(timed, wrapped(f), turn);
    const drawing = find(doc, 'drawing', shown?.drawingId);
    if (!shown || !drawing || drawing.order.length === 0) return null;
    const { left, top, right, bottom } = drawingBox(drawing);
    return { x: (left + right) / 2, y: (top + bottom) / 2, length: shown.exposure.run.length };
  };
  const [before, now, after] = [at(own - 1), at(own), at(own + run.length)];
  const [from, to] = [before ?? now, after ?? now];
  if (!from || !to || from === to) return NO_MOTION;
  const frames =
    (before ? before.length / 2 : 0) + (before && after ? run.length : run.length / 2) + (after ? after.length / 2 : 0);
  return { x: (to.x - from.x) / frames, y: (to.y - from.y) / frames };
}

/** The drawing as wavers of its layer and its element move it, and as its plane is tilted. */
function moved(drawing: Drawing, wavers: readonly Resolved[], bend: Projection | null): Drawing {
  const own = wavers.reduce((each, waver) => wavered(each, waver), drawing);
  return bend ? tilted(own, bend) : own;
}

/** What goes for all of a use and of what lies in it. */
interface Around {
  readonly wholes: readonly Whole[];
  readonly tint: Id | null;
}

/** Whether a use is asked for: it, or one in it. */
export const isAsked = (key: string, { place }: DrawOptions): boolean =>
  !place || key === place || place.startsWith(`${key}/`) || key.startsWith(`${place}/`);

/** The items of one use of an element, lowest first, and mattes in it that hide what lies behind it too. */
export function drawListIn(
  doc: ShotDocument,
  use: Occurrence,
  around: Around,
  options: DrawOptions,
): { items: DrawItem[]; mattes: Cut[] } {
  const { element, placement, key, length: turn } = use;
  const { frame, since } = use.moment;
  const { height } = shotOf(doc);
  const looks = options.looks ?? 'all';
  const round = roundOf(element, turn);
  const axis = axisOf(element, height);
  const home = use.matrix;
  const recolour = placement.recolour ?? null;
  const colours = paintsOn(doc, inRecolouring(element, recolour), { axis, matrix: home, picture: shotOf(doc) });
  const lookOf = (all: readonly Resolved[], matrix: Matrix, motion: Point, paintOf: PaintOf): ItemLook | null => {
    const painting = all.filter((each) => !movesOutlines(each));
    return painting.length > 0
      ? { looks: painting, axis, motion, matrix, colourOf: (id) => plainOf(paintOf(id)) }
      : null;
  };
  const own =
    looks === 'none' || options.alone
      ? []
      : [...resolved(element.finishes, frame, round), ...resolved(placement.finishes, since, null)];
  const look = lookOf(own, home, NO_MOTION, colours);
  const opacity = options.alone ? 1 : valueAt(placement.opacity, since, null);
  const wholes = look || opacity < 1 ? [...around.wholes, { place: key, opacity, look }] : around.wholes;
  const tint = around.tint ?? placement.tint;
  const stays = options.dimPlaceBut;
  const dimsPlace = stays && key !== stays && !key.startsWith(`${stays}/`);
  const seen = placement.layers && new Set(placement.layers);
  let items: DrawItem[] = [];
  const mattes: Cut[] = [];
  // What a layer that clips shows within: the drawing of the nearest layer below, in its folder, that doesn't.
  let [base, baseFolder]: [DrawItem['within'], Id | undefined] = [null, undefined];
  for (const timed of inOrder(doc, use).reverse()) {
    if ('placementId' in timed) {
      const inner = occurrenceIn(doc, use, timed.placementId, options);
      if (!inner || !isAsked(inner.key, options)) continue;
      const found = drawListIn(doc, inner, { wholes, tint }, options);
      items = [...cutBy(items, found.mattes), ...found.items];
      mattes.push(...found.mattes);
      continue;
    }
    const { layer, folder } = timed;
    const isBase = !layer.clip || baseFolder !== folder?.id;
    const isSeen = !seen || seen.has(layer.id) || options.alone === layer.id;
    const found =
      isSeen && isIn(timed, options) && !isOutside(use, options)
        ? (find(doc, 'drawing', shownOn(timed, frame, turn)?.drawingId) ??
          (options.penOn === layer.id ? NOTHING_YET : undefined))
        : undefined;
    const { bend, matrix } = layerLie(use, timed);
    const finishes = looks === 'none' ? [] : resolved(layer.finishes, frame, round);
    const inFolder = looks === 'none' || options.alone ? [] : resolved(folder?.finishes ?? [], frame, round);
    const wavers = looks === 'all' ? [...finishes, ...inFolder, ...own].filter(movesOutlines) : [];
    const drawing = found && (wavers.length > 0 || bend) ? moved(found, wavers, bend) : found;
    if (drawing && layer.role === 'matte' && options.penOn !== layer.id && !options.alone) {
      const cut: Cut = { layerId: layer.id, place: key, drawing, matrix, inverted: layer.matte.inverted };
      items = cutBy(items, [cut]);
      if (layer.matte.shot) mattes.push(cut);
      continue;
    }
    if (isBase) [base, baseFolder] = [drawing ? { drawing, matrix } : null, folder?.id];
    const clips = layer.clip && !options.alone;
    if (!drawing || (clips && (isBase || !base))) continue;
    const dim = dimsPlace || (options.dimBut && options.dimBut !== layer.id) ? DIMMED : 1;
    const groupOpacity = folder ? valueAt(folder.opacity, frame, round) : 1;
    const groupLook = lookOf(inFolder, home, NO_MOTION, colours);
    const follows = finishes.some(({ choices }) => choices['along'] === 'motion');
    items.push({
      layerId: layer.id,
      elementId: element.id,
      place: key,
      drawing,
      opacity: valueAt(layer.opacity, frame, round) * dim,
      blend: layer.blend,
      group:
        folder && (groupOpacity < 1 || groupLook)
          ? { id: `${key}:${folder.id}`, opacity: groupOpacity, look: groupLook }
          : null,
      within: clips ? base : null,
      tint: tint ?? layer.tint,
      recolour,
      matrix,
      look: lookOf(finishes, matrix, follows ? motionOf(doc, timed, frame, turn, round) : NO_MOTION, colours),
      wholes,
      cuts: [],
    });
  }
  return { items, mattes };
}

/** Items with what hides part of each. */
export const cutBy = (items: readonly DrawItem[], cuts: readonly Cut[]): DrawItem[] =>
  cuts.length === 0 ? [...items] : items.map((item) => ({ ...item, cuts: [...item.cuts, ...cuts] }));

/** The items of an element on a frame of its own, as it is drawn, wherever it is used. */
export function itemsAsDrawn(doc: ShotDocument, element: Element, frame: number, options: DrawOptions): DrawItem[] {
  const placement = { ...newPlacement(element.id, { start: 0, x: 0, y: 0 }, () => ''), repeats: null };
  const moment = { frame, turn: 0, since: frame };
  const length = elementLength(doc, element);
  const use = { key: '', path: [placement], placement, element, length, moment, bend: null, matrix: IDENTITY };
  return drawListIn(doc, use, { wholes: [], tint: null }, options).items;
}

/** Whether a use is only on the way to the one that is asked for. */
const isOutside = ({ key, element }: Occurrence, { place, element: only }: DrawOptions): boolean =>
  (only !== undefined && only !== null && element.id !== only) ||
  (place !== undefined && place !== null && key !== place && !key.startsWith(`${place}/`));

/** A plate between uses of elements, as it lies on a frame; none where it is not seen, or one thing alone is. */
export function plateItem(
  plate: Plate,
  seen: Matrix,
  shotFrame: number,
  wholes: readonly Whole[],
  options: DrawOptions,
): DrawItem[] {
  if (options.alone || options.element || options.place) return [];
  const asset = shownOnPlate(plate, shotFrame, options.guidePlates ?? options.guides);
  if (!asset) return [];
  const bend = plateBend(plate);
  return [
    {
      layerId: plate.id,
      elementId: plate.id,
      place: plate.id,
      asset,
      lies: { width: plate.width, height: plate.height, bend },
      room: plateRoom(plate),
      drawing: { kind: 'drawing', id: plate.id, marks: {}, order: [] },
      matrix: multiply(seen, plateMatrix(plate)),
      opacity: plate.opacity * (options.dimBut || options.dimPlaceBut ? DIMMED : 1),
      blend: 'normal',
      group: null,
      within: null,
      tint: null,
      recolour: null,
      look: null,
      wholes,
      cuts: [],
    },
  ];
}
