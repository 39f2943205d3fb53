/** Lanes of the tall strip: which bar lies in which row, and what of a bar is under the pen. */
import { find, findAll, shotOf, type Element, type Id, type Placement, type Plane } from '@tallow/core/document';
import { elementLength } from '@tallow/core/timing';
import { spanOfUse } from '../strip/row.ts';
import { usesOn, type Level } from '../tools/place/placing.ts';

export interface Bar {
  readonly placement: Placement;
  readonly element: Element;
  /** The element's, frames. */
  readonly length: number;
  /** Frames of the level: from, and one past the last. */
  readonly from: number;
  readonly to: number;
  /** Row in its lane, from 0. */
  readonly row: number;
}

export interface Lane {
  /** The plane, or the element whose inside is open. */
  readonly id: Id;
  readonly name: string;
  readonly plane: Plane | null;
  readonly bars: readonly Bar[];
  readonly rows: number;
}

/** Puts things that last from frame to frame into as few rows as leave none on another. */
export function inRows<T extends { readonly from: number; readonly to: number }>(
  things: readonly T[],
): (T & { readonly row: number })[] {
  const ends: number[] = [];
  return things.map((thing) => {
    const free = ends.findIndex((end) => end <= thing.from);
    const row = free < 0 ? ends.length : free;
    ends[row] = thing.to;
    return { ...thing, row };
  });
}

function laneOf(level: Level, id: Id, name: string, plane: Plane | null, uses: ReturnType<typeof usesOn>): Lane {
  const bars = inRows(
    uses.map(({ placement, element }) => {
      const length = elementLength(level.doc, element);
      const [from, to] = spanOfUse(placement, element, length, Math.max(level.length, placement.start + 1));
      return { placement, element, length, from, to };
    }),
  );
  return { id, name, plane, bars, rows: Math.max(1, ...bars.map(({ row }) => row + 1)) };
}

/** The lanes of a level, nearest first: one for each plane, or one for what lies in an element. */
export function lanesOf(level: Level): Lane[] {
  const { doc, holder } = level;
  if (holder) return [laneOf(level, holder.id, `in ${holder.name}`, null, usesOn(level))];
  return findAll(doc, 'plane', shotOf(doc).planes).map((plane) => {
    const uses = findAll(doc, 'placement', plane.placements).flatMap((placement) => {
      const element = find(doc, 'element', placement.elementId);
      return element ? [{ placement, element }] : [];
    });
    return laneOf(level, plane.id, plane.name, plane, uses);
  });
}

/** px at a bar's ends that trim it. */
const GRIP = 7;

export type BarPart = 'start' | 'end' | 'body';

/** What of a bar lies at a place along it, CSS px from its left end. */
export function partAt(x: number, width: number): BarPart {
  // A short bar is moved rather than trimmed.
  const grip = Math.min(GRIP, width / 4);
  return x < grip ? 'start' : x > width - grip ? 'end' : 'body';
}

/** CSS px within which an end of a bar snaps to another thing in time. */
export const TIME_SNAP = 6;

/** Frames that things in time snap to: starts and ends of bars, and what else is there. @param moved uses that are not meant. */
export const edgesOf = (lanes: readonly Lane[], moved: readonly Id[]): number[] =>
  lanes.flatMap(({ bars }) =>
    bars.filter(({ placement }) => !moved.includes(placement.id)).flatMap(({ from, to }) => [from, to]),
  );

/** A frame as it snaps to the nearest of some others, and to the beginning. @param reach frames. */
export function snappedFrame(marks: readonly number[], frame: number, reach: number): number {
  const near = [...marks, 0].filter((edge) => Math.abs(edge - frame) <= reach);
  return near.toSorted((a, b) => Math.abs(a - frame) - Math.abs(b - frame))[0] ?? frame;
}
