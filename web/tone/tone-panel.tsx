/** Tone: shade and light cut from a body by the element's light, on layers of their own. */
import { find, keysIn, withoutKey, type Tone } from '@tallow/core/document';
import { touchedOf } from '@tallow/core/derived';
import { setElement } from '@tallow/core/edit';
import { useState } from 'react';
import { Words } from '../parts/choice.tsx';
import { Check, Line, Panel, Small } from '../parts/panel.tsx';
import { Slider } from '../parts/slider.tsx';
import { useCurrent, type Current } from '../selection/current.ts';
import { setSelection, useSelection } from '../selection/selection.ts';
import { edit, endGesture } from '../shot/document.ts';
import { showPanel } from '../screen/panels.ts';
import { layToneHere, lightNow, setToneLight, setTone, toneLayers, toneNow, useTone, whyNotTone } from './tone.ts';
import { titleOf } from '../actions/key-text.ts';
import { TONE_ACTIONS } from './actions.ts';
import { LightDial } from './light-dial.tsx';
import { selectedNow } from '../selection/to-edit.ts';

function Light({ now }: { now: Current }) {
  const frame = useSelection((s) => s.frame);
  const { element } = now;
  const keys = keysIn(element.light);
  const [keyed, setKeyed] = useState(keys.length > 0);
  const angle = lightNow(now);
  const here = keys.some((key) => key.frame === frame);
  return (
    <div className="flex items-center gap-3 py-1">
      <LightDial
        angle={angle}
        onTurn={(next) => {
          setToneLight(next, keyed);
        }}
        onDone={endGesture}
      />
      <div className="min-w-0 flex-1 text-[13px] text-wax-300">
        <p>
          Light from <span className="font-mono text-xs">{Math.round(((angle % 360) + 360) % 360)}°</span>
        </p>
        <Check
          label="turns over time"
          title="Turning the dial sets it on this frame; between them it turns on"
          checked={keyed}
          onChange={setKeyed}
        />
        {here ? (
          <Small
            title="Without the last one it stays as it is"
            onClick={() => {
              edit('light no longer set here', (doc) => {
                const own = find(doc, 'element', element.id)!;
                return setElement(doc, own.id, { light: withoutKey(own.light, frame) });
              });
            }}
          >
            Not set on this frame
          </Small>
        ) : keys.length > 0 ? (
          <p className="text-xs text-wax-500">set on {keys.map((key) => key.frame + 1).join(', ')}</p>
        ) : null}
      </div>
    </div>
  );
}

/** The settings of a tone that is laid: seen while they move. */
function Settings({ tone, now }: { tone: Tone; now: Current }) {
  const set = (changes: Partial<Tone>, done: boolean): void => {
    setTone(tone, changes, done);
  };
  const rows = [
    {
      key: 'depth',
      label: 'Depth',
      value: tone.depth,
      min: 4,
      max: 400,
      unit: 'px',
      by: 1,
      title: 'How far in from the outline it is round',
    },
    {
      key: 'shade',
      label: 'Shade',
      value: tone.shade * 100,
      min: 0,
      max: 100,
      unit: '%',
      by: 100,
      title: 'How much of what faces away is in shade',
    },
    {
      key: 'light',
      label: 'Light',
      value: tone.light * 100,
      min: 0,
      max: 100,
      unit: '%',
      by: 100,
      title: 'How much of what faces the light is lit',
    },
    {
      key: 'rim',
      label: 'Off the rim',
      value: tone.rim,
      min: 0,
      max: 60,
      unit: 'px',
      by: 1,
      title: 'How far tone keeps off the outline',
    },
  ] as const;
  return (
    <div>
      {rows.map(({ key, label, value, min, max, unit, by, title }) => (
        <Slider
          key={key}
          label={label}
          title={title}
          value={value}
          min={min}
          max={max}
          unit={unit}
          onMove={(v) => {
            set({ [key]: v / by }, false);
          }}
          onDone={(v) => {
            set({ [key]: v / by }, true);
          }}
        />
      ))}
      <div className="flex items-center justify-between text-[13px] text-wax-300">
        Shade
        <Words
          label="Steps of shade"
          value={String(tone.steps)}
          choices={[
            { value: '1', label: 'hard' },
            { value: '2', label: 'in two steps' },
          ]}
          onChoose={(value) => {
            set({ steps: value === '2' ? 2 : 1 }, true);
          }}
        />
      </div>
      <div className="flex flex-wrap items-center gap-1 py-1 text-[13px] text-wax-300">
        <span className="w-full text-xs text-wax-500">Lines that crease it</span>
        {now.layers
          .filter(({ layer }) => layer.role === 'line' || layer.role === 'rough')
          .map(({ layer }) => {
            const on = tone.details.includes(layer.id);
            return (
              <button
                key={layer.id}
                type="button"
                aria-pressed={on}
                className={`moves h-8 rounded-lg px-2.5 ${on ? 'bg-flame-deep text-flame' : 'bg-soot-800 text-wax-300'}`}
                onClick={() => {
                  set(
                    { details: on ? tone.details.filter((id) => id !== layer.id) : [...tone.details, layer.id] },
                    true,
                  );
                }}
              >
                {layer.name}
              </button>
            );
          })}
      </div>
    </div>
  );
}

