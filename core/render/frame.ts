/** Frames of a shot drawn onto a surface: background, plates, and items with their looks. */
import { finished, finishReach, takesBelow } from '../compose/index.ts';
import type { Part } from '../looks/index.ts';
import { shotOf, type Blend, type Drawing, type ShotDocument } from '../document/index.ts';
import {
  EMPTY_BOX,
  grown,
  intersection,
  isEmpty,
  mapBox,
  multiply,
  scaleOf,
  union,
  type Box,
  type Matrix,
} from '../geometry/index.ts';
import { drawingBox, drawingRoom } from './marks.ts';
import type { AssetPicture } from './plates.ts';
import { shine } from './shine.ts';
import { drawLying } from './tilted-picture.ts';
import type { ItemLook, DrawItem, Whole } from './draw-item.ts';
import { flood, operationOf, type MakeSurface, type Picture, type Surface } from '../canvas/index.ts';

/** A picture and the device pixel where its first one lies. */
export interface Placed {
  readonly picture: Picture;
  readonly left: number;
  readonly top: number;
}

/**
 * Gives the plain picture of an item's drawing at a view, of what of it lies on a surface of the given size. A cache may stand
 * behind it.
 */
export type PictureOf = (item: DrawItem, matrix: Matrix, width: number, height: number) => Placed;

/** Pictures are as large as what is drawn, in steps, so that surfaces can be used again and blurs hang on no single pixel. */
const STEP = 64;

/** All that a drawing takes up, in whole steps. @param reach px more to all sides. */
export const roomFor = (drawing: Drawing, matrix: Matrix, reach = 1): Box =>
  inSteps(grown(mapBox(matrix, drawingRoom(drawing)), reach));

/** The part of a surface that a drawing takes up, in whole steps; empty where it lies beside it. @param reach px more to all sides. */
export function roomOn(drawing: Drawing, matrix: Matrix, { width, height }: Size, reach = 1): Box {
  return intersection(roomFor(drawing, matrix, reach), { left: 0, top: 0, right: width, bottom: height });
}

/** The box in whole steps round a box. */
const inSteps = ({ left, top, right, bottom }: Box): Box => ({
  left: STEP * Math.floor(left / STEP),
  top: STEP * Math.floor(top / STEP),
  right: STEP * Math.ceil(right / STEP),
  bottom: STEP * Math.ceil(bottom / STEP),
});

/** What items are drawn with. */
export interface RenderContext {
  readonly pictureOf: PictureOf;
  /** Surfaces for what is worked out on the way; they may be used again once a frame is laid. */
  readonly make: MakeSurface;
  /** Keeps what looks come to, by everything they were worked out from; without it they are worked out each time. */
  readonly kept?: (item: DrawItem, key: string, make: () => readonly PlacedPart[]) => readonly PlacedPart[];
  /** Does a piece of work at whose end surfaces it made may be used again. */
  readonly during?: <T>(work: () => T) => T;
  /** While something moves, looks are worked out coarser. */
  readonly rough?: boolean;
  /** Pictures of plates that lie between uses of elements. */
  readonly assets?: AssetPicture;
}

/**
 * Fills the shot's frame with its background, if it has one.
 * @param view from shot px to device pixels. @param instead a colour in its place, for judging.
 */
export function drawBackground(target: Surface, doc: ShotDocument, view: Matrix, instead: string | null = null): void {
  const { background, width, height } = shotOf(doc);
  const colour = instead ?? background;
  if (!colour) return;
  target.context.setTransform(...view);
  target.context.fillStyle = colour;
  target.context.fillRect(0, 0, width, height);
}

/** Lays a picture of the target's size over what is there. @param operation of the canvas, where no blend names it. */
export function layPicture(
  { context }: Surface,
  picture: Picture,
  opacity: number,
  blend: Blend,
  operation = operationOf(blend),
  left = 0,
  top = 0,
): void {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalAlpha = opacity;
  context.globalCompositeOperation = operation;
  context.drawImage(picture, left, top);
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
}

