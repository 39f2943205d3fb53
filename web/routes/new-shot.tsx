/** The form for a new shot. */
import { randomId, SHOT_LIMITS, textProblem } from '@tallow/core/document';
import { useState, type ReactNode } from 'react';
import { Refused, request } from '../api/client.ts';
import type { Production, ShotSummary } from '../api/types.ts';
import { Button } from '../parts/button.tsx';
import { Dialog } from '../parts/dialog.tsx';
import { Select } from '../parts/select.tsx';

const SIZES = [
  { label: '1920 × 1080', width: 1920, height: 1080 },
  { label: '3840 × 2160', width: 3840, height: 2160 },
  { label: 'Square', width: 1080, height: 1080 },
  { label: 'Portrait', width: 1080, height: 1920 },
] as const;
const RATES = ['12', '24', '25', '30'] as const;

function Choice({ selected, onPick, children }: { selected: boolean; onPick: () => void; children: ReactNode }) {
  return (
    <button
      type="button"
      aria-pressed={selected}
      onClick={onPick}
      className={`moves h-9 rounded-lg px-3 ${selected ? 'bg-flame-deep text-flame' : 'bg-soot-800 text-wax-300 hover:bg-soot-700'}`}
    >
      {children}
    </button>
  );
}

function Field({
  label,
  trouble,
  children,
}: {
  label: string;
  trouble?: string | null | undefined;
  children: ReactNode;
}) {
  return (
    <div>
      <div className="mb-1.5 text-[13px] text-wax-500">{label}</div>
      {children}
      {trouble ? (
        <div role="alert" className="mt-1 text-[13px] text-harm">
          {trouble}
        </div>
      ) : null}
    </div>
  );
}

const rangeTrouble = (text: string, { min, max }: { min: number; max: number }, unit: string): string | null => {
  const number = Number(text);
  return text.trim() !== '' && Number.isInteger(number) && number >= min && number <= max
    ? null
    : `A whole number from ${min} to ${max} ${unit}`;
};

interface NewShotProps {
  productions: readonly Production[];
  productionId: string;
  onClose: () => void;
  onMade: (shot: ShotSummary) => void;
}

/** What is typed and chosen, as it stands in the fields. */
interface Form {
  readonly name: string;
  readonly productionId: string;
  readonly width: string;
  readonly height: string;
  readonly rate: string;
  readonly length: string;
  readonly unit: 'frames' | 'seconds';
  /** Null is see-through. */
  readonly background: string | null;
}

