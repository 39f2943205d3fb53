/**
 * The one map from frames of what holds an element (the shot, or another element) to frames of the element: where it begins,
 * with what frame, how fast, how often round, and what is seen before and after. Whole numbers throughout: nothing drifts.
 */
import {
  find,
  findAll,
  shotOf,
  type Element,
  type Placement,
  type Plane,
  type Plate,
  type ShotDocument,
} from '../document/index.ts';
import { modulo } from '../geometry/index.ts';
import { DEEPEST, placedInside } from './element.ts';

/** When an element is used: all of a placement that its time hangs on. */
export type InTime = Pick<Placement, 'start' | 'repeats' | 'lasts' | 'before' | 'after' | 'phase' | 'speed'>;

type Timed = Pick<Element, 'time'>;

/** Where a placement is in time. */
export interface Moment {
  /** Element frame. */
  readonly frame: number;
  /** Turn of a cycle, from 0. */
  readonly turn: number;
  /** Frames of its holder since it began, below 0 before: what changes over its time is read at it. */
  readonly since: number;
}

/** Frames of its holder from its start until it ends by itself, Infinity where it loops for good. */
function naturalEnd({ repeats, phase, speed: { over, of } }: InTime, { time }: Timed, length: number): number {
  if (time === 'cycle') return repeats === null ? Infinity : Math.ceil((repeats * length * of) / over);
  return Math.max(0, Math.ceil(((length - phase) * of) / over));
}

/** Frames of its holder that it is seen for, Infinity where it loops for good. @param length the element's. */
export const seenFrames = (placement: InTime, element: Timed, length: number): number =>
  Math.min(placement.lasts ?? Infinity, naturalEnd(placement, element, length));

function momentAt({ phase, speed: { over, of } }: InTime, { time }: Timed, length: number, since: number): Moment {
  const at = Math.floor((since * over) / of) + phase;
  return time === 'cycle'
    ? { frame: modulo(at, length), turn: Math.floor(at / length), since }
    : { frame: Math.min(length - 1, at), turn: 0, since };
}

/**
 * What of an element a placement shows on a frame of its holder; null where it shows nothing.
 * @param length the element's, frames. @param outer frame of the shot, or of the element it lies in.
 */
export function momentOn(placement: InTime, element: Timed, length: number, outer: number): Moment | null {
  const since = outer - placement.start;
  const seen = seenFrames(placement, element, length);
  if (seen <= 0) return null;
  if (since >= 0 && since < seen) return momentAt(placement, element, length, since);
  const shown = since < 0 ? placement.before : placement.after;
  if (shown === 'nothing') return null;
  const last = seen === Infinity ? Math.ceil((length * placement.speed.of) / placement.speed.over) - 1 : seen - 1;
  // What stands still goes on being carried, turned and faded.
  return { ...momentAt(placement, element, length, shown === 'first' ? 0 : last), since };
}

/** The frame of an element that a placement shows on a frame of its holder, or null. */
export const placementFrame = (placement: InTime, element: Timed, length: number, outer: number): number | null =>
  momentOn(placement, element, length, outer)?.frame ?? null;

/** The first frame of its holder that shows an element frame in a turn, or one after it where the speed leaps over it. */
export function outerFrame(
  { start, phase, speed: { over, of } }: InTime,
  { time }: Timed,
  length: number,
  frame: number,
  turn: number,
): number {
  const at = turn * length + frame - phase;
  // What comes before the frame it begins with comes round again.
  const from = at < 0 && time === 'cycle' ? at + length * Math.ceil(-at / length) : Math.max(0, at);
  return start + Math.ceil((from * of) / over);
}

/** Turns of an element that begin before its holder ends, at least 1; the last may be cut off. */
export function turnsIn(placement: InTime, element: Timed, length: number, outerLength: number): number {
  if (element.time !== 'cycle') return 1;
  const shown = Math.min(seenFrames(placement, element, length), outerLength - placement.start);
  return shown < 1 ? 1 : momentAt(placement, element, length, shown - 1).turn + 1;
}

/** What lies on a plane: a use of an element, or a plate. */
type OnPlane = { readonly plane: Plane } & ({ element: Element; placement: Placement } | { plate: Plate });

/** What lies on the planes of the shot, frontmost first: uses of elements, and plates between them. */
export function onPlanes(doc: ShotDocument): OnPlane[] {
  return findAll(doc, 'plane', shotOf(doc).planes).flatMap((plane) =>
    plane.placements.flatMap((id): OnPlane[] => {
      const placement = find(doc, 'placement', id);
      const element = find(doc, 'element', placement?.elementId);
      const plate = find(doc, 'plate', id);
      return plate ? [{ plane, plate }] : placement && element ? [{ plane, placement, element }] : [];
    }),
  );
}

/** The placements on the planes of the shot with their elements, frontmost first. */
export const placedElements = (doc: ShotDocument): { element: Element; placement: Placement }[] =>
  onPlanes(doc).flatMap((each) => ('plate' in each ? [] : [each]));

/** The elements that are seen in the shot, on planes or inside others, each once, frontmost first. */
export function usedElements(doc: ShotDocument): Element[] {
  const found = new Set<Element>();
  const look = (element: Element, depth: number): void => {
    if (found.has(element)) return;
    found.add(element);
    if (depth < DEEPEST) for (const { element: inner } of placedInside(doc, element)) look(inner, depth + 1);
  };
  for (const { element } of placedElements(doc)) look(element, 1);
  return [...found];
}
