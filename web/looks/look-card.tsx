/** One look of a list: switched, ordered, copied, and set, on this frame or throughout. */
import { findAll, jumpsAtSeam, keysIn, shotOf, valueAt, type AppliedLook } from '@tallow/core/document';
import { LOOKS, type LookField } from '@tallow/core/looks';
import { dropLook, keyLookNumber, moveLook, setLook, setLookNumber } from '@tallow/core/edit';
import { roundOf } from '@tallow/core/timing';
import { ArrowDown, ArrowUp, ChevronDown, ChevronRight, Copy, Eye, EyeOff, Shuffle, Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { Words } from '../parts/choice.tsx';
import { KeyDot } from '../parts/key-dot.tsx';
import { Slider } from '../parts/slider.tsx';
import { fittedForLook } from '../palette/fit-axis.ts';
import type { Current } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';
import { setShowing } from '../picture/showing.ts';
import { edit, endGesture, say } from '../shot/document.ts';
import { setLooks } from './look-panel.ts';
import { Select } from '../parts/select.tsx';

function Icon({
  label,
  whyNot,
  onClick,
  children,
}: {
  label: string;
  whyNot?: string | null;
  onClick: () => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      aria-disabled={whyNot ? true : undefined}
      data-tip={whyNot ?? label}
      className={`moves grid size-7 shrink-0 place-items-center rounded-md text-wax-500 hover:text-wax-100 ${whyNot ? 'opacity-40' : ''}`}
      onClick={() => {
        if (!whyNot) onClick();
      }}
    >
      {children}
    </button>
  );
}

interface CardProps {
  now: Current;
  ownerId: string;
  look: AppliedLook;
  index: number;
  count: number;
  open: boolean;
  /** The time its numbers are read at, where that is not the element's: a frame, and frames of a turn or null. */
  at?: { readonly frame: number; readonly round: number | null };
}

/** A number with its dot: filled where it is set on this frame, a ring where it is set on others. */
function Field({
  now,
  ownerId,
  look,
  field,
  at,
}: Pick<CardProps, 'now' | 'ownerId' | 'look' | 'at'> & { field: LookField }) {
  const own = useSelection((s) => Math.min(s.frame, now.length - 1));
  const frame = at ? at.frame : own;
  const round = at ? at.round : roundOf(now.element, now.length);
  const value = look.numbers[field.key]!;
  const keys = keysIn(value);
  const here = keys.some((key) => key.frame === frame);
  const name = `${LOOKS[look.kind].name.toLowerCase()}: ${field.label.toLowerCase()}`;
  const jumps = round !== null && jumpsAtSeam(value, round);
  return (
    <>
      <div className="flex items-center">
        <KeyDot
          label={field.label}
          here={here}
          keyed={keys.length > 0}
          slim
          onPress={() => {
            edit(`${name} over time`, (doc) => keyLookNumber(doc, ownerId, look.id, field.key, frame, round));
          }}
        />
        <div className="min-w-0 flex-1 [&_span:first-child]:!w-[88px]">
          <Slider
            label={field.label}
            value={valueAt(value, frame, round)}
            min={field.min}
            max={field.max}
            unit={field.unit}
            onMove={(v) => {
              setShowing({ rough: true });
              edit(
                name,
                (doc) => setLookNumber(doc, ownerId, look.id, field.key, frame, v),
                `look-${look.id}-${field.key}`,
              );
            }}
            onDone={() => {
              setShowing({ rough: false });
              endGesture();
            }}
          />
        </div>
      </div>
      {jumps ? (
        <p className="flex items-center gap-2 pb-1 text-xs text-warn" data-testid="jumps">
          <span className="size-1.5 rounded-full bg-warn" />
          {field.label} jumps at the seam: it does not end where it began.
        </p>
      ) : null}
    </>
  );
}

function Colour({ now, ownerId, look }: Pick<CardProps, 'now' | 'ownerId' | 'look'>) {
  const swatches = findAll(now.doc, 'swatch', shotOf(now.doc).swatches);
  const may = LOOKS[look.kind].colour === 'may';
  return (
    <label className="flex h-8 items-center gap-2 text-[13px] text-wax-300">
      <span className="w-[106px] shrink-0">Colour</span>
      <Select
        label="Colour"
        className="h-7 min-w-0 flex-1 rounded-md bg-soot-900 px-1.5 text-[13px]"
        value={look.swatch ?? ''}
        options={[
          ...(may ? [{ value: '', label: 'that of what it lies on' }] : []),
          ...swatches.map(({ id, name }) => ({ value: id, label: name })),
        ]}
        onChoose={(swatch) => {
          edit('colour of a look', (doc) => setLook(doc, ownerId, look.id, { swatch: swatch || null }));
        }}
      />
      <span
        className="size-4 shrink-0 rounded"
        style={{ background: swatches.find(({ id }) => id === look.swatch)?.colour ?? 'transparent' }}
      />
    </label>
  );
}

export function LookCard({ now, ownerId, look, index, count, open, at }: CardProps) {
  const words = LOOKS[look.kind];
  // Settings that do nothing with the choices made are not shown.
  const fields = words.fields.filter(({ key }) => words.uses?.(key, look.choices) ?? true);
  return (
    <div className={`mb-1 rounded-[10px] ${open ? 'bg-soot-800' : ''}`} data-testid="look" data-kind={look.kind}>
      <div className="group flex h-9 items-center pl-1 pr-1">
        <button
          type="button"
          aria-expanded={open}
          className={`flex h-9 min-w-0 flex-1 items-center gap-1.5 text-left text-[13px] ${look.on ? 'text-wax-100' : 'text-wax-500'}`}
          onClick={() => {
            setLooks({ open: open ? null : look.id });
          }}
        >
          {open ? <ChevronDown size={14} /> : <ChevronRight size={14} />}
          <span className="font-medium">{words.name}</span>
          {open ? null : <span className="truncate text-xs text-wax-500">{words.does}</span>}
        </button>
        {open ? (
          <>
            <Icon
              label="Earlier"
              whyNot={index === 0 ? 'It is the first.' : null}
              onClick={() => {
                edit('order of looks', (doc) => moveLook(doc, ownerId, look.id, -1));
              }}
            >
              <ArrowUp size={14} />
            </Icon>
            <Icon
              label="Later"
              whyNot={index === count - 1 ? 'It is the last.' : null}
              onClick={() => {
                edit('order of looks', (doc) => moveLook(doc, ownerId, look.id, 1));
              }}
            >
              <ArrowDown size={14} />
            </Icon>
            <Icon
              label="Copy"
              onClick={() => {
                setLooks({ copied: [look] });
                say(`${words.name} copied: paste it on another layer, or on the element.`);
              }}
            >
              <Copy size={13} />
            </Icon>
            <Icon
              label={`Take ${words.name} away`}
              onClick={() => {
                edit(`take ${words.name.toLowerCase()} away`, (doc) => dropLook(doc, ownerId, look.id));
              }}
            >
              <Trash2 size={13} />
            </Icon>
          </>
        ) : null}
        <Icon
          label={look.on ? `Switch ${words.name} off` : `Switch ${words.name} on`}
          onClick={() => {
            edit(look.on ? `${words.name.toLowerCase()} off` : `${words.name.toLowerCase()} on`, (doc) =>
              setLook(doc, ownerId, look.id, { on: !look.on }),
            );
          }}
        >
          {look.on ? <Eye size={15} /> : <EyeOff size={15} />}
        </Icon>
      </div>
      {open ? (
        <div className="px-2.5 pb-2">
          {words.choices.map((choice) => (
            <div key={choice.key} className="flex flex-wrap items-center justify-between text-[13px] text-wax-300">
              {choice.label}
              <Words
                label={choice.label}
                value={look.choices[choice.key] ?? choice.options[0]!}
                choices={choice.options.map((option) => ({
                  value: option,
                  label: option === 'lighter' ? 'add' : option,
                }))}
                onChoose={(value) => {
                  const choices = { ...look.choices, [choice.key]: value };
                  edit(`${words.name.toLowerCase()}: ${value}`, (doc) => {
                    const next = setLook(doc, ownerId, look.id, { choices });
                    return fittedForLook(next, ownerId, { kind: look.kind, choices });
                  });
                }}
              />
            </div>
          ))}
          {words.colour === 'none' ? null : <Colour now={now} ownerId={ownerId} look={look} />}
          {fields.map((field) => (
            <Field key={field.key} now={now} ownerId={ownerId} look={look} field={field} {...(at ? { at } : {})} />
          ))}
          {words.seeded ? (
            <button
              type="button"
              data-tip="Another of the same kind"
              className="moves flex h-8 items-center gap-1.5 rounded-lg px-2 text-[13px] text-wax-300 hover:bg-soot-700"
              onClick={() => {
                edit('seed', (doc) => setLook(doc, ownerId, look.id, { seed: (look.seed + 1) % 0xffffffff }));
              }}
            >
              <Shuffle size={13} /> Seed <span className="font-mono text-xs">{look.seed}</span>
            </button>
          ) : null}
        </div>
      ) : null}
    </div>
  );
}
