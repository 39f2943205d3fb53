/** A colour by lightness, chroma and hue, each on a band that shows what it would become; as hex; from the picture; or one used lately. */
import { hexOf, MAX_CHROMA, oklchOf, type Oklch } from '@tallow/core/colour';
import { Pipette } from 'lucide-react';
import { useState } from 'react';
import { useIsHeld, takeTool } from '../hand/tool-state.ts';
import { useColours, noteColour } from '../swatches/swatches.ts';
import { DROPPER } from '../tools/dropper/tool.ts';
import { TypedField } from '../parts/typed-field.tsx';

/** Colours shown along a band. */
const STOPS = 13;

interface Band {
  readonly key: keyof Oklch;
  readonly label: string;
  readonly max: number;
  readonly shown: (value: number) => number;
  readonly read: (number: number) => number;
  readonly unit: string;
}
const BANDS: readonly Band[] = [
  { key: 'l', label: 'Lightness', max: 1, shown: (v) => Math.round(v * 100), read: (n) => n / 100, unit: '%' },
  {
    key: 'c',
    label: 'Chroma',
    max: MAX_CHROMA,
    shown: (v) => Math.round(v * 1000),
    read: (n) => n / 1000,
    unit: '‰',
  },
  { key: 'h', label: 'Hue', max: 360, shown: (v) => Math.round(v), read: (n) => n, unit: '°' },
];

export function Picker({
  colour,
  onMove,
  onDone,
}: {
  colour: string;
  onMove: (colour: string) => void;
  onDone: () => void;
}) {
  const recent = useColours((s) => s.recent);
  const under = useColours((s) => s.under);
  const dropping = useIsHeld(DROPPER);
  // Greys have no hue and black no chroma: what was set of those stays while the others move.
  const [set, setSet] = useState<{ of: string; oklch: Oklch }>({ of: colour, oklch: oklchOf(colour) });
  const oklch = set.of === colour ? set.oklch : oklchOf(colour);
  const [hex, setHex] = useState<string | null>(null);
  const bad = hex !== null && !/^#?[0-9a-f]{6}$/i.test(hex);
  const move = (next: Oklch): void => {
    const made = hexOf(next);
    setSet({ of: made, oklch: next });
    onMove(made);
  };
  const done = (): void => {
    noteColour(colour);
    onDone();
  };
  return (
    <div className="rounded-[10px] bg-surround p-2" data-testid="picker">
      {BANDS.map(({ key, label, max, shown, read, unit }) => {
        const track = Array.from({ length: STOPS }, (_, i) => hexOf({ ...oklch, [key]: (i / (STOPS - 1)) * max }));
        return (
          <div key={key} className="flex h-8 items-center gap-2 text-[13px]">
            <span className="w-[66px] shrink-0 text-wax-300">{label}</span>
            <input
              type="range"
              aria-label={label}
              className="band h-8 min-w-0 flex-1"
              style={{ '--band': `linear-gradient(to right, ${track.join(', ')})` } as React.CSSProperties}
              min={0}
              max={max}
              step={max / 720}
              value={oklch[key]}
              onChange={(event) => {
                move({ ...oklch, [key]: Number(event.target.value) });
              }}
              onPointerUp={done}
              onKeyUp={done}
            />
            <TypedField
              label={`${label}, typed`}
              inputMode="decimal"
              className="w-10 rounded bg-transparent px-0.5 text-right font-mono text-xs text-wax-100 hover:bg-[#333] focus:bg-[#1a1a1a]"
              value={String(shown(oklch[key]))}
              onTake={(typed) => {
                if (typed.trim() === '' || !Number.isFinite(Number(typed))) return;
                const value = Math.min(max, Math.max(0, read(Number(typed))));
                if (shown(value) !== shown(oklch[key])) {
                  move({ ...oklch, [key]: value });
                  done();
                }
              }}
            />
            <span className="w-3 text-[11px] text-wax-500">{unit}</span>
          </div>
        );
      })}
      <div className="flex items-center gap-2 pt-1">
        <span
          className="h-8 w-14 shrink-0 rounded-md"
          data-testid="colour-now"
          style={{ background: under ?? colour }}
        />
        <input
          aria-label="Colour as hex"
          className="field !h-8 w-24 font-mono text-[13px]"
          value={hex ?? colour}
          aria-invalid={bad}
          onChange={(event) => {
            const typed = event.target.value.trim().toLowerCase();
            setHex(typed);
            const full = typed.startsWith('#') ? typed : `#${typed}`;
            if (/^#[0-9a-f]{6}$/.test(full) && full !== colour) onMove(full);
          }}
          onBlur={() => {
            setHex(null);
            done();
          }}
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key === 'Enter') event.currentTarget.blur();
          }}
        />
        <button
          type="button"
          aria-label="Take a colour from the picture"
          aria-pressed={dropping}
          data-tip="Take a colour from the picture, plates too; with Shift the swatch of the mark under the pen"
          className={`moves grid size-8 shrink-0 place-items-center rounded-lg ${dropping ? 'bg-flame-deep text-flame' : 'text-wax-300 hover:bg-[#333]'}`}
          onClick={() => {
            takeTool(dropping ? null : DROPPER);
          }}
        >
          <Pipette size={16} />
        </button>
        {dropping ? <span className="truncate text-xs text-wax-300">press in the picture</span> : null}
      </div>
      <div className="flex h-7 items-end gap-[3px] pt-1" role="group" aria-label="Used lately">
        {recent.map((each) => (
          <button
            key={each}
            type="button"
            aria-label={each}
            data-tip={each}
            className="h-5 w-5 rounded"
            style={{ background: each }}
            onClick={() => {
              onMove(each);
              noteColour(each);
              onDone();
            }}
          />
        ))}
      </div>
    </div>
  );
}
