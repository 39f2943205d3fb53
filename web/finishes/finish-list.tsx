/** The looks of a use or a plane, with one more to add. */
import { randomId, type Finish, type FinishKind, type Id, type ShotDocument } from '@tallow/core/document';
import { addFinish, newFinish } from '@tallow/core/edit';
import { LOOKS } from '@tallow/core/looks';
import { useCurrent } from '../selection/current.ts';
import { edit } from '../shot/document.ts';
import { AddLook } from './add-look.tsx';
import { FinishCard } from './finish-card.tsx';
import { setFinishes, useFinishes } from './finishes.ts';

interface FinishListProps {
  doc: ShotDocument;
  label: string;
  ownerId: Id;
  finishes: readonly Finish[];
  kinds: readonly FinishKind[];
  /** The frame of what they are on that is looked at. */
  frame: number;
}

export function FinishList({ doc, label, ownerId, finishes, kinds, frame }: FinishListProps) {
  const now = useCurrent();
  const open = useFinishes((s) => s.open);
  if (!now) return null;
  const add = (kind: FinishKind): void => {
    const finish = newFinish(doc, kind, randomId, 1 + finishes.length);
    edit(`add ${LOOKS[kind].name.toLowerCase()}`, (d) => addFinish(d, ownerId, finish));
    setFinishes({ open: finish.id });
  };
  return (
    <>
      <div className="flex items-center justify-between py-1 text-[13px] text-wax-300">
        {label}
        <AddLook kinds={kinds} onAdd={add} />
      </div>
      {finishes.map((finish, i) => (
        <FinishCard
          key={finish.id}
          now={now}
          ownerId={ownerId}
          finish={finish}
          index={i}
          count={finishes.length}
          open={open === finish.id}
          at={{ frame, round: null }}
        />
      ))}
    </>
  );
}
