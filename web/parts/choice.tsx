/** One of a few, side by side. */

export function Choice<T extends string>({
  label,
  value,
  choices,
  onChoose,
}: {
  label: string;
  value: T;
  choices: readonly { value: T; label: string; whyNot?: string | null }[];
  onChoose: (value: T) => void;
}) {
  return (
    <div role="group" aria-label={label} className="flex gap-1">
      {choices.map((each) => (
        <button
          key={each.value}
          type="button"
          aria-pressed={value === each.value}
          aria-disabled={each.whyNot ? true : undefined}
          data-tip={each.whyNot ?? undefined}
          className={`moves h-9 flex-1 rounded-lg px-2 text-[13px] ${value === each.value ? 'bg-flame-deep text-flame' : 'bg-soot-800 text-wax-300 hover:bg-soot-700'} ${each.whyNot ? 'opacity-45' : ''}`}
          onClick={() => {
            if (!each.whyNot) onChoose(each.value);
          }}
        >
          {each.label}
        </button>
      ))}
    </div>
  );
}
