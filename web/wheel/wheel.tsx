/** The wheel: the active element's time, as a disc or unrolled, for pen, mouse and keys. */
import type { KeyboardEvent } from 'react';
import { act } from '../state/actions.ts';
import { useCurrent } from '../state/current.ts';
import { useDesk } from '../state/desk.ts';
import { formOf } from '../state/forms.ts';
import { Disc } from './disc.tsx';
import { Sheet } from './sheet.tsx';
import { Straight } from './straight.tsx';

export function Wheel() {
  const now = useCurrent();
  const frame = useDesk((s) => s.frame);
  useDesk((s) => s.phaseId);
  if (!now) return null;
  const form = formOf(now);
  if (form === 'sheet') return <Sheet now={now} />;
  const onKey = (event: KeyboardEvent): void => {
    const step = {
      ArrowLeft: 'nudgeBack',
      ArrowRight: 'nudgeOn',
      ArrowUp: 'previous',
      ArrowDown: 'next',
    } as const;
    const name = step[event.key as keyof typeof step] as (typeof step)[keyof typeof step] | undefined;
    if (!name) return;
    event.preventDefault();
    event.stopPropagation();
    act(name);
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      data-arrows
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
