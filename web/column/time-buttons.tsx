/** The buttons under the wheel: everything about the drawings' time, by pen. */
import { ChevronLeft, ChevronRight, Copy, Pause, Play, Plus, SquareDashed } from 'lucide-react';
import { StepButton } from '../actions/hold-button.tsx';
import { indicesOf } from '@tallow/core/edit';
import { useCurrent, useOfCurrent, type Current } from '../selection/current.ts';
import { usePlayback } from '../playback/playback.ts';
import { useRestingFrame } from '../playback/resting-frame.ts';
import { useSelection } from '../selection/selection.ts';
import { say } from '../shot/document.ts';
import { heldFor, hold, whyNotRuns } from '../time/time-edits.ts';
import { ActionButton } from '../actions/action-button.tsx';
import { titleOf } from '../actions/key-text.ts';
import { TIME_ACTIONS } from '../time/actions.ts';
import { selectedNow } from '../selection/to-edit.ts';
import { MoreMenu } from './more-menu.tsx';
import { StatusLine } from './status-line.tsx';

const Separator = () => <span className="mx-0.5 h-6 w-px shrink-0 bg-soot-700" />;

const HOLDS = [1, 2, 3, 4] as const;

/** For how many frames what is picked is held, or what shows on a frame; null where that differs. */
function heldNow(now: Current, frame: number): number | null {
  const own = selectedNow();
  if (!own) return heldFor(now, frame);
  const runs = now.active?.list.runs ?? [];
  const lengths = new Set(indicesOf(own, runs.length).map((index) => runs[index]!.length));
  return lengths.size === 1 ? [...lengths][0]! : null;
}

function Status() {
  const now = useCurrent();
  return (
    <div className="flex h-7 items-center px-4 pt-1 text-[13px] text-wax-300">
      {now ? <StatusLine now={now} /> : null}
    </div>
  );
}

export function TimeButtons() {
  const frame = useRestingFrame();
  const playing = usePlayback((s) => s.playing);
  useSelection((s) => s.selectedRuns);
  const own = useOfCurrent(() => selectedNow() !== null);
  const held = useOfCurrent((now) => heldNow(now, frame));
  const whyNot = useOfCurrent(whyNotRuns);
  if (held === undefined) return null;
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
            data-tip={
              whyNot ?? `Hold ${own ? 'what is picked' : 'this drawing'} for ${n} ${n === 1 ? 'frame' : 'frames'}`
            }
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
        <MoreMenu />
      </div>
      <Status />
    </div>
  );
}
