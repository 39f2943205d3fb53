/** In-betweens: how many, where on the way, which way, and which mark becomes which. */
import { fractionsFor } from '@tallow/core/between';
import { findAll, WAYS, type WayKind } from '@tallow/core/document';
import { betweenWork, crossesSeam, fitsWithin, tiedBetweens, touchedSlots } from '@tallow/core/edit';
import { Link2 } from 'lucide-react';
import { Choice, NUMBERS, Words } from '../parts/choice.tsx';
import { Check, Fold, Line, Panel, SelectRow, Small } from '../parts/panel.tsx';
import { Slider } from '../parts/slider.tsx';
import { useCurrent, type Current } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';
import { endGesture } from '../shot/document.ts';
import {
  betweenNow,
  countFor,
  framesFor,
  goBy,
  layHere,
  pairsOf,
  setBetween,
  setFree,
  betweenFractions,
  spreadAs,
  removeBetweens,
  tiesNow,
  untieAll,
  useBetween,
  whyNotBetween,
  type BetweenNow,
} from './between.ts';
import { showPanel } from '../screen/panels.ts';
import { BetweenChart } from './between-chart.tsx';

const WAY_WORDS: Readonly<Record<WayKind, { label: string; tip: string }>> = {
  straight: { label: 'straight', tip: 'Each point the shortest way' },
  arc: { label: 'on arcs', tip: 'Round the place about which the whole mark turns' },
  path: { label: 'on a path', tip: 'Led off the straight line as a path of the plan is' },
  along: { label: 'down the line', tip: 'Crests run along the line from base to tip and keep their height' },
};

/** What becomes of the marks, in words. */
function Pairs({ now, what }: { now: Current; what: BetweenNow }) {
  const plan = what.laid ?? (what.gap && { ...what.gap, shares: [0.5], way: 'straight' as const, pathId: null });
  const ties = tiesNow(what);
  const work =
    plan && betweenWork(now.doc, { ...plan, ties }, what.laid ? crossesSeam(now.doc, what.laid) : what.gap!.seam);
  if (!work) return null;
  const pairings = pairsOf(work);
  const whole = pairings.filter(({ from, to }) => from.length > 0 && to.length > 0);
  const often = (side: 'from' | 'to') => {
    const counts = new Map<string, number>();
    for (const id of whole.flatMap((pairing) => pairing[side])) counts.set(id, (counts.get(id) ?? 0) + 1);
    return [...counts.values()].filter((times) => times > 1).length;
  };
  const parts = whole.filter(({ from, to }) => from.length > 1 || to.length > 1).length + often('from') + often('to');
  const gone = pairings.filter(({ to }) => to.length === 0).length;
  const come = pairings.filter(({ from }) => from.length === 0).length;
  const said = [
    `${whole.length} go across`,
    ...(parts > 0 ? [`${parts} part or join`] : []),
    ...(gone > 0 ? [`${gone} vanish`] : []),
    ...(come > 0 ? [`${come} appear`] : []),
  ];
  return (
    <div className="flex min-h-9 items-center justify-between gap-2 text-[13px] text-wax-300">
      <span data-testid="pairs">{said.join(', ')}</span>
      {ties.length > 0 ? (
        <Small title="Forget which marks were tied by hand" onClick={untieAll}>
          Untie {ties.length}
        </Small>
      ) : null}
    </div>
  );
}

