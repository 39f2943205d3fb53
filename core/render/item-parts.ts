/** An item as it is seen: what is drawn, what its looks make of it, and what is cut away. */
import type { Picture, Surface } from '../canvas/index.ts';
import { paintedLooks, lookReach, takesBelow } from '../compose/index.ts';
import { grown, intersection, isEmpty, multiply, scaleOf, type Box, type Matrix } from '../geometry/index.ts';
import type { DrawItem, ItemLook } from './draw-item.ts';
import { layPart, putPlaced } from './lay.ts';
import type { PlacedPart, RenderContext, ShownPart, Size } from './render-context.ts';
import { nearBy } from './near.ts';
import { boxWithin, ENDLESS, inSteps, roomOf } from './room.ts';
import { drawLying } from './tilted-picture.ts';

/**
 * Works looks out around what is drawn and no farther than they reach, so that what lies beyond the edge of the
 * picture counts too.
 * @param of what is looked at, device px. @param boundsIn what is drawn within a room, device px.
 */
export function looked(
  look: ItemLook,
  matrix: Matrix,
  of: Box,
  { make, rough = false }: RenderContext,
  boundsIn: (room: Box) => Box,
  draw: (on: Surface, shift: Matrix) => void,
  below: (on: Size, shift: Matrix) => Picture | null,
): PlacedPart[] {
  const reach = lookReach(look.looks, scaleOf(matrix)) + 2;
  const room = grown(of, reach);
  const box = intersection(inSteps(grown(boundsIn(room), reach)), room);
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
  return paintedLooks(source, look.looks, place).map((part) => ({ ...part, left, top }));
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
  const onFills = look.looks.some(takesBelow);
  const near = rendering.near && !onFills ? nearBy(item.drawing, matrix, size) : null;
  const sight = near ? { matrix: near.at, of: ENDLESS } : { matrix, of: roomOf(size) };
  const fills = under.filter((each) => each.place === item.place);
  const work = (): PlacedPart[] =>
    looked(
      look,
      sight.matrix,
      sight.of,
      rendering,
      (room) => boxWithin(item.drawing, sight.matrix, room),
      (on, shift) => {
        putPlaced(on, pictureOf(item, multiply(shift, sight.matrix), on.width, on.height));
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
  const { rough } = rendering;
  const key = JSON.stringify([look.looks, look.axis, look.motion, sight.matrix, near ? null : size, rough]);
  const parts = onFills ? work() : (rendering.kept?.(item, key, work) ?? work());
  const rest = near && { rest: near.rest };
  return parts.map((part) => ({ ...part, ...rest, picture: part.picture.picture }));
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
    putPlaced(kept, part);
    const base = pictureOf({ ...plain, ...within }, multiply(view, within.matrix), width, height);
    putPlaced(cut, base);
    context.globalCompositeOperation = 'source-in';
    context.drawImage(kept.picture, 0, 0);
  } else {
    putPlaced(cut, part);
  }
  for (const { layerId, drawing, matrix, inverted } of cuts) {
    // All of the surface: what lies beside the matte's own picture is cut by it too.
    const whole = make(width, height);
    const matte = pictureOf({ ...plain, layerId, drawing, matrix }, multiply(view, matrix), width, height);
    putPlaced(whole, matte);
    context.globalCompositeOperation = inverted ? 'destination-in' : 'destination-out';
    context.drawImage(whole.picture, 0, 0);
  }
  context.globalCompositeOperation = 'source-over';
  return { blend: part.blend, opacity: part.opacity, picture: cut.picture, left: 0, top: 0 };
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
