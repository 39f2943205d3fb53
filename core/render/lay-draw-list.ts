/** Draw lists laid on a surface: items in order, and what is put together first by itself. */
import { flood, type Surface } from '../canvas/index.ts';
import { lookReach } from '../compose/index.ts';
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
import type { DrawItem, ItemLook, Whole } from './draw-item.ts';
import { looked, shownParts } from './item-parts.ts';
import { layPart, layPicture } from './lay.ts';
import type { PlacedPart, RenderContext, Size } from './render-context.ts';
import { boxWithin, ENDLESS, inSteps, roomOf } from './room.ts';
import { shine } from './shine.ts';

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

/** All that items take up within a room with their looks, device px. */
const boundsIn = (items: readonly DrawItem[], view: Matrix, room: Box): Box =>
  items
    .map((item) => {
      const own = multiply(view, item.matrix);
      if (item.room) return mapBox(own, item.room);
      const reach = item.look ? lookReach(item.look.looks, scaleOf(own)) : 0;
      return grown(boxWithin(item.drawing, own, grown(room, reach)), reach);
    })
    .filter((box) => !isEmpty(box))
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
  const frame = roomOf(target);
  const stepsIn = (room: Box): Box => inSteps(grown(boundsIn(items, view, room), 1));
  const box = intersection(stepsIn(frame), frame);
  if (isEmpty(box)) return;
  const { left, top } = box;
  const on = rendering.make(box.right - left, box.bottom - top);
  const own = multiply([1, 0, 0, 1, -left, -top], view);
  layWholes(on, items, own, rendering, depth);
  if (whole.lights) {
    // Where it goes on beyond the frame, nobody knows what lies there.
    const all = stepsIn(ENDLESS);
    shine(on, whole.lights, own, {
      left: all.left <= 0 ? -left : -Infinity,
      top: all.top <= 0 ? -top : -Infinity,
      right: all.right >= width ? width - left : Infinity,
      bottom: all.bottom >= height ? height - top : Infinity,
    });
  }
  if (whole.matte) cutOut(on, whole.matte, own, rendering);
  if (whole.air) flood(on, whole.air.colour, 'source-atop', whole.air.share);
  layPicture(target, on.picture, whole.opacity, 'normal', 'source-over', left, top);
}

/** The parts that an element or a folder with looks of its own is laid as. @param items all of it, one at least. @param depth of what lies in it. */
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
    roomOf(size),
    rendering,
    (room) => boundsIn(items, view, room),
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
