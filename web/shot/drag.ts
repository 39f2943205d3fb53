/** Dragging a mark of the plan: one undo step, worked out anew from where it began, taken back by Escape. */
import { randomId, type ShotDocument } from '@tallow/core/document';
import type { Point } from '@tallow/core/geometry';
import type { PointerEvent as ReactPointerEvent } from 'react';
import { startDrag } from '../parts/dragging.ts';
import { endGesture, reEdit, takeBack } from './document.ts';

interface Dragged {
  /** Where an event is, in the space of the change. */
  readonly placeOf: (event: { clientX: number; clientY: number }) => Point;
  /** Name of the step. */
  readonly name: string;
  /** The change for a place, from the document as it was when the drag began. */
  readonly change: (doc: ShotDocument, at: Point, from: Point) => ShotDocument;
  readonly done?: () => void;
  /** Told of every move, after the change. */
  readonly moved?: (at: Point, from: Point) => void;
  /** Told when it is over, however it ends. */
  readonly over?: () => void;
}

/** Follows the pen from a press on a mark until it lifts. */
export function drag(event: ReactPointerEvent, { placeOf, name, change, done, moved: tell, over }: Dragged): void {
  startDrag(event, () => {
    const gesture = `plan-${randomId()}`;
    const from = placeOf(event);
    let moved = false;
    return {
      move: (each) => {
        moved = true;
        const at = placeOf(each);
        reEdit(name, (doc) => change(doc, at, from), gesture);
        tell?.(at, from);
      },
      up: () => {
        over?.();
        endGesture();
        if (moved) done?.();
      },
      drop: () => {
        over?.();
        takeBack(gesture);
      },
    };
  });
}
