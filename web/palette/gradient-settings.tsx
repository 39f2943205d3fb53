/** A swatch as a gradient: its form, what it runs in, its ends and the swatches along it. */
import {
  find,
  findAll,
  GRADIENT_RUNS,
  shotOf,
  type Gradient,
  type ShotDocument,
  type Swatch,
} from '@tallow/core/document';
import { setSwatch } from '@tallow/core/edit';
import { Plus, X } from 'lucide-react';
import { Words } from '../parts/choice.tsx';
import { Small } from '../parts/panel.tsx';
import { edit, endGesture, say } from '../shot/document.ts';
import { fittedAxis } from './fit-axis.ts';
import { Select } from '../parts/select.tsx';
import { TypedField } from '../parts/typed-field.tsx';

const RUNS: Readonly<Record<Gradient['run'], { label: string; tip: string }>> = {
  shape: { label: 'its shape', tip: 'In the bounds of each shape. Lines have its plain colour' },
  axis: { label: 'the axis', tip: 'From the element’s anchor to its tip: on every drawing by itself' },
  picture: { label: 'the picture', tip: 'Across the whole picture' },
};

/** Ends that suit what a gradient runs in: upwards. */
const endsFor = (run: Gradient['run'], form: Gradient['form']): Pick<Gradient, 'from' | 'to'> =>
  run === 'axis'
    ? { from: { x: 0, y: 0 }, to: { x: 0, y: 1 } }
    : form === 'radial'
      ? { from: { x: 0.5, y: 0.5 }, to: { x: 0.5, y: 0 } }
      : { from: { x: 0.5, y: 1 }, to: { x: 0.5, y: 0 } };

/** A CSS picture of a gradient, upright. */
export function gradientCss(doc: ShotDocument, { gradient, colour }: Swatch): string {
  if (!gradient) return colour;
  const stops = gradient.stops.map((s) => `${find(doc, 'swatch', s.swatch)?.colour ?? colour} ${s.at * 100}%`);
  return gradient.form === 'radial'
    ? `radial-gradient(circle, ${stops.join(', ')})`
    : `linear-gradient(to right, ${stops.join(', ')})`;
}

export function GradientSettings({ doc, swatch }: { doc: ShotDocument; swatch: Swatch }) {
  const { gradient } = swatch;
  const others = findAll(doc, 'swatch', shotOf(doc).swatches).filter((s) => s.id !== swatch.id && !s.gradient);
  const put = (next: Gradient | null, gesture?: string): void => {
    const fit = next?.run === 'axis' ? fittedAxis : (each: ShotDocument) => each;
    edit('gradient', (each) => fit(setSwatch(each, swatch.id, { gradient: next })), gesture);
  };
  const set = (changes: Partial<Gradient>, gesture?: string): void => {
    if (gradient) put({ ...gradient, ...changes }, gesture);
  };
  const choose = (form: 'plain' | Gradient['form']): void => {
    if (form === 'plain') {
      put(null);
      return;
    }
    if (gradient) {
      put({ ...gradient, form, ...endsFor(gradient.run, form) });
      return;
    }
    if (others.length < 2) {
      say('A gradient runs between two other swatches of one colour each. Add them first.');
      return;
    }
    const stops = [
      { at: 0, swatch: others[0]!.id },
      { at: 1, swatch: others[1]!.id },
    ];
    put({ form, run: 'axis', ...endsFor('axis', form), stops });
  };
  const end = (which: 'from' | 'to', axis: 'x' | 'y') => (
    <TypedField
      label={`${which === 'from' ? 'Start' : 'End'} ${axis}`}
      className="field !h-8 w-14 px-1.5 text-right font-mono text-xs"
      inputMode="decimal"
      value={String(Math.round(gradient![which][axis] * 100))}
      onTake={(typed) => {
        const percent = Number(typed);
        if (typed.trim() !== '' && Math.abs(percent) <= 1000)
          set({ [which]: { ...gradient![which], [axis]: percent / 100 } });
      }}
    />
  );
  return (
    <div>
      <div className="flex items-center justify-between text-[13px] text-wax-300">
        Paint
        <Words
          label="Paint"
          value={gradient?.form ?? 'plain'}
          choices={[
            { value: 'plain', label: 'one colour' },
            { value: 'linear', label: 'linear' },
            { value: 'radial', label: 'radial' },
          ]}
          onChoose={choose}
        />
      </div>
      {gradient ? (
        <>
          <div className="flex items-center justify-between text-[13px] text-wax-300">
            In
            <Words
              label="Runs in"
              value={gradient.run}
              choices={GRADIENT_RUNS.map((run) => ({ value: run, ...RUNS[run] }))}
              onChoose={(run) => {
                set({ run, ...endsFor(run, gradient.form) });
              }}
            />
          </div>
          <div className="my-1 h-5 rounded-md" style={{ background: gradientCss(doc, swatch) }} />
          {gradient.stops.map((stop, i) => (
            <div key={i} className="flex h-9 items-center gap-2">
              <Select
                label={`Swatch ${i + 1} of the gradient`}
                className="h-7 w-[118px] shrink-0 rounded-md bg-soot-800 px-1.5 text-[13px]"
                value={stop.swatch}
                options={others.map(({ id, name }) => ({ value: id, label: name }))}
                onChoose={(chosen) => {
                  set({ stops: gradient.stops.map((s, k) => (k === i ? { ...s, swatch: chosen } : s)) });
                }}
              />
              <input
                type="range"
                aria-label={`Place of swatch ${i + 1}`}
                className="h-8 min-w-0 flex-1"
                min={gradient.stops[i - 1]?.at ?? 0}
                max={gradient.stops[i + 1]?.at ?? 1}
                step={0.01}
                value={stop.at}
                onChange={(event) => {
                  const at = Number(event.target.value);
                  set({ stops: gradient.stops.map((s, k) => (k === i ? { ...s, at } : s)) }, `stop-${swatch.id}`);
                }}
                onPointerUp={endGesture}
                onKeyUp={endGesture}
              />
              <span className="w-9 text-right font-mono text-xs">{Math.round(stop.at * 100)} %</span>
              <button
                type="button"
                aria-label={`Take swatch ${i + 1} out of the gradient`}
                aria-disabled={gradient.stops.length <= 2 || undefined}
                data-tip={gradient.stops.length <= 2 ? 'A gradient has two at least' : 'Take it out'}
                className={`grid size-7 place-items-center text-wax-500 hover:text-wax-100 ${gradient.stops.length <= 2 ? 'opacity-40' : ''}`}
                onClick={() => {
                  if (gradient.stops.length > 2) set({ stops: gradient.stops.filter((_, k) => k !== i) });
                }}
              >
                <X size={14} />
              </button>
            </div>
          ))}
          <div className="flex items-center gap-1.5 py-1 text-[13px] text-wax-300">
            <Small
              whyNot={others.length === 0 ? 'There is no other swatch.' : null}
              onClick={() => {
                const last = gradient.stops.at(-1)!;
                set({ stops: [...gradient.stops, { at: 1, swatch: last.swatch }] });
              }}
            >
              <Plus size={14} /> Stop
            </Small>
            <span className="ml-auto">from</span>
            {end('from', 'x')}
            {end('from', 'y')}
            <span>to</span>
            {end('to', 'x')}
            {end('to', 'y')}
          </div>
          {gradient.run === 'axis' ? (
            <p className="text-xs text-wax-500">Drag the ends of the axis in the picture.</p>
          ) : null}
        </>
      ) : null}
    </div>
  );
}
