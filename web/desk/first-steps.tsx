/** What to do next on the way to a first cycle: one line over the picture, until it is closed and has been played. */
import { X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { useCurrent, type Current } from '../state/current.ts';
import { useDesk } from '../state/desk.ts';
import { titleOf } from '../state/keys.ts';

/** Drawings after which the way is known. */
const ENOUGH = 8;

/** The next step, or null when there is nothing left to say. */
export function nextStep(now: Current): string | null {
  const active = now.active;
  const drawn = active?.list.runs.filter((run) => run.slot !== null).length ?? 0;
  const all = now.layers.reduce((sum, { layer }) => sum + Object.keys(layer.slots).length, 0);
  if (!active || all > ENOUGH || (now.element.time === 'one-shot' && all > 0)) return null;
  if (drawn === 0) return all === 0 ? 'Draw here. The first stroke makes the first drawing.' : null;
  if (now.element.time === 'cycle')
    return drawn < ENOUGH ? `Closed. ${titleOf('play', 'Play')}: it runs round in the wheel.` : null;
  const more = titleOf('newDrawing', 'New drawing');
  if (drawn === 1) return `${more}, under the wheel, makes the next one. The teal line is the drawing before.`;
  if (drawn < 6) return `${drawn} drawings. Go on until the last leads back to the first; six are enough.`;
  return 'Close it into a cycle: “open” at the top of the column, on the right.';
}

export function FirstSteps() {
  const now = useCurrent();
  const playing = useDesk((s) => s.playing);
  const [done, setDone] = useState(false);
  useEffect(() => {
    if (playing && now?.element.time === 'cycle') setDone(true);
  }, [playing, now?.element.time]);
  const text = now && !done ? nextStep(now) : null;
  if (!text || !now) return null;
  const empty = now.layers.every(({ layer }) => Object.keys(layer.slots).length === 0);
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
    <p className="pointer-events-none absolute inset-x-0 bottom-3 flex justify-center">
      <span className="pointer-events-auto flex items-center gap-1 rounded-lg bg-soot-950/85 py-1 pl-3 pr-1 text-[13px] text-wax-300">
        <span data-testid="first-step">{text}</span>
        <button
          type="button"
          aria-label="No more hints"
          title="No more hints"
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
