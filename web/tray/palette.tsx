/** The palette as smears with names. A swatch changed once changes everything drawn with it. */
import { find, findAll, randomId, shotOf, type ShotDocument, type Swatch } from '@tallow/core/document';
import { addSwatch } from '@tallow/core/edit';
import { Palette as PaletteIcon, Plus } from 'lucide-react';
import { swatchOf, useCurrent } from '../selection/current.ts';
import { useHeld } from '../hand/held.ts';
import { edit } from '../shot/document.ts';
import { takeSwatch } from '../swatches/swatches.ts';
import { togglePanel } from '../screen/panels.ts';
import { BrushMark } from './brush-mark.tsx';
import { titleOf } from '../actions/key-text.ts';
import { SCREEN_ACTIONS } from '../screen/actions.ts';

const SMEAR = { kind: 'ink', width: 11, opacity: 1, pressure: true } as const;

function SwatchButton({ doc, swatch, picked }: { doc: ShotDocument; swatch: Swatch; picked: boolean }) {
  const running = swatch.gradient?.stops.map((stop) => find(doc, 'swatch', stop.swatch)?.colour ?? swatch.colour);
  return (
    <button
      type="button"
      data-testid="swatch"
      data-name={swatch.name}
      aria-pressed={picked}
      title={`${swatch.name}, ${swatch.role} · press again to change it`}
      onClick={() => {
        if (picked) togglePanel('palette');
        else takeSwatch(swatch.id);
      }}
      className={`moves flex w-[52px] flex-col items-center rounded-lg pb-0.5 ${picked ? 'bg-[#3a3a3a]' : 'hover:bg-[#2d2d2d]'}`}
    >
      <BrushMark brush={SMEAR} colour={swatch.colour} running={running} width={48} height={20} lean={0.3} />
      <span className="w-full truncate px-1 text-center text-[11px] leading-tight text-wax-300">{swatch.name}</span>
    </button>
  );
}

export function Palette() {
  const now = useCurrent();
  const swatchId = useHeld((s) => s.swatchId);
  if (!now) return null;
  const swatches = findAll(now.doc, 'swatch', shotOf(now.doc).swatches);
  const inHand = swatchOf(now.doc, swatchId);
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
        className="flex max-h-[66px] min-w-0 flex-1 flex-wrap content-start gap-x-0.5 overflow-y-auto [scrollbar-color:#5a5a5a_transparent] [scrollbar-width:thin]"
        role="group"
        aria-label="Palette"
      >
        {swatches.map((swatch) => (
          <SwatchButton key={swatch.id} doc={now.doc} swatch={swatch} picked={swatch.id === inHand?.id} />
        ))}
      </div>
      <div className="flex shrink-0 flex-col justify-between">
        <button
          type="button"
          aria-label="Add swatch"
          title="Add a swatch"
          onClick={add}
          className="moves grid h-8 w-9 place-items-center rounded-lg text-wax-300 hover:bg-[#2d2d2d]"
        >
          <Plus size={15} />
        </button>
        <button
          type="button"
          aria-label="Settings of the palette"
          title={titleOf(SCREEN_ACTIONS.palette)}
          onClick={() => {
            togglePanel('palette');
          }}
          className="moves grid h-8 w-9 place-items-center rounded-lg text-wax-300 hover:bg-[#2d2d2d]"
        >
          <PaletteIcon size={15} />
        </button>
      </div>
    </div>
  );
}
