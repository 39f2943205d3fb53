/** Buttons that act for as long as they are held, by pen, mouse or key. */
import { useRef, type ReactNode } from 'react';
import type { Action } from '../state/action.ts';
import { act, ACTIONS, type ActionName } from '../state/actions.ts';
import { titleOf } from '../state/keys.ts';

/** A square button for an action that lasts as long as it is held. */
export function HoldButton({ name, children }: { name: ActionName; children: ReactNode }) {
  const action: Action = ACTIONS[name];
  const held = useRef(false);
  const begin = (): void => {
    if (held.current) return;
    held.current = true;
    act(name);
  };
  const end = (): void => {
    if (held.current) action.release?.();
    held.current = false;
  };
  return (
    <button
      type="button"
      aria-label={action.label}
      title={titleOf(name)}
      className="moves grid size-8 shrink-0 touch-none place-items-center rounded-lg text-wax-300 hover:bg-black/25"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
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
  name: ActionName;
  /** What holding does, until let go. */
  holds: ActionName;
  children: ReactNode;
}

/** A button that does one thing when pressed and another for as long as it is held. */
export function StepButton({ name, holds, children }: StepButtonProps) {
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const held = useRef(false);
  const holding: Action = ACTIONS[holds];
  const end = (): void => {
    clearTimeout(timer.current);
    if (held.current) holding.release?.();
  };
  return (
    <button
      type="button"
      aria-label={ACTIONS[name].label}
      title={`${titleOf(name)}; hold to look and come back`}
      className="moves flex h-8 min-w-8 touch-none items-center justify-center rounded-lg bg-soot-800 text-wax-300 hover:bg-soot-700 hover:text-wax-100"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current = false;
        timer.current = setTimeout(() => {
          held.current = true;
          act(holds);
        }, HOLD_MS);
      }}
      onPointerUp={end}
      onPointerCancel={end}
      onClick={() => {
        if (!held.current) act(name);
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
