/** What of the shelf is looked for: words, kind, time, length, colour. */
import type { ElementTime } from '@tallow/core/document';
import { SHELF_KINDS, shelfKinds } from '@tallow/core/shelf';
import { Search } from 'lucide-react';
import { askShelf, useShelf } from './shelf.ts';
import { Select } from '../parts/select.tsx';

const TIMES: readonly { value: ElementTime; label: string }[] = [
  { value: 'cycle', label: 'cycles' },
  { value: 'one-shot', label: 'one-shots' },
];
/** Frames at most. */
const LENGTHS = [12, 24, 48, 96] as const;
/** Colours that effects are mostly looked for by. */
const COLOURS = [
  { name: 'flame', colour: '#ff9a2b' },
  { name: 'ember red', colour: '#b3321c' },
  { name: 'pale light', colour: '#fff0c0' },
  { name: 'smoke grey', colour: '#7f8a95' },
  { name: 'blue', colour: '#6f86ff' },
] as const;

const FIELD = 'moves h-8 min-w-0 flex-1 rounded-md bg-soot-800 px-1.5 text-[13px] text-wax-100';

export function Filters() {
  const { words, kind, time, longest, colour } = useShelf((s) => s.asked);
  return (
    <div className="space-y-1.5">
      <label className="relative block">
        <Search size={15} className="pointer-events-none absolute left-3 top-2.5 text-wax-500" />
        <input
          className="field w-full !pl-9"
          placeholder="Name, tag, note"
          aria-label="Find on the shelf"
          value={words}
          onChange={(event) => {
            askShelf({ words: event.target.value });
          }}
          onKeyDown={(event) => {
            event.stopPropagation();
          }}
        />
      </label>
      <div className="flex gap-1.5">
        <Select
          label="Kind"
          className={FIELD}
          value={kind ?? ''}
          options={[
            { value: '', label: 'all kinds' },
            ...shelfKinds.map((each) => ({ value: each, label: SHELF_KINDS[each] })),
          ]}
          onChoose={(chosen) => {
            askShelf({ kind: chosen || null });
          }}
        />
        <Select
          label="Time"
          className={FIELD}
          value={time ?? ''}
          options={[{ value: '', label: 'any time' }, ...TIMES]}
          onChoose={(chosen) => {
            askShelf({ time: chosen || null });
          }}
        />
        <Select
          label="Length"
          className={FIELD}
          value={longest === null ? '' : String(longest)}
          options={[
            { value: '', label: 'any length' },
            ...LENGTHS.map((frames) => ({ value: String(frames), label: `up to ${frames} f` })),
          ]}
          onChoose={(chosen) => {
            askShelf({ longest: chosen === '' ? null : Number(chosen) });
          }}
        />
      </div>
      <div role="group" aria-label="Colour" className="flex items-center gap-1">
        {COLOURS.map((each) => (
          <button
            key={each.name}
            type="button"
            aria-label={each.name}
            aria-pressed={colour === each.colour}
            data-tip={colour === each.colour ? 'Any colour again' : `With about this colour: ${each.name}`}
            className={`moves size-8 rounded-lg border-2 p-1 ${colour === each.colour ? 'border-flame' : 'border-transparent hover:border-soot-700'}`}
            onClick={() => {
              askShelf({ colour: colour === each.colour ? null : each.colour });
            }}
          >
            <span className="block size-full rounded" style={{ background: each.colour }} />
          </button>
        ))}
      </div>
    </div>
  );
}
