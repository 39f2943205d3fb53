/** The palette as smears with names. A swatch changed once changes everything drawn with it. */
import { findAll, randomId, shotOf } from '@tallow/core/document';
import { addSwatch } from '@tallow/core/edit';
import { Palette as PaletteIcon, Plus } from 'lucide-react';
import { useRef } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { swatchOf, useOfCurrent } from '../selection/current.ts';
import { useToolState } from '../hand/tool-state.ts';
import { useWidth } from '../parts/use-width.ts';
import { edit } from '../shot/document.ts';
import { takeSwatch } from '../swatches/swatches.ts';
import { togglePanel } from '../screen/panels.ts';
import { shownOf, useRecent } from '../swatches/recent.ts';
import { PaletteSheet } from './palette-sheet.tsx';
import { SwatchButton } from './swatch-button.tsx';
import { titleOf } from '../actions/key-text.ts';
import { SCREEN_ACTIONS } from '../screen/actions.ts';

/** Sizes of a swatch's place with a name and without, CSS px, and how many rows of each there are. */
const NAMED = { width: 52, rows: 2 } as const;
const SMALL = { width: 39, rows: 3 } as const;
const GAP = 2;
const SIDE = 'moves grid h-6 w-9 place-items-center rounded-lg text-wax-300 hover:bg-[#2d2d2d]';

export function Palette() {
  const swatches = useOfCurrent(useShallow(({ doc }) => findAll(doc, 'swatch', shotOf(doc).swatches)));
  const swatchId = useToolState((s) => s.swatchId);
  const active = useOfCurrent(({ doc }) => swatchOf(doc, swatchId));
  const recent = useRecent((s) => s.swatches);
  const host = useRef<HTMLDivElement>(null);
  const width = useWidth(host);
  if (!swatches) return null;
  const roomFor = (size: { width: number; rows: number }) =>
    Math.max(1, Math.floor((width + GAP) / size.width)) * size.rows;
  const isNamed = swatches.length <= roomFor(NAMED);
  const shown = shownOf(swatches, recent, roomFor(isNamed ? NAMED : SMALL));
  const add = (): void => {
    let made = '';
    edit('add swatch', (doc) => {
      const added = addSwatch(
        doc,
        { name: `swatch ${swatches.length + 1}`, role: 'body', colour: active?.colour ?? '#e2581c' },
        randomId,
      );
      made = added.swatchId;
      return added.doc;
    });
    takeSwatch(made);
  };
  return (
    <div className="flex min-w-0 flex-1 items-stretch gap-0.5 rounded-[10px] bg-surround p-0.5">
      <div
        ref={host}
        className="flex h-[74px] min-w-0 flex-1 flex-wrap content-start gap-0.5 overflow-hidden"
        role="group"
        aria-label="Palette"
      >
        {shown.map((swatch) => (
          <SwatchButton
            key={swatch.id}
            swatch={swatch}
            selected={swatch.id === active?.id}
            form={isNamed ? 'named' : 'small'}
            onPress={() => {
              if (swatch.id === active?.id) togglePanel('palette');
              else takeSwatch(swatch.id);
            }}
          />
        ))}
      </div>
      <div className="flex shrink-0 flex-col justify-between">
        <button type="button" aria-label="Add swatch" data-tip="Add a swatch" onClick={add} className={SIDE}>
          <Plus size={15} />
        </button>
        <PaletteSheet swatches={swatches} active={active ?? null} className={SIDE} />
        <button
          type="button"
          aria-label="Settings of the palette"
          data-tip={titleOf(SCREEN_ACTIONS.palette)}
          onClick={() => {
            togglePanel('palette');
          }}
          className={SIDE}
        >
          <PaletteIcon size={15} />
        </button>
      </div>
    </div>
  );
}
