/** The palette as smears with names. A swatch changed here changes everything drawn with it. */
import {
  findAll,
  randomId,
  shotOf,
  SWATCH_ROLES,
  textProblem,
  type Swatch,
  type SwatchRole,
} from '@tallow/core/document';
import { addSwatch, setSwatch } from '@tallow/core/edit';
import { Plus } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { swatchOf, useCurrent } from '../state/current.ts';
import { desk, setDesk, useDesk } from '../state/desk.ts';
import { edit, endGesture } from '../state/document.ts';
import { BrushMark } from './brush-mark.tsx';

const SMEAR = { kind: 'ink', width: 11, opacity: 1, pressure: true } as const;

function SwatchSettings({ swatch }: { swatch: Swatch }) {
  const [name, setName] = useState(swatch.name);
  const [hex, setHex] = useState(swatch.colour);
  const problem = textProblem(name, 'The name');
  const badHex = !/^#[0-9a-f]{6}$/i.test(hex);
  const set = (what: string, settings: Parameters<typeof setSwatch>[2], gesture?: string): void => {
    edit(what, (doc) => setSwatch(doc, swatch.id, settings), gesture);
  };
  return (
    <div className="space-y-3">
      <label className="block text-xs text-wax-500">
        Name
        <input
          className="field mt-1 w-full text-sm"
          value={name}
          aria-invalid={problem !== null}
          onChange={(e) => {
            setName(e.target.value);
          }}
          onBlur={() => {
            if (problem) setName(swatch.name);
            else if (name.trim() !== swatch.name) set('swatch name', { name: name.trim() });
          }}
        />
        {problem ? <span className="text-harm">{problem}</span> : null}
      </label>
      <label className="block text-xs text-wax-500">
        Role
        <select
          className="field mt-1 w-full text-sm"
          value={swatch.role}
          onChange={(e) => {
            set('swatch role', { role: e.target.value as SwatchRole });
          }}
        >
          {SWATCH_ROLES.map((role) => (
            <option key={role}>{role}</option>
          ))}
        </select>
      </label>
      <div className="flex items-end gap-2">
        <label className="block flex-1 text-xs text-wax-500">
          Colour
          <input
            type="color"
            aria-label="Colour"
            className="mt-1 block h-9 w-full rounded-lg bg-surround p-1"
            value={swatch.colour}
            onChange={(e) => {
              setHex(e.target.value);
              set('swatch colour', { colour: e.target.value }, `colour-${swatch.id}`);
            }}
            onBlur={endGesture}
          />
        </label>
        <input
          aria-label="Colour as hex"
          className="field w-28 font-mono text-sm"
          value={hex}
          aria-invalid={badHex}
          onChange={(e) => {
            setHex(e.target.value);
            const next = e.target.value.toLowerCase();
            if (/^#[0-9a-f]{6}$/.test(next) && next !== swatch.colour)
              set('swatch colour', { colour: next }, `colour-${swatch.id}`);
          }}
          onBlur={() => {
            setHex(swatch.colour);
            endGesture();
          }}
        />
      </div>
      <p className="text-xs text-wax-500">Everything drawn with it changes.</p>
    </div>
  );
}

function SwatchButton({ swatch, picked }: { swatch: Swatch; picked: boolean }) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root
      open={open}
      onOpenChange={(next) => {
        setOpen(next);
        if (!next) endGesture();
      }}
    >
      <Popover.Anchor asChild>
        <button
          type="button"
          data-testid="swatch"
          data-name={swatch.name}
          aria-pressed={picked}
          title={`${swatch.name}, ${swatch.role} · click again to change it`}
          onClick={() => {
            if (picked) setOpen(true);
            else setDesk({ swatchId: swatch.id, tool: desk().tool === 'rub' ? 'ink' : desk().tool });
          }}
          className={`moves flex w-[52px] flex-col items-center rounded-lg pb-0.5 ${picked ? 'bg-[#3a3a3a]' : 'hover:bg-[#2d2d2d]'}`}
        >
          <BrushMark brush={SMEAR} colour={swatch.colour} width={48} height={20} lean={0.3} />
          <span className="w-full truncate px-1 text-center text-[11px] leading-tight text-wax-300">{swatch.name}</span>
        </button>
      </Popover.Anchor>
      <Popover.Portal>
        <Popover.Content
          side="top"
          sideOffset={8}
          className="z-40 w-64 rounded-[10px] border border-soot-700 bg-soot-900 p-4 shadow-2xl"
        >
          <SwatchSettings key={swatch.id} swatch={swatch} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

export function Palette() {
  const now = useCurrent();
  const swatchId = useDesk((s) => s.swatchId);
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
    setDesk({ swatchId: made, tool: desk().tool === 'rub' ? 'ink' : desk().tool });
  };
  return (
    <div className="flex min-w-0 flex-1 items-stretch gap-0.5 rounded-[10px] bg-surround p-0.5">
      <div
        className="flex max-h-[66px] min-w-0 flex-1 flex-wrap content-start gap-x-0.5 overflow-y-auto [scrollbar-color:#5a5a5a_transparent] [scrollbar-width:thin]"
        role="group"
        aria-label="Palette"
      >
        {swatches.map((swatch) => (
          <SwatchButton key={swatch.id} swatch={swatch} picked={swatch.id === inHand?.id} />
        ))}
      </div>
      <button
        type="button"
        aria-label="Add swatch"
        title="Add a swatch"
        onClick={add}
        className="moves grid min-h-9 w-9 shrink-0 place-items-center rounded-lg text-wax-300 hover:bg-[#2d2d2d]"
      >
        <Plus size={15} />
      </button>
    </div>
  );
}
