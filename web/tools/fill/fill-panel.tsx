/** Filling: what the pen does, what bounds, gaps, how far under the line, through the drawings, and what needs a look. */
import { FILL_BOUNDS, type FillBounds } from '@tallow/core/edit';
import { useEffect } from 'react';
import { Words } from '../../parts/choice.tsx';
import { Check, Line, Panel, SelectRow, Small } from '../../parts/panel.tsx';
import { Slider } from '../../parts/slider.tsx';
import { useCurrent, type Current } from '../../selection/current.ts';
import { useSelection } from '../../selection/selection.ts';
import { useHeld } from '../../hand/held.ts';
import { showPanel } from '../../screen/panels.ts';
import {
  fillingNow,
  MAX_GAP,
  setFill,
  useFill,
  whyNotFill,
  type FillMode,
  type FillReportAt,
} from '../../fills/fill.ts';
import { fillMany } from '../../fills/laying.ts';
import { steps, useNeeds, watchNeeds } from '../../fills/needs.ts';
import { fillAgain, fillThrough, stopFilling, useStale, whyNotThrough } from '../../fills/through.ts';
import { goTo } from '../../playback/playhead.ts';

const MODES: readonly { value: FillMode; label: string; tip: string }[] = [
  { value: 'region', label: 'pour', tip: 'Fills the region under the pen, and those it is drawn across' },
  { value: 'lasso', label: 'ring', tip: 'Fills the regions that lie in a way drawn round them' },
  { value: 'unfill', label: 'empty', tip: 'Takes the fill away, or cuts a hole for this region' },
  { value: 'repaint', label: 'change', tip: 'Gives a fill the swatch in hand' },
];

const BOUND_WORDS: Readonly<Record<FillBounds, string>> = {
  this: 'the lines of this layer',
  above: 'the lines of layers above the fill',
  visible: 'all visible lines',
};

const TROUBLE = { lost: 'lost here', leaked: 'runs out', bare: 'new, bare' } as const;

function Reports({ reports }: { reports: readonly FillReportAt[] }) {
  const frames = [...new Set(reports.map(({ frame }) => frame))].sort((a, b) => a - b);
  return (
    <div data-testid="fill-reports">
      {frames.map((frame) => {
        const own = reports.filter((report) => report.frame === frame);
        const leaked = own.find(({ gap }) => gap !== null);
        const words = (['leaked', 'bare', 'lost'] as const).flatMap((trouble) => {
          const count = own.filter((report) => report.trouble === trouble).length;
          return count > 0 ? [`${count} ${TROUBLE[trouble]}`] : [];
        });
        return (
          <div key={frame} className="flex h-8 items-center gap-1.5 text-[13px]">
            <button
              type="button"
              className="moves flex h-8 min-w-0 flex-1 items-center gap-2 rounded-md px-1.5 text-left text-warn hover:bg-soot-800"
              data-tip="Go there"
              onClick={() => {
                goTo(frame);
              }}
            >
              <span className="font-mono text-xs">frame {frame + 1}</span>
              <span className="truncate text-wax-300">{words.join(', ')}</span>
            </button>
            {leaked ? (
              <Small
                title="The least gap that holds there"
                onClick={() => {
                  setFill({ gap: leaked.gap! });
                }}
              >
                Gap {leaked.gap}
              </Small>
            ) : null}
          </div>
        );
      })}
    </div>
  );
}

/** On how many drawings each gap holds. */
function Needs({ needs, gap }: { needs: readonly (number | null)[]; gap: number }) {
  const of = needs.length + 1;
  return (
    <p className="flex flex-wrap items-center gap-x-2 text-[13px] text-wax-300" data-testid="fill-needs">
      {steps(needs, gap).map((each, i) => (
        <button
          key={each.gap}
          type="button"
          data-tip={`Sets Gap to ${each.gap} px`}
          aria-pressed={each.gap === gap}
          className={`moves h-7 rounded-md px-1.5 hover:bg-soot-800 ${each.gap === gap ? 'text-flame' : ''}`}
          onClick={() => {
            setFill({ gap: each.gap });
          }}
        >
          {i === 0 ? 'Gap ' : ''}
          <span className="font-mono text-xs">{each.gap}</span>:{' '}
          {each.holds + 1 === of ? `all ${of}` : `${each.holds + 1} of ${of}`}
        </button>
      ))}
    </p>
  );
}

