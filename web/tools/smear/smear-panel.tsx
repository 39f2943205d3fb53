/** Smears, in the column: the kind, three numbers, and the rest as it is wanted. */
import { find, findAll, shotOf, type Smear, type SmearTime, type SmearWay } from '@tallow/core/document';
import type { Control } from '@tallow/core/controls';
import { seenFor, SMEARS, smearOf } from '@tallow/core/smears';
import { frameOfSlot, slotNumbers } from '@tallow/core/timing';
import { Dices } from 'lucide-react';
import { Check, Fold, Line, Panel, Select, Small, Words } from '../../parts/panel.tsx';
import { ControlRow } from '../../parts/control-row.tsx';
import { Slider } from '../../parts/slider.tsx';
import { takeTool } from '../../hand/held.ts';
import { useCurrent, type Current } from '../../selection/current.ts';
import { useSelection } from '../../selection/selection.ts';
import { endGesture } from '../../shot/document.ts';
import {
  laySmearHere,
  letBe,
  makeForm,
  relay,
  relayed,
  setSmear,
  smearNow,
  takeAway,
  touchedIn,
  useSmear,
  whyNotSmear,
} from '../../smears/smear.ts';
import { useWay } from '../../smears/way.ts';
import { AfterSection } from './after-section.tsx';
import { FastSection } from './fast-section.tsx';
import { KindPicture } from './kind-pictures.tsx';
import { OverlapLine, TooMuch } from './overlap-line.tsx';
import { VolumeChart } from './volume-chart.tsx';

/** The numbers of a smear: of the one that is laid, else of the next. */
function Setting({ smear, control }: { smear: Smear | null; control: Control }) {
  const { form, settings } = useSmear();
  const { key, label, usual } = control;
  const own = smear ? smear.settings : (settings[form] ?? {});
  const set = (next: number, gesture?: string): void => {
    if (smear) relay(smear.id, { settings: { ...smear.settings, [key]: next } }, label.toLowerCase(), gesture);
    else setSmear({ settings: { ...settings, [form]: { ...own, [key]: next } } });
  };
  return (
    <ControlRow
      control={control}
      value={own[key] ?? usual}
      onMove={(next) => {
        set(next, `smear-${key}`);
      }}
      onDone={(next) => {
        if (control.choices) set(next);
        else void relayed().then(endGesture);
      }}
    />
  );
}

function Kinds({ smear }: { smear: Smear | null }) {
  const form = useSmear((s) => s.form);
  const shown = smear?.form ?? form;
  return (
    <div role="group" aria-label="Kind of smear" className="grid grid-cols-5 gap-1 py-1">
      {SMEARS.map((kind) => (
        <button
          key={kind.form}
          type="button"
          aria-pressed={shown === kind.form}
          title={kind.says}
          className={`moves flex flex-col items-center gap-0.5 rounded-lg py-1.5 text-xs ${shown === kind.form ? 'bg-flame-deep text-flame' : 'bg-soot-800 text-wax-300 hover:bg-soot-700'}`}
          onClick={() => {
            setSmear({ form: kind.form });
            if (smear && smear.form !== kind.form) makeForm(smear, kind.form);
          }}
        >
          <KindPicture form={kind.form} />
          {kind.name}
        </button>
      ))}
    </div>
  );
}

const TIME_WORDS: Readonly<Record<Exclude<SmearTime, 'behind'>, { label: string; title: string }>> = {
  hold: { label: 'of the hold', title: 'The last frame of the drawing before: nothing later moves' },
  replace: { label: 'in its place', title: 'In place of the drawing before' },
  longer: { label: 'one more', title: 'One frame more: what follows moves' },
};

