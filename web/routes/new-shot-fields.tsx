/** The fields of a new shot's form that are chosen from some, or typed. */
import { useState, type ReactNode } from 'react';
import { framesIn, secondsIn, type NewShotForm } from './new-shot-form.ts';

const SIZES = [
  { label: '1920 × 1080', width: 1920, height: 1080 },
  { label: '3840 × 2160', width: 3840, height: 2160 },
  { label: 'Square', width: 1080, height: 1080 },
  { label: 'Portrait', width: 1080, height: 1920 },
] as const;
const RATES = ['12', '24', '25', '30'] as const;
const BACKGROUND = '#14110f';

interface FieldProps {
  readonly form: NewShotForm;
  readonly set: (settings: Partial<NewShotForm>) => void;
  readonly trouble?: string | null | undefined;
}

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
          selected={!inSeconds}
          onPick={() => {
            set({ unit: 'frames', length: frames });
          }}
        >
          frames
        </Choice>
        <Choice
          selected={inSeconds}
          onPick={() => {
            set({ unit: 'seconds', length: inSeconds ? form.length : String(secondsIn(form)) });
          }}
        >
          seconds
        </Choice>
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
          selected={form.background !== null}
          onPick={() => {
            set({ background: form.background ?? BACKGROUND });
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
  );
}
