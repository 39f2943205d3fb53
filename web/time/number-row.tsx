/** A number with the button that does something with it. */
import { useState } from 'react';
import { Small } from '../parts/panel.tsx';

export function NumberRow({
  label,
  default: preset,
  min,
  max,
  verb,
  whyNot,
  read = Number,
  onDo,
}: {
  label: string;
  default: number;
  min: number;
  max: number;
  verb: string;
  whyNot?: string | null;
  /** What is meant by what is typed; NaN for nothing that can be meant. */
  read?: (text: string) => number;
  onDo: (number: number) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  const number = text === null ? preset : read(text);
  const bad = !Number.isInteger(number) || number < min || number > max;
  const trouble = whyNot ?? (bad ? `A whole number from ${min} to ${max}` : null);
  return (
    <div className="flex h-9 items-center gap-2 text-[13px] text-wax-300">
      <label className="flex min-w-0 flex-1 items-center justify-between gap-2">
        <span className="truncate">{label}</span>
        <input
          className="field !h-8 w-16 text-right font-mono"
          inputMode="numeric"
          aria-label={label}
          aria-invalid={bad}
          value={text ?? String(preset)}
          onChange={(event) => {
            setText(event.target.value);
          }}
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key === 'Enter' && !trouble) onDo(number);
          }}
        />
      </label>
      <Small
        whyNot={trouble}
        onClick={() => {
          onDo(number);
          setText(null);
        }}
      >
        {verb}
      </Small>
    </div>
  );
}
