/** Smears, in the column: the kind, three numbers, and the rest as it is wanted. */
import { find, type Smear } from '@tallow/core/document';
import type { Control } from '@tallow/core/controls';
import { nextSeed } from '@tallow/core/geometry';
import { SMEARS, smearOf } from '@tallow/core/smears';
import { frameOfSlot, slotNumbers } from '@tallow/core/timing';
import { Dices } from 'lucide-react';
import { Fold, Line, Panel, Small } from '../../parts/panel.tsx';
import { ControlRow } from '../../parts/control-row.tsx';
import { showPanel } from '../../screen/panels.ts';
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
  removeSmear,
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
import { PlaceRow, WayRow } from './way-and-place.tsx';

/** The numbers of a smear: of the one that is laid, else of the next. */
function Setting({ smear, control }: { smear: Smear | null; control: Control }) {
  const { form, settings } = useSmear();
  const { key, label, default: preset } = control;
  const own = smear ? smear.settings : (settings[form] ?? {});
  const set = (next: number, gesture?: string): void => {
    if (smear) relay(smear.id, { settings: { ...smear.settings, [key]: next } }, label.toLowerCase(), gesture);
    else setSmear({ settings: { ...settings, [form]: { ...own, [key]: next } } });
  };
  return (
    <ControlRow
      control={control}
      value={own[key] ?? preset}
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
          data-tip={kind.says}
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

/** What would be smeared, or is, in words. */
function Told({ now, smear }: { now: Current; smear: Smear | null }) {
  const desk = useSmear();
  const { speed } = useWay();
  const frame = useSelection((s) => s.frame);
  const { place, held } = smearNow(now, frame);
  const stops = smear?.stops ?? place?.stops ?? [];
  const layer = find(now.doc, 'layer', smear?.layerId ?? place?.layerId);
  const list = find(now.doc, 'runlist', layer?.runListId);
  const numbers = list ? slotNumbers(list) : new Map<string, number>();
  const [from, to] = [stops.at(-2), stops.at(-1)];
  const touched = smear ? touchedIn(now.doc, smear) : 0;
  const where =
    held && !smear
      ? 'From where the layer was a frame before, while its drawing is held'
      : from && to
        ? `From drawing ${numbers.get(from) ?? '?'} to ${numbers.get(to) ?? '?'}`
        : 'From where it is pulled';
  const far = speed && speed.length >= 1 ? `, ${Math.round(speed.length)} px` : '';
  const seam =
    from && to && layer && (frameOfSlot(now.doc, layer.id, from) ?? 0) > (frameOfSlot(now.doc, layer.id, to) ?? 0);
  const isBehind = smear ? smear.slot === null : false;
  const isLonger = !isBehind && (smear?.time ?? place?.time) === 'longer' && desk.time !== 'longer';
  const isNothing = smear !== null && smear.slot === null && smear.behindId === null;
  const more = [
    ...(isNothing ? [`Nothing of it is seen here. ${smearOf(smear.form).lacks ?? 'It hardly moves.'}`] : []),
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
  const { laid, place, held } = smearNow(now, frame);
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
        showPanel(null);
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
                removeSmear(smear);
              }}
            >
              Take away
            </Small>
            <Small
              title="Another seed: the same settings, other strands, drops and lines"
              onClick={() => {
                relay(smear.id, { seed: nextSeed(smear.seed) }, 'another seed');
              }}
            >
              <Dices size={14} />
            </Small>
          </>
        ) : null}
        {(place ?? held) && (smear === null || laid.every((each) => each.form !== form)) ? (
          <button
            type="button"
            aria-disabled={whyNot || working ? true : undefined}
            data-tip={whyNot ?? undefined}
            className={`moves ml-auto h-9 rounded-lg bg-flame px-3 font-semibold text-soot-950 hover:brightness-110 ${whyNot ? 'opacity-45' : ''}`}
            onClick={() => {
              if (!whyNot && !working) void laySmearHere({ marks: desk.selected });
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
        <WayRow now={now} smear={smear} />
        <PlaceRow now={now} smear={smear} />
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
