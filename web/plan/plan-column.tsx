/** The column of the Plan step: the element and its playing, then the settings of what is selected, then the phases. */
import { find } from '@tallow/core/document';
import { ChevronLeft, ChevronRight, LayoutList, Pause, Play } from 'lucide-react';
import { useCurrent, type Current } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';
import { usePlayback } from '../playback/playback.ts';
import { selectPlanned, usePlan } from './plan.ts';
import { BasePanel } from './base-panel.tsx';
import { GuidePanel } from './guide-panel.tsx';
import { Overview } from './overview.tsx';
import { Line } from '../parts/panel.tsx';
import { PathPanel } from './path-panel.tsx';
import { Phases } from './phases.tsx';
import { RevealPanel } from './reveal-panel.tsx';
import { StarterPanel } from './starter-panel.tsx';
import { ActionButton } from '../actions/action-button.tsx';
import { TIME_ACTIONS } from '../time/actions.ts';

function Playing({ now }: { now: Current }) {
  const frame = useSelection((s) => s.frame);
  const playing = usePlayback((s) => s.playing);
  return (
    <div className="flex h-8 items-center gap-1">
      <span className="mr-1 font-mono text-xs text-wax-300" data-testid="plan-frame">
        {Math.min(frame, now.length - 1) + 1} / {now.length}
      </span>
      <ActionButton action={TIME_ACTIONS.previousFrame}>
        <ChevronLeft size={16} />
      </ActionButton>
      <ActionButton action={TIME_ACTIONS.play} pressed={playing}>
        {playing ? <Pause size={15} /> : <Play size={15} />}
      </ActionButton>
      <ActionButton action={TIME_ACTIONS.nextFrame}>
        <ChevronRight size={16} />
      </ActionButton>
    </div>
  );
}

function SelectedPanel({ now }: { now: Current }) {
  const hand = usePlan((s) => s.hand);
  switch (hand?.kind) {
    case 'path': {
      const path = find(now.doc, 'path', hand.id);
      return path ? <PathPanel key={path.id} now={now} path={path} /> : <Overview now={now} />;
    }
    case 'starter': {
      const starter = find(now.doc, 'starter', hand.id);
      return starter ? <StarterPanel key={starter.id} now={now} starter={starter} /> : <Overview now={now} />;
    }
    case 'guide': {
      const guide = find(now.doc, 'guide', hand.id);
      return guide ? <GuidePanel key={guide.id} now={now} guide={guide} /> : <Overview now={now} />;
    }
    case 'base': {
      const base = now.element.bases.find((b) => b.id === hand.id);
      return base ? <BasePanel key={base.id} now={now} base={base} /> : <Overview now={now} />;
    }
    case 'reveal':
      return <RevealPanel now={now} />;
    case undefined:
      return <Overview now={now} />;
  }
}

export function PlanColumn() {
  const now = useCurrent();
  const hand = usePlan((s) => s.hand);
  if (!now) return null;
  return (
    <aside aria-label="Plan" className="flex w-[368px] shrink-0 flex-col border-x border-soot-700 bg-soot-900">
      <div className="flex h-11 shrink-0 items-center justify-between gap-2 border-b border-soot-700 px-4">
        <h1 className="font-name min-w-0 truncate text-[17px]">{now.element.name}</h1>
        <div className="flex items-center gap-1">
          {hand ? (
            <button
              type="button"
              data-tip="All that is planned for this element"
              className="moves flex h-8 items-center gap-1.5 rounded-lg px-2 text-[13px] text-wax-500 hover:bg-soot-800 hover:text-wax-100"
              onClick={() => {
                selectPlanned(null);
              }}
            >
              <LayoutList size={15} /> All
            </button>
          ) : null}
          <Playing now={now} />
        </div>
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto px-4 pb-3 pt-1">
        <SelectedPanel now={now} />
        <Line />
        <Phases now={now} />
      </div>
    </aside>
  );
}
