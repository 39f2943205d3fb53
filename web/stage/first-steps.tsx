/** What to do next on the way to a first cycle: one line over the picture, until it is closed and has been played. */
import { shotOf } from '@tallow/core/document';
import { X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { useCurrent } from '../selection/current.ts';
import { usePlayback } from '../playback/playback.ts';
import { nextStep } from './next-step.ts';
import { begin, hasBegun, WaysIn } from './ways-in.tsx';

export function FirstSteps() {
  const now = useCurrent();
  const playing = usePlayback((s) => s.playing);
  const [done, setDone] = useState(false);
  const [begun, setBegun] = useState(hasBegun);
  useEffect(() => {
    if (playing && now?.element.time === 'cycle') setDone(true);
  }, [playing, now?.element.time]);
  // Where something else is drawn already, the way is known.
  const isFirst = now !== null && shotOf(now.doc).elements.length === 1;
  const text = isFirst && !done ? nextStep(now) : null;
  const isDrawn = now?.layers.some(({ layer }) => Object.keys(layer.slots).length > 0) ?? false;
  useEffect(() => {
    // Whoever draws has found a way in.
    if (!isDrawn || begun) return;
    begin();
    setBegun(true);
  }, [isDrawn, begun]);
  if (!text || !now) return null;
  const empty = !isDrawn;
  if (empty && !begun)
    return (
      <WaysIn
        onTaken={() => {
          setBegun(true);
        }}
      />
    );
  if (empty)
    return (
      <p
        data-testid="first-step"
        className="pointer-events-none absolute inset-0 grid place-items-center text-center text-wax-300"
      >
        {text}
      </p>
    );
  return (
    <p className="pointer-events-none absolute bottom-0.5 left-2 flex">
      <span className="pointer-events-auto flex items-center gap-1 rounded-lg bg-soot-950/85 py-1 pl-3 pr-1 text-[13px] text-wax-300">
        <span data-testid="first-step">{text}</span>
        <button
          type="button"
          aria-label="No more hints"
          data-tip="No more hints"
          className="moves grid size-8 place-items-center rounded-md text-wax-500 hover:text-wax-100"
          onClick={() => {
            setDone(true);
          }}
        >
          <X size={14} />
        </button>
      </span>
    </p>
  );
}
