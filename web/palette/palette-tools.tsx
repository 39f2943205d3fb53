/** The palette as a whole: taken from another shot or a file, handed over as one, and cleared of what is not used. */
import { shotOf, type ShotDocument, type Swatch } from '@tallow/core/document';
import { removeSwatches, unusedSwatches } from '@tallow/core/edit';
import { paletteCss, paletteText } from '@tallow/core/formats';
import { DropdownMenu } from 'radix-ui';
import { useRef, useState } from 'react';
import { request } from '../api/client.ts';
import type { ShotSummary } from '../api/types.ts';
import { ITEM, Menu } from '../parts/menu.tsx';
import { Small } from '../parts/panel.tsx';
import { edit, say } from '../shot/document.ts';
import { handOver } from '../parts/hand-over.ts';
import { NameField } from '../parts/name-field.tsx';
import { PaletteChips } from '../shelf/palette-chips.tsx';
import { keep, useKeptOf } from '../shelf/kept.ts';
import { bring, bringFromFile, bringFromShot } from '../swatches/swatches.ts';
import { withAllDrawings } from './all-drawings.ts';

const PLAIN =
  'flex h-8 items-center gap-1.5 rounded-lg bg-soot-800 px-2.5 text-[13px] text-wax-300 hover:bg-soot-700 hover:text-wax-100';

function FromShot({ doc }: { doc: ShotDocument }) {
  const [shots, setShots] = useState<readonly ShotSummary[] | null>(null);
  const look = (): void => {
    request<ShotSummary[]>('GET', '/shots')
      .then(setShots)
      .catch(() => {
        say('The shots cannot be listed: the server cannot be reached.');
      });
  };
  const others = shots?.filter(({ id }) => id !== doc.shotId) ?? [];
  return (
    <span onPointerDownCapture={look} onKeyDownCapture={look}>
      <Menu label="Copy from another shot" className={PLAIN} trigger="From a shot" align="start">
        {others.length === 0 ? (
          <p className="px-2 py-1 text-[13px] text-wax-500">{shots ? 'There is no other shot.' : 'Looking …'}</p>
        ) : null}
        {others.map(({ id, name }) => (
          <DropdownMenu.Item
            key={id}
            className={ITEM}
            onSelect={() => {
              void bringFromShot(id, name);
            }}
          >
            {name}
          </DropdownMenu.Item>
        ))}
      </Menu>
    </span>
  );
}

/** Palettes that stand on the shelf, and this one put there. */
function OnShelf({ name, swatches }: { name: string; swatches: readonly Swatch[] }) {
  const palettes = useKeptOf('palette');
  const [naming, setNaming] = useState(false);
  if (naming)
    return (
      <NameField
        label="Name of the palette"
        value={name}
        onDone={(next) => {
          setNaming(false);
          if (!next) return;
          const what = { swatches: swatches.map(({ name: own, role, colour }) => ({ name: own, role, colour })) };
          void keep('palette', next, what);
        }}
      />
    );
  return (
    <>
      <Menu label="From the shelf" className={PLAIN} trigger="From the shelf" align="start">
        {palettes.length === 0 ? (
          <p className="px-2 py-1 text-[13px] text-wax-500">No palette stands there yet.</p>
        ) : null}
        {palettes.map((kept) => (
          <DropdownMenu.Item
            key={kept.id}
            className={ITEM}
            onSelect={() => {
              bring(kept.what.swatches, `“${kept.name}”`);
            }}
          >
            <PaletteChips colours={kept.what.swatches.map(({ colour }) => colour)} /> {kept.name}
          </DropdownMenu.Item>
        ))}
      </Menu>
      <Small
        title="Puts this palette on the shelf; gradients stand there as their one colour"
        onClick={() => {
          setNaming(true);
        }}
      >
        Keep this palette
      </Small>
    </>
  );
}

export function PaletteTools({ doc, swatches }: { doc: ShotDocument; swatches: readonly Swatch[] }) {
  const file = useRef<HTMLInputElement>(null);
  const name =
    shotOf(doc)
      .name.replaceAll(/[^\p{L}\p{N} _-]/gu, '')
      .trim() || 'palette';
  return (
    <div className="flex flex-wrap items-center gap-1.5 pb-2">
      <FromShot doc={doc} />
      <OnShelf name={name} swatches={swatches} />
      <Small
        title="A text with a colour a line, or CSS custom properties"
        onClick={() => {
          file.current?.click();
        }}
      >
        Read a file
      </Small>
      <input
        ref={file}
        type="file"
        hidden
        accept=".txt,.css,text/plain,text/css"
        data-testid="palette-file"
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          if (chosen) void bringFromFile(chosen);
          event.target.value = '';
        }}
      />
      <Small
        title="A colour a line, with role and name"
        onClick={() => {
          handOver(paletteText(swatches), `${name}.txt`, 'text/plain');
        }}
      >
        As text
      </Small>
      <Small
        title="Custom properties"
        onClick={() => {
          handOver(paletteCss(swatches), `${name}.css`, 'text/css');
        }}
      >
        As CSS
      </Small>
      <Small
        title="Takes swatches out that nothing is painted with"
        onClick={() => {
          withAllDrawings(() => {
            let gone = 0;
            edit('remove unused swatches', (each) => {
              const unused = unusedSwatches(each);
              // One always stays, to draw with.
              const going = unused.length === shotOf(each).swatches.length ? unused.slice(1) : unused;
              gone = going.length;
              return removeSwatches(each, going);
            });
            say(gone > 0 ? `${gone} unused ${gone === 1 ? 'swatch' : 'swatches'} removed.` : 'All swatches are used.');
          });
        }}
      >
        Remove unused
      </Small>
    </div>
  );
}
