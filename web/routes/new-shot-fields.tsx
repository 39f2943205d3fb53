/** The fields of a new shot's form that are chosen from some, or typed. */
import { useState, type ReactNode } from 'react';
import { Choice } from '../parts/choice.tsx';
import { framesIn, secondsIn, type NewShotForm } from './new-shot-form.ts';

const SIZES = [
  { label: '1920 × 1080', width: 1920, height: 1080 },
  { label: '3840 × 2160', width: 3840, height: 2160 },
  { label: 'Square', width: 1080, height: 1080 },
  { label: 'Portrait', width: 1080, height: 1920 },
] as const;
const RATES = ['12', '24', '25', '30'] as const;
const BACKGROUND = '#14110f';
const OWN = 'own';
/** How choices stand in this form. */
const EACH = { each: 'h-9 rounded-lg px-3', className: 'flex-wrap gap-1.5' } as const;

interface FieldProps {
  readonly form: NewShotForm;
  readonly set: (settings: Partial<NewShotForm>) => void;
  readonly trouble?: string | null | undefined;
}

export function Field({
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

function Typed({
  label,
  className,
  value,
  onType,
}: {
  label: string;
  className: string;
  value: string;
  onType: (value: string) => void;
}) {
  return (
    <input
      aria-label={label}
      className={`field font-mono ${className}`}
      value={value}
      onChange={(e) => {
        onType(e.target.value);
      }}
    />
  );
}

export function SizeField({ form, set, trouble }: FieldProps) {
  const [own, setOwn] = useState(false);
  return (
    <Field label="Size" trouble={trouble}>
      <div className="flex flex-wrap gap-1.5">
        <Choice
          label="Size"
          value={own ? OWN : `${form.width}x${form.height}`}
          choices={[
            ...SIZES.map(({ label, width, height }) => ({ value: `${width}x${height}`, label })),
            { value: OWN, label: 'Own' },
          ]}
          {...EACH}
          onChoose={(value) => {
            setOwn(value === OWN);
            const size = SIZES.find(({ width, height }) => value === `${width}x${height}`);
            if (size) set({ width: String(size.width), height: String(size.height) });
          }}
        />
        {own ? (
          <span className="flex items-center gap-1.5">
            <Typed
              label="Width"
              className="w-20"
              value={form.width}
              onType={(width) => {
                set({ width });
              }}
            />{' '}
            ×
            <Typed
              label="Height"
              className="w-20"
              value={form.height}
              onType={(height) => {
                set({ height });
              }}
            />
          </span>
        ) : null}
      </div>
    </Field>
  );
}

export function RateField({ form, set, trouble }: FieldProps) {
  return (
    <Field label="Frames per second" trouble={trouble}>
      <div className="flex gap-1.5">
        <Choice
          label="Usual rates"
          value={form.rate}
          choices={RATES.map((rate) => ({ value: rate, label: rate }))}
          {...EACH}
          onChoose={(rate) => {
            set({ rate });
          }}
        />
        <Typed
          label="Frames per second"
          className="w-20"
          value={form.rate}
          onType={(rate) => {
            set({ rate });
          }}
        />
      </div>
    </Field>
  );
}

/** @param isSound whether frames and seconds can be worked out of what is typed. */
export function LengthField({ form, set, trouble, isSound }: FieldProps & { isSound: boolean }) {
  const frames = framesIn(form);
  const inSeconds = form.unit === 'seconds';
  return (
    <Field label="Length" trouble={trouble}>
      <div className="flex items-center gap-1.5">
        <Typed
          label="Length"
          className="w-24"
          value={form.length}
          onType={(length) => {
            set({ length });
          }}
        />
        <Choice
          label="Counted in"
          value={form.unit}
          choices={[
            { value: 'frames', label: 'frames' },
            { value: 'seconds', label: 'seconds' },
          ]}
          {...EACH}
          onChoose={(unit) => {
            if (unit !== form.unit) set({ unit, length: unit === 'frames' ? frames : String(secondsIn(form)) });
          }}
        />
        <span className="ml-2 text-[13px] text-wax-500">
          {isSound ? (inSeconds ? `${frames} frames` : `${secondsIn(form)} s`) : ''}
        </span>
      </div>
    </Field>
  );
}

export function BackgroundField({ form, set, trouble }: FieldProps) {
  return (
    <Field label="Background" trouble={trouble}>
      <div className="flex items-center gap-1.5">
        <Choice
          label="Background"
          value={form.background === null}
          choices={[
            { value: false, label: 'Colour' },
            { value: true, label: 'Transparent' },
          ]}
          {...EACH}
          onChoose={(isClear) => {
            set({ background: isClear ? null : (form.background ?? BACKGROUND) });
          }}
        />
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
      </div>
    </Field>
  );
}
