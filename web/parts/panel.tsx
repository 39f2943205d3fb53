/** Small pieces that panels of settings in the column are made of. */
import { ChevronRight } from 'lucide-react';
import { useRef, useState, type ReactNode } from 'react';
import { Select } from './select.tsx';
import { hasWords } from './words-in.ts';

/** A heading with what belongs at its right. */
export function Heading({ children, aside }: { children: ReactNode; aside?: ReactNode }) {
  return (
    <div className="flex min-h-9 items-center justify-between gap-2 pt-1">
      <h2 className="font-name min-w-0 truncate text-[16px]">{children}</h2>
      {aside}
    </div>
  );
}

export const Line = () => <div className="my-1.5 h-px bg-soot-700" />;

/** A setting chosen from a list. */
export function SelectRow({
  label,
  value,
  options,
  onChoose,
}: {
  label: string;
  value: string;
  options: readonly { value: string; label: string }[];
  onChoose: (value: string) => void;
}) {
  return (
    <label className="flex h-8 items-center gap-2 text-[13px] text-wax-300">
      <span className="w-[124px] shrink-0">{label}</span>
      <Select
        label={label}
        value={value}
        options={options}
        onChoose={onChoose}
        className="h-7 flex-1 rounded-md bg-soot-800 px-1.5 text-[13px]"
      />
    </label>
  );
}

export function Check({
  label,
  checked,
  title,
  onChange,
}: {
  label: string;
  checked: boolean;
  title?: string;
  onChange: (on: boolean) => void;
}) {
  return (
    <label className="flex h-8 items-center gap-2 text-[13px] text-wax-300" data-tip={title}>
      <input
        type="checkbox"
        className="accent-flame"
        checked={checked}
        onChange={(event) => {
          onChange(event.target.checked);
        }}
      />
      {label}
    </label>
  );
}

/** A small button among settings. */
export function Small({
  children,
  name,
  title,
  whyNot,
  pressed,
  onClick,
}: {
  children: ReactNode;
  /** Whether it is on, for one that stays on. */
  pressed?: boolean;
  /** What it does in full, where its word alone stands more than once. */
  name?: string;
  title?: string;
  whyNot?: string | null;
  onClick: () => void;
}) {
  return (
    <button
      type="button"
      aria-label={name ?? (hasWords(children) ? undefined : title)}
      aria-pressed={pressed}
      aria-disabled={whyNot ? true : undefined}
      data-tip={whyNot ?? title}
      className={`moves flex h-8 items-center gap-1.5 rounded-lg px-2.5 text-[13px] hover:bg-soot-700 hover:text-wax-100 ${pressed ? 'bg-flame-deep text-flame' : 'bg-soot-800 text-wax-300'} ${whyNot ? 'opacity-45' : ''}`}
      onClick={() => {
        if (!whyNot) onClick();
      }}
    >
      {children}
    </button>
  );
}

/** Settings in place of the layers, with their heading and the way back. */
export function Panel({
  label,
  testId,
  heading,
  onBack,
  children,
}: {
  label: string;
  testId: string;
  heading: ReactNode;
  onBack: () => void;
  children: ReactNode;
}) {
  return (
    <section
      aria-label={label}
      data-testid={testId}
      className="flex min-h-0 flex-1 flex-col overflow-y-auto px-3 [&>*]:shrink-0"
    >
      <Heading
        aside={
          <Small title="Back to the layers" onClick={onBack}>
            Layers
          </Small>
        }
      >
        {heading}
      </Heading>
      {children}
    </section>
  );
}

/** Folds that were left open: they are found so. */
const leftOpen = new Set<string>();

/** Settings that open when they are wanted. */
export function Fold({ label, children }: { label: string; children: ReactNode }) {
  const [isOpen, setOpen] = useState(leftOpen.has(label));
  const section = useRef<HTMLElement>(null);
  return (
    <section ref={section} aria-label={label}>
      <button
        type="button"
        aria-expanded={isOpen}
        className="moves flex h-8 w-full items-center gap-1.5 text-[13px] text-wax-300 hover:text-wax-100"
        onClick={() => {
          if (isOpen) leftOpen.delete(label);
          else leftOpen.add(label);
          setOpen(!isOpen);
          // What has come out is to be seen, as far as there is room.
          if (!isOpen) requestAnimationFrame(() => section.current?.scrollIntoView({ block: 'nearest' }));
        }}
      >
        <ChevronRight size={14} className={isOpen ? 'rotate-90' : ''} /> {label}
      </button>
      {isOpen ? children : null}
    </section>
  );
}
