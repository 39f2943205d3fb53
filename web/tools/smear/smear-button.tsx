/** The button of smears: a press lays one, a drag from it sets how much and how its way bends while it plays. */
import { useRef } from 'react';
import { titleOf } from '../../actions/key-text.ts';
import { useIsHeld } from '../../hand/tool-state.ts';
import { startDrag } from '../../parts/dragging.ts';
import { dragSmear, type SmearDrag } from '../../smears/dragging.ts';
import { smearNow, whyNotSmear } from '../../smears/smear.ts';
import { say } from '../../shot/document.ts';
import { SmearIcon } from '../icons.tsx';
import { askedNow, SMEAR, smearHere, SMEAR_TOOL_ACTIONS, takeSmear } from './tool.ts';

/** CSS px from which a press is a drag. */
const DRAG = 6;

export function SmearButton() {
  const isActive = useIsHeld(SMEAR);
  const dragged = useRef(false);
  return (
    <button
      type="button"
      aria-label={SMEAR_TOOL_ACTIONS.smear.label}
      aria-pressed={isActive}
      data-tip={titleOf(
        SMEAR_TOOL_ACTIONS.smear,
        'Smear from the last drawing to here; or drag: sideways how much, up and down its bend',
      )}
      data-testid="smear-button"
      className={`moves grid h-8 w-8 touch-none place-items-center rounded-lg hover:bg-soot-800 ${isActive ? 'text-flame' : 'text-wax-300'}`}
      onPointerDown={(event) => {
        dragged.current = false;
        const at = { x: event.clientX, y: event.clientY };
        let drag: SmearDrag | null = null;
        startDrag(event, () => ({
          move: ({ clientX, clientY }) => {
            const [dx, dy] = [clientX - at.x, clientY - at.y];
            if (!drag) {
              if (Math.hypot(dx, dy) < DRAG || dragged.current) return;
              dragged.current = true;
              const [laid] = smearNow().laid;
              const trouble = laid ? null : whyNotSmear();
              if (trouble) {
                say(trouble);
                return;
              }
              const asked = askedNow();
              takeSmear(asked);
              drag = dragSmear(laid ?? null, asked);
            }
            drag.move(dx, dy);
          },
          up: () => {
            drag?.up();
          },
          drop: () => {
            drag?.drop();
          },
        }));
      }}
      onClick={() => {
        if (!dragged.current) smearHere();
        dragged.current = false;
      }}
    >
      <SmearIcon size={19} />
    </button>
  );
}
