/** The selected base: its name, and what grows from it does next. */
import { MOVES, randomId, type Base } from '@tallow/core/document';
import { setPlan } from '@tallow/core/edit';
import { Plus, Trash2, X } from 'lucide-react';
import type { Current } from '../selection/current.ts';
import { selection } from '../selection/selection.ts';
import { edit } from '../shot/document.ts';
import { selectPlanned } from './plan.ts';
import { Heading, Small } from '../parts/panel.tsx';
import { Select } from '../parts/select.tsx';
import { TypedField } from '../parts/typed-field.tsx';

const FIELD = 'field !h-8 w-14 font-mono';

export function BasePanel({ now, base }: { now: Current; base: Base }) {
  const { element } = now;
  const set = (name: string, settings: Partial<Base>): void => {
    edit(name, (doc) =>
      setPlan(doc, element.id, { bases: element.bases.map((b) => (b.id === base.id ? { ...b, ...settings } : b)) }),
    );
  };
  const setNote = (id: string, settings: Partial<Base['notes'][number]>): void => {
    set('note', { notes: base.notes.map((n) => (n.id === id ? { ...n, ...settings } : n)) });
  };
  return (
    <>
      <Heading
        aside={
          <Small
            title="Take this base away"
            onClick={() => {
              edit('take base away', (doc) =>
                setPlan(doc, element.id, { bases: element.bases.filter((b) => b.id !== base.id) }),
              );
              selectPlanned(null);
            }}
          >
            <Trash2 size={14} />
          </Small>
        }
      >
        Base {base.name}
      </Heading>
      <TypedField
        key={base.id}
        className="field !h-8 w-full"
        label="Base name"
        value={base.name}
        maxLength={40}
        onTake={(typed) => {
          const name = typed.trim();
          if (name && name !== base.name) set('base name', { name });
        }}
      />
      <p className="py-2 text-[13px] text-wax-500">
        What it does next, and on which frames. Its mark says so on those frames.
      </p>
      {base.notes.map((note) => (
        <div key={note.id} className="flex items-center gap-1.5 pb-1.5 text-[13px] text-wax-500">
          <Select
            label="What it does"
            className="h-8 min-w-0 flex-1 rounded-md bg-soot-800 px-1.5"
            value={note.move}
            options={MOVES.map((move) => ({ value: move, label: move }))}
            onChoose={(move) => {
              setNote(note.id, { move });
            }}
          />
          {(['from', 'length'] as const).map((key) => (
            <TypedField
              key={key}
              label={key === 'from' ? 'From frame' : 'For frames'}
              title={key === 'from' ? 'From frame' : 'For so many frames'}
              className={FIELD}
              inputMode="numeric"
              value={String(key === 'from' ? note.from + 1 : note.length)}
              onTake={(typed) => {
                const frames = Math.round(Number(typed));
                if (frames >= 1 && frames <= 10_000) setNote(note.id, { [key]: key === 'from' ? frames - 1 : frames });
              }}
            />
          ))}
          <button
            type="button"
            aria-label="Take this note away"
            className="moves grid size-8 place-items-center rounded-md hover:bg-soot-800 hover:text-wax-100"
            onClick={() => {
              set('take note away', { notes: base.notes.filter((n) => n.id !== note.id) });
            }}
          >
            <X size={14} />
          </button>
        </div>
      ))}
      <Small
        onClick={() => {
          set('note', { notes: [...base.notes, { id: randomId(), move: 'sway', from: selection().frame, length: 6 }] });
        }}
      >
        <Plus size={14} /> Note
      </Small>
    </>
  );
}
