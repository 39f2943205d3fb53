/** The first colours of a palette, side by side. */

/** Colours that are shown. */
const SHOWN = 8;

export function PaletteChips({ colours }: { colours: readonly string[] }) {
  return (
    <span className="flex h-4 overflow-hidden rounded" aria-hidden>
      {colours.slice(0, SHOWN).map((colour, i) => (
        <span key={`${i}${colour}`} className="h-full w-2.5" style={{ background: colour }} />
      ))}
    </span>
  );
}
