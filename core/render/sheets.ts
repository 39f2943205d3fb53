/** Frames of a shot: which drawings lie on one another, and how each of them is seen. */
import {
  find,
  newPlacement,
  shotOf,
  valueAt,
  type AssetId,
  type CutBy,
  type Blend,
  type Drawing,
  type Element,
  type Id,
  type Placement,
  type Plane,
  type Plate,
  type ShotDocument,
} from '../document/index.ts';
import {
  airAt,
  depthMatrix,
  firstKeyOf,
  occurrenceIn,
  lyingOn,
  pathOf,
  planeMatrix,
  planeOf,
  standing,
  type HowLaid,
  type Lie,
  type Occurrence,
} from '../assembly/index.ts';
import { movesOutlines, resolved, tilted, wavered, type Resolved } from '../compose/index.ts';
import { showVariant } from '../edit/index.ts';
import {
  composed,
  invert,
  IDENTITY,
  modulo,
  multiply,
  projectionFrom,
  type Box,
  type Matrix,
  type Point,
  type Projection,
} from '../geometry/index.ts';
import {
  elementLength,
  isVisible,
  momentOn,
  roundOf,
  runStart,
  shiftAt,
  shownOn,
  timedLayers,
  type TimedLayer,
} from '../timing/index.ts';
import { colourIn, fallingOn, lightsOn, type Falling, type Shining } from './lights.ts';
import { axisOf, isHole, paintsOn, plainOf, type PaintOf } from './paint.ts';
import { drawingBox } from './marks.ts';
import { plateMatrix, shownOnPlate } from './plates.ts';

/** A drawing and where it lies. */
export interface Lying {
  readonly drawing: Drawing;
  /** Element space to shot px. */
  readonly matrix: Matrix;
}

/** How a layer or an element is seen beyond its opacity and blend. */
export interface Look {
  readonly finishes: readonly Resolved[];
  /** From anchor to tip, element space. */
  readonly axis: { readonly from: Point; readonly to: Point };
  /** How far what is drawn goes in one frame, px of element space. */
  readonly motion: Point;
  readonly colourOf: (swatch: Id) => string;
  /** Element space to shot px. */
  readonly matrix: Matrix;
}

/** A matte that hides part of a sheet, or all but a part. */
export interface Cut extends Lying {
  readonly layerId: Id;
  readonly place: string;
  readonly inverted: boolean;
}

/** An element that is put together first, as it is faded or has looks of its own as a whole. */
export interface Whole {
  readonly place: string;
  readonly opacity: number;
  readonly look: Look | null;
  /** What falls on all of it, in the order it is laid, and how much of the air's colour lies before it. */
  readonly lights?: readonly Falling[];
  readonly air?: { readonly colour: string; readonly share: number } | null;
  /** What it is seen within, or hidden by, lowest first. */
  readonly matte?: { readonly sheets: readonly Sheet[]; readonly within: boolean } | null;
}

/** One drawing as it lies in a frame. */
export interface Sheet extends Lying {
  readonly layerId: Id;
  readonly elementId: Id;
  /** Which use of its element it is of. */
  readonly place: string;
  /** The picture it shows in place of a drawing, of a plate between uses of elements. */
  readonly asset?: AssetId;
  /** What that picture takes up, px of its own. */
  readonly room?: Box;
  /** The looks of its layer, if it has any. */
  readonly look: Look | null;
  /** What it is put together in, from the outside in. */
  readonly wholes: readonly Whole[];
  /** What hides it, lowest first. */
  readonly cuts: readonly Cut[];
  readonly opacity: number;
  readonly blend: Blend;
  /** The folder that is put together first, as it is faded or has looks, if it lies in such a one. */
  readonly group: { readonly id: Id; readonly opacity: number; readonly look: Look | null } | null;
  /** The drawing this one shows within only, of the layer it clips to. */
  readonly within: Lying | null;
  /** The swatch in which all of it is seen, or null for each mark's own. */
  readonly tint: Id | null;
  /** The recolouring of its element it is seen in, or null for what the element is seen in. */
  readonly recolour: Id | null;
}

