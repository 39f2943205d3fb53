/** On an empty shot, the first time: three ways in, drawn. Gone for good once one of them is taken. */
import { starterOf } from '@tallow/core/starters';
import { useRef, useState, type ReactNode } from 'react';
import { recall, remember } from '../memory/memory.ts';
import { layNew } from '../plan/standing.ts';
import { setPlanning, selectPlanned } from '../plan/plan.ts';
import { StarterPicture } from '../plan/starter-picture.tsx';
import { ACCEPTED, bringIn } from '../references/references.ts';

const NAME = 'tallow-begun';

/** Whether a way in has been taken in this browser. */
export const hasBegun = (): boolean => recall(NAME) === true;
export const begin = (): void => {
  remember(NAME, true);
};

const PICTURE = { width: 128, height: 104 };

/** A flame being drawn: its line, and the pen where it has got to. */
const DrawnFlame = () => (
  <svg {...PICTURE} viewBox="0 0 128 104" aria-hidden fill="none" strokeLinecap="round" strokeLinejoin="round">
    <path
      d="M52 92C34 88 28 72 34 58c4-10 12-14 13-27 9 6 14 15 14 24 4-5 5-11 4-17 10 9 16 21 15 33"
      stroke="#ffc25c"
      strokeWidth="3.5"
    />
    <path d="M80 71c-.5 6-2.5 10-6 14" stroke="#ffc25c" strokeWidth="3" strokeDasharray="1 6" />
    <path d="M81 70l6-13 19-27 9 6-19 27-12 9z" stroke="#e9dfd0" strokeWidth="2.2" fill="#2b241e" />
    <path d="M102 36l9 6M81 70l5-4" stroke="#e9dfd0" strokeWidth="2" />
  </svg>
);

/** A picture that comes into a frame, an effect to be drawn over it. */
const FramedPicture = () => (
  <svg {...PICTURE} viewBox="0 0 128 104" aria-hidden fill="none" strokeLinecap="round" strokeLinejoin="round">
    <rect x="20" y="18" width="88" height="66" rx="5" stroke="#e9dfd0" strokeWidth="2.5" fill="#231d18" />
    <path d="M22 74l24-26 17 17 14-12 29 24" stroke="#a89987" strokeWidth="2.5" />
    <circle cx="86" cy="36" r="7" stroke="#a89987" strokeWidth="2.5" />
    <path d="M56 82c-8-3-10-11-6-18 3-4 6-6 6-12 6 4 10 10 9 16 3-2 3-5 3-7 5 7 4 17-4 21" fill="#ff9a3c" />
  </svg>
);

function Way({
  label,
  does,
  picture,
  onTake,
}: {
  label: string;
  does: string;
  picture: ReactNode;
  onTake: () => void;
}) {
  return (
    <button
      type="button"
      data-tip={does}
      className="moves pointer-events-auto flex w-[152px] flex-col items-center gap-1 rounded-2xl bg-soot-950/80 px-2 pb-3 pt-2 text-[13px] text-wax-300 hover:bg-soot-900 hover:text-wax-100"
      onClick={onTake}
    >
      {picture}
      {label}
    </button>
  );
}

/** @param onTaken told when one of them was taken: they do not come again. */
export function WaysIn({ onTaken }: { onTaken: () => void }) {
  const file = useRef<HTMLInputElement>(null);
  const [laying, setLaying] = useState(false);
  const taken = (): void => {
    begin();
    onTaken();
  };
  const fire = async (): Promise<void> => {
    setLaying(true);
    await layNew('fire');
    // Here in Draw it stands where it belongs; its settings are in Plan.
    setPlanning({ tool: null, standing: null });
    selectPlanned(null);
    taken();
  };
  return (
    <div
      role="group"
      aria-label="Ways to begin"
      data-testid="ways-in"
      className="pointer-events-none absolute inset-0 flex items-center justify-center gap-3"
    >
      <Way
        label="Draw a flame"
        does="Take the pen and draw; the first stroke makes the first drawing"
        picture={<DrawnFlame />}
        onTake={taken}
      />
      <Way
        label={laying ? 'Laying it …' : 'Start from a fire'}
        does="A fire that burns round and round, yours to redraw"
        picture={<StarterPicture effect="fire" preset={starterOf('fire').presets[0]!} {...PICTURE} />}
        onTake={() => {
          if (!laying) void fire();
        }}
      />
      <Way
        label="Bring in a picture"
        does="A background or a reference to draw over"
        picture={<FramedPicture />}
        onTake={() => {
          file.current?.click();
        }}
      />
      <input
        ref={file}
        type="file"
        multiple
        accept={ACCEPTED}
        className="hidden"
        data-testid="first-picture"
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          if (files.length === 0) return;
          taken();
          void bringIn(files);
        }}
      />
    </div>
  );
}
