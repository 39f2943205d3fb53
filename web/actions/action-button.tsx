/** Buttons that do an action. */
import type { ReactNode } from 'react';
import { Small } from '../parts/panel.tsx';
import { useDocument } from '../shot/document.ts';
import { act, type Action } from './action.ts';
import { titleOf } from './key-text.ts';

interface ActionButtonProps {
  action: Action;
  children: ReactNode;
  pressed?: boolean;
  primary?: boolean;
  className?: string;
  /** Said in place of the action's own label. */
  label?: string;
}

/** Why an action cannot be done now, told anew only where an edit has changed that. */
const useWhyNot = (action: Action): string | null => useDocument(() => action.whyNot?.() ?? null);

/** An action as a small button with its words; where it cannot be done now it says why. */
export function ActionWords({ action, label }: { action: Action; label?: string }) {
  const whyNot = useWhyNot(action);
  return (
    <Small
      title={titleOf(action)}
      whyNot={whyNot}
      onClick={() => {
        act(action);
      }}
    >
      {label ?? action.label}
    </Small>
  );
}

/** A square button for an action; where it cannot be done now it looks so, and says why when used. */
export function ActionButton({ action, children, pressed, primary, className = '', label }: ActionButtonProps) {
  const whyNot = useWhyNot(action);
  const look = primary
    ? 'bg-flame text-soot-950 hover:brightness-110'
    : pressed
      ? 'bg-flame-deep text-flame'
      : 'bg-soot-800 text-wax-300 hover:bg-soot-700 hover:text-wax-100';
  return (
    <button
      type="button"
      aria-label={label ?? action.label}
      aria-pressed={pressed}
      aria-disabled={whyNot ? true : undefined}
      data-tip={whyNot ?? label ?? titleOf(action)}
      onClick={() => {
        act(action);
      }}
      className={`moves flex h-8 min-w-8 items-center justify-center rounded-lg ${look} ${whyNot ? 'opacity-40' : ''} ${className}`}
    >
      {children}
    </button>
  );
}
