/** The buttons under the wheel: everything about the drawings' time, by pen. */
import { ChevronLeft, ChevronRight, Copy, Ellipsis, Pause, Play, Plus, SquareDashed } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { StepButton } from '../actions/hold-button.tsx';
import { CheckItem, Menu, MenuLine, SubMenu } from '../parts/menu.tsx';
import type { Action } from '../actions/action.ts';
import { indicesOf, spanOf } from '@tallow/core/edit';
import { shownNow, useCurrent, type Current } from '../selection/current.ts';
import { setPlayback, type Speed, SPEEDS, usePlayback } from '../playback/playback.ts';
import { setHeld, useHeld } from '../hand/held.ts';
import { selection, setSelection, useSelection } from '../selection/selection.ts';
import { say } from '../shot/document.ts';
import { useFindings } from '../time/findings.ts';
import { goTo } from '../playback/playhead.ts';
import { heldFor, hold, lift, wholeLayerOn, whyNotDrawing, whyNotRuns, whyNotTime } from '../time/time-edits.ts';
import { ActionButton } from '../actions/action-button.tsx';
import { ActionItem } from '../actions/action-item.tsx';
import { titleOf } from '../actions/key-text.ts';
import { act } from '../actions/action.ts';
import { TIME_ACTIONS } from '../time/actions.ts';
import { pickedNow } from '../selection/in-hand.ts';

const HOLDS = [1, 2, 3, 4] as const;
const SPEED_WORDS: Readonly<Record<Speed, string>> = { 0.25: '¼', 0.5: '½', 1: '1', 2: '2' };
const LIFTS = [1, 2, 3, 5] as const;

const Separator = () => <span className="mx-0.5 h-6 w-px shrink-0 bg-soot-700" />;

const SMALL =
  'grid h-8 min-w-9 cursor-pointer place-items-center rounded-md bg-soot-900 px-2.5 outline-none data-[highlighted]:bg-soot-700';

/** A row of numbers to choose from, in a menu. */
function Choices({ label, whyNot, children }: { label: string; whyNot: string | null; children: React.ReactNode }) {
  return (
    <div
      className={`flex items-center justify-between gap-3 px-2 py-1 ${whyNot ? 'text-wax-500' : ''}`}
      title={whyNot ?? undefined}
    >
      {label}
      <div className="flex gap-1">{children}</div>
    </div>
  );
}

/** A small item for an action in a row of them; its whole name and key are said on hover. */
function ActionChoice({ action, word }: { action: Action; word: string }) {
  const whyNot = action.whyNot?.() ?? null;
  return (
    <DropdownMenu.Item
      aria-label={action.label.toLowerCase().includes(word) ? action.label : `${word}: ${action.label}`}
      title={whyNot ?? titleOf(action)}
      className={`${SMALL} ${whyNot ? 'text-wax-500' : ''}`}
      onSelect={() => {
        act(action);
      }}
    >
      {word}
    </DropdownMenu.Item>
  );
}

function PlayingMenu() {
  const speed = usePlayback((s) => s.speed);
  const loops = usePlayback((s) => s.loops);
  const pingPong = usePlayback((s) => s.pingPong);
  const range = usePlayback((s) => s.range);
  const playsLayers = usePlayback((s) => s.playsLayers);
  const playsPicked = usePlayback((s) => s.playsPicked);
  const hubRuns = usePlayback((s) => s.hubRuns);
  return (
    <SubMenu label="Playing">
      <Choices label="Speed" whyNot={null}>
        {SPEEDS.map((each) => (
          <DropdownMenu.Item
            key={each}
            aria-label={`Speed ${each}`}
            className={`${SMALL} ${speed === each ? 'text-flame' : ''}`}
            onSelect={(event) => {
              event.preventDefault();
              setPlayback({ speed: each });
            }}
          >
            {SPEED_WORDS[each]}
          </DropdownMenu.Item>
        ))}
      </Choices>
      <CheckItem
        checked={pingPong}
        onChange={() => {
          act(TIME_ACTIONS.pingPong);
        }}
      >
        To and fro
      </CheckItem>
      <CheckItem
        checked={loops}
        onChange={() => {
          act(TIME_ACTIONS.loop);
        }}
      >
        Round and round
      </CheckItem>
      <CheckItem
        checked={playsPicked}
        onChange={() => {
          act(TIME_ACTIONS.playPicked);
        }}
      >
        Only what is picked
      </CheckItem>
      <CheckItem
        checked={range !== null}
        onChange={() => {
          act(TIME_ACTIONS.range);
        }}
      >
        {range ? `Only frames ${range.from + 1}–${range.from + range.length}` : 'Keep what is picked as the range'}
      </CheckItem>
      <CheckItem
        checked={playsLayers}
        onChange={() => {
          act(TIME_ACTIONS.playLayers);
        }}
      >
        Only the picked layers
      </CheckItem>
      <CheckItem
        checked={hubRuns}
        onChange={(on) => {
          setPlayback({ hubRuns: on });
        }}
      >
        The loop in the hub runs
      </CheckItem>
      <MenuLine />
      <ActionItem action={TIME_ACTIONS.playOnce} />
      <ActionItem action={TIME_ACTIONS.full} />
      <ActionItem action={TIME_ACTIONS.previousFrame} />
      <ActionItem action={TIME_ACTIONS.nextFrame} />
    </SubMenu>
  );
}

