/** How a use is seen as a whole: in one colour, in another recolouring of its element, with looks of its own. */
import { find, findAll, shotOf, type Placement } from '@tallow/core/document';
import { setPlacements } from '@tallow/core/edit';
import { LOOKS, lookKinds } from '@tallow/core/looks';
import { LookList } from '../looks/look-list.tsx';
import { SelectRow } from '../parts/panel.tsx';
import { edit } from '../shot/document.ts';
import type { Level } from '../tools/place/placing.ts';
import { Wash } from './wash.tsx';

/** Lines take their colour from fills, which a use as a whole does not lie on. */
const KINDS = lookKinds().filter((kind) => !LOOKS[kind].forLayers);

export function LooksPanel({ level, placement, since }: { level: Level; placement: Placement; since: number }) {
  const element = find(level.doc, 'element', placement.elementId);
  const swatches = findAll(level.doc, 'swatch', shotOf(level.doc).swatches);
  if (!element) return null;
  return (
    <div className="pb-2">
      <SelectRow
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
      <SelectRow
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
      <LookList
        doc={level.doc}
        label="Looks of its own"
        ownerId={placement.id}
        finishes={placement.finishes}
        kinds={KINDS}
        frame={since}
      />
      {level.holder ? null : <Wash level={level} placement={placement} />}
    </div>
  );
}
