/** A name being typed in place. Enter or leaving takes it, Escape leaves it as it was. */
import { NAME_LIMIT, textProblem } from '@tallow/core/document';
import { useState } from 'react';

interface NameFieldProps {
  label: string;
  value: string;
  /** Called once, with the new name, or null for none. */
  onDone: (name: string | null) => void;
}

export function NameField({ label, value, onDone }: NameFieldProps) {
  const [text, setText] = useState(value);
  const problem = textProblem(text, 'The name');
  return (
    <input
      autoFocus
      aria-label={label}
      aria-invalid={problem !== null}
      data-tip={problem ?? undefined}
      value={text}
      maxLength={NAME_LIMIT}
      onFocus={(event) => {
        event.target.select();
      }}
      onChange={(event) => {
        setText(event.target.value);
      }}
      onBlur={() => {
        onDone(problem ? null : text.trim());
      }}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') onDone(null);
      }}
      className="field !h-7 min-w-0 flex-1"
    />
  );
}
