/** What is typed into a field is taken once it is left, or by Enter; Escape leaves it as it was. */
import { useState, type KeyboardEvent } from 'react';

interface TypedFieldProps {
  readonly label: string;
  readonly value: string;
  readonly className: string;
  readonly inputMode?: 'text' | 'numeric' | 'decimal';
  readonly maxLength?: number;
  readonly placeholder?: string;
  /** More about it, said on hover. */
  readonly title?: string;
  /** Called with what is typed, if anything is: what cannot be meant is passed over, and the field shows its value again. */
  readonly onTake: (typed: string) => void;
  /** Keys that mean more than typing; they end it. @returns whether it was one of them. */
  readonly onKey?: (event: KeyboardEvent) => boolean;
}

export function TypedField({ label, value, title, onTake, onKey, ...of }: TypedFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <input
      {...of}
      aria-label={label}
      data-tip={title}
      value={typed ?? value}
      onChange={(event) => {
        setTyped(event.target.value);
      }}
      onBlur={() => {
        setTyped(null);
        if (typed !== null) onTake(typed);
      }}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') setTyped(null);
        if (!onKey?.(event)) return;
        event.preventDefault();
        setTyped(null);
      }}
    />
  );
}
