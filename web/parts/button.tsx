/** The plain buttons pages are made of. */
import type { ButtonHTMLAttributes } from 'react';
import { hasWords } from './words-in.ts';

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

export function Button({ look = 'quiet', whyNot, className = '', title, onClick, children, ...rest }: ButtonProps) {
  return (
    <button
      type="button"
      aria-label={hasWords(children) ? undefined : title}
      {...rest}
      aria-disabled={whyNot ? true : undefined}
      data-tip={whyNot ?? title}
      onClick={(event) => {
        if (whyNot) event.preventDefault();
        else onClick?.(event);
      }}
      className={`moves inline-flex h-9 items-center justify-center gap-2 rounded-lg px-3 ${LOOKS[look]} ${whyNot ? 'opacity-45' : ''} ${className}`}
    >
      {children}
    </button>
  );
}
