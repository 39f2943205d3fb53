/** Opacity and place of a layer or its folder over time: numbers at frames, on the same time as the drawings. */
import {
  EASES,
  jumpsAtSeam,
  keysIn,
  valueAt,
  type Ease,
  type Folder,
  type Key,
  type Layer,
} from '@tallow/core/document';
import { dropKey, LAYER_VALUES, setKey, setValue, valueOf, type LayerValue } from '@tallow/core/edit';
import { roundOf } from '@tallow/core/timing';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { KeyDot } from '../parts/key-dot.tsx';
import { Words } from '../parts/choice.tsx';
import { Panel } from '../parts/panel.tsx';
import { useCurrent, type Current } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';
import { edit } from '../shot/document.ts';
import { showPanel } from '../screen/panels.ts';
import { setOverTime, useOverTime } from './over-time.ts';
import { goTo } from '../playback/playhead.ts';
import { TypedField } from '../parts/typed-field.tsx';

/** How each value is named and counted on screen. */
const SEEN: Readonly<Record<LayerValue, { label: string; unit: string; per: number; step: number }>> = {
  opacity: { label: 'Opacity', unit: '%', per: 100, step: 5 },
  x: { label: 'Across', unit: 'px', per: 1, step: 1 },
  y: { label: 'Down', unit: 'px', per: 1, step: 1 },
  scale: { label: 'Size', unit: '%', per: 100, step: 1 },
  angle: { label: 'Turn', unit: '°', per: 180 / Math.PI, step: 1 },
};

const PLOT = { width: 328, height: 40 };

/** The value over the element's time, with its keys. */
function Curve({
  now,
  owner,
  which,
  frame,
}: {
  now: Current;
  owner: Layer | Folder;
  which: LayerValue;
  frame: number;
}) {
  const value = valueOf(owner, which);
  const keys = keysIn(value);
  const round = roundOf(now.element, now.length);
  const all = Array.from({ length: now.length }, (_, f) => valueAt(value, f, round));
  const [min, max] = [Math.min(...all), Math.max(...all)];
  const x = (f: number) => 6 + ((PLOT.width - 12) * (f + 0.5)) / now.length;
  const y = (v: number) => (max === min ? PLOT.height / 2 : 6 + ((PLOT.height - 12) * (max - v)) / (max - min));
  return (
    <svg width={PLOT.width} height={PLOT.height} className="block rounded-md bg-soot-950" data-curve={which}>
      <line x1={x(frame)} x2={x(frame)} y1={0} y2={PLOT.height} stroke="#ffc25c" strokeOpacity={0.5} />
      <path
        d={`M${all.map((v, f) => `${x(f).toFixed(1)} ${y(v).toFixed(1)}`).join('L')}`}
        fill="none"
        stroke="#9fc3a4"
        strokeWidth={1.5}
      />
      {keys.map((key) => (
        <circle
          key={key.frame}
          cx={x(key.frame)}
          cy={y(key.value)}
          r={key.frame === frame ? 5 : 3.5}
          fill={key.frame === frame ? '#f4ecdf' : '#9fc3a4'}
          className="cursor-pointer"
          onClick={() => {
            goTo(key.frame);
          }}
        >
          <title>{`frame ${key.frame + 1}`}</title>
        </circle>
      ))}
    </svg>
  );
}

const stepTo = (keys: readonly Key[], frame: number, by: 1 | -1): number | undefined =>
  by > 0
    ? (keys.find((key) => key.frame > frame) ?? keys[0])?.frame
    : (keys.findLast((key) => key.frame < frame) ?? keys.at(-1))?.frame;