function Through({ now }: { now: Current }) {
  const { working, reports, through, gap, asNeeded, outcome } = useFill();
  const needs = useNeeds((s) => s.needs);
  useSelection((s) => s.frame);
  useEffect(watchNeeds, []);
  const whyNot = whyNotThrough(now);
  if (working)
    return (
      <div className="flex h-9 items-center gap-2 text-[13px] text-wax-300">
        <span
          className="h-1.5 min-w-0 flex-1 overflow-hidden rounded bg-soot-700"
          role="progressbar"
          aria-valuemin={0}
          aria-valuemax={working.of}
          aria-valuenow={working.done}
        >
          <span
            className="block h-full bg-flame"
            style={{ width: `${(100 * working.done) / Math.max(1, working.of)}%` }}
          />
        </span>
        <span className="font-mono text-xs">
          {working.done} of {working.of}
        </span>
        <Small onClick={stopFilling}>Stop</Small>
      </div>
    );
  return (
    <>
      <div className="flex h-9 items-center gap-2 text-[13px] text-wax-300">
        <Words
          label="Through how many drawings"
          value={through >= 500 ? 'all' : 'some'}
          choices={[
            { value: 'all', label: 'to the end', tip: 'On a cycle all the way round' },
            { value: 'some', label: 'for so many' },
          ]}
          onChoose={(value) => {
            setFill({ through: value === 'all' ? 500 : 6 });
          }}
        />
        {through >= 500 ? null : (
          <input
            aria-label="Drawings"
            className="field !h-8 w-12 px-1 text-right font-mono text-xs"
            inputMode="numeric"
            value={through}
            onChange={(event) => {
              const n = Number(event.target.value);
              if (Number.isInteger(n) && n >= 1 && n < 500) setFill({ through: n });
            }}
            onKeyDown={(event) => {
              event.stopPropagation();
            }}
          />
        )}
        <span className="ml-auto" />
        <Small
          title="The fills of this drawing, carried on from drawing to drawing"
          whyNot={whyNot}
          onClick={fillThrough}
        >
          Through the drawings
        </Small>
      </div>
      <div className="flex h-9 items-center justify-between text-[13px] text-wax-300">
        Wider gaps
        <Words
          label="Wider gaps"
          value={asNeeded ? 'needed' : 'never'}
          choices={[
            { value: 'needed', label: 'as each needs', tip: `Up to ${MAX_GAP} px, in the drawings that need it` },
            { value: 'never', label: `stay open`, tip: 'Gap is the same in all drawings' },
          ]}
          onChoose={(value) => {
            setFill({ asNeeded: value === 'needed' });
          }}
        />
      </div>
      {needs ? <Needs needs={needs} gap={gap} /> : null}
      {outcome ? (
        <p className="pt-1 text-[13px] text-wax-300" data-testid="fill-outcome">
          {outcome}
        </p>
      ) : null}
      {reports.length > 0 ? <Reports reports={reports} /> : null}
    </>
  );
}

export function FillPanel() {
  const now = useCurrent();
  const { mode, bounds, gap, toMiddle, under, fillsClosed } = useFill();
  const stale = useStale((s) => s.stale);
  useSelection((s) => s.frame);
  useHeld((s) => s.swatchId);
  if (!now) return null;
  const whyNot = whyNotFill(now);
  const place = fillingNow(now);
  const target = now.layers.find(({ layer }) => layer.id === place?.layerId)?.layer;
  return (
    <Panel
      label="Fill"
      testId="fill-panel"
      heading="Fill"
      onBack={() => {
        showPanel(null);
      }}
    >
      <p className={`pb-1 text-[13px] ${whyNot ? 'text-warn' : 'text-wax-500'}`} data-testid="fill-where">
        {whyNot ?? (target ? `Onto “${target.name}”.` : 'Onto a fill layer, made under these lines.')}
      </p>
      <div className="-mx-1 flex">
        <Words
          label="The pen"
          value={mode}
          choices={MODES}
          onChoose={(value) => {
            setFill({ mode: value });
          }}
        />
      </div>
      <Slider
        label="Gap"
        title="Gaps in the line up to this wide are closed"
        value={gap}
        min={0}
        max={Math.max(MAX_GAP, gap)}
        unit="px"
        onMove={(v) => {
          setFill({ gap: Math.round(v) });
        }}
      />
      <div className="flex items-center justify-between">
        <Small
          pressed={mode === 'closing'}
          title="The pen draws a line that bounds and is never part of the picture"
          onClick={() => {
            setFill({ mode: mode === 'closing' ? 'region' : 'closing' });
          }}
        >
          Bridge a gap
        </Small>
        {mode === 'closing' ? (
          <Check
            label="Fill what it closes"
            checked={fillsClosed}
            onChange={(on) => {
              setFill({ fillsClosed: on });
            }}
          />
        ) : null}
      </div>
      <SelectRow
        label="Bounded by"
        value={bounds}
        options={FILL_BOUNDS.map((each) => ({ value: each, label: BOUND_WORDS[each] }))}
        onChoose={(value) => {
          setFill({ bounds: value as FillBounds });
        }}
      />
      <div className="flex items-center justify-between text-[13px] text-wax-300">
        Under the line
        <span className="flex items-center">
          <Words
            label="Under the line"
            value={toMiddle ? 'middle' : 'px'}
            choices={[
              { value: 'middle', label: 'to its middle' },
              { value: 'px', label: 'px' },
            ]}
            onChoose={(value) => {
              setFill({ toMiddle: value === 'middle' });
            }}
          />
          {toMiddle ? null : (
            <input
              aria-label="px under the line"
              className="field !h-8 w-12 px-1 text-right font-mono text-xs"
              inputMode="numeric"
              value={under}
              onChange={(event) => {
                const n = Number(event.target.value);
                if (n >= 0 && n <= 200) setFill({ under: n });
              }}
              onKeyDown={(event) => {
                event.stopPropagation();
              }}
            />
          )}
        </span>
      </div>
      <div className="flex flex-wrap gap-1.5 py-1">
        <Small title="Every region that lines enclose" whyNot={whyNot} onClick={() => void fillMany('all')}>
          All regions
        </Small>
        <Small
          title="Lines and all they enclose, as one shape"
          whyNot={whyNot}
          onClick={() => void fillMany('silhouette')}
        >
          All but the outside
        </Small>
      </div>
      <Line />
      {stale.length > 0 ? (
        <div className="flex h-9 items-center justify-between text-[13px] text-warn" data-testid="fill-stale">
          <span>
            {stale.length === 1 ? 'One drawing’s' : `${stale.length} drawings’`} lines changed since it was filled
          </span>
          <Small title="What was changed by hand stays" onClick={() => void fillAgain()}>
            Fill again
          </Small>
        </div>
      ) : null}
      <Through now={now} />
    </Panel>
  );
}
