/** The line above the picture: the onion skin, what the pen draws on, and how the picture is looked at. */
import { FlipHorizontal2, Hand, Maximize, RotateCcw, RotateCw, ZoomIn, ZoomOut } from 'lucide-react';
import { useOfCurrent } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';
import { useShallow } from 'zustand/react/shallow';
import { setViewed, useViewed } from '../view/viewed.ts';
import { useToolState } from '../hand/tool-state.ts';
import { penText } from '../pen/pen-target.ts';
import { seenOf } from '../tools/index.ts';
import { OnionKey } from './onion-key.tsx';
import { SetChips } from './set-chips.tsx';
import { PlanLine } from '../plan/plan-line.tsx';
import { ActionButton } from '../actions/action-button.tsx';
import { titleOf } from '../actions/key-text.ts';
import { act } from '../actions/action.ts';
import { VIEW_ACTIONS } from '../view/actions.ts';

/** What the pen would do here, or why it cannot. */
function PenText({ hidden }: { hidden: boolean }) {
  const frame = useSelection((s) => s.frame);
  useToolState((s) => s.newOnHeld);
  useToolState((s) => s.brushName);
  const pen = useOfCurrent(useShallow((now) => penText(now, frame)));
  if (!pen) return null;
  return (
    <span
      hidden={hidden}
      data-testid="pen-text"
      data-tip={pen.text}
      className={`min-w-0 flex-1 truncate px-2 ${pen.trouble ? 'text-warn' : 'text-wax-300'}`}
    >
      {pen.text}
    </span>
  );
}

export function AboveLine({ planning, assembling }: { planning: boolean; assembling: boolean }) {
  const view = useViewed((s) => s.view);
  const holding = useViewed((s) => s.holding);
  const { Above } = seenOf(useToolState((s) => s.activeTool));
  return (
    <div className="absolute inset-x-0 top-0 z-10 flex h-11 items-center gap-1 px-2 text-[13px]">
      {planning ? (
        <PlanLine />
      ) : (
        <>
          {assembling ? null : <OnionKey />}
          {Above ? <Above /> : null}
          <PenText hidden={Above !== undefined} />
          {assembling ? null : <SetChips />}
        </>
      )}
      <button
        type="button"
        data-tip={titleOf(VIEW_ACTIONS.upright)}
        onClick={() => {
          act(VIEW_ACTIONS.upright);
        }}
        className="moves h-8 shrink-0 rounded-lg px-1.5 font-mono text-xs text-wax-300 hover:bg-black/25"
      >
        {Math.round(view.scale * 100)} % · {Math.round((view.angle * 180) / Math.PI)}°
      </button>
      <div className="flex shrink-0 [&_button]:!bg-transparent [&_button:hover]:!bg-black/25">
        <button
          type="button"
          aria-label="Move the picture"
          aria-pressed={holding === 'pan'}
          data-tip={titleOf(VIEW_ACTIONS.pan, 'Move the picture with the pen, until pressed again; or hold')}
          onClick={() => {
            setViewed({ holding: holding === 'pan' ? null : 'pan' });
          }}
          className={`moves grid size-8 place-items-center rounded-lg ${holding === 'pan' ? 'text-flame' : 'text-wax-300'}`}
        >
          <Hand size={16} />
        </button>
        <ActionButton action={VIEW_ACTIONS.zoomOut}>
          <ZoomOut size={16} />
        </ActionButton>
        <ActionButton action={VIEW_ACTIONS.zoomIn}>
          <ZoomIn size={16} />
        </ActionButton>
        <ActionButton action={VIEW_ACTIONS.turnLeft}>
          <RotateCcw size={16} />
        </ActionButton>
        <ActionButton action={VIEW_ACTIONS.turnRight}>
          <RotateCw size={16} />
        </ActionButton>
        <ActionButton action={VIEW_ACTIONS.mirror} pressed={view.mirrored}>
          <FlipHorizontal2 size={16} />
        </ActionButton>
        <ActionButton action={VIEW_ACTIONS.fit}>
          <Maximize size={16} />
        </ActionButton>
      </div>
    </div>
  );
}
