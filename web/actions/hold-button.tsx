/** Buttons that act for as long as they are held, by pen, mouse or key. */
import { useRef, type ReactNode } from 'react';
import { act, type Action } from './action.ts';
import { titleOf } from './key-text.ts';
import { capturePointer } from '../parts/dragging.ts';

/** A square button for an action that lasts as long as it is held. */
export function HoldButton({ action, children }: { action: Action; children: ReactNode }) {
  const held = useRef(false);
  const begin = (): void => {
    if (held.current) return;
    held.current = true;
    act(action);
  };
  const end = (): void => {
    if (held.current) action.release?.();
    held.current = false;
  };
  return (
    <button
      type="button"
      aria-label={action.label}
      data-tip={titleOf(action)}
      data-holds
      className="moves grid size-8 shrink-0 touch-none place-items-center rounded-lg text-wax-300 hover:bg-black/25"
      onPointerDown={(event) => {
        capturePointer(event.currentTarget, event);
        begin();
      }}
      onPointerUp={end}
      onPointerCancel={end}
      onBlur={end}
      onKeyDown={(event) => {
        if (event.code === 'Space' || event.code === 'Enter') begin();
      }}
      onKeyUp={end}
      onContextMenu={(event) => {
        event.preventDefault();
      }}
    >
      {children}
    </button>
  );
}

/** After so long a press is a hold. */
const HOLD_MS = 260;

interface StepButtonProps {
  /** What a press does. */
  action: Action;
  /** What holding does, until let go. */
  holds: Action;
  children: ReactNode;
}

/** A button that does one thing when pressed and another for as long as it is held. */
export function StepButton({ action, holds, children }: StepButtonProps) {
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const held = useRef(false);
  const end = (): void => {
    clearTimeout(timer.current);
    if (held.current) holds.release?.();
  };
  return (
    <button
      type="button"
      aria-label={action.label}
      data-tip={`${titleOf(action)}; hold to look and come back`}
      data-holds
      className="moves flex h-8 min-w-8 touch-none items-center justify-center rounded-lg bg-soot-800 text-wax-300 hover:bg-soot-700 hover:text-wax-100"
      onPointerDown={(event) => {
        capturePointer(event.currentTarget, event);
        held.current = false;
        timer.current = setTimeout(() => {
          held.current = true;
          act(holds);
        }, HOLD_MS);
      }}
      onPointerUp={end}
      onPointerCancel={end}
      onClick={() => {
        if (!held.current) act(action);
        held.current = false;
      }}
      onContextMenu={(event) => {
        event.preventDefault();
      }}
    >
      {children}
    </button>
  );
}