/** Lays a part of an item where it belongs. */
export const layPart = (target: Surface, { picture, opacity, blend, left, top }: ShownPart): void => {
  layPicture(target, picture, opacity, blend, operationOf(blend), left, top);
};

/** A picture to be laid, and how it meets what is there. */
export interface ShownPart extends Placed {
  readonly blend: Blend;
  readonly opacity: number;
}

export interface Size {
  readonly width: number;
  readonly height: number;
}

/** Parts that looks came to, with the place of their first pixel. */
export type PlacedPart = Part & Pick<ShownPart, 'left' | 'top'>;

/**
 * Works looks out around what is drawn and no farther than they reach, so that what lies beyond the edge of the
 * picture counts too.
 * @param bounds of what is drawn, device px.
 */
function looked(
  look: ItemLook,
  matrix: Matrix,
  { width, height }: Size,
  { make, rough = false }: RenderContext,
  bounds: Box,
  draw: (on: Surface, shift: Matrix) => void,
  below: (on: Size, shift: Matrix) => Picture | null,
): PlacedPart[] {
  const reach = finishReach(look.finishes, scaleOf(matrix)) + 2;
  const room: Box = { left: -reach, top: -reach, right: width + reach, bottom: height + reach };
  const box = intersection(inSteps(grown(bounds, reach)), room);
  if (isEmpty(box)) return [];
  const { left, top } = box;
  const source = make(box.right - left, box.bottom - top);
  const shift: Matrix = [1, 0, 0, 1, -left, -top];
  draw(source, shift);
  const place = {
    matrix: multiply(shift, matrix),
    axis: look.axis,
    colourOf: look.colourOf,
    motion: look.motion,
    below: () => below(source, shift),
    rough,
    make,
  };
  return finished(source, look.finishes, place).map((part) => ({ ...part, left, top }));
}

/** The parts of an item as its looks make them, before it is cut to what it shows within. */
function partsOf(
  item: DrawItem,
  view: Matrix,
  size: Size,
  rendering: RenderContext,
  under: readonly DrawItem[],
): readonly ShownPart[] {
  const { pictureOf, make } = rendering;
  const matrix = multiply(view, item.matrix);
  const { look } = item;
  if (item.asset && item.lies) {
    const picture = rendering.assets?.(item.asset);
    if (!picture) return [];
    const on = make(size.width, size.height);
    drawLying(on, { picture, ...item.lies }, matrix, 1, make);
    return [{ picture: on.picture, left: 0, top: 0, blend: 'normal', opacity: 1 }];
  }
  if (!look) {
    return [{ ...pictureOf(item, matrix, size.width, size.height), blend: 'normal', opacity: 1 }];
  }
  const onFills = look.finishes.some(takesBelow);
  const fills = under.filter((each) => each.place === item.place);
  const work = (): PlacedPart[] =>
    looked(
      look,
      matrix,
      size,
      rendering,
      mapBox(matrix, drawingBox(item.drawing)),
      (on, shift) => {
        const { picture, left, top } = pictureOf(item, multiply(shift, matrix), on.width, on.height);
        on.context.drawImage(picture, left, top);
      },
      ({ width, height }, shift) => {
        const on = make(width, height);
        const own = multiply(shift, view);
        for (const each of fills) {
          const { opacity, blend } = each;
          layPart(on, { ...pictureOf(each, multiply(own, each.matrix), width, height), opacity, blend });
        }
        return on.picture;
      },
    );
  const key = JSON.stringify([look.finishes, look.axis, look.motion, matrix, size.width, size.height, rendering.rough]);
  const parts = onFills ? work() : (rendering.kept?.(item, key, work) ?? work());
  return parts.map(({ picture, ...rest }) => ({ ...rest, picture: picture.picture }));
}

