/** Settings that stand on the shelf: variants of brushes, presets, palettes, patterns of holds; renamed, taken off. */
import { KEPT_KINDS, keptKinds, type KeptThing, type KeptKindName } from '@tallow/core/shelf';
import { Pencil, Trash2 } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { NameField } from '../parts/name-field.tsx';
import { StarterPicture } from '../plan/starter-picture.tsx';
import { forget, rename, useKeptOf } from '../shelf/kept.ts';
import { PaletteChips } from '../shelf/palette-chips.tsx';
import { BrushMark } from '../tray/brush-mark.tsx';

/** CSS px. */
const PICTURE = { width: 64, height: 40 };
const INK = '#f4ecdf';

/** How settings of each kind are shown. */
const PICTURES: { readonly [K in KeptKindName]: (kept: KeptThing<K>) => ReactNode } = {
  brush: ({ what: { brush } }) => (
    <BrushMark
      brush={{ kind: brush.tip, width: Math.min(12, brush.width), opacity: brush.opacity, pressure: brush.pressure }}
      colour={INK}
      {...PICTURE}
    />
  ),
  preset: ({ name, what: { effect, settings } }) => (
    <StarterPicture effect={effect} preset={{ name, settings }} {...PICTURE} />
  ),
  palette: ({ what: { swatches } }) => <PaletteChips colours={swatches.map(({ colour }) => colour)} />,
  holds: ({ what: { holds } }) => <span className="truncate font-mono text-xs text-wax-300">{holds.join(', ')}</span>,
};

/** What it is for, in a word. */
const FOR: { readonly [K in KeptKindName]: (kept: KeptThing<K>) => string } = {
  brush: ({ what }) => what.tool,
  preset: ({ what }) => what.effect,
  palette: ({ what: { swatches } }) => (swatches.length === 1 ? '1 swatch' : `${swatches.length} swatches`),
  holds: ({ what: { holds } }) => `${holds.reduce((sum, each) => sum + each, 0)} f`,
};

const BUTTON = 'moves grid size-8 place-items-center rounded-lg text-wax-500 hover:bg-soot-800 hover:text-wax-100';

function Row<K extends KeptKindName>({ kept, kind }: { kept: KeptThing<K>; kind: K }) {
  const [naming, setNaming] = useState(false);
  return (
    <li data-testid="kept" data-name={kept.name} className="flex h-14 items-center gap-3 rounded-lg bg-soot-900 px-3">
      <span className="flex h-10 w-24 shrink-0 items-center overflow-hidden">{PICTURES[kind](kept)}</span>
      {naming ? (
        <NameField
          label="Name on the shelf"
          value={kept.name}
          onDone={(name) => {
            setNaming(false);
            if (name && name !== kept.name) void rename(kept, name);
          }}
        />
      ) : (
        <span className="min-w-0 flex-1">
          <span className="block truncate text-[13px] text-wax-100">{kept.name}</span>
          <span className="block text-xs text-wax-500">{FOR[kind](kept)}</span>
        </span>
      )}
      <button
        type="button"
        aria-label={`Rename ${kept.name}`}
        data-tip="Rename"
        className={BUTTON}
        onClick={() => {
          setNaming(true);
        }}
      >
        <Pencil size={14} />
      </button>
      <button
        type="button"
        aria-label={`Take ${kept.name} off the shelf`}
        data-tip="Off the shelf"
        className={BUTTON}
        onClick={() => void forget(kept)}
      >
        <Trash2 size={14} />
      </button>
    </li>
  );
}

function Kind({ kind }: { kind: KeptKindName }) {
  const all = useKeptOf(kind);
  if (all.length === 0) return null;
  return (
    <section aria-label={KEPT_KINDS[kind].label} className="mt-8">
      <h2 className="font-name mb-3 text-lg text-wax-300">{KEPT_KINDS[kind].label}</h2>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(300px,1fr))] gap-3">
        {all.map((kept) => (
          <Row key={kept.id} kept={kept} kind={kind} />
        ))}
      </ul>
    </section>
  );
}

/** Kinds of which nothing stands there are left out. */
export const KeptSettings = () => keptKinds.map((kind) => <Kind key={kind} kind={kind} />);
