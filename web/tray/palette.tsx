/** The palette as smears with names. A swatch changed once changes everything drawn with it. */
import { findAll, randomId, shotOf } from '@tallow/core/document';
import { addSwatch } from '@tallow/core/edit';
import { Palette as PaletteIcon, Plus } from 'lucide-react';
import { useCallback, useState } from 'react';
import { swatchOf, useCurrent } from '../selection/current.ts';
import { useHeld } from '../hand/held.ts';
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

/** The width of an element, CSS px. */
function useWidth(): [number, React.RefCallback<HTMLElement>] {
  const [width, setWidth] = useState(0);
  const ref = useCallback((element: HTMLElement | null) => {
    if (!element) return undefined;
    const observer = new ResizeObserver(() => {
      setWidth(element.clientWidth);
    });
    observer.observe(element);
    return () => {
      observer.disconnect();
    };
  }, []);
  return [width, ref];
}

export function Palette() {
  const now = useCurrent();
  const swatchId = useHeld((s) => s.swatchId);
  const recent = useRecent((s) => s.swatches);
  const [width, ref] = useWidth();
  if (!now) return null;
  const swatches = findAll(now.doc, 'swatch', shotOf(now.doc).swatches);
  const inHand = swatchOf(now.doc, swatchId);
  const roomFor = (size: { width: number; rows: number }) =>
    Math.max(1, Math.floor((width + GAP) / size.width)) * size.rows;
  const isNamed = swatches.length <= roomFor(NAMED);
  const shown = shownOf(swatches, recent, roomFor(isNamed ? NAMED : SMALL));
  const add = (): void => {
    let made = '';
    edit('add swatch', (doc) => {
      const added = addSwatch(
        doc,
        { name: `swatch ${swatches.length + 1}`, role: 'body', colour: inHand?.colour ?? '#e2581c' },
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
        ref={ref}
        className="flex h-[74px] min-w-0 flex-1 flex-wrap content-start gap-0.5 overflow-hidden"
        role="group"
        aria-label="Palette"
      >
        {shown.map((swatch) => (
          <SwatchButton
            key={swatch.id}
            doc={now.doc}
            swatch={swatch}
            picked={swatch.id === inHand?.id}
            form={isNamed ? 'named' : 'small'}
            onPress={() => {
              if (swatch.id === inHand?.id) togglePanel('palette');
              else takeSwatch(swatch.id);
            }}
          />
        ))}
      </div>
      <div className="flex shrink-0 flex-col justify-between">
        <button type="button" aria-label="Add swatch" title="Add a swatch" onClick={add} className={SIDE}>
          <Plus size={15} />
        </button>
        <PaletteSheet doc={now.doc} swatches={swatches} inHand={inHand ?? null} className={SIDE} />
        <button
          type="button"
          aria-label="Settings of the palette"
          title={titleOf(SCREEN_ACTIONS.palette)}
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
