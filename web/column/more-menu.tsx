/** The menu under the wheel: all that is done with time now and then. */
import { find, shotOf } from '@tallow/core/document';
import { Ellipsis } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { memo } from 'react';
import { CheckItem, Menu, MenuLine, SubMenu } from '../parts/menu.tsx';
import { act, type Action } from '../actions/action.ts';
import { shownNow, useOfCurrent } from '../selection/current.ts';
import { setPlayback, type Speed, SPEEDS, usePlayback } from '../playback/playback.ts';
import { setToolState, useToolState } from '../hand/tool-state.ts';
import { useSelection } from '../selection/selection.ts';
import { say, useDocument } from '../shot/document.ts';
import { SOUND_ACTIONS } from '../sound/actions.ts';
import { useHearing } from '../sound/hearing.ts';
import { moveLastToNewDrawing, wholeLayerOn, whyNotDrawing, whyNotTime } from '../time/time-edits.ts';
import { ActionItem } from '../actions/action-item.tsx';
import { titleOf } from '../actions/key-text.ts';
import { TIME_ACTIONS } from '../time/actions.ts';

const HOLDS = [1, 2, 3, 4] as const;
const SPEED_WORDS: Readonly<Record<Speed, string>> = { 0.25: '¼', 0.5: '½', 1: '1', 2: '2' };
const LIFTS = [1, 2, 3, 5] as const;

const SMALL =
  'grid h-8 min-w-9 cursor-pointer place-items-center rounded-md bg-soot-900 px-2.5 outline-none data-[highlighted]:bg-soot-700';

/** A row of numbers to choose from, in a menu. */
function Choices({ label, whyNot, children }: { label: string; whyNot: string | null; children: React.ReactNode }) {
  return (
    <div
      className={`flex items-center justify-between gap-3 px-2 py-1 ${whyNot ? 'text-wax-500' : ''}`}
      data-tip={whyNot ?? undefined}
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
      data-tip={whyNot ?? titleOf(action)}
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
  const playsSelected = usePlayback((s) => s.playsSelected);
  const hubRuns = usePlayback((s) => s.hubRuns);
  const muted = useHearing((s) => s.muted);
  const hasSound = useDocument((s) => s.doc !== null && shotOf(s.doc).sounds.length > 0);
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
        checked={playsSelected}
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
      {hasSound ? (
        <CheckItem
          checked={!muted}
          onChange={() => {
            act(SOUND_ACTIONS.mute);
          }}
        >
          Hear the sound
        </CheckItem>
      ) : null}
      <MenuLine />
      <ActionItem action={TIME_ACTIONS.playOnce} />
      <ActionItem action={TIME_ACTIONS.full} />
      <ActionItem action={TIME_ACTIONS.previousFrame} />
      <ActionItem action={TIME_ACTIONS.nextFrame} />
    </SubMenu>
  );
}

/** How many strokes can be lifted, and why they cannot. */
function useLift(): { count: number; noLift: string | null } {
  const frame = useSelection((s) => s.frame);
  const count =
    useOfCurrent((now) => find(now.doc, 'drawing', shownNow(now, frame)?.drawingId)?.order.length ?? 0) ?? 0;
  return {
    count,
    noLift: whyNotDrawing('lift strokes from') ?? (count === 0 ? 'This drawing has no strokes to lift.' : null),
  };
}

/** What stands in the menu: worked out while it is open only. */
function Items() {
  const newOnHeld = useToolState((s) => s.newOnHeld);
  const goesOn = useToolState((s) => s.goesOn);
  const grows = useToolState((s) => s.grows);
  const { count, noLift } = useLift();
  const noTime = whyNotTime();
  return (
    <>
      <SubMenu label="Timing, in-betweens, cycle">
        <ActionItem action={TIME_ACTIONS.timing} label="Timing" />
        <ActionItem action={TIME_ACTIONS.between} label="In-betweens" />
        <ActionItem action={TIME_ACTIONS.betweenHere} label="In-between here" />
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
          setToolState({ grows: on });
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
              else moveLastToNewDrawing(n);
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
    </>
  );
}

const TRIGGER = <Ellipsis size={16} />;

export const MoreMenu = memo(function MoreMenu() {
  return (
    <Menu
      label="More"
      beside
      trigger={TRIGGER}
      width="w-[330px]"
      className="grid h-8 place-items-center rounded-lg bg-soot-800 text-wax-300 hover:bg-soot-700"
    >
      <Items />
    </Menu>
  );
});
