/** The Export step: what to take away and how, and what was taken before. */
import { SHOT_LIMITS, shotOf } from '@tallow/core/document';
import {
  brighteningLayers,
  deliveredFrames,
  EXPORT_FORMATS,
  fileStem,
  forFormat,
  sequencesOf,
  DEFAULT_EXPORT,
  type ExportSettings,
} from '@tallow/core/formats';
import { soundsOf } from '@tallow/core/sound';
import { useState, type ReactNode } from 'react';
import { titleOf } from '../actions/key-text.ts';
import { request } from '../api/client.ts';
import type { ExportInfo } from '../api/types.ts';
import { Button } from '../parts/button.tsx';
import { Choice } from '../parts/choice.tsx';
import { NumberField } from '../parts/number-field.tsx';
import { useDocument } from '../shot/document.ts';
import { EXPORT_ACTIONS, exportAgain } from './again.ts';
import { Deliveries } from './deliveries.tsx';
import { ExportLine, tellTrouble } from './export-row.tsx';
import { FormatChoice } from './format-choice.tsx';
import { NamesAndPapers, namesProblem, PartsAndAlpha } from './frames-options.tsx';
import { LeftOutNotes } from './left-out.tsx';
import { Turns } from './turns.tsx';
import { WhatIsIn } from './what-is-in.tsx';
import { useExports } from './use-exports.ts';
import { Select } from '../parts/select.tsx';

const SCALES = [0.25, 0.5, 1, 2] as const;

const Note = ({ children }: { children: ReactNode }) => <p className="text-[13px] text-warn">{children}</p>;

export function ExportStep() {
  const doc = useDocument((s) => s.doc);
  const saving = useDocument((s) => s.saving);
  const [chosen, setChosen] = useState<Partial<ExportSettings>>({});
  const { list, reload } = useExports(doc?.shotId);
  if (!doc) return null;
  const shot = shotOf(doc);
  const asked: ExportSettings = {
    ...DEFAULT_EXPORT,
    ...chosen,
    from: Math.min(chosen.from ?? 0, shot.length - 1),
    to: Math.min(chosen.to ?? shot.length, shot.length),
  };
  // A shot without a background has none to lie on.
  const settings = forFormat({ ...asked, background: asked.background && shot.background !== null });
  const set = (more: Partial<ExportSettings>): void => {
    setChosen({ ...chosen, ...more });
  };
  const { format, parts, background, from, to, scale } = settings;
  const { frames, alphas, sound, words, rates, doing, tells } = EXPORT_FORMATS[format];
  const count = deliveredFrames(settings, shot.rate).length;
  const sequences = sequencesOf(doc, settings);
  const isOpaque = alphas.length === 0;
  const badNames = frames === null ? null : namesProblem(settings);
  const heard = soundsOf(doc).filter((each) => each.heard).length;
  const bright = brighteningLayers(doc);
  const told = tells?.(count, settings.rate ?? shot.rate);
  const whyNot =
    saving.state !== 'saved'
      ? 'Wait until everything is saved: the server renders what it has.'
      : badNames
        ? 'The names cannot be used yet.'
        : sequences.length === 0
          ? 'There is no visible layer to take away.'
          : null;
  const start = (): void => {
    request<ExportInfo>('POST', `/shots/${shot.id}/exports`, settings).then(reload).catch(tellTrouble);
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
        <FormatChoice
          format={format}
          onChoose={(next) => {
            set({ format: next });
          }}
        />
        {frames === null ? null : <PartsAndAlpha settings={settings} set={set} />}
        {words ? null : <WhatIsIn shot={shot} settings={settings} set={set} />}
        {words ? null : (
          <Choice
            label="Background"
            value={background ? 'with' : 'without'}
            choices={[
              {
                value: 'without',
                label: 'Transparent',
                whyNot: isOpaque ? `${EXPORT_FORMATS[format].label} cannot be seen through.` : null,
              },
              {
                value: 'with',
                label: isOpaque && shot.background === null ? 'On a dark ground' : 'With the background colour',
                whyNot:
                  shot.background === null && !isOpaque
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
        )}
        <div className={`grid gap-2 ${rates ? 'grid-cols-[60px_60px_60px_1fr]' : 'grid-cols-[1fr_1fr_2.1fr]'}`}>
          <NumberField
            key={`f${from}`}
            label="From"
            title="The first frame"
            value={from + 1}
            min={1}
            max={to}
            onTake={(frame) => {
              set({ from: frame - 1 });
            }}
          />
          <NumberField
            key={`t${to}`}
            label="To"
            title="The last frame"
            value={to}
            min={from + 1}
            max={shot.length}
            onTake={(frame) => {
              set({ to: frame });
            }}
          />
          {rates ? (
            <NumberField
              key={`r${settings.rate ?? shot.rate}`}
              label="Per second"
              title="Frames a second. It lasts as long; at another rate than the shot’s, frames are left out or come twice"
              value={settings.rate ?? shot.rate}
              {...SHOT_LIMITS.rate}
              onTake={(rate) => {
                set({ rate: rate === shot.rate ? null : rate });
              }}
            />
          ) : null}
          {words ? null : (
            <label className="block">
              <span className="mb-1 block text-xs text-wax-500">Size</span>
              <Select
                label="Size"
                className="field w-full"
                value={String(scale)}
                options={SCALES.map((each) => ({
                  value: String(each),
                  label: `${each * 100} % · ${Math.round(shot.width * each)} × ${Math.round(shot.height * each)}`,
                }))}
                onChoose={(chosen) => {
                  set({ scale: Number(chosen) });
                }}
              />
            </label>
          )}
        </div>
        <Turns
          doc={doc}
          onTake={(range) => {
            set(range);
          }}
        />
        {told ? <p className="text-[13px] text-wax-500">{told.comes}</p> : null}
        {sound && heard > 0 ? (
          <p className="text-[13px] text-wax-500">{`With the shot’s ${heard === 1 ? 'sound' : `${heard} sounds`}.`}</p>
        ) : null}
        {frames === null ? null : (
          <NamesAndPapers
            settings={settings}
            set={set}
            stem={fileStem(shot.name)}
            part={sequences[0]?.name ?? ''}
            rate={shot.rate}
          />
        )}
        {told?.lost ? <Note>{told.lost}</Note> : null}
        {!background && !words && bright.length > 0 ? (
          <Note>
            {bright.map((name) => `“${name}”`).join(', ')} {bright.length === 1 ? 'brightens' : 'brighten'} what lies
            under it. On a transparent background it will look different over other footage.
          </Note>
        ) : null}
        <Deliveries
          settings={settings}
          onChange={(also) => {
            set({ also });
          }}
        />
        <Button look="primary" whyNot={whyNot} onClick={start} className="w-full">
          {settings.also.length > 0
            ? `${doing(count, sequences.length)} and ${settings.also.length} more`
            : doing(count, sequences.length)}
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
        <LeftOutNotes
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
            <ExportLine key={info.id} info={info} reload={reload} />
          ))}
        </ul>
      </section>
    </div>
  );
}
