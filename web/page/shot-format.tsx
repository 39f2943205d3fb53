/** The shot's format as a line of text that opens to be changed. */
import { SHOT_LIMITS, shotOf } from '@tallow/core/document';
import { beyondFrame } from '@tallow/core/checks';
import { resizeShot, setShot } from '@tallow/core/edit';
import { framesTyped, secondsText } from '@tallow/core/timing';
import { Popover } from 'radix-ui';
import { NumberField } from '../parts/number-field.tsx';
import { edit, say, useDocument } from '../shot/document.ts';

export function ShotFormatFields() {
  const shot = useDocument((s) => s.doc && shotOf(s.doc));
  if (!shot) return null;
  const set = (name: string, settings: Parameters<typeof setShot>[1], gesture?: string) => {
    edit(name, (d) => setShot(d, settings), gesture);
  };
  const resize = (size: Parameters<typeof resizeShot>[1]) => {
    const { doc } = useDocument.getState();
    if (!doc) return;
    const before = beyondFrame(doc);
    edit('size', (d) => resizeShot(d, size));
    const { doc: now } = useDocument.getState();
    const { reaching, outside } = now ? beyondFrame(now) : before;
    if (reaching <= before.reaching && outside <= before.outside) return;
    const some = reaching === 1 ? '1 drawing now reaches' : `${reaching} drawings now reach`;
    const wholly =
      outside === 0 ? '' : outside === reaching ? ', wholly outside' : `, ${outside} of them wholly outside`;
    say(`${some} beyond the frame${wholly}. Nothing is cut: it is there when the frame grows.`);
  };
  return (
    <Popover.Root>
      <Popover.Trigger
        className="moves h-6 rounded px-1 hover:bg-soot-800 hover:text-wax-100"
        data-tip="Change the format"
      >
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
              read={(text) => framesTyped(text, shot.rate) ?? NaN}
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
                resize({ width });
              }}
            />
            <NumberField
              key={`h${shot.height}`}
              label="Height, px"
              value={shot.height}
              {...SHOT_LIMITS.size}
              onTake={(height) => {
                resize({ height });
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