export function TonePanel() {
  const now = useCurrent();
  const working = useTone((s) => s.working);
  useSelection((s) => s.frame);
  useSelection((s) => s.selectedRuns);
  const found = now && toneNow(now);
  if (!now || !found) return null;
  const { tone, isNew } = found;
  const whyNot = whyNotTone(now);
  const body = find(now.doc, 'layer', tone.bodyId);
  const touched = isNew ? 0 : touchedOf(now.doc, tone).length;
  return (
    <Panel
      label="Tone"
      testId="tone-panel"
      heading="Tone"
      onBack={() => {
        showPanel(null);
      }}
    >
      <p className={`text-[13px] ${whyNot ? 'text-warn' : 'text-wax-500'}`} data-testid="tone-about">
        {whyNot ??
          (isNew
            ? `Cut from “${body?.name}” by the element’s light, onto layers tied to it.`
            : `Cut from “${body?.name}”. It follows when the body changes${touched > 0 ? `; ${touched} drawn on by hand stay` : ''}.`)}
      </p>
      <Light now={now} />
      {isNew ? null : <Settings tone={tone} now={now} />}
      {isNew ? null : (
        <Check
          label="new drawings get it by themselves"
          title="A new drawing, an in-between or a changed fill of the body gets its tone at once"
          checked={tone.everywhere}
          onChange={(on) => {
            setTone(tone, { everywhere: on }, true);
          }}
        />
      )}
      {working ? (
        <p className="py-1 font-mono text-xs text-wax-300">
          {working.done} of {working.of}
        </p>
      ) : (
        <div className="flex flex-wrap gap-1.5 py-1">
          <Small
            whyNot={whyNot}
            title={titleOf(TONE_ACTIONS.toneAll)}
            onClick={() => {
              layToneHere('all');
            }}
          >
            {isNew ? 'Lay tone on all drawings' : 'Lay on all drawings'}
          </Small>
          <Small
            whyNot={whyNot}
            onClick={() => {
              layToneHere('this');
            }}
          >
            On this one
          </Small>
          <Small
            whyNot={whyNot ?? (selectedNow() ? null : 'Nothing is picked: drag over drawings on the wheel.')}
            onClick={() => {
              layToneHere('picked');
            }}
          >
            On the picked ones
          </Small>
        </div>
      )}
      {isNew ? null : (
        <>
          <Line />
          <div className="flex flex-wrap gap-1.5">
            {toneLayers(now, tone).map(({ key, layer }) => (
              <Small
                key={key}
                title="Draw on it"
                onClick={() => {
                  setSelection({ layerId: layer.id, selectedRuns: null });
                }}
              >
                {layer.name}
              </Small>
            ))}
          </div>
        </>
      )}
    </Panel>
  );
}