function More({ now }: { now: Current }) {
  const newOnHeld = useHeld((s) => s.newOnHeld);
  const goesOn = useHeld((s) => s.goesOn);
  const grows = useHeld((s) => s.grows);
  const frame = useSelection((s) => s.frame);
  const shown = shownNow(now, frame);
  const marks = shown ? now.doc.entities[shown.drawingId] : undefined;
  const count = marks?.kind === 'drawing' ? marks.order.length : 0;
  const noLift = whyNotDrawing('lift strokes from') ?? (count === 0 ? 'This drawing has no strokes to lift.' : null);
  const noTime = whyNotTime();
  return (
    <Menu
      label="More"
      beside
      trigger={<Ellipsis size={16} />}
      width="w-[330px]"
      className="grid h-8 place-items-center rounded-lg bg-soot-800 text-wax-300 hover:bg-soot-700"
    >
      <SubMenu label="Timing, in-betweens, cycle">
        <ActionItem action={TIME_ACTIONS.timing} label="Timing" />
        <ActionItem action={TIME_ACTIONS.between} label="In-betweens" />
        <ActionItem action={TIME_ACTIONS.cycle} label="Close the cycle" />
        <ActionItem action={TIME_ACTIONS.variants} label="Variants" />
        <ActionItem action={TIME_ACTIONS.values} label="Opacity and place over time" />
        <ActionItem action={TIME_ACTIONS.pieces} label="Follow a piece, a point; boil" />
      </SubMenu>
      <MenuLine />
      <ActionItem action={TIME_ACTIONS.newHere} />
      <CheckItem
        checked={goesOn}
        onChange={() => {
          act(TIME_ACTIONS.goesOn);
        }}
      >
        Go on after each stroke
      </CheckItem>
      <CheckItem
        checked={grows}
        onChange={(on) => {
          setHeld({ grows: on });
        }}
      >
        New ones begin with what is there
      </CheckItem>
      <CheckItem
        checked={newOnHeld}
        onChange={() => {
          act(TIME_ACTIONS.newOnHeld);
        }}
      >
        New drawing on held frames
      </CheckItem>
      <Choices label="Lift last strokes" whyNot={noLift}>
        {[...LIFTS.filter((n) => n < count), count].map((n, i, all) => (
          <DropdownMenu.Item
            key={n}
            aria-label={`Lift last ${n}`}
            className={SMALL}
            onSelect={() => {
              if (noLift) say(noLift);
              else lift(n);
            }}
          >
            {i === all.length - 1 && n > 1 ? 'all' : n}
          </DropdownMenu.Item>
        ))}
      </Choices>
      <MenuLine />
      <Choices label="Drawings" whyNot={null}>
        <ActionChoice action={TIME_ACTIONS.copyDrawings} word="copy" />
        <ActionChoice action={TIME_ACTIONS.cutDrawings} word="cut" />
        <ActionChoice action={TIME_ACTIONS.paste} word="paste" />
      </Choices>
      <Choices label="Delete and" whyNot={null}>
        <ActionChoice action={TIME_ACTIONS.remove} word="close up" />
        <ActionChoice action={TIME_ACTIONS.removeHold} word="hold before" />
      </Choices>
      <Choices label="Whole layer" whyNot={noTime}>
        {HOLDS.map((n) => (
          <DropdownMenu.Item
            key={n}
            aria-label={`Whole layer on ${n}s`}
            className={SMALL}
            onSelect={() => {
              if (noTime) say(noTime);
              else wholeLayerOn(n);
            }}
          >
            {n}s
          </DropdownMenu.Item>
        ))}
      </Choices>
      <MenuLine />
      <PlayingMenu />
      <SubMenu label="Wheel">
        <ActionItem action={TIME_ACTIONS.pickAll} />
        <ActionItem action={TIME_ACTIONS.pickNone} />
        <ActionItem action={TIME_ACTIONS.wheelHere} />
        <ActionItem action={TIME_ACTIONS.phaseBack} />
        <ActionItem action={TIME_ACTIONS.phaseOn} />
      </SubMenu>
    </Menu>
  );
}