export function BetweenPanel() {
  const now = useCurrent();
  const { count, spread, way, pathId, within, working, tying, several, tiedToo } = useBetween();
  useBetween((s) => s.shares);
  useSelection((s) => s.frame);
  const what = betweenNow();
  const { laid, gap } = what;
  const paths = now ? findAll(now.doc, 'path', now.element.paths) : [];
  const shares = betweenFractions(what);
  const asked = laid ? laid.slots.length : countFor(gap);
  const whyNot = whyNotBetween();
  const seam = laid && now ? crossesSeam(now.doc, laid) : gap?.seam;
  const touched = laid && now ? touchedSlots(now.doc, [laid]).size : 0;
  const tied = gap && now ? tiedBetweens(now.doc, gap).length : 0;
  const ways = WAYS.filter((each) => each !== 'path' || paths.length > 0);
  return (
    <Panel
      label="In-betweens"
      testId="between-panel"
      heading="In-betweens"
      onBack={() => {
        showPanel(null);
      }}
    >
      {!laid && !gap ? (
        <p className="py-2 text-[13px] text-wax-500">{whyNot}</p>
      ) : (
        <>
          <p className="text-[13px] text-wax-500" data-testid="between-what">
            {laid
              ? `${laid.slots.length} laid${seam ? ', across the seam' : ''}${touched > 0 ? `, ${touched} drawn on by hand and kept` : ''}. They follow when their two drawings change.`
              : `From this drawing to the next${seam ? ', across the seam' : ''}${gap && gap.bare.length > 0 ? `: ${gap.bare.length} ${gap.bare.length === 1 ? 'slot waits' : 'slots wait'}` : ''}.`}
          </p>
          {!laid && gap && gap.bare.length === 0 ? (
            <div className="flex h-9 items-center gap-1">
              <span className="mr-auto text-[13px] text-wax-300">How many</span>
              <Choice
                label="In-betweens"
                value={count}
                choices={[1, 2, 3, 5, 7].map((n) => ({ value: n, label: n }))}
                each={NUMBERS}
                onChoose={(n) => {
                  setBetween({ count: n, shares: null });
                }}
              />
              <input
                className="field !h-8 w-14 text-right font-mono"
                aria-label="How many in-betweens"
                inputMode="numeric"
                value={count}
                onChange={(event) => {
                  const n = Number(event.target.value);
                  if (Number.isInteger(n) && n >= 1 && n <= 100) setBetween({ count: n, shares: null });
                }}
                onKeyDown={(event) => {
                  event.stopPropagation();
                }}
              />
            </div>
          ) : null}
          <BetweenChart shares={shares} />
          <Slider
            label="Favour"
            title="Below 0 nearer to the first, above nearer to the second"
            value={spread.favour * 100}
            min={-100}
            max={100}
            unit="%"
            onMove={(v) => {
              spreadAs({ ...spread, favour: v / 100 });
            }}
            onDone={endGesture}
          />
          <div className="flex items-center justify-between text-[13px] text-wax-300">
            Points go
            <Words
              label="How points go"
              value={laid?.way ?? way}
              choices={ways.map((each) => ({ value: each, ...WAY_WORDS[each] }))}
              onChoose={(each) => {
                goBy(each, each === 'path' ? (pathId ?? paths[0]?.id ?? null) : pathId);
              }}
            />
          </div>
          {(laid?.way ?? way) === 'path' ? (
            <SelectRow
              label="Path"
              value={laid?.pathId ?? pathId ?? ''}
              options={paths.map(({ id, name }) => ({ value: id, label: name }))}
              onChoose={(id) => {
                goBy('path', id);
              }}
            />
          ) : null}
          {now ? <Pairs now={now} what={what} /> : null}
          <Fold label="Soft start and end, which mark becomes which">
            <Slider
              label="Soft start"
              value={spread.softStart * 100}
              min={0}
              max={100}
              unit="%"
              onMove={(v) => {
                spreadAs({ ...spread, softStart: v / 100 });
              }}
              onDone={endGesture}
            />
            <Slider
              label="Soft end"
              value={spread.softEnd * 100}
              min={0}
              max={100}
              unit="%"
              onMove={(v) => {
                spreadAs({ ...spread, softEnd: v / 100 });
              }}
              onDone={endGesture}
            />
            <p className="flex items-center gap-2 text-xs text-wax-500">
              <Link2 size={14} className="shrink-0" />
              {tying
                ? 'Now the one it becomes, or the same again: then it has no partner.'
                : 'Click a dot in the picture, then the one it becomes.'}
            </p>
            <Check
              label="several become one, or one several"
              title="A tie adds to what is tied already: two pieces run into one, one parts into two; or hold Shift"
              checked={several}
              onChange={(on) => {
                setBetween({ several: on });
              }}
            />
          </Fold>
          {tied > 0 ? (
            <Check
              label={tied === 1 ? 'the layer tied to it too' : `the ${tied} layers tied to it too`}
              title="They would be bare here: drawn ones get in-betweens of their own, fills are filled from the new lines, tone follows"
              checked={tiedToo}
              onChange={(on) => {
                setBetween({ tiedToo: on });
              }}
            />
          ) : null}
          <Line />
          {laid ? (
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
          ) : (
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
          )}
          {laid || shares.join() === fractionsFor(asked, spread).join() ? null : (
            <Small
              onClick={() => {
                setBetween({ shares: null });
              }}
            >
              Ticks back to the ease
            </Small>
          )}
        </>
      )}
    </Panel>
  );
}
