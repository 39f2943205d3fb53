/** The rarer settings of a smear: its way, what stops it, where its frame comes from, what keeps its form. */
import { find, findAll, shotOf, type Smear, type SmearTime, type SmearWay } from '@tallow/core/document';
import { seenFor, smearOf } from '@tallow/core/smears';
import { Words } from '../../parts/choice.tsx';
import { Check, SelectRow, Small } from '../../parts/panel.tsx';
import { Slider } from '../../parts/slider.tsx';
import type { Current } from '../../selection/current.ts';
import { endGesture } from '../../shot/document.ts';
import { relay, relayed, setSmear, useSmear } from '../../smears/smear.ts';

const TIME_WORDS: Readonly<Record<Exclude<SmearTime, 'behind'>, { label: string; tip: string }>> = {
  hold: { label: 'of the hold', tip: 'The last frame of the drawing before: nothing later moves' },
  replace: { label: 'in its place', tip: 'In place of the drawing before' },
  longer: { label: 'one more', tip: 'One frame more: what follows moves' },
};

/** Which way it goes, and what stops it. */
export function WayRow({ now, smear }: { now: Current; smear: Smear | null }) {
  const desk = useSmear();
  const paths = findAll(now.doc, 'path', now.element.paths);
  const guides = [...findAll(now.doc, 'guide', shotOf(now.doc).guides)].filter(({ form }) => form !== 'grid');
  const way = smear?.way ?? desk.way;
  const words: { value: SmearWay; label: string; tip: string }[] = [
    { value: 'as drawn', label: 'as drawn', tip: 'As the drawings turn: on their arc' },
    { value: 'straight', label: 'straight', tip: 'The shortest way' },
    ...(smear && paths.length > 0
      ? [{ value: 'path' as const, label: 'a path', tip: 'Along a path of the plan' }]
      : []),
    ...(smear?.line ? [{ value: 'line' as const, label: 'as pulled', tip: 'Along the line that was pulled' }] : []),
  ];
  return (
    <>
      <div className="flex items-center justify-between text-[13px] text-wax-300">
        It goes
        <Words
          label="Way of the smear"
          value={way}
          choices={words}
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
        <SelectRow
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
        min={-170}
        max={170}
        onMove={(degrees) => {
          const bend = (degrees * Math.PI) / 180;
          if (smear) relay(smear.id, { bend }, 'bend of the smear', 'smear-bend');
          else setSmear({ bend });
        }}
        onDone={() => void relayed().then(endGesture)}
      />
      {smear && guides.length > 0 ? (
        <SelectRow
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
export function PlaceRow({ now, smear }: { now: Current; smear: Smear | null }) {
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
            choices={(['hold', 'replace', 'longer'] as const).map((value) => ({ value, ...TIME_WORDS[value] }))}
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
            whyNot={desk.selected.length > 0 || smear.rigid.length > 0 ? null : PICK_FIRST}
            onClick={() => {
              const rigid = smear.rigid.length > 0 ? [] : desk.selected;
              relay(smear.id, { rigid }, 'parts that keep their form');
            }}
          >
            {smear.rigid.length > 0 ? `${smear.rigid.length} keep their form: let go` : 'What is picked keeps its form'}
          </Small>
          <Small
            title="A line it does not go beyond"
            whyNot={desk.selected.length > 0 || smear.stopMarkId ? null : PICK_FIRST}
            onClick={() => {
              const stopMarkId = smear.stopMarkId ? null : (desk.selected[0] ?? null);
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