/** What of a picture is seen: where the drawing it clips to is, and where no matte hides it. */
function cutTo(
  part: ShownPart,
  item: DrawItem,
  view: Matrix,
  { width, height }: Size,
  rendering: RenderContext,
  clips: boolean,
): ShownPart {
  const { within, cuts } = item;
  if ((!within || !clips) && cuts.length === 0) return part;
  const { pictureOf, make } = rendering;
  const cut = make(width, height);
  const { context } = cut;
  const plain = { ...item, within: null, cuts: [], look: null, tint: null };
  if (within && clips) {
    // The base first and the picture in it: pictures handed out one after another may be of one surface.
    const kept = make(width, height);
    kept.context.drawImage(part.picture, part.left, part.top);
    const base = pictureOf({ ...plain, ...within }, multiply(view, within.matrix), width, height);
    context.drawImage(base.picture, base.left, base.top);
    context.globalCompositeOperation = 'source-in';
    context.drawImage(kept.picture, 0, 0);
  } else {
    context.drawImage(part.picture, part.left, part.top);
  }
  for (const { layerId, drawing, matrix, inverted } of cuts) {
    // All of the surface: what lies beside the matte's own picture is cut by it too.
    const whole = make(width, height);
    const matte = pictureOf({ ...plain, layerId, drawing, matrix }, multiply(view, matrix), width, height);
    whole.context.drawImage(matte.picture, matte.left, matte.top);
    context.globalCompositeOperation = inverted ? 'destination-in' : 'destination-out';
    context.drawImage(whole.picture, 0, 0);
  }
  context.globalCompositeOperation = 'source-over';
  return { ...part, picture: cut.picture, left: 0, top: 0 };
}

/** An item as it is seen, part by part: what is drawn first, its light after it, each with its own blend. */
export function shownParts(
  item: DrawItem,
  view: Matrix,
  size: Size,
  rendering: RenderContext,
  under: readonly DrawItem[] = [],
): ShownPart[] {
  return partsOf(item, view, size, rendering, under).map((part, i) => ({
    // A picture handed out may be of a surface that is used again: it is cut before the next is asked for.
    ...cutTo(part, item, view, size, rendering, i === 0),
    blend: i === 0 ? item.blend : part.blend,
    opacity: item.opacity * part.opacity,
  }));
}

/** Items in runs that are put together first: those of one element that is, or of one faded folder, or of none. */
export const inGroups = (items: readonly DrawItem[]): DrawItem[][] =>
  inRuns(items, ({ group, wholes }) => wholes[0]?.place ?? group?.id);

function inRuns<T>(list: readonly T[], keyOf: (each: T) => unknown): T[][] {
  const runs: T[][] = [];
  for (const each of list) {
    const last = runs.at(-1);
    if (last && keyOf(last[0]!) === keyOf(each)) last.push(each);
    else runs.push([each]);
  }
  return runs;
}

function layOwn(
  target: Surface,
  items: readonly DrawItem[],
  view: Matrix,
  rendering: RenderContext,
  under: readonly DrawItem[],
): void {
  let below = [...under];
  for (const run of inRuns(items, (item) => item.group?.id)) {
    const group = run[0]?.group;
    if (group?.look) {
      for (const part of wholeParts(ungrouped(run), group.look, view, target, rendering, 'folder'))
        layPart(target, { ...part, picture: part.picture.picture, opacity: part.opacity * group.opacity });
      below = [...below, ...run];
      continue;
    }
    const on = group ? rendering.make(target.width, target.height) : target;
    for (const item of run) {
      for (const part of shownParts(item, view, on, rendering, below)) layPart(on, part);
      below = [...below, item];
    }
    if (group) layPicture(target, on.picture, group.opacity, 'normal');
  }
}

const ungrouped = (items: readonly DrawItem[]): DrawItem[] => items.map((item) => ({ ...item, group: null }));

