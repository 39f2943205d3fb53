/** A number set by dragging or by typing. */
import { TypedField } from './typed-field.tsx';

interface SliderProps {
  label: string;
  value: number;
  min: number;
  max: number;
  /** What may be typed, where that goes farther than what is dragged. */
  typed?: { readonly min: number; readonly max: number };
  step?: number;
  unit?: string;
  title?: string;
  /** While it moves. */
  onMove: (value: number) => void;
  /** When it is let go, or typed. */
  onDone?: (value: number) => void;
}

const tidy = (value: number, step: number): string =>
  String(step >= 1 ? Math.round(value) : Math.round(value * 100) / 100);

export function Slider({
  label,
  value,
  min,
  max,
  step = 1,
  unit = '',
  title,
  typed: farther,
  onMove,
  onDone,
}: SliderProps) {
  const share = ((Math.min(max, Math.max(min, value)) - min) / (max - min)) * 100;
  const takeTyped = (typed: string): void => {
    const number = Number(typed);
    if (typed.trim() === '' || !Number.isFinite(number)) return;
    const taken = Math.min(farther?.max ?? max, Math.max(farther?.min ?? min, number));
    onMove(taken);
    onDone?.(taken);
  };
  return (
    <div className="flex h-8 items-center gap-2 text-[13px]" data-tip={title}>
      <span className="w-[124px] shrink-0 truncate text-wax-300" data-tip={title ?? label}>
        {label}
      </span>
      <input
        type="range"
        aria-label={label}
        min={min}
        max={max}
        step={step}
        value={value}
        className="lit h-8 min-w-0 flex-1"
        style={{ '--share': `${share}%` } as React.CSSProperties}
        onChange={(event) => {
          onMove(Number(event.target.value));
        }}
        onPointerUp={(event) => {
          onDone?.(Number(event.currentTarget.value));
        }}
        onKeyUp={(event) => {
          if (
            event.key.startsWith('Arrow') ||
            event.key.startsWith('Page') ||
            event.key === 'Home' ||
            event.key === 'End'
          )
            onDone?.(Number(event.currentTarget.value));
        }}
      />
      <span className="flex w-[66px] shrink-0 items-baseline justify-end gap-1">
        <TypedField
          label={`${label}, typed`}
          inputMode="decimal"
          className="w-11 rounded bg-transparent px-0.5 text-right font-mono text-xs text-wax-100 hover:bg-soot-800 focus:bg-soot-950"
          value={tidy(value, step)}
          onTake={takeTyped}
        />
        <span className="w-[18px] text-left text-[11px] text-wax-500">{unit}</span>
      </span>
    </div>
  );
}
