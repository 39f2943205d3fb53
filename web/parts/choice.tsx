/** One of a few, side by side: as buttons, or as words of which the chosen one is underlined. */
import type { ReactNode } from 'react';

interface Offered<T> {
  readonly value: T;
  readonly label: ReactNode;
  /** What it does in full, where its label stands more than once. */
  readonly name?: string;
  readonly tip?: string;
  /** Tips are never the browser's. */
  readonly title?: never;
  readonly whyNot?: string | null;
}

interface ChoiceProps<T> {
  /** What is chosen, for who does not see it. */
  readonly label: string;
  readonly value: T;
  readonly choices: readonly Offered<T>[];
  readonly onChoose: (value: T) => void;
  /** Size and shape of each. */
  readonly each?: string;
  /** How they stand. */
  readonly className?: string;
}

type Value = string | number | boolean | null;

function OneOf<T extends Value>({
  label,
  value,
  choices,
  onChoose,
  each,
  className,
  looks,
}: ChoiceProps<T> & { looks: (chosen: boolean) => string }) {
  return (
    <div role="group" aria-label={label} className={`flex ${className ?? ''}`}>
      {choices.map((offered) => (
        <button
          key={String(offered.value)}
          type="button"
          aria-label={offered.name}
          aria-pressed={value === offered.value}
          aria-disabled={offered.whyNot ? true : undefined}
          data-tip={offered.whyNot ?? offered.tip}
          className={`moves text-[13px] ${each ?? ''} ${looks(value === offered.value)} ${offered.whyNot ? 'opacity-45' : ''}`}
          onClick={() => {
            if (!offered.whyNot) onChoose(offered.value);
          }}
        >
          {offered.label}
        </button>
      ))}
    </div>
  );
}

export const Choice = <T extends Value>({
  each = 'h-9 flex-1 rounded-lg px-2',
  className = 'gap-1',
  ...rest
}: ChoiceProps<T>) => (
  <OneOf
    {...rest}
    each={each}
    className={className}
    looks={(chosen) => (chosen ? 'bg-flame-deep text-flame' : 'bg-soot-800 text-wax-300 hover:bg-soot-700')}
  />
);

/** A low row of them, as wide as there is room. */
export const LOW = 'h-8 flex-1 rounded-md';
/** Numbers among other settings. */
export const NUMBERS = 'h-8 min-w-9 rounded-lg';

export const Words = <T extends Value>({ each = 'h-8 px-2', className = 'shrink-0', ...rest }: ChoiceProps<T>) => (
  <OneOf
    {...rest}
    each={each}
    className={className}
    looks={(chosen) =>
      chosen
        ? 'text-wax-100 underline decoration-flame decoration-2 underline-offset-[6px]'
        : 'text-wax-500 hover:text-wax-100'
    }
  />
);
