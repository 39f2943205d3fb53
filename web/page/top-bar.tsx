/** The top bar: the steps of the work, the shot, what is saved, undo and redo. */
import { shotOf } from '@tallow/core/document';
import { setShot } from '@tallow/core/edit';
import { Expand, History, Keyboard, PanelRightClose, Redo2, Undo2 } from 'lucide-react';
import { useState } from 'react';
import { Link, NavLink } from 'react-router';
import { NameField } from '../parts/name-field.tsx';
import { edit, useDocument } from '../shot/document.ts';
import { SavedMark } from '../saving/saved-mark.tsx';
import { ShotFormatFields } from './shot-format.tsx';
import { ActionButton } from '../actions/action-button.tsx';
import { SCREEN_ACTIONS } from '../screen/actions.ts';
import { TIME_ACTIONS } from '../time/actions.ts';
import { VERSION_ACTIONS } from '../versions/actions.ts';
import { titleOf } from '../actions/key-text.ts';

const STEPS = [
  { path: 'plan', label: 'Plan' },
  { path: 'draw', label: 'Draw' },
  { path: 'assemble', label: 'Assemble' },
  { path: 'export', label: 'Export' },
] as const;

/** The steps as words over a taper that burns down as the work goes on. */
function Taper({ step }: { step: (typeof STEPS)[number]['path'] }) {
  const at = STEPS.findIndex((s) => s.path === step);
  return (
    <nav aria-label="Steps" className="relative flex items-end gap-5 pb-1">
      {STEPS.map(({ path, label }, i) => (
        <NavLink
          key={path}
          to={`../${path}`}
          relative="path"
          replace
          className={`font-name relative pb-1.5 text-[15px] ${i === at ? 'text-wax-100' : 'text-wax-500 hover:text-wax-100'}`}
        >
          {label}
          <span
            className={`absolute inset-x-[-10px] bottom-0 h-[2px] ${i < at ? 'bg-flame' : i === at ? 'bg-gradient-to-r from-flame/80 to-flame' : 'bg-soot-700'}`}
          />
          {i === at ? (
            <svg
              className="absolute -bottom-[5px] left-1/2 -translate-x-1/2"
              width="11"
              height="13"
              viewBox="0 0 16 18"
              aria-hidden
            >
              <path d="M8 0c1 4 6 6 6 11a6 6 0 0 1-12 0c0-3 2-4 2-6 1 1 2 1 2 3C7 5 8 3 8 0Z" fill="#ffc25c" />
              <path d="M8 9c1 1 2 2 2 4a2 2 0 0 1-4 0c0-1 2-2 2-4Z" fill="#e2581c" />
            </svg>
          ) : null}
        </NavLink>
      ))}
    </nav>
  );
}

/** The shot's name, changed where it stands. */
function ShotName({ name }: { name: string }) {
  const [naming, setNaming] = useState(false);
  if (naming)
    return (
      <div className="flex w-56">
        <NameField
          label="Name of the shot"
          value={name}
          onDone={(next) => {
            setNaming(false);
            if (next && next !== name) edit('shot name', (doc) => setShot(doc, { name: next }));
          }}
        />
      </div>
    );
  return (
    <button
      type="button"
      className="block h-6 w-full truncate text-right font-semibold leading-6"
      data-tip={`${name} · click to rename`}
      onClick={() => {
        setNaming(true);
      }}
    >
      {name}
    </button>
  );
}

interface TopBarProps {
  readonly step: (typeof STEPS)[number]['path'];
  /** Whether the shot is there: until then the bar has only its room, so that nothing moves when it comes. */
  readonly isOpen: boolean;
}

export function TopBar({ step, isOpen }: TopBarProps) {
  const shot = useDocument((s) => (isOpen && s.doc ? shotOf(s.doc) : null));
  const production = useDocument((s) => s.production);
  const lastDone = useDocument((s) => s.done.at(-1)?.name);
  const lastUndone = useDocument((s) => s.undone.at(-1)?.name);
  return (
    <header className="flex h-12 shrink-0 items-center gap-6 border-b border-soot-700 bg-soot-950 px-4">
      <Link to="/" className="font-name text-[21px] text-flame" data-tip="All shots">
        Tallow
      </Link>
      <Taper step={step} />
      <div className={`ml-auto min-w-0 text-right ${isOpen ? '' : 'invisible'}`}>
        {shot ? <ShotName key={shot.id} name={shot.name} /> : null}
        <div className="flex items-center justify-end gap-1 text-xs text-wax-500">
          <span className="truncate">{production}</span>
          <span>·</span>
          <ShotFormatFields />
        </div>
      </div>
      {isOpen ? <SavedMark /> : <div className="w-[136px] shrink-0" />}
      <div
        className={`flex gap-1 ${isOpen ? '' : 'invisible'} [&_button]:!bg-transparent [&_button:hover]:!bg-soot-800`}
      >
        <ActionButton action={VERSION_ACTIONS.versions} label={titleOf(VERSION_ACTIONS.versions, 'Versions')}>
          <History size={16} />
        </ActionButton>
        <ActionButton
          action={SCREEN_ACTIONS.undo}
          label={lastDone ? titleOf(SCREEN_ACTIONS.undo, `Undo ${lastDone}`) : 'Undo'}
        >
          <Undo2 size={17} />
        </ActionButton>
        <ActionButton
          action={SCREEN_ACTIONS.redo}
          label={lastUndone ? titleOf(SCREEN_ACTIONS.redo, `Redo ${lastUndone}`) : 'Redo'}
        >
          <Redo2 size={17} />
        </ActionButton>
        {step !== 'export' ? (
          <>
            <ActionButton action={TIME_ACTIONS.full}>
              <Expand size={16} />
            </ActionButton>
            <ActionButton action={SCREEN_ACTIONS.panels}>
              <PanelRightClose size={16} />
            </ActionButton>
          </>
        ) : null}
        <ActionButton action={SCREEN_ACTIONS.keys}>
          <Keyboard size={17} />
        </ActionButton>
      </div>
    </header>
  );
}