export function NewShot({ productions, productionId, onClose, onMade }: NewShotProps) {
  const [form, setForm] = useState<Form>({
    name: '',
    productionId,
    width: '1920',
    height: '1080',
    rate: '24',
    length: '48',
    unit: 'frames',
    background: '#14110f',
  });
  const [own, setOwn] = useState(false);
  const [tried, setTried] = useState(false);
  const [refused, setRefused] = useState<Record<string, string>>({});
  const [id] = useState(randomId);
  const set = (settings: Partial<Form>): void => {
    setForm((f) => ({ ...f, ...settings }));
    setRefused({});
  };
  const frames = form.unit === 'frames' ? form.length : String(Math.round(Number(form.length) * Number(form.rate)));
  const troubles = {
    name: textProblem(form.name, 'The name'),
    width: rangeTrouble(form.width, SHOT_LIMITS.size, 'px'),
    height: rangeTrouble(form.height, SHOT_LIMITS.size, 'px'),
    rate: rangeTrouble(form.rate, SHOT_LIMITS.rate, 'frames per second'),
    length: form.length.trim() === '' ? 'Type a length' : rangeTrouble(frames, SHOT_LIMITS.length, 'frames'),
  };
  const shown = (field: keyof typeof troubles): string | null =>
    (tried || field !== 'name' ? troubles[field] : null) ?? refused[field] ?? null;
  const submit = (event: { preventDefault: () => void }): void => {
    event.preventDefault();
    setTried(true);
    if (Object.values(troubles).some(Boolean)) return;
    const { name, productionId: production, width, height, rate, background } = form;
    request<ShotSummary>('POST', '/shots', {
      id,
      productionId: production,
      name: name.trim(),
      width: Number(width),
      height: Number(height),
      rate: Number(rate),
      length: Number(frames),
      background,
    }).then(onMade, (error: unknown) => {
      const errors = error instanceof Refused ? error.problem.errors : undefined;
      setRefused(
        errors
          ? Object.fromEntries(errors.map((e) => [e.field, e.message]))
          : { form: error instanceof Error ? error.message : String(error) },
      );
    });
  };
  return (
    <Dialog
      title="New shot"
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
    >
      <form className="space-y-5" onSubmit={submit} noValidate>
        <Field label="Name" trouble={shown('name')}>
          <input
            autoFocus
            aria-label="Name"
            className="field w-full"
            value={form.name}
            aria-invalid={shown('name') !== null}
            onChange={(e) => {
              set({ name: e.target.value });
            }}
          />
        </Field>
        <Field label="Production">
          <Select
            label="Production"
            className="field w-full"
            value={form.productionId}
            options={productions.map((p) => ({ value: p.id, label: p.name }))}
            onChoose={(productionId) => {
              set({ productionId });
            }}
          />
        </Field>
        <Field label="Size" trouble={shown('width') ?? shown('height')}>
          <div className="flex flex-wrap gap-1.5">
            {SIZES.map(({ label, width, height }) => (
              <Choice
                key={label}
                selected={!own && form.width === String(width) && form.height === String(height)}
                onPick={() => {
                  setOwn(false);
                  set({ width: String(width), height: String(height) });
                }}
              >
                {label}
              </Choice>
            ))}
            <Choice
              selected={own}
              onPick={() => {
                setOwn(true);
              }}
            >
              Own
            </Choice>
            {own ? (
              <span className="flex items-center gap-1.5">
                <input
                  aria-label="Width"
                  className="field w-20 font-mono"
                  value={form.width}
                  onChange={(e) => {
                    set({ width: e.target.value });
                  }}
                />{' '}
                ×
                <input
                  aria-label="Height"
                  className="field w-20 font-mono"
                  value={form.height}
                  onChange={(e) => {
                    set({ height: e.target.value });
                  }}
                />
              </span>
            ) : null}
          </div>
        </Field>
        <Field label="Frames per second" trouble={shown('rate')}>
          <div className="flex gap-1.5">
            {RATES.map((rate) => (
              <Choice
                key={rate}
                selected={form.rate === rate}
                onPick={() => {
                  set({ rate });
                }}
              >
                {rate}
              </Choice>
            ))}
            <input
              aria-label="Frames per second"
              className="field w-20 font-mono"
              value={form.rate}
              onChange={(e) => {
                set({ rate: e.target.value });
              }}
            />
          </div>
        </Field>
        <Field label="Length" trouble={shown('length')}>
          <div className="flex items-center gap-1.5">
            <input
              aria-label="Length"
              className="field w-24 font-mono"
              value={form.length}
              onChange={(e) => {
                set({ length: e.target.value });
              }}
            />
            <Choice
              selected={form.unit === 'frames'}
              onPick={() => {
                set({ unit: 'frames', length: frames });
              }}
            >
              frames
            </Choice>
            <Choice
              selected={form.unit === 'seconds'}
              onPick={() => {
                set({
                  unit: 'seconds',
                  length:
                    form.unit === 'seconds'
                      ? form.length
                      : String(Number((Number(form.length) / Number(form.rate)).toFixed(2))),
                });
              }}
            >
              seconds
            </Choice>
            <span className="ml-2 text-[13px] text-wax-500">
              {troubles.length || troubles.rate
                ? ''
                : form.unit === 'seconds'
                  ? `${frames} frames`
                  : `${Number((Number(frames) / Number(form.rate)).toFixed(2))} s`}
            </span>
          </div>
        </Field>
        <Field label="Background" trouble={refused['background']}>
          <div className="flex items-center gap-1.5">
            <Choice
              selected={form.background !== null}
              onPick={() => {
                set({ background: form.background ?? '#14110f' });
              }}
            >
              Colour
            </Choice>
            {form.background !== null ? (
              <input
                type="color"
                aria-label="Background colour"
                value={form.background}
                onChange={(e) => {
                  set({ background: e.target.value });
                }}
                className="h-9 w-14 rounded-lg bg-surround p-1"
              />
            ) : null}
            <Choice
              selected={form.background === null}
              onPick={() => {
                set({ background: null });
              }}
            >
              Transparent
            </Choice>
          </div>
        </Field>
        {refused['form'] ? (
          <p role="alert" className="text-harm">
            {refused['form']}
          </p>
        ) : null}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="primary">
            Make the shot
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
