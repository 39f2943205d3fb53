/** The wheel: the active element's time, as a disc or unrolled, for pen, mouse and keys. */
import type { KeyboardEvent } from 'react';
import { useCurrent } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';
import { formOf } from '../time/forms.ts';
import { useLongPhases } from '../time/long-phases.ts';
import { Disc } from './disc.tsx';
import { Sheet } from './sheet.tsx';
import { Straight } from './straight.tsx';
import { act } from '../actions/action.ts';
import { TIME_ACTIONS } from '../time/actions.ts';

/** What arrows do on the wheel. */
const ARROWS = new Map([
  ['ArrowLeft', TIME_ACTIONS.nudgeBack],
  ['ArrowRight', TIME_ACTIONS.nudgeOn],
  ['ArrowUp', TIME_ACTIONS.previous],
  ['ArrowDown', TIME_ACTIONS.next],
]);

export function Wheel() {
  const now = useCurrent();
  const frame = useSelection((s) => s.frame);
  useSelection((s) => s.phaseId);
  useLongPhases(now, frame);
  if (!now) return null;
  const form = formOf(now);
  if (form === 'sheet') return <Sheet now={now} />;
  const onKey = (event: KeyboardEvent): void => {
    const action = ARROWS.get(event.key);
    if (!action) return;
    event.preventDefault();
    event.stopPropagation();
    act(action);
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      data-arrows
      data-time
      aria-label={`Wheel of ${now.element.name}`}
      aria-valuemin={1}
      aria-valuemax={now.length}
      aria-valuenow={Math.min(frame, now.length - 1) + 1}
      aria-valuetext={`frame ${Math.min(frame, now.length - 1) + 1} of ${now.length}`}
      className="touch-none select-none rounded-xl"
      onKeyDown={onKey}
      data-testid="wheel"
    >
      {form === 'disc' ? <Disc now={now} /> : <Straight now={now} />}
    </div>
  );
}