export interface SheetOptions extends HowLaid {
  /** Guides are for working: the picture on the desk has them, what is taken away never has. */
  readonly guides: boolean;
  /** Whether layers that are for work are shown though guides are not. */
  readonly forWork?: boolean;
  /** Shows nothing but this layer, be it hidden or not. */
  readonly alone?: Id | null;
  /** Shows nothing but this element. */
  readonly element?: Id | null;
  /** Shows nothing but this use of an element, with what lies in it. */
  readonly place?: string | null;
  /** Shows nothing but this plane. */
  readonly plane?: Id | null;
  /** Shows plates that are for working though layers that are guides are not. */
  readonly guidePlates?: boolean;
  /** Dims all but this use, with what lies in it. */
  readonly dimPlaceBut?: string | null;
  /** Layers left out. */
  readonly without?: readonly Id[];
  /** Dims every layer but this one. */
  readonly dimBut?: Id | null;
  /** A kept variant shown in place of what its layers show now. */
  readonly variant?: Id | null;
  /** Looks: all of them unless said otherwise; for drawing under the pen those that move no outline; or none. */
  readonly looks?: 'all' | 'for drawing' | 'none';
  /** A matte that is seen itself, as it is drawn on. */
  readonly matte?: Id | null;
}

/** What dimming leaves of the other layers' opacity. */
export const DIMMED = 0.22;

/** Where a layer is put within its element, with what the element lies in. */
const inElement = (lie: Lie, shift: Matrix): Lie =>
  lie.bend
    ? { bend: shift === IDENTITY ? lie.bend : composed(lie.bend, projectionFrom(shift)), matrix: lie.matrix }
    : { bend: null, matrix: shift === IDENTITY ? lie.matrix : multiply(lie.matrix, shift) };

const layerLie = ({ element, moment, length, bend, matrix }: Occurrence, timed: TimedLayer): Lie =>
  inElement({ bend, matrix }, shiftAt(timed, element.anchor, moment.frame, roundOf(element, length)));

/**
 * How what lies on a layer comes to lie in the shot on a frame, or null when its element is not placed.
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

/** A layer of a use: what lies on what is told by these. */
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
function inOrder(doc: ShotDocument, { element }: Occurrence): (TimedLayer | { readonly placementId: Id })[] {
  const layers = timedLayers(doc, element);
  return element.layers.flatMap((id): (TimedLayer | { readonly placementId: Id })[] =>
    find(doc, 'placement', id)
      ? [{ placementId: id }]
      : layers.filter(({ layer, folder }) => (folder ? folder.id === id : layer.id === id)),
  );
}

/** Documents with a variant shown, worked out once each. */
const shownWith = new WeakMap<ShotDocument, Map<Id, ShotDocument>>();

/** The document as it is with a kept variant shown. */
export function withVariant(doc: ShotDocument, variantId: Id): ShotDocument {
  const known = shownWith.get(doc) ?? new Map<Id, ShotDocument>();
  shownWith.set(doc, known);
  const shown = known.get(variantId) ?? showVariant(doc, variantId);
  known.set(variantId, shown);
  return shown;
}

function isIn(timed: TimedLayer, { guides, forWork, alone, without }: SheetOptions): boolean {
  if (without?.includes(timed.layer.id)) return false;
  if (alone) return timed.layer.id === alone;
  return isVisible(timed) && (guides || (timed.layer.role !== 'guide' && (forWork === true || !timed.layer.forWork)));
}

const NO_MOTION: Point = { x: 0, y: 0 };

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
const isAsked = (key: string, { place }: SheetOptions): boolean =>
  !place || key === place || place.startsWith(`${key}/`) || key.startsWith(`${place}/`);

