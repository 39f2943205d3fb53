/** Presets of a starter, each as the engine lays it, and the user's own. */
import type { Starter } from '@tallow/core/document';
import type { KeptThing } from '@tallow/core/shelf';
import { starterOf, type Preset } from '@tallow/core/starters';
import { X } from 'lucide-react';
import { useState } from 'react';
import { NameField } from '../parts/name-field.tsx';
import { layPreset } from './standing.ts';
import { forget, keep, useKeptOf } from '../shelf/kept.ts';
import { Small } from '../parts/panel.tsx';
import { StarterPicture } from './starter-picture.tsx';

const PICTURE = { width: 68, height: 52 };

/** A preset of one's own as a starter takes it. */
const presetOf = ({ name, what: { settings, length, hold } }: KeptThing<'preset'>): Preset => ({
  name,
  settings,
  ...(length === undefined ? {} : { length }),
  ...(hold === undefined ? {} : { hold }),
});

export function Presets({ starter }: { starter: Starter }) {
  const kind = starterOf(starter.effect);
  const own = useKeptOf('preset').filter(({ what }) => what.effect === starter.effect);
  const [naming, setNaming] = useState(false);
  const entry = (preset: Preset, mine: (typeof own)[number] | null) => (
    <div key={mine?.id ?? preset.name} className="relative shrink-0">
      <button
        type="button"
        className="moves flex w-[76px] flex-col items-center gap-0.5 rounded-lg bg-soot-950 pb-1 pt-1 text-[11px] leading-tight text-wax-300 hover:bg-soot-800 hover:text-wax-100"
        data-tip={`Lay ${preset.name}`}
        onClick={() => {
          void layPreset(starter, preset, mine !== null);
        }}
      >
        <StarterPicture effect={starter.effect} preset={preset} {...PICTURE} />
        <span className="w-full truncate px-1 text-center">{preset.name}</span>
      </button>
      {mine ? (
        <button
          type="button"
          aria-label={`Forget ${preset.name}`}
          data-tip="Forget this preset"
          className="absolute right-0 top-0 grid size-5 place-items-center rounded bg-soot-900/80 text-wax-500 hover:text-wax-100"
          onClick={() => {
            void forget(mine);
          }}
        >
          <X size={11} />
        </button>
      ) : null}
    </div>
  );
  return (
    <>
      <div className="flex flex-wrap gap-1.5 py-1" role="group" aria-label="Presets">
        {kind.presets.map((preset) => entry(preset, null))}
        {own.map((kept) => entry(presetOf(kept), kept))}
      </div>
      {naming ? (
        <NameField
          label="Name of the preset"
          value={`My ${kind.name.toLowerCase()}`}
          onDone={(name) => {
            setNaming(false);
            if (!name) return;
            const time = { length: starter.length, ...(starter.hold === null ? {} : { hold: starter.hold }) };
            void keep('preset', name, { effect: starter.effect, settings: { ...starter.settings }, ...time });
          }}
        />
      ) : (
        <Small
          title="Keep these settings under a name of your own"
          onClick={() => {
            setNaming(true);
          }}
        >
          Keep as preset
        </Small>
      )}
    </>
  );
}
