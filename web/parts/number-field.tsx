/** A whole number typed into a field. */
import { useState } from 'react';

/** A whole number typed into a field; taken when it is within its range. */
export function NumberField({
  label,
  title,
  value,
  min,
  max,
  read = Number,
  onTake,
}: {
  label: string;
  /** More about it, said on hover. */
  title?: string;
  /** What is meant by what is typed; NaN for nothing that can be meant. */
  read?: (text: string) => number;
  value: number;
  min: number;
  max: number;
  onTake: (value: number) => void;
}) {
  const [text, setText] = useState(String(value));
  const number = read(text);
  const bad = !Number.isInteger(number) || number < min || number > max;
  return (
    <label className="block" data-tip={title}>
      <span className="mb-1 block text-xs text-wax-500">{label}</span>
      <input
        className="field w-full font-mono"
        inputMode="numeric"
        value={text}
        aria-invalid={bad}
        onChange={(event) => {
          setText(event.target.value);
        }}
        onBlur={() => {
          if (bad) setText(String(value));
          else if (number !== value) onTake(number);
        }}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Enter') event.currentTarget.blur();
        }}
      />
      {bad ? (
        <span className="mt-1 block text-xs text-harm">
          A whole number from {min} to {max}
        </span>
      ) : null}
    </label>
  );
}
