/** The Export step: what to take away and how, and what was taken before. */
import { shotOf, type ShotDocument } from '@tallow/core/document';
import {
  brighteningLayers,
  EXPORT_FORMATS,
  exportFormats,
  fileStem,
  leftOut,
  frameName,
  partsOf,
  patternProblem,
  sequencesOf,
  USUAL_PATTERN,
  type ExportSettings,
} from '@tallow/core/formats';
import { useState, type ReactNode } from 'react';
import { request } from '../api/client.ts';
import type { ExportInfo } from '../api/types.ts';
import { Button } from '../parts/button.tsx';
import { Choice } from '../parts/choice.tsx';
import { NumberField } from '../parts/number-field.tsx';
import { useDocument } from '../shot/document.ts';
import { ExportRow, tellTrouble } from './export-row.tsx';
import { titleOf } from '../actions/key-text.ts';
import { EXPORT_ACTIONS, exportAgain } from './again.ts';
import { Turns } from './turns.tsx';
import { useExports } from './use-exports.ts';

const SCALES = [0.25, 0.5, 1, 2] as const;

const Field = ({ label, children }: { label: string; children: ReactNode }) => (
  <div>
    <div className="mb-1 text-[13px] text-wax-500">{label}</div>
    {children}
  </div>
);

const Note = ({ children }: { children: ReactNode }) => <p className="text-[13px] text-warn">{children}</p>;

/** What is seen while drawing and stays behind, by name; what is for work can come along. */
function LeftOut({ doc, work, onWork }: { doc: ShotDocument; work: boolean; onWork: (work: boolean) => void }) {
  const out = leftOut(doc);
  const named = (why: 'guide' | 'for work') =>
    out
      .filter((each) => each.why === why)
      .map(({ name }) => `“${name}”`)
      .join(', ');
  const [guides, forWork] = [named('guide'), named('for work')];
  return (
    <div className="space-y-1 text-[13px] text-wax-500" data-testid="left-out">
      {forWork ? (
        <>
          <p>
            {work ? 'For work, and let in: ' : 'Left out, as for work only: '}
            {forWork}.
          </p>
          <label className="flex h-8 items-center gap-2 text-wax-300">
            <input
              type="checkbox"
              className="accent-flame"
              checked={work}
              onChange={(event) => {
                onWork(event.target.checked);
              }}
            />
            Let in what is for work
          </label>
        </>
      ) : null}
      <p>{guides ? `Guides stay behind: ${guides}.` : ''} Guides, the onion skin and the backdrop are never in it.</p>
    </div>
  );
}