/** Which way it goes, and what stops it. */
function Way({ now, smear }: { now: Current; smear: Smear | null }) {
  const desk = useSmear();
  const paths = findAll(now.doc, 'path', now.element.paths);
  const guides = [...findAll(now.doc, 'guide', shotOf(now.doc).guides)].filter(({ form }) => form !== 'grid');
  const way = smear?.way ?? desk.way;
  const words: { value: SmearWay; label: string; title: string }[] = [
    { value: 'as drawn', label: 'as drawn', title: 'As the drawings turn: on their arc' },
    { value: 'straight', label: 'straight', title: 'The shortest way' },
    ...(smear && paths.length > 0
      ? [{ value: 'path' as const, label: 'a path', title: 'Along a path of the plan' }]
      : []),
    ...(smear?.line ? [{ value: 'line' as const, label: 'as pulled', title: 'Along the line that was pulled' }] : []),
  ];
  return (
    <>
      <div className="flex items-center justify-between text-[13px] text-wax-300">
        It goes
        <Words
          label="Way of the smear"
          value={way}
          words={words}
          onChoose={(next) => {
            if (smear)
              relay(
                smear.id,
                { way: next, pathId: next === 'path' ? (smear.pathId ?? paths[0]?.id ?? null) : null },
                'way of the smear',
              );
            else setSmear({ way: next });
          }}
        />
      </div>
      {smear?.way === 'path' ? (
        <Select
          label="Path"
          value={smear.pathId ?? ''}
          options={paths.map(({ id, name }) => ({ value: id, label: name }))}
          onChoose={(pathId) => {
            relay(smear.id, { pathId }, 'path of the smear');
          }}
        />
      ) : null}
      <Slider
        label="Bends aside"
        unit="°"
        value={((smear?.bend ?? desk.bend) * 180) / Math.PI}
        least={-170}
        most={170}
        onMove={(degrees) => {
          const bend = (degrees * Math.PI) / 180;
          if (smear) relay(smear.id, { bend }, 'bend of the smear', 'smear-bend');
          else setSmear({ bend });
        }}
        onDone={() => void relayed().then(endGesture)}
      />
      {smear && guides.length > 0 ? (
        <Select
          label="Stopped by"
          value={smear.guideId ?? ''}
          options={[{ value: '', label: 'nothing' }, ...guides.map(({ id, name }) => ({ value: id, label: name }))]}
          onChoose={(id) => {
            relay(smear.id, { guideId: id || null }, 'contact of the smear');
          }}
        />
      ) : null}
      <p className="text-xs text-wax-500">Pull in the picture from where it comes, for another way.</p>
    </>
  );
}

const PICK_FIRST = 'Pick it up on the drawing that arrives first (C), then come back here.';

/** When it is seen, and as what it is laid. */
function Place({ now, smear }: { now: Current; smear: Smear | null }) {
  const desk = useSmear();
  const asGuide = smear?.asGuide ?? desk.asGuide;
  const time = smear?.time ?? desk.time;
  const isBehind =
    smearOf(smear?.form ?? desk.form).lies(smear?.settings ?? desk.settings[desk.form] ?? {}) === 'behind';
  return (
    <>
      {isBehind || asGuide ? null : (
        <div className="flex items-center justify-between text-[13px] text-wax-300">
          Its frame
          <Words
            label="Where its frame comes from"
            value={time}
            words={(['hold', 'replace', 'longer'] as const).map((value) => ({ value, ...TIME_WORDS[value] }))}
            onChoose={(next) => {
              if (smear) relay(smear.id, { time: next }, 'frame of the smear');
              setSmear({ time: next });
            }}
          />
        </div>
      )}
      <Check
        label="to be traced"
        title="On a guide layer of its own, for work only"
        checked={asGuide}
        onChange={(on) => {
          if (smear) relay(smear.id, { asGuide: on, time: on || isBehind ? 'behind' : 'hold' }, 'laid to be traced');
          setSmear({ asGuide: on });
        }}
      />
      {smear ? (
        <div className="flex flex-wrap gap-1.5 py-1">
          <Small
            title="An eye, a tip: as it arrives, at the leading end"
            whyNot={desk.picked.length > 0 || smear.rigid.length > 0 ? null : PICK_FIRST}
            onClick={() => {
              const rigid = smear.rigid.length > 0 ? [] : desk.picked;
              relay(smear.id, { rigid }, 'parts that keep their form');
            }}
          >
            {smear.rigid.length > 0 ? `${smear.rigid.length} keep their form: let go` : 'What is picked keeps its form'}
          </Small>
          <Small
            title="A line it does not go beyond"
            whyNot={desk.picked.length > 0 || smear.stopMarkId ? null : PICK_FIRST}
            onClick={() => {
              const stopMarkId = smear.stopMarkId ? null : (desk.picked[0] ?? null);
              relay(smear.id, { stopMarkId }, 'contact of the smear');
            }}
          >
            {smear.stopMarkId ? 'A mark stops it: let go' : 'What is picked stops it'}
          </Small>
        </div>
      ) : null}
      {smear ? <Seen now={now} smear={smear} /> : null}
    </>
  );
}

/** How long it is seen, where that is worth saying. */
function Seen({ now, smear }: { now: Current; smear: Smear }) {
  const layer = find(now.doc, 'layer', smear.layerId);
  const list = find(now.doc, 'runlist', layer?.runListId);
  const slots = [smear.slot, ...Object.keys(smear.laid[smear.behindId ?? ''] ?? {})].filter((slot) => slot !== null);
  const frames = (list?.runs ?? []).reduce(
    (sum, run) => sum + (run.slot && slots.includes(run.slot) ? run.length : 0),
    0,
  );
  const { rate } = shotOf(now.doc);
  const seen = seenFor(frames, rate, smear.form === 'copies');
  if (seen === 'short' || smear.form === 'swath' || smear.form === 'trail') return null;
  return (
    <p className={`text-xs ${seen === 'long' ? 'text-warn' : 'text-wax-500'}`}>
      {`Seen for ${frames} frames, ${(frames / rate).toFixed(2)} s${seen === 'long' ? ': the eye takes it for a form of its own' : ''}.`}
    </p>
  );
}

