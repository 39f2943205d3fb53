/** Buttons: one that does an action of the desk, and the plain ones pages are made of. */
import type { ButtonHTMLAttributes, ReactNode } from 'react';
import type { Action } from '../state/action.ts';
import { act, ACTIONS, type ActionName } from '../state/actions.ts';
import { titleOf } from '../state/keys.ts';
import { Small } from './panel.tsx';

const LOOKS = {
  quiet: 'bg-soot-800 text-wax-300 hover:bg-soot-700 hover:text-wax-100',
  bare: 'text-wax-300 hover:bg-soot-800 hover:text-wax-100',
  primary: 'bg-flame text-soot-950 font-semibold hover:brightness-110',
} as const;

interface ButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  look?: keyof typeof LOOKS;
  /** Why it cannot be used now; said on hover and to screen readers instead of a dead button. */
  whyNot?: string | null;
}

export function Button({ look = 'quiet', whyNot, className = '', title, onClick, ...rest }: ButtonProps) {
  return (
    <button
      type="button"
      {...rest}
      aria-disabled={whyNot ? true : undefined}
      title={whyNot ?? title}
      onClick={(event) => {
        if (whyNot) event.preventDefault();
        else onClick?.(event);
      }}
      className={`moves inline-flex h-9 items-center justify-center gap-2 rounded-lg px-3 ${LOOKS[look]} ${whyNot ? 'opacity-45' : ''} ${className}`}
    />
  );
}

interface ActionButtonProps {
  name: ActionName;
  children: ReactNode;
  pressed?: boolean;
  primary?: boolean;
  className?: string;
  /** Said in place of the action's own label. */
  label?: string;
}

/** A square button for an action; where it cannot be done now it looks so, and says why when used. */
/** An action as a small button with its words; where it cannot be done now it says why. */
export function ActionWords({ name, label }: { name: ActionName; label?: string }) {
  const action: Action = ACTIONS[name];
  const whyNot = action.whyNot?.() ?? null;
  return (
    <Small
      title={titleOf(name)}
      whyNot={whyNot}
      onClick={() => {
        act(name);
      }}
    >
      {label ?? action.label}
    </Small>
  );
}

export function ActionButton({ name, children, pressed, primary, className = '', label }: ActionButtonProps) {
  const action: Action = ACTIONS[name];
  const whyNot = action.whyNot?.() ?? null;
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
      title={whyNot ?? label ?? titleOf(name)}
      onClick={() => {
        act(name);
      }}
      className={`moves flex h-8 min-w-8 items-center justify-center rounded-lg ${look} ${whyNot ? 'opacity-40' : ''} ${className}`}
    >
      {children}
    </button>
  );
}
