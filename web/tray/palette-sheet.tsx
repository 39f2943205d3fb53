/** All of the palette with its names, those active lately first. */
import type { Swatch } from '@tallow/core/document';
import { LayoutGrid } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { takeSwatch } from '../swatches/swatches.ts';
import { useRecent } from '../swatches/recent.ts';
import { SwatchButton } from './swatch-button.tsx';

/** Those active lately that stand first. */
const LATELY = 6;

interface PaletteSheetProps {
  swatches: readonly Swatch[];
  active: Swatch | null;
  className: string;
}

export function PaletteSheet({ swatches, active, className }: PaletteSheetProps) {
  const [open, setOpen] = useState(false);
  const recent = useRecent((s) => s.swatches).flatMap((id) => swatches.find((swatch) => swatch.id === id) ?? []);
  const rows = (list: readonly Swatch[]) => (
    <div className="grid grid-cols-3 gap-0.5">
      {list.map((swatch) => (
        <SwatchButton
          key={swatch.id}
          swatch={swatch}
          selected={swatch.id === active?.id}
          form="row"
          onPress={() => {
            takeSwatch(swatch.id);
            setOpen(false);
          }}
        />
      ))}
    </div>
  );
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        aria-label="All swatches"
        data-tip={`All ${swatches.length} swatches, with their names`}
        className={className}
      >
        <LayoutGrid size={14} />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="top"
          align="end"
          sideOffset={36}
          collisionPadding={8}
          aria-label="All swatches"
          data-testid="palette-sheet"
          className="z-40 max-h-[var(--radix-popover-content-available-height)] w-[440px] overflow-y-auto rounded-[10px] bg-surround p-2 shadow-2xl"
        >
          {recent.length > 1 ? (
            <>
              <p className="px-1.5 pb-1 text-xs text-wax-300">Lately in hand</p>
              {rows(recent.slice(0, LATELY))}
              <p className="px-1.5 pb-1 pt-2.5 text-xs text-wax-300">All</p>
            </>
          ) : null}
          {rows(swatches)}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
