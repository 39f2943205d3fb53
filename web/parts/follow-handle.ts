/** Following the pen from a press on a handle until it lifts; Escape backs out. */
import type { PointerEvent as ReactPointerEvent } from 'react';

interface Following {
  readonly move: (event: { clientX: number; clientY: number; shiftKey: boolean; altKey: boolean }) => void;
  readonly up: () => void;
  readonly drop: () => void;
}

/** @param begin called once the press is the desk's own; gives what the drag does. */
export function followHandle(event: ReactPointerEvent<Element>, begin: () => Following): void {
  if (event.button !== 0) return;
  event.preventDefault();
  event.stopPropagation();
  const handle = event.currentTarget;
  const following = begin();
  handle.setPointerCapture(event.pointerId);
  const move = (each: Event): void => {
    following.move(each as PointerEvent);
  };
  const stop = (): void => {
    handle.removeEventListener('pointermove', move);
    handle.removeEventListener('pointerup', up);
    handle.removeEventListener('pointercancel', drop);
    removeEventListener('keydown', escape, { capture: true });
  };
  const up = (): void => {
    stop();
    following.up();
  };
  const drop = (): void => {
    stop();
    following.drop();
  };
  const escape = (key: KeyboardEvent): void => {
    if (key.code !== 'Escape') return;
    key.preventDefault();
    key.stopPropagation();
    drop();
  };
  handle.addEventListener('pointermove', move);
  handle.addEventListener('pointerup', up);
  handle.addEventListener('pointercancel', drop);
  addEventListener('keydown', escape, { capture: true });
}
