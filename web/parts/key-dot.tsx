/** The dot before a value over time: filled where it is set on this frame, a ring where it is set on others. */
export function KeyDot({
  label,
  here,
  keyed,
  slim = false,
  onPress,
}: {
  label: string;
  /** Whether it is set on this frame. */
  here: boolean;
  /** Whether it is set on any. */
  keyed: boolean;
  slim?: boolean;
  onPress: () => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={here}
      aria-label={here ? `Take the value of ${label} on this frame away` : `Set ${label} on this frame`}
      data-tip={here ? 'Set on this frame · click to take it away' : 'Set on this frame: it changes over time'}
      className={`moves grid shrink-0 place-items-center rounded-md hover:bg-soot-700 ${slim ? '-ml-1 h-8 w-6' : 'size-8'}`}
      onClick={onPress}
    >
      <span
        className={`size-2.5 rounded-full ${here ? 'bg-[#9fc3a4]' : keyed ? 'ring-2 ring-inset ring-[#9fc3a4]' : 'ring-1 ring-inset ring-wax-500'}`}
      />
    </button>
  );
}
