/** In-betweens: how many, where on the way, which way, and which mark becomes which. */
import { fractionsFor } from '@tallow/core/between';
import { findAll, WAYS, type WayKind } from '@tallow/core/document';
import { crossesSeam, tiedBetweens, touchedSlots } from '@tallow/core/edit';
import { Link2 } from 'lucide-react';
import { Choice, NUMBERS, Words } from '../parts/choice.tsx';
import { Check, Fold, Line, Panel, SelectRow, Small } from '../parts/panel.tsx';
import { Slider } from '../parts/slider.tsx';
import { showPanel } from '../screen/panels.ts';
import { useCurrent, type Current } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';
import { endGesture } from '../shot/document.ts';
import { LaidButtons, Laying } from './between-buttons.tsx';
import { BetweenChart } from './between-chart.tsx';
import { Pairs } from './between-pairs.tsx';
import {
  betweenFractions,
  betweenNow,
  countFor,
  goBy,
  setBetween,
  spreadAs,
  useBetween,
  whyNotBetween,
  type BetweenNow,
} from './between.ts';

type Laid = NonNullable<BetweenNow['laid']>;

const WAY_WORDS: Readonly<Record<WayKind, { label: string; tip: string }>> = {
  straight: { label: 'straight', tip: 'Each point the shortest way' },
  arc: { label: 'on arcs', tip: 'Round the place about which the whole mark turns' },
  path: { label: 'on a path', tip: 'Led off the straight line as a path of the plan is' },
  along: { label: 'down the line', tip: 'Crests run along the line from base to tip and keep their height' },
};

/** Between what, in words: those laid here, or the gap they would fill. */
function saidOf(now: Current | null, { laid, gap }: BetweenNow): string {
  const across = (seam: boolean | undefined): string => (seam ? ', across the seam' : '');
  if (laid) {
    const touched = now ? touchedSlots(now.doc, [laid]).size : 0;
    const kept = touched > 0 ? `, ${touched} drawn on by hand and kept` : '';
    return `${laid.slots.length} laid${across(now ? crossesSeam(now.doc, laid) : false)}${kept}. They follow when their two drawings change.`;
  }
  const bare = gap?.bare.length ?? 0;
  const waits = bare > 0 ? `: ${bare} ${bare === 1 ? 'slot waits' : 'slots wait'}` : '';
  return `From this drawing to the next${across(gap?.seam)}${waits}.`;
}

/** How many, of some or typed. */
function Count() {
  const count = useBetween((s) => s.count);
  return (
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
  );
}

/** Which way points go from one drawing to the next. */
function Way({ now, laid }: { now: Current | null; laid: Laid | null | undefined }) {
  const own = useBetween((s) => s.way);
  const ownPath = useBetween((s) => s.pathId);
  const paths = now ? findAll(now.doc, 'path', now.element.paths) : [];
  const way = laid?.way ?? own;
  return (
    <>
      <div className="flex items-center justify-between text-[13px] text-wax-300">
        Points go
        <Words
          label="How points go"
          value={way}
          choices={WAYS.filter((each) => each !== 'path' || paths.length > 0).map((each) => ({
            value: each,
            ...WAY_WORDS[each],
          }))}
          onChoose={(each) => {
            goBy(each, each === 'path' ? (ownPath ?? paths[0]?.id ?? null) : ownPath);
          }}
        />
      </div>
      {way === 'path' ? (
        <SelectRow
          label="Path"
          value={laid?.pathId ?? ownPath ?? ''}
          options={paths.map(({ id, name }) => ({ value: id, label: name }))}
          onChoose={(id) => {
            goBy('path', id);
          }}
        />
      ) : null}
    </>
  );
}

type Spread = ReturnType<typeof useBetween.getState>['spread'];

function SpreadSlider({ label, of, min, title }: { label: string; of: keyof Spread; min: number; title?: string }) {
  const spread = useBetween((s) => s.spread);
  return (
    <Slider
      label={label}
      {...(title ? { title } : {})}
      value={spread[of] * 100}
      min={min}
      max={100}
      unit="%"
      onMove={(v) => {
        spreadAs({ ...spread, [of]: v / 100 });
      }}
      onDone={endGesture}
    />
  );
}

/** What is rarely set: soft ends, and which mark becomes which. */
function Rare() {
  const { tying, several } = useBetween();
  return (
    <Fold label="Soft start and end, which mark becomes which">
      <SpreadSlider label="Soft start" of="softStart" min={0} />
      <SpreadSlider label="Soft end" of="softEnd" min={0} />
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
  );
}

function TiedToo({ tied }: { tied: number }) {
  const tiedToo = useBetween((s) => s.tiedToo);
  return (
    <Check
      label={tied === 1 ? 'the layer tied to it too' : `the ${tied} layers tied to it too`}
      title="They would be bare here: drawn ones get in-betweens of their own, fills are filled from the new lines, tone follows"
      checked={tiedToo}
      onChange={(on) => {
        setBetween({ tiedToo: on });
      }}
    />
  );
}

function Settings({ now, what, whyNot }: { now: Current | null; what: BetweenNow; whyNot: string | null }) {
  const spread = useBetween((s) => s.spread);
  const { laid, gap } = what;
  const shares = betweenFractions(what);
  const asked = laid ? laid.slots.length : countFor(gap);
  const tied = gap && now ? tiedBetweens(now.doc, gap).length : 0;
  return (
    <>
      <p className="text-[13px] text-wax-500" data-testid="between-what">
        {saidOf(now, what)}
      </p>
      {!laid && gap && gap.bare.length === 0 ? <Count /> : null}
      <BetweenChart shares={shares} />
      <SpreadSlider
        label="Favour"
        of="favour"
        min={-100}
        title="Below 0 nearer to the first, above nearer to the second"
      />
      <Way now={now} laid={laid} />
      {now ? <Pairs now={now} what={what} /> : null}
      <Rare />
      {tied > 0 ? <TiedToo tied={tied} /> : null}
      <Line />
      {laid ? <LaidButtons laid={laid} /> : <Laying gap={gap} asked={asked} whyNot={whyNot} />}
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
  );
}

export function BetweenPanel() {
  const now = useCurrent();
  // What is laid here hangs on these too.
  useBetween();
  useSelection((s) => s.frame);
  const what = betweenNow();
  const whyNot = whyNotBetween();
  return (
    <Panel
      label="In-betweens"
      testId="between-panel"
      heading="In-betweens"
      onBack={() => {
        showPanel(null);
      }}
    >
      {what.laid || what.gap ? (
        <Settings now={now} what={what} whyNot={whyNot} />
      ) : (
        <p className="py-2 text-[13px] text-wax-500">{whyNot}</p>
      )}
    </Panel>
  );
}
