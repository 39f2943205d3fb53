/** A number that a computation is set by: a slider, or a list of words where it is a choice. */
import type { Control } from '@tallow/core/controls';
import { SelectRow } from './panel.tsx';
import { Slider } from './slider.tsx';

export function ControlRow({
  control,
  value,
  onMove,
  onDone,
}: {
  control: Control;
  value: number;
  /** While it moves. */
  onMove: (value: number) => void;
  /** When it is let go, typed or chosen. */
  onDone: (value: number) => void;
}) {
  const { label, unit, min, max, step, choices } = control;
  if (choices)
    return (
      <SelectRow
        label={label}
        value={String(Math.round(value))}
        options={choices.map((text, i) => ({ value: String(i), label: text }))}
        onChoose={(next) => {
          onDone(Number(next));
        }}
      />
    );
  return (
    <Slider
      label={label}
      value={value}
      min={min}
      max={max}
      step={step}
      unit={unit === 'drawings' ? 'dr' : unit}
      onMove={onMove}
      onDone={onDone}
    />
  );
}
