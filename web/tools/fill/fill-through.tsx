/** A fill taken through the drawings: how far, what it needs there, and what came of it. */
import { useEffect } from 'react';
import { Words } from '../../parts/choice.tsx';
import { Small } from '../../parts/panel.tsx';
import { type Current } from '../../selection/current.ts';
import { useSelection } from '../../selection/selection.ts';
import { MAX_GAP, setFill, useFill, type FillReportAt } from '../../fills/fill.ts';
import { steps, useNeeds, watchNeeds } from '../../fills/needs.ts';
import { fillThrough, stopFilling, whyNotThrough } from '../../fills/through.ts';
import { goTo } from '../../playback/playhead.ts';

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

export function Through({ now }: { now: Current }) {
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
