/** What lays in-betweens, and what can be done with those that are laid. */
import { fitsWithin } from '@tallow/core/edit';
import { Check, Small } from '../parts/panel.tsx';
import { endGesture } from '../shot/document.ts';
import {
  framesFor,
  layHere,
  removeBetweens,
  setBetween,
  setFree,
  spreadAs,
  useBetween,
  type BetweenNow,
} from './between.ts';

/** What can be done with those that are laid. */
export function LaidButtons({ laid }: { laid: NonNullable<BetweenNow['laid']> }) {
  return (
    <div className="flex flex-wrap gap-1.5">
      <Small
        title="They stay as drawings like all others and follow nothing any more"
        onClick={() => {
          setFree(laid);
        }}
      >
        Let them be
      </Small>
      <Small
        title="With their frames; those drawn on by hand stay"
        onClick={() => {
          removeBetweens(laid);
        }}
      >
        Take away
      </Small>
      <Small
        title="Spread evenly again"
        onClick={() => {
          spreadAs({ softStart: 0, softEnd: 0, favour: 0 });
          endGesture();
        }}
      >
        Even
      </Small>
    </div>
  );
}

/** Lays them. @param asked how many. */
export function Laying({
  gap,
  asked,
  whyNot,
}: {
  gap: BetweenNow['gap'] | undefined;
  asked: number;
  whyNot: string | null;
}) {
  const { within, working } = useBetween();
  return (
    <div className="flex items-center justify-between">
      {gap && gap.bare.length === 0 ? (
        <Check
          label="within the hold"
          title={
            fitsWithin(gap, asked)
              ? 'Takes frames from this drawing: nothing that follows moves'
              : `The hold of ${gap.hold} is too short for ${asked}; what follows moves`
          }
          checked={within}
          onChange={(on) => {
            setBetween({ within: on });
          }}
        />
      ) : (
        <span />
      )}
      <button
        type="button"
        aria-disabled={whyNot || working ? true : undefined}
        data-tip={whyNot ?? (gap && framesFor(gap) === 'insert' ? 'What follows moves' : undefined)}
        className={`moves h-9 rounded-lg bg-flame px-3 font-semibold text-soot-950 hover:brightness-110 ${whyNot ? 'opacity-45' : ''}`}
        onClick={layHere}
      >
        {working ? 'Computing' : asked === 1 ? 'Lay in-between' : `Lay ${asked} in-betweens`}
      </button>
    </div>
  );
}
