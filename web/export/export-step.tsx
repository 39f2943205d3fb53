/** The Export step: what to take away and how, and what was taken before. */
import { shotOf, type ShotDocument } from '@tallow/core/document';
import {
  DEFAULT_EXPORT,
  deliveredFrames,
  EXPORT_FORMATS,
  fileStem,
  forFormat,
  sequencesOf,
  type ExportSettings,
} from '@tallow/core/formats';
import { soundsOf } from '@tallow/core/sound';
import { useState } from 'react';
import { titleOf } from '../actions/key-text.ts';
import { request } from '../api/client.ts';
import type { ExportInfo } from '../api/types.ts';
import { Button } from '../parts/button.tsx';
import { useDocument } from '../shot/document.ts';
import { EXPORT_ACTIONS, exportAgain } from './again.ts';
import { Deliveries } from './deliveries.tsx';
import { tellTrouble } from './export-row.tsx';
import { ExportsList } from './exports-list.tsx';
import { FormatChoice } from './format-choice.tsx';
import { NamesAndPapers, namesProblem, PartsAndAlpha } from './frames-options.tsx';
import { BrightNote, Ground } from './ground.tsx';
import { LeftOutNotes } from './left-out.tsx';
import { RangeFields } from './range-fields.tsx';
import { Turns } from './turns.tsx';
import { useExports } from './use-exports.ts';
import { WhatIsIn } from './what-is-in.tsx';

/** What is chosen, as it can be done with the shot as it is now. */
function settingsFor(doc: ShotDocument, chosen: Partial<ExportSettings>): ExportSettings {
  const shot = shotOf(doc);
  const asked: ExportSettings = {
    ...DEFAULT_EXPORT,
    ...chosen,
    from: Math.min(chosen.from ?? 0, shot.length - 1),
    to: Math.min(chosen.to ?? shot.length, shot.length),
  };
  // A shot without a background has none to lie on.
  return forFormat({ ...asked, background: asked.background && shot.background !== null });
}

interface SettingsProps {
  readonly doc: ShotDocument;
  readonly settings: ExportSettings;
  readonly set: (more: Partial<ExportSettings>) => void;
}

function Settings({ doc, settings, set }: SettingsProps) {
  const shot = shotOf(doc);
  const { frames, sound, words, tells } = EXPORT_FORMATS[settings.format];
  const told = tells?.(deliveredFrames(settings, shot.rate).length, settings.rate ?? shot.rate);
  const heard = soundsOf(doc).filter((each) => each.heard).length;
  return (
    <>
      <FormatChoice
        format={settings.format}
        onChoose={(format) => {
          set({ format });
        }}
      />
      {frames === null ? null : <PartsAndAlpha settings={settings} set={set} />}
      {words ? null : <WhatIsIn shot={shot} settings={settings} set={set} />}
      {words ? null : <Ground shot={shot} settings={settings} set={set} />}
      <RangeFields shot={shot} settings={settings} set={set} />
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
          part={sequencesOf(doc, settings)[0]?.name ?? ''}
          rate={shot.rate}
        />
      )}
      {told?.lost ? <p className="text-[13px] text-warn">{told.lost}</p> : null}
      {settings.background || words ? null : <BrightNote doc={doc} />}
      <Deliveries
        settings={settings}
        onChange={(also) => {
          set({ also });
        }}
      />
    </>
  );
}

interface StartProps {
  readonly doc: ShotDocument;
  readonly settings: ExportSettings;
  /** The last one, that can be made again. */
  readonly last: ExportInfo | undefined;
  readonly reload: () => Promise<void>;
}

function Start({ doc, settings, last, reload }: StartProps) {
  const saving = useDocument((s) => s.saving);
  const shot = shotOf(doc);
  const { frames, doing } = EXPORT_FORMATS[settings.format];
  const sequences = sequencesOf(doc, settings).length;
  const badNames = frames === null ? null : namesProblem(settings);
  const whyNot =
    saving.state !== 'saved'
      ? 'Wait until everything is saved: the server renders what it has.'
      : badNames
        ? 'The names cannot be used yet.'
        : sequences === 0
          ? 'There is no visible layer to take away.'
          : null;
  const does = doing(deliveredFrames(settings, shot.rate).length, sequences);
  return (
    <>
      <Button
        look="primary"
        whyNot={whyNot}
        onClick={() => {
          request<ExportInfo>('POST', `/shots/${shot.id}/exports`, settings).then(reload).catch(tellTrouble);
        }}
        className="w-full"
      >
        {settings.also.length > 0 ? `${does} and ${settings.also.length} more` : does}
      </Button>
      {last ? (
        <Button
          whyNot={EXPORT_ACTIONS.again.whyNot?.() ?? null}
          title={titleOf(EXPORT_ACTIONS.again)}
          onClick={() => {
            exportAgain().then(reload).catch(tellTrouble);
          }}
          className="w-full"
        >
          Again: {last.fileName}
        </Button>
      ) : null}
    </>
  );
}

export function ExportStep() {
  const doc = useDocument((s) => s.doc);
  const saving = useDocument((s) => s.saving);
  const [chosen, setChosen] = useState<Partial<ExportSettings>>({});
  const { list, reload } = useExports(doc?.shotId);
  if (!doc) return null;
  const shot = shotOf(doc);
  const settings = settingsFor(doc, chosen);
  const set = (more: Partial<ExportSettings>): void => {
    setChosen({ ...chosen, ...more });
  };
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
        <Settings doc={doc} settings={settings} set={set} />
        <Start doc={doc} settings={settings} last={list?.[0]} reload={reload} />
        <LeftOutNotes
          doc={doc}
          work={settings.work}
          onWork={(work) => {
            set({ work });
          }}
        />
      </section>
      <ExportsList shotId={shot.id} list={list} reload={reload} />
    </div>
  );
}