/** All that items take up with their looks, device px. */
const boundsOf = (items: readonly DrawItem[], view: Matrix): Box =>
  items
    .map((item) => {
      const own = multiply(view, item.matrix);
      if (item.room) return mapBox(own, item.room);
      const reach = item.look ? finishReach(item.look.finishes, scaleOf(own)) : 0;
      return grown(mapBox(own, drawingBox(item.drawing)), reach);
    })
    .reduce(union, EMPTY_BOX);

/** Leaves of a surface what is seen within a matte, or all but that. */
export function cutOut(
  target: Surface,
  { items, within }: NonNullable<Whole['matte']>,
  view: Matrix,
  rendering: RenderContext,
): void {
  const matte = rendering.make(target.width, target.height);
  layDrawList(matte, items, view, rendering);
  layPicture(target, matte.picture, 1, 'normal', within ? 'destination-in' : 'destination-out');
}

/** Lays what lights fall on together, with the air before it, or what is cut as a whole, put together by itself first. */
function layLit(
  target: Surface,
  items: readonly DrawItem[],
  whole: Whole,
  view: Matrix,
  rendering: RenderContext,
  depth: number,
): void {
  const { width, height } = target;
  const box = intersection(inSteps(grown(boundsOf(items, view), 1)), {
    left: 0,
    top: 0,
    right: width,
    bottom: height,
  });
  if (isEmpty(box)) return;
  const { left, top } = box;
  const on = rendering.make(box.right - left, box.bottom - top);
  const own = multiply([1, 0, 0, 1, -left, -top], view);
  layWholes(on, items, own, rendering, depth);
  if (whole.lights)
    shine(on, whole.lights, own, {
      left: left === 0 ? 0 : -Infinity,
      top: top === 0 ? 0 : -Infinity,
      right: box.right === width ? on.width : Infinity,
      bottom: box.bottom === height ? on.height : Infinity,
    });
  if (whole.matte) cutOut(on, whole.matte, own, rendering);
  if (whole.air) flood(on, whole.air.colour, 'source-atop', whole.air.share);
  layPicture(target, on.picture, whole.opacity, 'normal', 'source-over', left, top);
}

/** The parts an element or a folder with looks of its own comes to. @param items all of it, one at least. @param depth of what lies in it. */
function wholeParts(
  items: readonly DrawItem[],
  whole: ItemLook,
  view: Matrix,
  size: Size,
  rendering: RenderContext,
  depth: number | 'folder',
): PlacedPart[] {
  return looked(
    whole,
    multiply(view, whole.matrix),
    size,
    rendering,
    boundsOf(items, view),
    (on, shift) => {
      const own = multiply(shift, view);
      if (depth === 'folder') layOwn(on, items, own, rendering, []);
      else layWholes(on, items, own, rendering, depth);
    },
    () => null,
  );
}

/** Lays items on a surface in order; those of a faded folder, and those of an element that is faded or has looks of its own, are put together first. */
export function layDrawList(target: Surface, items: readonly DrawItem[], view: Matrix, rendering: RenderContext): void {
  layWholes(target, items, view, rendering, 0);
}

/** @param depth how many elements around have been gone into. */
function layWholes(
  target: Surface,
  items: readonly DrawItem[],
  view: Matrix,
  rendering: RenderContext,
  depth: number,
): void {
  let under: DrawItem[] = [];
  for (const run of inRuns(items, ({ wholes }) => wholes[depth]?.place ?? null)) {
    const whole = run[0]?.wholes[depth];
    if (!whole) layOwn(target, run, view, rendering, under);
    else if (whole.look) {
      for (const part of wholeParts(run, whole.look, view, target, rendering, depth + 1))
        layPart(target, { ...part, picture: part.picture.picture, opacity: part.opacity * whole.opacity });
    } else if (whole.lights || whole.matte) layLit(target, run, whole, view, rendering, depth + 1);
    else {
      const on = rendering.make(target.width, target.height);
      layWholes(on, run, view, rendering, depth + 1);
      layPicture(target, on.picture, whole.opacity, 'normal');
    }
    under = [...under, ...run];
  }
}
