/** The looks of a use or a plane, with one more to add. */
import { randomId, type AppliedLook, type LookKind, type Id, type ShotDocument } from '@tallow/core/document';
import { addLook, newLook } from '@tallow/core/edit';
import { LOOKS } from '@tallow/core/looks';
import { useCurrent } from '../selection/current.ts';
import { edit } from '../shot/document.ts';
import { AddLook } from './add-look.tsx';
import { LookCard } from './look-card.tsx';
import { setLooks, useLooks } from './look-panel.ts';

interface LookListProps {
  doc: ShotDocument;
  label: string;
  ownerId: Id;
  finishes: readonly AppliedLook[];
  kinds: readonly LookKind[];
  /** The frame of what they are on that is looked at. */
  frame: number;
}

export function LookList({ doc, label, ownerId, finishes, kinds, frame }: LookListProps) {
  const now = useCurrent();
  const open = useLooks((s) => s.open);
  if (!now) return null;
  const add = (kind: LookKind): void => {
    const look = newLook(doc, kind, randomId, 1 + finishes.length);
    edit(`add ${LOOKS[kind].name.toLowerCase()}`, (d) => addLook(d, ownerId, look));
    setLooks({ open: look.id });
  };
  return (
    <>
      <div className="flex items-center justify-between py-1 text-[13px] text-wax-300">
        {label}
        <AddLook kinds={kinds} onAdd={add} />
      </div>
      {finishes.map((look, i) => (
        <LookCard
          key={look.id}
          now={now}
          ownerId={ownerId}
          look={look}
          index={i}
          count={finishes.length}
          open={open === look.id}
          at={{ frame, round: null }}
        />
      ))}
    </>
  );
}
