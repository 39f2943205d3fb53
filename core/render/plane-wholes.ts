/** What stands on planes is put together before looks, air, light and cuts of it as a whole. */
import { airAt, depthMatrix, planeMatrix, planeOf, standing } from '../assembly/index.ts';
import { movesOutlines, resolved } from '../compose/index.ts';
import {
  find,
  shotOf,
  type CutBy,
  type Id,
  type Placement,
  type Plane,
  type Plate,
  type ShotDocument,
} from '../document/index.ts';
import { invert, IDENTITY, multiply } from '../geometry/index.ts';
import { elementLength, momentOn } from '../timing/index.ts';
import { colourIn, fallingOn, lightsOn, type Falling, type Shining } from './lights.ts';
import { paintsOn, plainOf } from './paint.ts';
import type { ItemLook, Whole, DrawItem, DrawOptions } from './draw-item.ts';
import { NO_MOTION, drawListIn, plateItem } from './use-draw-list.ts';

/** A plane with looks of its own is put together first. */
export function planeWholes(
  doc: ShotDocument,
  plane: Plane,
  shotFrame: number,
  options: DrawOptions,
): readonly Whole[] {
  if (!isWhole(options)) return [];
  const shot = shotOf(doc);
  const own = resolved(plane.finishes, shotFrame, null).filter((each) => !movesOutlines(each));
  if (own.length === 0) return [];
  const axis = { from: { x: shot.width / 2, y: shot.height }, to: { x: shot.width / 2, y: 0 } };
  const colours = paintsOn(doc, undefined, { axis, matrix: IDENTITY, picture: shot });
  const look: ItemLook = {
    looks: own,
    axis,
    motion: NO_MOTION,
    matrix: IDENTITY,
    colourOf: (id) => plainOf(colours(id)),
  };
  return [{ place: plane.id, opacity: 1, look }];
}

/** Whether all of the shot is seen as it will be, and not one thing taken by itself. */
const isWhole = ({ looks = 'all', alone, place, element }: DrawOptions): boolean =>
  looks === 'all' && !alone && !place && !element;

/** Light falls where all of the shot is seen as it will be, and not on one thing taken by itself. */
export const shiningOn = (doc: ShotDocument, shotFrame: number, options: DrawOptions): readonly Shining[] =>
  isWhole(options) ? lightsOn(doc, shotFrame, options) : [];

/** What lights fall on together is put together before they do; so is what the air pales. */
export const litWholes = (plane: Plane, lights: readonly Falling[], air: Whole['air']): Whole[] =>
  lights.length > 0 || air
    ? [{ place: `${plane.id}:${lights.map(({ id }) => id).join()}`, opacity: 1, look: null, lights, air }]
    : [];

/** The air before a plane; none where one thing is taken by itself. */
export function airBefore(doc: ShotDocument, plane: Plane, options: DrawOptions): Whole['air'] {
  const shot = shotOf(doc);
  const share = isWhole(options) ? airAt(shot, plane.depth) : 0;
  return share > 0 && shot.air ? { colour: colourIn(doc)(shot.air.swatch), share } : null;
}

/** What cuts a thing on a frame, as pictures of the same kind; null where nothing does, or what should is gone. */
export function matteOf(doc: ShotDocument, cut: CutBy | null, shotFrame: number, options: DrawOptions): Whole['matte'] {
  if (!cut || !isWhole(options)) return null;
  const placement = find(doc, 'placement', cut.by);
  const plate = find(doc, 'plate', cut.by);
  if (placement && planeOf(doc, placement.id))
    return { items: passedBy(doc, placement, shotFrame, cut.passed, options), within: cut.within };
  if (!plate) return null;
  const seen = planeMatrix(doc, plate.id, shotFrame, options);
  const frames = cut.passed ? framesUpTo(plate.span?.from ?? 0, shotFrame) : [shotFrame];
  const whole = { ...plate, visible: true, opacity: 1 };
  const items = frames.flatMap((frame) => plateItem(whole, seen, frame, [], { guides: false, looks: 'none' }));
  return { items: onlyOnce(items), within: cut.within };
}

const framesUpTo = (from: number, to: number): number[] =>
  Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i);

/** Pictures that lie in the same place count once. */
const onlyOnce = (items: readonly DrawItem[]): DrawItem[] => [
  ...new Map(items.map((item) => [`${item.asset ?? item.drawing.id}@${item.matrix.join()}`, item])).values(),
];

/** A use as a matte: on the frame, or on all frames up to it, each as it was then, through the camera of now. */
function passedBy(
  doc: ShotDocument,
  placement: Placement,
  shotFrame: number,
  passed: boolean,
  { still }: DrawOptions,
): DrawItem[] {
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
      return drawListIn(doc, seen, { wholes: [], tint: null }, { guides: false, looks: 'none' }).items;
    }),
  );
}

/** What is cut as a whole is put together first. */
export const cutWholes = (id: Id, matte: Whole['matte']): Whole[] =>
  matte ? [{ place: `cut:${id}`, opacity: 1, look: null, matte }] : [];

/** The lights that fall on a plate behind all planes. */
export function plateLights(
  doc: ShotDocument,
  shotFrame: number,
  options: DrawOptions,
): (plateId: Id) => readonly Falling[] {
  const shining = shiningOn(doc, shotFrame, options);
  return (id) => fallingOn(shining, { kind: 'plate', id }, null);
}

/** What cuts a plate behind all planes. */
export const plateMatte = (
  doc: ShotDocument,
  { cut }: Plate,
  shotFrame: number,
  options: DrawOptions,
): Whole['matte'] => matteOf(doc, cut, shotFrame, options);