/** What is picked, or what is worth a look: always one line, so that nothing jumps. */
function StatusLine({ now }: { now: Current }) {
  const picked = useSelection((s) => s.picked);
  const frame = useSelection((s) => s.frame);
  const found = useFindings(now);
  const own = picked && pickedNow();
  if (own && now.active) {
    const { from, length } = spanOf(now.active.list, own, now.length);
    const first = from + 1;
    const last = now.element.time === 'cycle' ? ((first + length - 2) % now.length) + 1 : first + length - 1;
    return (
      <>
        <span data-testid="picked">
          {own.count === 1 ? '1 drawing' : `${own.count} drawings`} picked,{' '}
          {length === 1 ? `frame ${first}` : `frames ${first}–${last}`}
        </span>
        <button
          type="button"
          className="moves ml-auto rounded px-2 hover:text-wax-100"
          onClick={() => {
            act(TIME_ACTIONS.pickNone);
          }}
        >
          let go
        </button>
      </>
    );
  }
  // A drawing just added is empty because it is about to be drawn.
  const telling = found.filter((f) => !(f.kind === 'empty' && f.frame <= frame && shownHere(now, f.layerId, f.index)));
  const next = telling.find((f) => f.frame > frame) ?? telling[0];
  if (!next) return null;
  return (
    <button
      type="button"
      data-testid="finding"
      className="moves flex min-w-0 items-center gap-2 rounded px-1 text-left hover:text-wax-100"
      title="Go there"
      onClick={() => {
        setSelection({ layerId: next.layerId, picked: null });
        goTo(next.frame);
      }}
    >
      <span className="size-1.5 shrink-0 rounded-full bg-warn" />
      <span className="truncate">{next.text}</span>
      {telling.length > 1 ? <span className="shrink-0 text-wax-500">and {telling.length - 1} more</span> : null}
    </button>
  );
}

const shownHere = (now: Current, layerId: string, index: number): boolean =>
  now.active?.layer.id === layerId && shownNow(now, selection().frame)?.exposure.index === index;

export function TimeButtons() {
  const now = useCurrent();
  const frame = useSelection((s) => s.frame);
  const playing = usePlayback((s) => s.playing);
  const picked = useSelection((s) => s.picked);
  if (!now) return null;
  const own = picked && pickedNow();
  const runs = now.active?.list.runs ?? [];
  const lengths = new Set(own ? indicesOf(own, runs.length).map((index) => runs[index]!.length) : []);
  const held = own ? (lengths.size === 1 ? [...lengths][0] : null) : heldFor(now, frame);
  const whyNot = whyNotRuns();
  return (
    <div className="shrink-0">
      <div className="flex items-center justify-center gap-0.5 [&>button]:!w-[28px] [&>button]:!min-w-[28px]">
        <StepButton action={TIME_ACTIONS.previous} holds={TIME_ACTIONS.flipBefore}>
          <ChevronLeft size={17} />
        </StepButton>
        <ActionButton action={TIME_ACTIONS.play} primary label={titleOf(TIME_ACTIONS.play, playing ? 'Stop' : 'Play')}>
          {playing ? <Pause size={16} /> : <Play size={16} />}
        </ActionButton>
        <StepButton action={TIME_ACTIONS.next} holds={TIME_ACTIONS.flipAfter}>
          <ChevronRight size={17} />
        </StepButton>
        <Separator />
        {HOLDS.map((n) => (
          <button
            key={n}
            type="button"
            aria-pressed={held === n}
            aria-disabled={whyNot ? true : undefined}
            title={whyNot ?? `Hold ${own ? 'what is picked' : 'this drawing'} for ${n} ${n === 1 ? 'frame' : 'frames'}`}
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
        <ActionButton action={TIME_ACTIONS.newDrawing}>
          <Plus size={17} />
        </ActionButton>
        <ActionButton action={TIME_ACTIONS.copy}>
          <Copy size={15} />
        </ActionButton>
        <ActionButton action={TIME_ACTIONS.blank}>
          <SquareDashed size={15} />
        </ActionButton>
        <More now={now} />
      </div>
      <div className="flex h-7 items-center px-4 pt-1 text-[13px] text-wax-300">
        <StatusLine now={now} />
      </div>
    </div>
  );
}
