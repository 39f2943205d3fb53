/** How a use is seen as a whole: in one colour, in another recolouring of its element, with looks of its own. */
import { find, findAll, randomId, shotOf, type FinishKind, type Placement } from '@tallow/core/document';
import { addFinish, newFinish, setPlacements } from '@tallow/core/edit';
import { LOOKS, lookKinds } from '@tallow/core/looks';
import { AddLook } from '../finishes/add-look.tsx';
import { FinishCard } from '../finishes/finish-card.tsx';
import { setFinishes, useFinishes } from '../finishes/finishes.ts';
import { Select } from '../parts/panel.tsx';
import { useCurrent } from '../selection/current.ts';
import { edit } from '../shot/document.ts';
import type { Level } from '../tools/place/placing.ts';
import { Wash } from './wash.tsx';

export function LooksPanel({ level, placement, since }: { level: Level; placement: Placement; since: number }) {
  const now = useCurrent();
  const open = useFinishes((s) => s.open);
  const element = find(level.doc, 'element', placement.elementId);
  const swatches = findAll(level.doc, 'swatch', shotOf(level.doc).swatches);
  if (!now || !element) return null;
  // Lines take their colour from fills, which a use as a whole does not lie on.
  const kinds = lookKinds().filter((kind) => !LOOKS[kind].forLayers);
  const add = (kind: FinishKind): void => {
    const finish = newFinish(level.doc, kind, randomId, 1 + placement.finishes.length);
    edit(`add ${LOOKS[kind].name.toLowerCase()}`, (doc) => addFinish(doc, placement.id, finish));
    setFinishes({ open: finish.id });
  };
  return (
    <div className="pb-2">
      <Select
        label="All of it in"
        value={placement.tint ?? ''}
        options={[
          { value: '', label: 'its own colours' },
          ...swatches.map(({ id, name }) => ({ value: id, label: name })),
        ]}
        onChoose={(tint) => {
          edit('tint of a use', (doc) => setPlacements(doc, [placement.id], { tint: tint || null }));
        }}
      />
      <Select
        label="Recoloured as"
        value={placement.recolour ?? ''}
        options={[
          { value: '', label: 'its element is' },
          ...element.recolours.map(({ id, name }) => ({ value: id, label: name })),
        ]}
        onChoose={(recolour) => {
          edit('recolouring of a use', (doc) => setPlacements(doc, [placement.id], { recolour: recolour || null }));
        }}
      />
      <div className="flex items-center justify-between py-1 text-[13px] text-wax-300">
        Looks of its own
        <AddLook kinds={kinds} onAdd={add} />
      </div>
      {placement.finishes.map((finish, i) => (
        <FinishCard
          key={finish.id}
          now={now}
          ownerId={placement.id}
          finish={finish}
          index={i}
          count={placement.finishes.length}
          open={open === finish.id}
          at={{ frame: since, round: null }}
        />
      ))}
      {level.holder ? null : <Wash level={level} placement={placement} />}
    </div>
  );
}