/** What would be smeared, or is, in words. */
function Told({ now, smear }: { now: Current; smear: Smear | null }) {
  const desk = useSmear();
  const { speed } = useWay();
  const frame = useSelection((s) => s.frame);
  const { place } = smearNow(now, frame);
  const stops = smear?.stops ?? place?.stops ?? [];
  const layer = find(now.doc, 'layer', smear?.layerId ?? place?.layerId);
  const list = find(now.doc, 'runlist', layer?.runListId);
  const numbers = list ? slotNumbers(list) : new Map<string, number>();
  const [from, to] = [stops.at(-2), stops.at(-1)];
  const touched = smear ? touchedIn(now.doc, smear) : 0;
  const where =
    from && to ? `From drawing ${numbers.get(from) ?? '?'} to ${numbers.get(to) ?? '?'}` : 'From where it is pulled';
  const far = speed && speed.length >= 1 ? `, ${Math.round(speed.length)} px` : '';
  const seam =
    from && to && layer && (frameOfSlot(now.doc, layer.id, from) ?? 0) > (frameOfSlot(now.doc, layer.id, to) ?? 0);
  const isBehind = smear ? smear.slot === null : false;
  const isLonger = !isBehind && (smear?.time ?? place?.time) === 'longer' && desk.time !== 'longer';
  const more = [
    ...(touched > 0 ? [`${touched} drawn on by hand and kept.`] : []),
    ...(isLonger ? ['No frame to spare: one more, what follows moves.'] : []),
  ].join(' ');
  return (
    <p className="min-h-5 text-[13px] text-wax-500" data-testid="smear-what">
      {`${where}${far}${seam ? ', across the seam' : ''}. ${more}`}
    </p>
  );
}

export function SmearPanel() {
  const now = useCurrent();
  const frame = useSelection((s) => s.frame);
  const desk = useSmear();
  const { form, working } = desk;
  if (!now) return null;
  const { laid, place } = smearNow(now, frame);
  const smear = laid[0] ?? null;
  const whyNot = smear ? null : whyNotSmear();
  const kind = smearOf(smear?.form ?? form);
  const arrives = place?.stops.at(-1) ?? null;
  const from = place?.stops.at(-2);
  const before = from && place ? frameOfSlot(now.doc, place.layerId, from) : null;
  const shown = kind.controls.slice(0, 3);
  const rest = kind.controls.slice(3);
  return (
    <Panel
      label="Smear"
      testId="smear-panel"
      heading="Smear"
      onBack={() => {
        takeTool(null);
      }}
    >
      <Kinds smear={smear} />
      {whyNot ? <p className="py-1 text-[13px] text-wax-500">{whyNot}</p> : <Told now={now} smear={smear} />}
      {shown.map((control) => (
        <Setting key={`${kind.form}-${control.key}`} smear={smear} control={control} />
      ))}
      <div className="flex flex-wrap items-center gap-1.5 py-1">
        {smear ? (
          <>
            <Small
              title="It stays as drawings like all others and follows nothing any more"
              onClick={() => {
                letBe(smear);
              }}
            >
              Let it be
            </Small>
            <Small
              title="With its frame, which goes back where it came from"
              onClick={() => {
                takeAway(smear);
              }}
            >
              Take away
            </Small>
            <Small
              title="Another seed: the same settings, other strands, drops and lines"
              onClick={() => {
                relay(smear.id, { seed: (smear.seed * 1103515245 + 12345) >>> 0 }, 'another seed');
              }}
            >
              <Dices size={14} />
            </Small>
          </>
        ) : null}
        {place && (smear === null || laid.every((each) => each.form !== form)) ? (
          <button
            type="button"
            aria-disabled={whyNot || working ? true : undefined}
            title={whyNot ?? undefined}
            className={`moves ml-auto h-9 rounded-lg bg-flame px-3 font-semibold text-soot-950 hover:brightness-110 ${whyNot ? 'opacity-45' : ''}`}
            onClick={() => {
              if (!whyNot && !working) void laySmearHere({ marks: desk.picked });
            }}
          >
            {working ? 'Computing' : `Lay ${kind.name.toLowerCase()}`}
          </button>
        ) : null}
      </div>
      {smear ? <TooMuch smear={smear} /> : <OverlapLine now={now} slot={arrives} before={before} />}
      <Line />
      <Fold label="More of it">
        {rest.map((control) => (
          <Setting key={`${kind.form}-${control.key}`} smear={smear} control={control} />
        ))}
      </Fold>
      <Fold label="Its way, its frame, what keeps its form">
        <Way now={now} smear={smear} />
        <Place now={now} smear={smear} />
      </Fold>
      <Fold label="The fast ones">
        <FastSection now={now} />
      </Fold>
      <Fold label="Afterwards; area and length">
        <AfterSection smear={smear} />
        <VolumeChart now={now} />
      </Fold>
    </Panel>
  );
}