/** The sheets of one use of an element, lowest first, and mattes in it that hide what lies behind it too. */
function sheetsIn(
  doc: ShotDocument,
  use: Occurrence,
  around: Around,
  options: SheetOptions,
): { sheets: Sheet[]; mattes: Cut[] } {
  const { element, placement, key, length: turn } = use;
  const { frame, since } = use.moment;
  const { height } = shotOf(doc);
  const looks = options.looks ?? 'all';
  const round = roundOf(element, turn);
  const axis = axisOf(element, height);
  const home = use.matrix;
  const recolour = placement.recolour ?? null;
  const colours = paintsOn(doc, recoloured(element, recolour), { axis, matrix: home, picture: shotOf(doc) });
  const lookOf = (all: readonly Resolved[], matrix: Matrix, motion: Point, paintOf: PaintOf): Look | null => {
    const finishes = all.filter((each) => !movesOutlines(each));
    return finishes.length > 0 ? { finishes, axis, motion, matrix, colourOf: (id) => plainOf(paintOf(id)) } : null;
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
  let sheets: Sheet[] = [];
  const mattes: Cut[] = [];
  // What a layer that clips shows within: the drawing of the nearest layer below, in its folder, that doesn't.
  let [base, baseFolder]: [Sheet['within'], Id | undefined] = [null, undefined];
  for (const timed of inOrder(doc, use).reverse()) {
    if ('placementId' in timed) {
      const inner = occurrenceIn(doc, use, timed.placementId, options);
      if (!inner || !isAsked(inner.key, options)) continue;
      const found = sheetsIn(doc, inner, { wholes, tint }, options);
      sheets = [...cutBy(sheets, found.mattes), ...found.sheets];
      mattes.push(...found.mattes);
      continue;
    }
    const { layer, folder } = timed;
    const isBase = !layer.clip || baseFolder !== folder?.id;
    const isSeen = !seen || seen.has(layer.id) || options.alone === layer.id;
    const found =
      isSeen && isIn(timed, options) && !isOutside(use, options)
        ? find(doc, 'drawing', shownOn(timed, frame, turn)?.drawingId)
        : undefined;
    const { bend, matrix } = layerLie(use, timed);
    const finishes = looks === 'none' ? [] : resolved(layer.finishes, frame, round);
    const inFolder = looks === 'none' || options.alone ? [] : resolved(folder?.finishes ?? [], frame, round);
    const wavers = looks === 'all' ? [...finishes, ...inFolder, ...own].filter(movesOutlines) : [];
    const drawing = found && (wavers.length > 0 || bend) ? moved(found, wavers, bend) : found;
    if (drawing && layer.role === 'matte' && options.matte !== layer.id && !options.alone) {
      const cut: Cut = { layerId: layer.id, place: key, drawing, matrix, inverted: layer.matte.inverted };
      sheets = cutBy(sheets, [cut]);
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
    sheets.push({
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
  return { sheets, mattes };
}

/** Sheets with what hides part of each. */
const cutBy = (sheets: readonly Sheet[], cuts: readonly Cut[]): Sheet[] =>
  cuts.length === 0 ? [...sheets] : sheets.map((sheet) => ({ ...sheet, cuts: [...sheet.cuts, ...cuts] }));

/** The sheets of an element on a frame of its own, as it is drawn, wherever it is used. */
export function sheetsAsDrawn(doc: ShotDocument, element: Element, frame: number, options: SheetOptions): Sheet[] {
  const placement = { ...newPlacement(element.id, { start: 0, x: 0, y: 0 }, () => ''), repeats: null };
  const moment = { frame, turn: 0, since: frame };
  const length = elementLength(doc, element);
  const use = { key: '', path: [placement], placement, element, length, moment, bend: null, matrix: IDENTITY };
  return sheetsIn(doc, use, { wholes: [], tint: null }, options).sheets;
}

/** Whether a use is only on the way to the one that is asked for. */
const isOutside = ({ key, element }: Occurrence, { place, element: only }: SheetOptions): boolean =>
  (only !== undefined && only !== null && element.id !== only) ||
  (place !== undefined && place !== null && key !== place && !key.startsWith(`${place}/`));

/** A plate between uses of elements, as it lies on a frame; none where it is not seen, or one thing alone is. */
function plateSheet(
  plate: Plate,
  seen: Matrix,
  shotFrame: number,
  wholes: readonly Whole[],
  options: SheetOptions,
): Sheet[] {
  if (options.alone || options.element || options.place) return [];
  const asset = shownOnPlate(plate, shotFrame, options.guidePlates ?? options.guides);
  if (!asset) return [];
  return [
    {
      layerId: plate.id,
      elementId: plate.id,
      place: plate.id,
      asset,
      room: { left: 0, top: 0, right: plate.width, bottom: plate.height },
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

/** A plane with looks of its own is put together first. */
function planeWholes(doc: ShotDocument, plane: Plane, shotFrame: number, options: SheetOptions): readonly Whole[] {
  if (!isWhole(options)) return [];
  const shot = shotOf(doc);
  const own = resolved(plane.finishes, shotFrame, null).filter((each) => !movesOutlines(each));
  if (own.length === 0) return [];
  const axis = { from: { x: shot.width / 2, y: shot.height }, to: { x: shot.width / 2, y: 0 } };
  const colours = paintsOn(doc, undefined, { axis, matrix: IDENTITY, picture: shot });
  const look: Look = {
    finishes: own,
    axis,
    motion: NO_MOTION,
    matrix: IDENTITY,
    colourOf: (id) => plainOf(colours(id)),
  };
  return [{ place: plane.id, opacity: 1, look }];
}

/** Whether all of the shot is seen as it will be, and not one thing taken by itself. */
const isWhole = ({ looks = 'all', alone, place, element }: SheetOptions): boolean =>
  looks === 'all' && !alone && !place && !element;

/** Light falls where all of the shot is seen as it will be, and not on one thing taken by itself. */
const shiningOn = (doc: ShotDocument, shotFrame: number, options: SheetOptions): readonly Shining[] =>
  isWhole(options) ? lightsOn(doc, shotFrame, options) : [];

/** What lights fall on together is put together before they do; so is what the air pales. */
const litWholes = (plane: Plane, lights: readonly Falling[], air: Whole['air']): Whole[] =>
  lights.length > 0 || air
    ? [{ place: `${plane.id}:${lights.map(({ id }) => id).join()}`, opacity: 1, look: null, lights, air }]
    : [];

/** The air before a plane; none where one thing is taken by itself. */
function airBefore(doc: ShotDocument, plane: Plane, options: SheetOptions): Whole['air'] {
  const shot = shotOf(doc);
  const share = isWhole(options) ? airAt(shot, plane.depth) : 0;
  return share > 0 && shot.air ? { colour: colourIn(doc)(shot.air.swatch), share } : null;
}

/** What cuts a thing on a frame, as pictures of the same kind; null where nothing does, or what should is gone. */
function matteOf(doc: ShotDocument, cut: CutBy | null, shotFrame: number, options: SheetOptions): Whole['matte'] {
  if (!cut || !isWhole(options)) return null;
  const placement = find(doc, 'placement', cut.by);
  const plate = find(doc, 'plate', cut.by);
  if (placement && planeOf(doc, placement.id))
    return { sheets: passedBy(doc, placement, shotFrame, cut.passed, options), within: cut.within };
  if (!plate) return null;
  const seen = planeMatrix(doc, plate.id, shotFrame, options);
  const frames = cut.passed ? framesUpTo(plate.span?.from ?? 0, shotFrame) : [shotFrame];
  const whole = { ...plate, visible: true, opacity: 1 };
  const sheets = frames.flatMap((frame) => plateSheet(whole, seen, frame, [], { guides: false, looks: 'none' }));
  return { sheets: onlyOnce(sheets), within: cut.within };
}

const framesUpTo = (from: number, to: number): number[] =>
  Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i);

/** Pictures that lie in the same place count once. */
const onlyOnce = (sheets: readonly Sheet[]): Sheet[] => [
  ...new Map(sheets.map((sheet) => [`${sheet.asset ?? sheet.drawing.id}@${sheet.matrix.join()}`, sheet])).values(),
];

/** A use as a matte: on the frame, or on all frames up to it, each as it was then, through the camera of now. */
function passedBy(
  doc: ShotDocument,
  placement: Placement,
  shotFrame: number,
  passed: boolean,
  { still }: SheetOptions,
): Sheet[] {
  const element = find(doc, 'element', placement.elementId);
  if (!element) return [];
  const length = elementLength(doc, element);
  const depth = planeOf(doc, placement.id)?.depth ?? 0;
  const now = depthMatrix(doc, depth, shotFrame, { still: still === true });
  const through = multiply(now, invert(depthMatrix(doc, depth, shotFrame, { still: true })));
  const frames = passed ? framesUpTo(Math.max(0, Math.min(placement.start, shotFrame)), shotFrame) : [shotFrame];
  return onlyOnce(
    frames.flatMap((frame) => {
      const use = momentOn(placement, element, length, frame) && standing(doc, [placement], frame, { still: true });
      if (!use) return [];
      const seen = { ...use, matrix: multiply(through, use.matrix) };
      return sheetsIn(doc, seen, { wholes: [], tint: null }, { guides: false, looks: 'none' }).sheets;
    }),
  );
}

/** What is cut as a whole is put together first. */
const cutWholes = (id: Id, matte: Whole['matte']): Whole[] =>
  matte ? [{ place: `cut:${id}`, opacity: 1, look: null, matte }] : [];

/** The lights that fall on a plate behind all planes. */
export function plateLights(
  doc: ShotDocument,
  shotFrame: number,
  options: SheetOptions,
): (plateId: Id) => readonly Falling[] {
  const shining = shiningOn(doc, shotFrame, options);
  return (id) => fallingOn(shining, { kind: 'plate', id }, null);
}

/** What cuts a plate behind all planes. */
export const plateMatte = (
  doc: ShotDocument,
  { cut }: Plate,
  shotFrame: number,
  options: SheetOptions,
): Whole['matte'] => matteOf(doc, cut, shotFrame, options);

/** The drawings of a frame, lowest first. Hidden layers and drawings not yet loaded are left out. */
export function sheetsOf(now: ShotDocument, shotFrame: number, options: SheetOptions): Sheet[] {
  const doc = options.variant ? withVariant(now, options.variant) : now;
  let sheets: Sheet[] = [];
  const shining = shiningOn(doc, shotFrame, options);
  for (const each of lyingOn(doc, shotFrame, options).reverse()) {
    if (options.plane && each.plane.id !== options.plane) continue;
    const thing =
      'plate' in each
        ? ({ kind: 'plate', id: each.plate.id, cut: each.plate.cut } as const)
        : ({ kind: 'placement', id: each.use.placement.id, cut: each.use.placement.cut } as const);
    const wholes = [
      ...planeWholes(doc, each.plane, shotFrame, options),
      ...cutWholes(thing.id, matteOf(doc, thing.cut, shotFrame, options)),
      ...litWholes(each.plane, fallingOn(shining, thing, each.plane), airBefore(doc, each.plane, options)),
    ];
    if ('plate' in each) {
      sheets.push(...plateSheet(each.plate, each.matrix, shotFrame, wholes, options));
      continue;
    }
    const { use } = each;
    if (!isAsked(use.key, options)) continue;
    const found = sheetsIn(doc, use, { wholes, tint: null }, options);
    sheets = [...cutBy(sheets, found.mattes), ...found.sheets];
  }
  return sheets;
}

/** What is painted on: the layer's element and place tell what a swatch looks like there. */
export type Painted = Pick<Sheet, 'layerId' | 'matrix' | 'tint'> & { readonly recolour?: Id | null };

/** An element as it is seen in another of its recolourings. */
const recoloured = (element: Element, recolour: Id | null | undefined): Element =>
  recolour ? { ...element, recolour } : element;

/** The paints a sheet's marks are seen in: its tint for all of them, else their own. */
export function paintsOf(doc: ShotDocument, { layerId, matrix, tint, recolour }: Painted): PaintOf {
  const own = find(doc, 'element', find(doc, 'layer', layerId)?.elementId);
  const element = own && recoloured(own, recolour);
  const picture = find(doc, 'shot', doc.shotId) ?? { width: 0, height: 0 };
  const paints = paintsOn(doc, element, { axis: element ? axisOf(element, picture.height) : null, matrix, picture });
  // What is cut out is cut out in a tint, too.
  return tint ? (id) => (isHole(paints(id)) ? paints(id) : paints(tint)) : paints;
}

/** The same for a drawing whose layer alone is known, wherever it is seen. */
export const paintsOnLayer = (doc: ShotDocument, layerId: Id | undefined): PaintOf =>
  paintsOf(doc, { layerId: layerId ?? '', matrix: IDENTITY, tint: find(doc, 'layer', layerId)?.tint ?? null });

type ContentOf = (drawing: Drawing) => string;
const lyingKey = (lying: Lying | null, of: ContentOf): string =>
  lying ? `${of(lying.drawing)}@${lying.matrix.join(',')}` : '';
const lookKey = (look: Look | null): string =>
  look
    ? JSON.stringify([
        look.finishes,
        look.axis,
        look.motion,
        look.finishes.map(({ swatch }) => swatch && look.colourOf(swatch)),
      ])
    : '';

/**
 * The same text for frames that show the same drawings in the same way, within one document.
 * @param of what tells drawings apart; by their ids alone, unless the text is kept when they change.
 */
export function frameKey(sheets: readonly Sheet[], of: ContentOf = ({ id }) => id): string {
  return sheets
    .map(
      (s) =>
        `${lyingKey(s, of)}@${lyingKey(s.within, of)}@${s.tint}@${s.opacity}@${s.blend}@${s.group?.id}@${s.group?.opacity}@${lookKey(s.group?.look ?? null)}@${lookKey(s.look)}@${s.recolour}@${s.asset}@${s.wholes.map(({ place, opacity, look, lights, air, matte }) => `${place}${opacity}${lookKey(look)}${lights ? JSON.stringify([lights, air]) : ''}${matte ? `${matte.within}${frameKey(matte.sheets, of)}` : ''}`).join(';')}@${s.cuts.map((cut) => `${lyingKey(cut, of)}${cut.inverted}`).join(';')}`,
    )
    .join('|');
}