export function ExportStep() {
  const doc = useDocument((s) => s.doc);
  const saving = useDocument((s) => s.saving);
  const [chosen, setChosen] = useState<Partial<ExportSettings>>({});
  const { list, reload } = useExports(doc?.shotId);
  if (!doc) return null;
  const shot = shotOf(doc);
  const settings: ExportSettings = {
    format: 'png',
    parts: 'picture',
    background: false,
    scale: 1,
    pattern: USUAL_PATTERN,
    sheet: true,
    work: false,
    ...chosen,
    from: Math.min(chosen.from ?? 0, shot.length - 1),
    to: Math.min(chosen.to ?? shot.length, shot.length),
  };
  const set = (more: Partial<ExportSettings>): void => {
    setChosen({ ...chosen, ...more });
  };
  const { format, from, to, scale, pattern } = settings;
  const parts = partsOf(settings);
  const { frames, doing, tells } = EXPORT_FORMATS[format];
  const count = to - from;
  const sequences = sequencesOf(doc, settings);
  const onBackground = settings.background && shot.background !== null && parts === 'picture';
  const badPattern = frames === null ? null : patternProblem(pattern);
  const bright = brighteningLayers(doc);
  const told = tells?.(count, shot.rate);
  const stem = fileStem(shot.name);
  const part = sequences[0]?.name ?? '';
  const whyNot =
    saving.state !== 'saved'
      ? 'Wait until everything is saved: the server renders what it has.'
      : badPattern
        ? 'The name pattern cannot be used yet.'
        : sequences.length === 0
          ? 'There is no visible layer to take away.'
          : null;
  const start = (): void => {
    request<ExportInfo>('POST', `/shots/${shot.id}/exports`, { ...settings, background: onBackground })
      .then(reload)
      .catch(tellTrouble);
  };
  const clear = (): void => {
    request('DELETE', `/shots/${shot.id}/exports`).then(reload).catch(tellTrouble);
  };
  const finished = list?.filter(({ state }) => state !== 'waiting' && state !== 'running') ?? [];

  return (
    <div className="flex min-h-0 flex-1 gap-8 overflow-y-auto bg-soot-950 p-8 max-[1100px]:gap-6 max-[1100px]:p-6">
      <section className="w-[400px] shrink-0 space-y-4" aria-label="Take away">
        <h1 className="font-name text-2xl">Take away</h1>
        <img
          src={`/api/shots/${shot.id}/picture.png?${saving.state}`}
          alt={`Frame 1 of ${shot.name}`}
          className="w-full rounded-[10px] bg-surround object-contain"
          style={{ aspectRatio: `${shot.width} / ${shot.height}`, maxHeight: 170 }}
        />
        <Choice
          label="Format"
          value={format}
          choices={exportFormats().map((value) => ({ value, label: EXPORT_FORMATS[value].label }))}
          onChoose={(next) => {
            set({ format: next });
          }}
        />
        {frames === null ? null : (
          <Choice
            label="Sequences"
            value={parts}
            choices={[
              { value: 'picture', label: 'Whole picture' },
              { value: 'layers', label: 'One per layer' },
              { value: 'elements', label: 'One per element' },
            ]}
            onChoose={(next) => {
              set({ parts: next });
            }}
          />
        )}
        <Choice
          label="Background"
          value={onBackground ? 'with' : 'without'}
          choices={[
            { value: 'without', label: 'Transparent' },
            {
              value: 'with',
              label: 'With the background colour',
              whyNot:
                shot.background === null
                  ? 'This shot has no background colour.'
                  : parts !== 'picture'
                    ? 'Single layers and elements are always transparent.'
                    : null,
            },
          ]}
          onChoose={(next) => {
            set({ background: next === 'with' });
          }}
        />
        <div className="grid grid-cols-[1fr_1fr_2.1fr] gap-3">
          <NumberField
            key={`f${from}`}
            label="From frame"
            value={from + 1}
            least={1}
            most={to}
            onTake={(frame) => {
              set({ from: frame - 1 });
            }}
          />
          <NumberField
            key={`t${to}`}
            label="To frame"
            value={to}
            least={from + 1}
            most={shot.length}
            onTake={(frame) => {
              set({ to: frame });
            }}
          />
          <label className="block">
            <span className="mb-1 block text-xs text-wax-500">Size</span>
            <select
              aria-label="Size"
              className="field w-full"
              value={scale}
              onChange={(event) => {
                set({ scale: Number(event.target.value) });
              }}
            >
              {SCALES.map((each) => (
                <option key={each} value={each}>
                  {each * 100} % · {Math.round(shot.width * each)} × {Math.round(shot.height * each)}
                </option>
              ))}
            </select>
          </label>
        </div>
        <Turns
          doc={doc}
          onTake={(range) => {
            set(range);
          }}
        />
        {told ? <p className="text-[13px] text-wax-500">{told.comes}</p> : null}
        {frames === null ? null : (
          <>
            <Field label="Names">
              <input
                aria-label="Name pattern"
                className="field w-full font-mono text-[13px]"
                value={pattern}
                aria-invalid={badPattern !== null}
                onChange={(event) => {
                  set({ pattern: event.target.value });
                }}
              />
              <div className={`mt-1 truncate font-mono text-xs ${badPattern ? 'text-harm' : 'text-wax-500'}`}>
                {badPattern
                  ? `The pattern ${badPattern}`
                  : `${frameName(pattern, stem, part, from)}.${frames} to ${frameName(pattern, stem, part, to - 1)}.${frames}`}
              </div>
            </Field>
            <label className="flex h-8 items-center gap-2 text-[13px]">
              <input
                type="checkbox"
                className="accent-flame"
                checked={settings.sheet}
                onChange={(event) => {
                  set({ sheet: event.target.checked });
                }}
              />
              Exposure sheet as CSV beside them
            </label>
          </>
        )}
        {told?.lost ? <Note>{told.lost}</Note> : null}
        {!onBackground && bright.length > 0 ? (
          <Note>
            {bright.map((name) => `“${name}”`).join(', ')} {bright.length === 1 ? 'brightens' : 'brighten'} what lies
            under it. On a transparent background it will look different over other footage.
          </Note>
        ) : null}
        <Button look="primary" whyNot={whyNot} onClick={start} className="w-full">
          {doing(count, sequences.length)}
        </Button>
        {list?.[0] ? (
          <Button
            whyNot={EXPORT_ACTIONS.again.whyNot?.() ?? null}
            title={titleOf(EXPORT_ACTIONS.again)}
            onClick={() => {
              exportAgain().then(reload).catch(tellTrouble);
            }}
            className="w-full"
          >
            Again: {list[0].fileName}
          </Button>
        ) : null}
        <LeftOut
          doc={doc}
          work={settings.work}
          onWork={(work) => {
            set({ work });
          }}
        />
      </section>
      <section className="min-w-0 flex-1" aria-label="Exports">
        <div className="mb-4 flex items-center">
          <h2 className="font-name text-lg text-wax-300">Exports of this shot</h2>
          {finished.length > 0 ? (
            <Button look="bare" className="ml-auto text-[13px]" onClick={clear}>
              Clear the list
            </Button>
          ) : null}
        </div>
        {list?.length === 0 ? (
          <p className="text-wax-500">Nothing yet. What you export is listed here and can be fetched again.</p>
        ) : null}
        <ul className="space-y-2">
          {list?.map((info) => (
            <ExportRow key={info.id} info={info} reload={reload} />
          ))}
        </ul>
      </section>
    </div>
  );
}
