/** The shot's format as a line of text that opens to be changed. */
import { SHOT_LIMITS, shotOf } from '@tallow/core/document';
import { setShot } from '@tallow/core/edit';
import { secondsText } from '@tallow/core/timing';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { edit, useDocument } from '../state/document.ts';

/** A whole number typed into a field; taken when it is within its range. */
function NumberField({
  label,
  value,
  least,
  most,
  onTake,
}: {
  label: string;
  value: number;
  least: number;
  most: number;
  onTake: (value: number) => void;
}) {
  const [text, setText] = useState(String(value));
  const number = Number(text);
  const bad = !Number.isInteger(number) || number < least || number > most;
  return (
    <label className="block">
      <span className="mb-1 block text-xs text-wax-500">{label}</span>
      <input
        className="field w-full font-mono"
        inputMode="numeric"
        value={text}
        aria-invalid={bad}
        onChange={(event) => {
          setText(event.target.value);
        }}
        onBlur={() => {
          if (bad) setText(String(value));
          else if (number !== value) onTake(number);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
        }}
      />
      {bad ? (
        <span className="mt-1 block text-xs text-harm">
          A whole number from {least} to {most}
        </span>
      ) : null}
    </label>
  );
}

export function ShotFormat() {
  const doc = useDocument((s) => s.doc);
  if (!doc) return null;
  const shot = shotOf(doc);
  const set = (name: string, settings: Parameters<typeof setShot>[1], gesture?: string) => {
    edit(name, (d) => setShot(d, settings), gesture);
  };
  return (
    <Popover.Root>
      <Popover.Trigger className="moves rounded px-1 hover:bg-soot-800 hover:text-wax-100" title="Change the format">
        {shot.width}×{shot.height} · {shot.rate} fps
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={8}
          className="z-40 w-64 space-y-3 rounded-[10px] border border-soot-700 bg-soot-900 p-4 shadow-2xl"
        >
          <div className="grid grid-cols-2 gap-3">
            <NumberField
              key={`r${shot.rate}`}
              label="Frames per second"
              value={shot.rate}
              {...SHOT_LIMITS.rate}
              onTake={(rate) => {
                set('frame rate', { rate });
              }}
            />
            <NumberField
              key={`l${shot.length}`}
              label="Length in frames"
              value={shot.length}
              {...SHOT_LIMITS.length}
              onTake={(length) => {
                set('length', { length });
              }}
            />
            <NumberField
              key={`w${shot.width}`}
              label="Width, px"
              value={shot.width}
              {...SHOT_LIMITS.size}
              onTake={(width) => {
                set('size', { width });
              }}
            />
            <NumberField
              key={`h${shot.height}`}
              label="Height, px"
              value={shot.height}
              {...SHOT_LIMITS.size}
              onTake={(height) => {
                set('size', { height });
              }}
            />
          </div>
          <p className="text-xs text-wax-500">
            The shot lasts {secondsText(shot.length, shot.rate)}. Drawings stay as they are.
          </p>
          <label className="flex items-center gap-2 text-[13px]">
            <input
              type="checkbox"
              checked={shot.background === null}
              onChange={(event) => {
                set('background', { background: event.target.checked ? null : '#14110f' });
              }}
            />
            Transparent background
          </label>
          {shot.background !== null ? (
            <label className="flex items-center justify-between text-[13px]">
              Background
              <input
                type="color"
                value={shot.background}
                onChange={(event) => {
                  set('background', { background: event.target.value }, 'background');
                }}
                className="h-8 w-14 rounded bg-transparent"
              />
            </label>
          ) : null}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
