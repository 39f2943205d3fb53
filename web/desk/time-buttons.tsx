/** The buttons under the wheel: everything about the drawings' time that has a key. */
import { ChevronLeft, ChevronRight, Copy, Ellipsis, Pause, Play, Plus, SquareDashed } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { ActionButton } from '../parts/button.tsx';
import { act, ACTIONS, heldFor, hold, wholeLayerOn, type Action, type ActionName } from '../state/actions.ts';
import { useCurrent } from '../state/current.ts';
import { useDesk } from '../state/desk.ts';
import { say } from '../state/document.ts';
import { keyText } from '../state/keys.ts';

const HOLDS = [1, 2, 3, 4] as const;

function MenuItem({ name }: { name: ActionName }) {
  const action: Action = ACTIONS[name];
  const whyNot = action.whyNot?.() ?? null;
  const key = action.keys[0];
  return (
    <DropdownMenu.Item
      className={`flex h-8 cursor-pointer items-center justify-between gap-6 rounded-md px-2 outline-none data-[highlighted]:bg-soot-700 ${whyNot ? 'text-wax-500' : ''}`}
      title={whyNot ?? undefined}
      onSelect={() => {
        act(name);
      }}
    >
      {action.label}
      <span className="font-mono text-xs text-wax-500">{key ? keyText(key) : ''}</span>
    </DropdownMenu.Item>
  );
}

const Separator = () => <span className="mx-1 h-6 w-px shrink-0 bg-soot-700" />;

export function TimeButtons() {
  const now = useCurrent();
  const frame = useDesk((s) => s.frame);
  const playing = useDesk((s) => s.playing);
  const held = heldFor(now, frame);
  const whyNot = (ACTIONS.longer as Action).whyNot?.() ?? null;
  return (
    <div className="flex items-center justify-center gap-0.5 [&>button]:!w-[29px] [&>button]:!min-w-[29px]">
      <ActionButton name="previous">
        <ChevronLeft size={17} />
      </ActionButton>
      <ActionButton name="play" primary label={playing ? 'Stop · Space' : 'Play · Space'}>
        {playing ? <Pause size={16} /> : <Play size={16} />}
      </ActionButton>
      <ActionButton name="next">
        <ChevronRight size={17} />
      </ActionButton>
      <Separator />
      {HOLDS.map((n) => (
        <button
          key={n}
          type="button"
          aria-pressed={held === n}
          aria-disabled={whyNot ? true : undefined}
          title={whyNot ?? `Hold this drawing for ${n} ${n === 1 ? 'frame' : 'frames'}`}
          onClick={() => {
            if (whyNot) say(whyNot);
            else hold(n);
          }}
          className={`moves h-8 rounded-lg text-[13px] ${held === n ? 'bg-flame-deep text-flame' : 'bg-soot-800 text-wax-300 hover:bg-soot-700'} ${whyNot ? 'opacity-40' : ''}`}
        >
          {n}s
        </button>
      ))}
      <Separator />
      <ActionButton name="newDrawing">
        <Plus size={17} />
      </ActionButton>
      <ActionButton name="copy">
        <Copy size={15} />
      </ActionButton>
      <ActionButton name="blank">
        <SquareDashed size={15} />
      </ActionButton>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger
          aria-label="More"
          title="More"
          className="moves grid h-8 place-items-center rounded-lg bg-soot-800 text-wax-300 hover:bg-soot-700"
        >
          <Ellipsis size={16} />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            sideOffset={6}
            className="z-40 w-80 rounded-[10px] border border-soot-700 bg-soot-800 p-1.5 shadow-2xl"
          >
            {(['longer', 'shorter', 'remove', 'previousFrame', 'nextFrame', 'onion', 'onionRange'] as const).map(
              (name) => (
                <MenuItem key={name} name={name} />
              ),
            )}
            <DropdownMenu.Separator className="my-1.5 h-px bg-soot-700" />
            <div className="flex items-center justify-between px-2 py-1">
              Whole layer
              <div className="flex gap-1">
                {HOLDS.map((n) => (
                  <DropdownMenu.Item
                    key={n}
                    aria-label={`Whole layer on ${n}s`}
                    className="grid h-8 cursor-pointer place-items-center rounded-md bg-soot-900 px-3 outline-none data-[highlighted]:bg-soot-700"
                    onSelect={() => {
                      if (whyNot) say(whyNot);
                      else wholeLayerOn(n);
                    }}
                  >
                    {n}s
                  </DropdownMenu.Item>
                ))}
              </div>
            </div>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </div>
  );
}
