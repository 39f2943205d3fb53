/** Dragging a mark of the plan: one undo step, worked out anew from where it began, taken back by Escape. */
import { randomId, type ShotDocument } from '@tallow/core/document';
import type { Point } from '@tallow/core/geometry';
import type { PointerEvent as ReactPointerEvent } from 'react';
import { endGesture, reEdit, takeBack } from './document.ts';

interface Dragged {
  /** Where an event is, in the space the change is told in. */
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
export function drag(
  event: ReactPointerEvent<Element>,
  { placeOf, name, change, done, moved: tell, over }: Dragged,
): void {
  if (event.button !== 0) return;
  event.preventDefault();
  event.stopPropagation();
  const mark = event.currentTarget;
  const gesture = `plan-${randomId()}`;
  const from = placeOf(event);
  let moved = false;
  mark.setPointerCapture(event.pointerId);
  const move = (each: Event): void => {
    moved = true;
    const at = placeOf(each as PointerEvent);
    reEdit(name, (doc) => change(doc, at, from), gesture);
    tell?.(at, from);
  };
  const stop = (): void => {
    mark.removeEventListener('pointermove', move);
    mark.removeEventListener('pointerup', end);
    mark.removeEventListener('pointercancel', cancel);
    removeEventListener('keydown', escape, { capture: true });
    over?.();
  };
  const end = (): void => {
    stop();
    endGesture();
    if (moved) done?.();
  };
  const cancel = (): void => {
    stop();
    takeBack(gesture);
  };
  const escape = (key: KeyboardEvent): void => {
    if (key.code !== 'Escape') return;
    key.preventDefault();
    key.stopPropagation();
    cancel();
  };
  mark.addEventListener('pointermove', move);
  mark.addEventListener('pointerup', end);
  mark.addEventListener('pointercancel', cancel);
  addEventListener('keydown', escape, { capture: true });
}