function Row({ now, owner, which }: { now: Current; owner: Layer | Folder; which: LayerValue }) {
  const frame = useSelection((s) => Math.min(s.frame, now.length - 1));
  const { label, unit, per, step } = SEEN[which];
  const value = valueOf(owner, which);
  const keys = keysIn(value);
  const round = roundOf(now.element, now.length);
  const shown = Math.round(valueAt(value, frame, round) * per * 100) / 100;
  const here = keys.find((key) => key.frame === frame);
  const set = (number: number) => {
    if (Number.isFinite(number))
      edit(
        label.toLowerCase(),
        (doc) => setValue(doc, owner.id, which, frame, number / per),
        `${which}-${owner.id}-${frame}`,
      );
  };
  const jumps = now.element.time === 'cycle' && jumpsAtSeam(value, now.length);
  return (
    <div className="pb-1.5" data-value={which}>
      <div className="flex h-9 items-center gap-1 text-[13px] text-wax-300">
        <KeyDot
          label={label}
          here={here !== undefined}
          keyed={keys.length > 0}
          onPress={() => {
            edit(here ? `${label.toLowerCase()} not set here` : `${label.toLowerCase()} set here`, (doc) =>
              here ? dropKey(doc, owner.id, which, frame) : setKey(doc, owner.id, which, frame, round),
            );
          }}
        />
        <label className="flex min-w-0 flex-1 items-center gap-2">
          <span className="w-16">{label}</span>
          <TypedField
            className="field !h-8 w-20 text-right font-mono"
            inputMode="decimal"
            label={label}
            value={String(shown)}
            onTake={(typed) => {
              if (typed.trim() !== '') set(Number(typed));
            }}
            onKey={({ key }) => {
              const by = { ArrowUp: step, ArrowDown: -step }[key];
              if (by !== undefined) set(shown + by);
              return by !== undefined;
            }}
          />
          <span className="w-5 text-wax-500">{unit}</span>
        </label>
        {keys.length > 0 ? (
          <>
            {([-1, 1] as const).map((by) => (
              <button
                key={by}
                type="button"
                aria-label={by < 0 ? `Value of ${label} set before` : `Value of ${label} set next`}
                data-tip={by < 0 ? 'To the one before' : 'To the next'}
                className="moves grid size-8 place-items-center rounded-md hover:bg-soot-800"
                onClick={() => {
                  const to = stepTo(keys, frame, by);
                  if (to !== undefined) goTo(to);
                }}
              >
                {by < 0 ? <ChevronLeft size={15} /> : <ChevronRight size={15} />}
              </button>
            ))}
          </>
        ) : null}
      </div>
      {keys.length > 0 ? <Curve now={now} owner={owner} which={which} frame={frame} /> : null}
      {here ? (
        <div className="flex items-center justify-between text-xs text-wax-500">
          goes on
          <Words
            label={`How ${label} goes on`}
            value={here.ease}
            choices={EASES.map((ease: Ease) => ({ value: ease, label: ease }))}
            onChoose={(ease) => {
              edit(`${label.toLowerCase()} ${ease}`, (doc) => setKey(doc, owner.id, which, frame, round, ease));
            }}
          />
        </div>
      ) : null}
      {jumps ? (
        <p className="flex items-center gap-2 py-1 text-xs text-warn" data-testid="jumps">
          <span className="size-1.5 rounded-full bg-warn" />
          {label} jumps at the seam: it does not end where it began.
        </p>
      ) : null}
    </div>
  );
}

export function ValuesPanel() {
  const now = useCurrent();
  const { of } = useOverTime();
  const layer = now?.active?.layer;
  const folder = now?.active?.folder;
  const owner = of === 'folder' && folder ? folder : layer;
  return (
    <Panel
      label="Over time"
      testId="values-panel"
      heading={owner ? `${owner.name} over time` : 'Over time'}
      onBack={() => {
        showPanel(null);
      }}
    >
      {folder && layer ? (
        <Words
          label="Whose values"
          value={of}
          choices={[
            { value: 'layer', label: layer.name.slice(0, 18), tip: 'Of this layer' },
            { value: 'folder', label: folder.name.slice(0, 18), tip: 'Of its folder, all layers in it together' },
          ]}
          onChoose={(value) => {
            setOverTime({ of: value });
          }}
        />
      ) : null}
      {now && owner
        ? LAYER_VALUES.map((which) => <Row key={`${owner.id}-${which}`} now={now} owner={owner} which={which} />)
        : 'There is no layer. Add one first.'}
    </Panel>
  );
}
