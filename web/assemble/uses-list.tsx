/** What is used at a level, plane by plane, nearest first: seen or not, locked or not, picked by a press. */
import { setPlacements } from '@tallow/core/edit';
import { labelOfUse } from '@tallow/core/timing';
import { Eye, EyeOff, Lock, LogIn, Unlock } from 'lucide-react';
import type { ReactNode } from 'react';
import { edit } from '../shot/document.ts';
import { keyOn, openInside, selectUses, type Level } from '../tools/place/placing.ts';
import { lanesOf, type Bar } from './lane.ts';

function Icon({
  label,
  on,
  children,
  onClick,
}: {
  label: string;
  on: boolean;
  children: ReactNode;
  onClick: () => void;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      aria-pressed={on}
      data-tip={label}
      className={`moves grid size-7 shrink-0 place-items-center rounded-md hover:bg-soot-700 hover:text-wax-100 ${on ? 'text-wax-300' : 'text-wax-500'}`}
      onClick={onClick}
    >
      {children}
    </button>
  );
}

function Row({ level, bar: { placement, element }, isSelected }: { level: Level; bar: Bar; isSelected: boolean }) {
  const name = labelOfUse(level.doc, placement);
  const set = (what: string, settings: Parameters<typeof setPlacements>[2]): void => {
    edit(what, (doc) => setPlacements(doc, [placement.id], settings));
  };
  return (
    <div className={`flex h-8 items-center rounded-md pl-2 ${isSelected ? 'bg-flame-deep' : 'hover:bg-soot-800'}`}>
      <button
        type="button"
        aria-pressed={isSelected}
        className={`min-w-0 flex-1 truncate text-left text-[13px] ${placement.visible ? 'text-wax-100' : 'text-wax-500'}`}
        data-tip={name}
        onClick={() => {
          selectUses([placement.id]);
        }}
      >
        {name}
        {placement.name !== null ? <span className="pl-2 text-wax-500">{element.name}</span> : null}
      </button>
      <Icon
        label={`Go inside ${name}`}
        on={false}
        onClick={() => {
          openInside(keyOn(level, placement.id));
        }}
      >
        <LogIn size={14} />
      </Icon>
      <Icon
        label={placement.locked ? `Unlock ${name}` : `Lock ${name}`}
        on={placement.locked}
        onClick={() => {
          set(placement.locked ? 'unlock a use' : 'lock a use', { locked: !placement.locked });
        }}
      >
        {placement.locked ? <Lock size={14} /> : <Unlock size={14} />}
      </Icon>
      <Icon
        label={placement.visible ? `Hide ${name}` : `Show ${name}`}
        on={placement.visible}
        onClick={() => {
          set(placement.visible ? 'hide a use' : 'show a use', { visible: !placement.visible });
        }}
      >
        {placement.visible ? <Eye size={14} /> : <EyeOff size={14} />}
      </Icon>
    </div>
  );
}

export function UsesList({ level, selected }: { level: Level; selected: readonly string[] }) {
  const lanes = lanesOf(level);
  return (
    <div data-testid="uses">
      {lanes.map((lane) => (
        <section key={lane.id} aria-label={lane.name} className="pb-1">
          {lanes.length > 1 || level.holder ? (
            <h3 className="px-2 pb-0.5 pt-1.5 text-xs text-wax-500">{lane.name}</h3>
          ) : null}
          {lane.bars.length === 0 ? <p className="px-2 text-[13px] text-wax-500">Nothing stands here yet.</p> : null}
          {lane.bars.map((bar) => (
            <Row key={bar.placement.id} level={level} bar={bar} isSelected={selected.includes(bar.placement.id)} />
          ))}
        </section>
      ))}
    </div>
  );
}
