/** A strip of buttons for the hand that does not draw: it lies over the picture and is put where that hand rests. */
import {
  ArrowLeftRight,
  ChevronLeft,
  ChevronRight,
  Copy,
  GripHorizontal,
  Pipette,
  Plus,
  RotateCw,
  SkipForward,
  StepBack,
  StepForward,
  Undo2,
  type LucideIcon,
} from 'lucide-react';
import type { PointerEvent } from 'react';
import { ActionButton } from '../actions/action-button.tsx';
import type { Action } from '../actions/action.ts';
import { HoldButton } from '../actions/hold-button.tsx';
import { onScreen, setScreen, useScreen } from '../screen/screen.ts';
import { SCREEN_ACTIONS } from '../screen/actions.ts';
import { TIME_ACTIONS } from '../time/actions.ts';
import { DROPPER } from '../tools/dropper/tool.ts';
import { VIEW_ACTIONS } from '../view/actions.ts';
import { CLEAN_ACTIONS } from './clean.ts';
import { startDrag } from '../parts/dragging.ts';

/** Held: they last as long as the finger stays. */
const HELD: readonly (readonly [Action, LucideIcon])[] = [
  [TIME_ACTIONS.flipBefore, StepBack],
  [TIME_ACTIONS.flipAfter, StepForward],
  [VIEW_ACTIONS.turn, RotateCw],
  [VIEW_ACTIONS.width, ArrowLeftRight],
];
const PRESSED: readonly (readonly [Action, LucideIcon])[] = [
  ...(DROPPER.taking ? [[DROPPER.taking, Pipette] as const] : []),
  [TIME_ACTIONS.previous, ChevronLeft],
  [TIME_ACTIONS.next, ChevronRight],
  [CLEAN_ACTIONS.cleanNext, SkipForward],
  [TIME_ACTIONS.newDrawing, Plus],
  [TIME_ACTIONS.copy, Copy],
  [SCREEN_ACTIONS.undo, Undo2],
];
/** How much of it stays inside the picture, px. */
const INSIDE = 56;

function move(event: PointerEvent<HTMLElement>): void {
  const room = event.currentTarget.closest('[data-other-hand]')?.parentElement;
  if (!room) return;
  startDrag(event, () => {
    event.currentTarget.focus({ preventScroll: true });
    const { otherHand: before } = onScreen();
    return {
      move: (each) => {
        const x = Math.min(room.clientWidth - INSIDE, Math.max(0, before.x + each.clientX - event.clientX));
        const y = Math.min(room.clientHeight - INSIDE, Math.max(0, before.y + each.clientY - event.clientY));
        setScreen({ otherHand: { shown: true, x, y } });
      },
      drop: () => {
        setScreen({ otherHand: before });
      },
    };
  });
}

function Grip() {
  const nudge = (dx: number, dy: number): void => {
    const { otherHand } = onScreen();
    setScreen({ otherHand: { ...otherHand, x: Math.max(0, otherHand.x + dx), y: Math.max(0, otherHand.y + dy) } });
  };
  return (
    <button
      type="button"
      aria-label="Move these buttons"
      data-tip="Drag to where the other hand rests; or with the arrow keys"
      data-arrows
      className="grid h-6 w-full cursor-grab touch-none place-items-center rounded-lg text-wax-500 hover:text-wax-100"
      onPointerDown={move}
      onKeyDown={({ code }) => {
        const step = { ArrowLeft: [-16, 0], ArrowRight: [16, 0], ArrowUp: [0, -16], ArrowDown: [0, 16] }[code];
        if (step) nudge(step[0]!, step[1]!);
      }}
    >
      <GripHorizontal size={16} />
    </button>
  );
}

export function OtherHand() {
  const { shown, x, y } = useScreen((s) => s.otherHand);
  if (!shown) return null;
  return (
    <div
      role="group"
      aria-label="Buttons for the other hand"
      data-other-hand
      data-testid="other-hand"
      style={{ left: x, top: y }}
      className="absolute z-10 grid w-[92px] touch-none grid-cols-2 gap-1 rounded-[10px] border border-soot-700 bg-soot-900/95 p-1 shadow-xl [&>button]:!size-10 [&>button]:!bg-soot-800 [&>button:hover]:!bg-soot-700 [&>button:first-child]:!bg-transparent [&>button:first-child]:col-span-2 [&>button:first-child]:!h-6 [&>button:first-child]:!w-full"
    >
      <Grip />
      {HELD.map(([action, Icon]) => (
        <HoldButton key={action.name} action={action}>
          <Icon size={18} />
        </HoldButton>
      ))}
      {PRESSED.map(([action, Icon]) => (
        <ActionButton key={action.name} action={action}>
          <Icon size={18} />
        </ActionButton>
      ))}
    </div>
  );
}
