/** The frame of the whole shot, above the picture. */
import { TypedField } from '../../parts/typed-field.tsx';
import { goToShotFrame } from '../../playback/shot-time.ts';

/** The frame of the shot, typed to go to another one. */
export function ShotFrame({ frame, length }: { frame: number; length: number }) {
  return (
    <label className="flex shrink-0 items-center gap-1 font-semibold text-wax-100" data-tip="Type a frame to go to it">
      shot
      <TypedField
        label="Frame of the shot"
        inputMode="numeric"
        className="w-10 rounded bg-transparent px-1 text-right font-mono hover:bg-soot-800 focus:bg-soot-950"
        value={String(frame + 1)}
        onTake={(typed) => {
          const wanted = Number(typed);
          if (Number.isInteger(wanted) && wanted >= 1 && wanted <= length) goToShotFrame(wanted - 1);
        }}
      />
      of {length}
    </label>
  );
}
