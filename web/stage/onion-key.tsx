/** The onion skin's key above the picture: the colours of its sides, its reach, and everything else about it. */
import { COLOUR_PAIRS } from '@tallow/core/colour';
import { ChevronDown, Ghost, Pin } from 'lucide-react';
import { useShallow } from 'zustand/react/shallow';
import { Popover } from 'radix-ui';
import { shownNow, useCurrent, useOfCurrent } from '../selection/current.ts';
import { type Onion, setShowing, useShowing } from '../picture/showing.ts';
import { useRestingFrame } from '../playback/resting-frame.ts';
import { onionColours, offeredPair } from '../picture/onion.ts';
import { ActionButton } from '../actions/action-button.tsx';
import { titleOf } from '../actions/key-text.ts';
import { PICTURE_ACTIONS } from '../picture/actions.ts';
import { TRACE } from '../tools/trace/tool.ts';
import { useIsHeld } from '../hand/tool-state.ts';
import { Choice, LOW } from '../parts/choice.tsx';

const REACH = [0, 1, 2, 3, 4, 5] as const;

function Dash({ colour, broken }: { colour: string; broken: boolean }) {
  return (
    <span
      className="inline-block h-[3px] w-5 rounded"
      style={{
        background: broken ? `repeating-linear-gradient(90deg,${colour} 0 5px,transparent 5px 7px)` : colour,
        boxShadow: '0 0 0 1px #100c0a55',
      }}
    />
  );
}

function Share({
  label,
  title,
  value,
  onSet,
}: {
  label: string;
  title: string;
  value: number;
  onSet: (v: number) => void;
}) {
  return (
    <label className="flex items-center gap-3" data-tip={title}>
      <span className="w-16 text-wax-500">{label}</span>
      <input
        type="range"
        aria-label={label}
        min={0}
        max={100}
        step={5}
        value={Math.round(value * 100)}
        className="h-8 min-w-0 flex-1"
        onChange={(event) => {
          onSet(Number(event.target.value) / 100);
        }}
      />
      <span className="w-11 text-right font-mono text-xs">{Math.round(value * 100)} %</span>
    </label>
  );
}

/** One of two ways, as a pair of buttons. */
function Pair<T extends string | number | boolean>({
  label,
  title,
  value,
  ways,
  onSet,
}: {
  label: string;
  title: string;
  value: T;
  ways: readonly { readonly value: T; readonly label: string; readonly tip: string }[];
  onSet: (value: T) => void;
}) {
  return (
    <div className="flex items-center gap-3">
      <span className="w-16 text-wax-500">{label}</span>
      <Choice label={title} value={value} choices={ways} each={LOW} className="flex-1 gap-0.5" onChoose={onSet} />
    </div>
  );
}

