/** The frame of the whole shot, above the picture. */
import { useState } from 'react';
import { goToShotFrame } from '../../playback/shot-time.ts';

/** The frame of the shot, typed to go to another one. */
export function ShotFrame({ frame, length }: { frame: number; length: number }) {
  const [text, setText] = useState<string | null>(null);
  return (
    <label className="flex shrink-0 items-center gap-1 font-semibold text-wax-100" data-tip="Type a frame to go to it">
      shot
      <input
        aria-label="Frame of the shot"
        inputMode="numeric"
        className="w-10 rounded bg-transparent px-1 text-right font-mono hover:bg-soot-800 focus:bg-soot-950"
        value={text ?? String(frame + 1)}
        onChange={(event) => {
          setText(event.target.value);
        }}
        onBlur={() => {
          const wanted = Number(text);
          if (text !== null && Number.isInteger(wanted) && wanted >= 1 && wanted <= length) goToShotFrame(wanted - 1);
          setText(null);
        }}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key === 'Escape') setText(null);
        }}
      />
      of {length}
    </label>
  );
}
