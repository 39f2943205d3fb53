/** The wheel: the active element's time, as a disc or unrolled, for pen, mouse and keys. */
import type { KeyboardEvent } from 'react';
import { act } from '../state/actions.ts';
import type { Current } from '../state/current.ts';
import { useCurrent } from '../state/current.ts';
import { desk, useDesk } from '../state/desk.ts';
import { Disc } from './disc.tsx';
import { Straight } from './straight.tsx';

/** Frames and layers above which an element opens unrolled. */
const ROUND = { frames: 48, layers: 6 } as const;

/** How an element's time is seen: as chosen for it, else as suits it. */
export function formOf({ element, length, layers }: Current): 'disc' | 'straight' {
  // A phase fills the disc, whatever the whole is seen as.
  if (desk().phaseId && element.phases.some((p) => p.id === desk().phaseId)) return 'disc';
  if (element.form !== 'auto') return element.form;
  const suitsBand = element.time === 'one-shot' || length > ROUND.frames || layers.length > ROUND.layers;
  return suitsBand ? 'straight' : 'disc';
}

export function Wheel() {
  const now = useCurrent();
  const frame = useDesk((s) => s.frame);
  useDesk((s) => s.phaseId);
  if (!now) return null;
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
      {formOf(now) === 'disc' ? <Disc now={now} /> : <Straight now={now} />}
    </div>
  );
}
