/** Dragging: the pen, mouse or finger is followed from a press until it lifts, wherever it goes; Escape backs out. */
import type { PointerEvent as ReactPointerEvent } from 'react';

type Moved = Pick<PointerEvent, 'clientX' | 'clientY' | 'shiftKey' | 'altKey'>;

/** What a drag does. What is left out does nothing. */
export interface Dragging {
  readonly move?: (event: Moved) => void;
  readonly up?: (event: Moved) => void;
  /** The pointer was taken away, or Escape pressed: what the drag did is taken back. */
  readonly drop?: () => void;
}

/** Sends all events of a pointer to what was pressed until it lifts, wherever it goes. */
export function capturePointer(pressed: Element, { pointerId }: { readonly pointerId: number }): void {
  pressed.setPointerCapture(pointerId);
}

/**
 * Follows a press of the first button.
 * @param begin called once the press is the drag's; null for none after all.
 */
export function startDrag(event: ReactPointerEvent, begin: () => Dragging | null): void {
  if (event.button !== 0) return;
  event.preventDefault();
  event.stopPropagation();
  const pressed = event.currentTarget;
  const { pointerId } = event;
  const dragging = begin();
  if (!dragging) return;
  capturePointer(pressed, event);
  const own = (then: (each: PointerEvent) => void) => (each: Event) => {
    if ((each as PointerEvent).pointerId === pointerId) then(each as PointerEvent);
  };
  const move = own((each) => dragging.move?.(each));
  const stop = (): void => {
    pressed.removeEventListener('pointermove', move);
    pressed.removeEventListener('pointerup', up);
    pressed.removeEventListener('pointercancel', cancel);
    removeEventListener('keydown', escape, { capture: true });
  };
  const up = own((each) => {
    stop();
    dragging.up?.(each);
  });
  const drop = (): void => {
    stop();
    dragging.drop?.();
  };
  const cancel = own(drop);
  const escape = (key: KeyboardEvent): void => {
    if (key.code !== 'Escape') return;
    key.preventDefault();
    key.stopPropagation();
    drop();
  };
  pressed.addEventListener('pointermove', move);
  pressed.addEventListener('pointerup', up);
  pressed.addEventListener('pointercancel', cancel);
  addEventListener('keydown', escape, { capture: true });
}

/**
 * Something that is where the pointer is, from the press on: a slider without a knob, a ruler that is scrubbed. What `to`
 * needs of the time of the press it keeps: the page is drawn anew meanwhile.
 * @param back puts it where it was before.
 */
export function startScrub(
  event: ReactPointerEvent<HTMLElement | SVGElement>,
  to: (at: Moved) => void,
  back: () => void,
  up?: () => void,
): void {
  startDrag(event, () => {
    if (event.currentTarget.tabIndex >= 0) event.currentTarget.focus({ preventScroll: true });
    to(event);
    const drop = (): void => {
      back();
      up?.();
    };
    return { move: to, up, drop };
  });
}