function Settings({ onion, set }: { onion: Onion; set: (settings: Partial<Onion>) => void }) {
  const now = useCurrent();
  const pinned = useShowing((s) => s.pinned);
  if (!now) return null;
  const farthest = offeredPair(now);
  return (
    <div className="space-y-2.5 text-[13px]">
      {(['before', 'after'] as const).map((side) => (
        <div key={side} className="flex items-center gap-3">
          <span className="flex w-16 items-center gap-2 text-wax-500">{side}</span>
          <Choice
            label={`Drawings ${side}`}
            value={onion[side]}
            choices={REACH.map((n) => ({ value: n, label: n }))}
            each={`${LOW} font-mono !text-xs`}
            className="flex-1 gap-0.5"
            onChoose={(n) => {
              set({ [side]: n, on: true });
            }}
          />
        </div>
      ))}
      <Pair<Onion['look']>
        label="filled"
        title="Filled drawings"
        value={onion.look}
        ways={[
          { value: 'outline', label: 'outline only', tip: 'Filled drawings as their outline only' },
          { value: 'full', label: 'full', tip: 'Filled drawings tinted whole' },
        ]}
        onSet={(look) => {
          set({ look });
        }}
      />
      <Pair
        label="moved"
        title="Ghosts of what is moved in the shot"
        value={onion.rides}
        ways={[
          { value: true, label: 'ride on it', tip: 'Ghosts go with the thing wherever it is moved in the shot' },
          { value: false, label: 'where it was', tip: 'Ghosts stand where the thing was in the shot by then' },
        ]}
        onSet={(rides) => {
          set({ rides });
        }}
      />
      <Share
        label="strength"
        title="How strong the nearest ghost is; the faintest still can be read"
        value={onion.strength}
        onSet={(strength) => {
          set({ strength });
        }}
      />
      <Share
        label="farther"
        title="What each drawing farther away keeps of the strength of the one before it"
        value={onion.fallOff}
        onSet={(fallOff) => {
          set({ fallOff });
        }}
      />
      <div className="flex items-center gap-3">
        <span className="w-16 text-wax-500">colours</span>
        <div role="group" aria-label="Pair of colours" className="flex flex-1 gap-0.5">
          {COLOUR_PAIRS.map((pair) => (
            <button
              key={pair.before}
              type="button"
              aria-label={`Before ${pair.before}, after ${pair.after}`}
              aria-pressed={onion.colours === pair || onion.colours?.before === pair.before}
              className={`moves grid h-8 flex-1 place-items-center rounded-md ${onion.colours?.before === pair.before ? 'bg-flame-deep' : 'bg-surround hover:bg-[#343434]'}`}
              onClick={() => {
                set({ colours: pair });
              }}
            >
              <span className="flex gap-0.5">
                <span className="size-3 rounded-full" style={{ background: pair.before }} />
                <span className="size-3 rounded-full" style={{ background: pair.after }} />
              </span>
            </button>
          ))}
        </div>
      </div>
      <button
        type="button"
        aria-pressed={onion.colours === null}
        className={`moves flex h-8 w-full items-center gap-2 rounded-md px-2 ${onion.colours === null ? 'bg-flame-deep text-flame' : 'bg-soot-800 text-wax-300 hover:bg-soot-700'}`}
        data-tip="Follows the swatches this element is drawn with"
        onClick={() => {
          set({ colours: null });
        }}
      >
        <Dash colour={farthest.before} broken={false} />
        <Dash colour={farthest.after} broken />
        farthest from the swatches
      </button>
      {pinned.length > 0 ? (
        <button
          type="button"
          className="moves h-8 w-full rounded-md bg-soot-800 px-2 text-left text-wax-300 hover:bg-soot-700"
          onClick={() => {
            setShowing({ pinned: [] });
          }}
        >
          Unpin {pinned.length}
        </button>
      ) : null}
    </div>
  );
}

export function OnionKey() {
  const onion = useShowing((s) => s.onion);
  const pinned = useShowing((s) => s.pinned);
  const traces = useIsHeld(TRACE);
  const frame = useRestingFrame();
  const colours = useOfCurrent(useShallow((now) => onionColours(now, onion)));
  const shown = useOfCurrent((now) => shownNow(now, frame)?.drawingId) ?? null;
  if (!colours) return null;
  const set = (settings: Partial<Onion>): void => {
    setShowing({ onion: { ...onion, ...settings } });
  };
  return (
    <div className="flex shrink-0 items-center">
      <button
        type="button"
        aria-pressed={onion.on}
        data-tip={titleOf(PICTURE_ACTIONS.onion, onion.on ? 'Switch the onion skin off' : 'Switch the onion skin on')}
        className="moves flex h-8 items-center gap-2.5 rounded-md px-2 text-wax-300 hover:bg-black/20"
        onClick={() => {
          set({ on: !onion.on });
        }}
      >
        {onion.on ? (
          <>
            <span className="flex items-center gap-1.5">
              <Dash colour={colours.before} broken={false} /> {onion.before} before
            </span>
            <span className="flex items-center gap-1.5">
              <Dash colour={colours.after} broken /> {onion.after} after
            </span>
          </>
        ) : (
          <span className="text-wax-500">Onion skin off</span>
        )}
      </button>
      <Popover.Root>
        <Popover.Trigger
          aria-label="Onion skin settings"
          data-tip="Onion skin settings"
          className="moves grid size-8 place-items-center rounded-md text-wax-500 hover:bg-black/20 hover:text-wax-100"
        >
          <ChevronDown size={15} />
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            align="start"
            sideOffset={4}
            className="z-40 w-[320px] rounded-[10px] border border-soot-700 bg-soot-900 p-3 shadow-2xl"
          >
            <Settings onion={onion} set={set} />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      <span className="flex [&_button]:!bg-transparent [&_button:hover]:!bg-black/25">
        <ActionButton action={TRACE.taking!} pressed={traces}>
          <Ghost size={15} />
        </ActionButton>
        <ActionButton action={PICTURE_ACTIONS.pin} pressed={shown !== null && pinned.includes(shown)}>
          <Pin size={14} />
        </ActionButton>
      </span>
    </div>
  );
}
